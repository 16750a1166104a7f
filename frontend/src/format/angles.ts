import { group, signed } from './units';

/** What was understood of a typed angle or number: its value, the words for it, or what is wrong with it. */
export interface Reading {
  value: number | null;
  said: string;
  problem: string;
}

export type AngleKind = 'lat' | 'lon' | 'angle';

const EMPTY: Reading = { value: null, said: '', problem: '' };
const LIMIT: Record<AngleKind, number> = { lat: 90, lon: 360, angle: 400 };

function wrong(problem: string): Reading {
  return { value: null, said: '', problem };
}

/** Degrees, minutes and seconds with a letter for the side; so that what was typed can be told from what was meant. */
export function sayAngle(degrees: number, kind: AngleKind, decimals = 2): string {
  const units = Math.round(Math.abs(degrees) * 3600 * 10 ** decimals);
  const second = units % (60 * 10 ** decimals);
  const minutes = Math.floor(units / (60 * 10 ** decimals));
  const text = `${Math.floor(minutes / 60)}° ${String(minutes % 60).padStart(2, '0')}′ ${(second / 10 ** decimals).toFixed(decimals).padStart(decimals > 0 ? decimals + 3 : 2, '0')}″`;
  if (kind === 'angle') return (degrees < 0 ? '\u2212' : '') + text;
  return `${text} ${kind === 'lat' ? (degrees < 0 ? 'S' : 'N') : degrees < 0 ? 'W' : 'E'}`;
}

/**
 * One number is decimal degrees; two are degrees and minutes; three are degrees, minutes and seconds. A letter N, S, E or W
 * or a sign gives the side.
 */
export function readAngle(text: string, kind: AngleKind): Reading {
  let rest = text.trim().replaceAll('\u2212', '-').replaceAll('\u2013', '-').toUpperCase();
  if (rest === '') return EMPTY;
  const letter = /^([NSEW])\b|([NSEW])$/.exec(rest);
  const side = letter ? (letter[1] ?? letter[2])! : '';
  if (side !== '') {
    rest = rest.replace(/^[NSEW]\s*|\s*[NSEW]$/, '').trim();
    if (kind === 'angle') return wrong('an angle has no side; leave the letter away');
    if ((kind === 'lat') !== 'NS'.includes(side)) return wrong(`${side} is not a side of ${kind === 'lat' ? 'latitude' : 'longitude'}`);
  }
  const minus = rest.startsWith('-');
  rest = rest.replace(/^[-+]\s*/, '');
  if (minus && side !== '') return wrong(`both a minus and ${side}; give one of them`);
  const parts = rest
    .replace(/(\d),(\d)/g, '$1.$2')
    .split(/[\s°º'’′"”″:]+|[DM](?=\s*\d)/)
    .filter((p) => p !== '');
  if (parts.length === 0 || parts.length > 3 || parts.some((p) => !/^\d+(\.\d*)?$/.test(p))) {
    return wrong('type decimal degrees (39.05), degrees and minutes (39 05), or degrees, minutes and seconds (39 05 30)');
  }
  if (parts.slice(0, -1).some((p) => p.includes('.'))) return wrong('only the last part may have decimals');
  const [d = 0, m = 0, s = 0] = parts.map(Number);
  if (parts.length > 1 && m >= 60) return wrong(`${parts[1]} minutes are not below 60`);
  if (parts.length > 2 && s >= 60) return wrong(`${parts[2]} seconds are not below 60`);
  const degrees = (d + m / 60 + s / 3600) * (minus || side === 'S' || side === 'W' ? -1 : 1);
  if (Math.abs(degrees) > LIMIT[kind]) {
    return wrong(
      `${kind === 'lat' ? 'a latitude lies between −90 and 90' : kind === 'lon' ? 'a longitude lies between −360 and 360' : 'an angle lies between −400 and 400'} degrees`,
    );
  }
  return {
    value: degrees,
    said:
      parts.length === 1
        ? `decimal degrees: ${sayAngle(degrees, kind)}`
        : `${parts.length === 2 ? 'degrees, minutes' : 'degrees, minutes, seconds'}: ${sayAngle(degrees, kind)} = ${signed(degrees.toFixed(6))}°`,
    problem: '',
  };
}

/** How far a value lies beyond limits, degrees. */
function beyond(value: number, low: number, high: number): number {
  return value < low ? low - value : value > high ? value - high : 0;
}

export interface SideHint {
  text: string;
  /** The value that was probably meant. */
  instead: number | null;
}

const NEAR = 2;

/** A longitude without its west, a latitude without its south: said when the other side would land at the project. */
export function sideHint(value: number | null, kind: AngleKind, extent: number[] | null): SideHint | null {
  if (value === null || extent === null || kind === 'angle') return null;
  const [low, high] = kind === 'lat' ? [extent[0]!, extent[2]!] : [extent[1]!, extent[3]!];
  const away = beyond(value, low, high);
  if (away <= NEAR) return null;
  const mirrored = beyond(-value, low, high);
  const where = `${away.toFixed(away < 10 ? 1 : 0)}° from the project`;
  if (mirrored <= NEAR) {
    const letter = kind === 'lat' ? (value > 0 ? 'S' : 'N') : value > 0 ? 'W' : 'E';
    return { text: `This lies ${where}; with ${letter} it lies at the project.`, instead: -value };
  }
  return { text: `This lies ${where}.`, instead: null };
}

/** A typed number with its thousands grouped, so that a digit too many is seen; a comma is a decimal comma. */
export function readNumber(text: string, unit: string): Reading {
  const plain = text
    .trim()
    .replaceAll('\u2212', '-')
    .replace(/[\s\u2009\u202f']/g, '');
  if (plain === '') return EMPTY;
  if (/,\d{3}(,|\.|$)/.test(plain) && /,.*[,.]/.test(plain)) return wrong('leave the commas between thousands away');
  const value = Number(plain.replace(',', '.'));
  if (!Number.isFinite(value) || !/\d/.test(plain)) return wrong('is not a number');
  const shown = plain.replace(',', '.').replace(/^[-+]/, '');
  return { value, said: `${signed((value < 0 ? '-' : '') + group(shown))}${unit === '' ? '' : ` ${unit}`}`, problem: '' };
}
