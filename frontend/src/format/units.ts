import type { UnitsView } from '../api/types';

const FEET: Record<string, number> = { m: 1, ft: 0.3048, ftUS: 1200 / 3937 };
const MINUS = '\u2212';

/** A minus sign as wide as a digit. */
export function signed(text: string): string {
  // A zero has no sign.
  return /^-0\.?0*$/.test(text) ? text.slice(1) : text.replace('-', MINUS);
}

export function lengthUnit(units: UnitsView): string {
  return units.length;
}

/** Metres in one unit of length that is shown. */
export function metresPer(units: UnitsView): number {
  return FEET[units.length] ?? 1;
}

export function toDisplayLength(metres: number, units: UnitsView): number {
  return metres / (FEET[units.length] ?? 1);
}

export function fromDisplayLength(value: number, units: UnitsView): number {
  return value * (FEET[units.length] ?? 1);
}

export function length(metres: number | null | undefined, units: UnitsView, extra = 0): string {
  if (metres === null || metres === undefined) return '';
  return signed(toDisplayLength(metres, units).toFixed(Math.max(0, units.decimals + extra)));
}

/** A difference of places, with its sign. */
export function signedLength(metres: number | null | undefined, units: UnitsView): string {
  const text = length(metres, units);
  return text === '' || text.startsWith(MINUS) ? text : `+${text}`;
}

export function height(metres: number | null | undefined, units: UnitsView, extra = 0): string {
  if (metres === null || metres === undefined) return '';
  return signed(toDisplayLength(metres, units).toFixed(Math.max(0, units.heights + extra)));
}

/** Small lengths: millimetres, or thousandths of a foot. */
export function small(metres: number | null | undefined, units: UnitsView, sign = false): string {
  if (metres === null || metres === undefined) return '';
  const value = units.length === 'm' ? 1000 * metres : toDisplayLength(metres, units);
  const text = value.toFixed(units.small + (units.length === 'm' ? 0 : 3));
  return signed((sign && value >= 0 ? '+' : '') + text);
}

/** Metres of one small unit, as small() writes them. */
export function metresPerSmall(units: UnitsView): number {
  return units.length === 'm' ? 0.001 : metresPer(units);
}

export function smallUnit(units: UnitsView): string {
  return units.length === 'm' ? 'mm' : units.length;
}

export function area(m2: number, units: UnitsView): string {
  const f = FEET[units.length] ?? 1;
  return `${signed(group((m2 / (f * f)).toFixed(units.areas)))} ${units.length === 'm' ? 'm²' : 'ft²'}`;
}

export function areaUnit(units: UnitsView): string {
  return units.length === 'm' ? 'm²' : 'ft²';
}

export function volume(m3: number, units: UnitsView): string {
  return units.length === 'm'
    ? `${signed(group(m3.toFixed(units.areas)))} m³`
    : `${signed(group((m3 / Math.pow(FEET[units.length] ?? 1, 3) / 27).toFixed(units.areas)))} yd³`;
}

export function volumeUnit(units: UnitsView): string {
  return units.length === 'm' ? 'm³' : 'yd³';
}

/** Thin spaces between thousands. */
export function group(text: string): string {
  const [whole = '', rest] = text.split('.');
  const spaced = whole.replace(/\B(?=(\d{3})+(?!\d))/g, '\u2009');
  return rest === undefined ? spaced : `${spaced}.${rest}`;
}

export function angle(degrees: number, units: UnitsView): string {
  if (units.angle === 'gon') return signed((degrees / 0.9).toFixed(units.angles + 4));
  if (units.angle === 'deg') return signed(degrees.toFixed(units.angles + 5));
  const fine = 10 ** units.angles;
  const parts = Math.round(Math.abs(degrees) * 3600 * fine);
  const minutes = Math.floor(parts / (60 * fine));
  const s = ((parts % (60 * fine)) / fine).toFixed(units.angles).padStart(units.angles > 0 ? 3 + units.angles : 2, '0');
  const text = `${Math.floor(minutes / 60)} ${String(minutes % 60).padStart(2, '0')} ${s}`;
  return degrees < 0 ? MINUS + text : text;
}

/** Small angles: arc seconds, or milligon. */
export function smallAngle(degrees: number | null | undefined, units: UnitsView, sign = false): string {
  if (degrees === null || degrees === undefined) return '';
  const value = units.angle === 'gon' ? (degrees / 0.9) * 1000 : degrees * 3600;
  return signed((sign && value >= 0 ? '+' : '') + value.toFixed(units.small)) + (units.angle === 'gon' ? ' mgon' : '"');
}

export function angleName(units: UnitsView): string {
  return { dms: 'D M S', deg: 'decimal °', gon: 'gon' }[units.angle] ?? units.angle;
}

const ANGULAR = new Set(['direction', 'zenith', 'azimuth', 'angle']);

export function isAngular(kind: string): boolean {
  return ANGULAR.has(kind);
}

export function observed(kind: string, value: number, units: UnitsView): string {
  return isAngular(kind) ? angle(value, units) : length(value, units, 1);
}

export function residual(kind: string, value: number | null, units: UnitsView): string {
  return isAngular(kind) ? smallAngle(value, units, true) : value === null ? '' : `${small(value, units, true)} ${smallUnit(units)}`;
}

export function when(iso: string): string {
  return new Date(iso).toLocaleString('en-GB', { day: '2-digit', month: 'short', hour: '2-digit', minute: '2-digit' });
}

export function fileSize(n: number): string {
  return n < 1024 ? `${n} B` : n < 1048576 ? `${(n / 1024).toFixed(1)} kB` : `${(n / 1048576).toFixed(1)} MB`;
}

const UNIT_NAMES: Record<string, string> = {
  m: 'm',
  mm: 'mm',
  cm: 'cm',
  ft: 'ft (international)',
  ftUS: 'ft (US survey)',
  deg: 'decimal °',
  dms: '° \u2032 \u2033',
  'd.mmss': 'D.MMSS packed',
  gon: 'gon',
  m2: 'm²',
  mm2: 'mm²',
};

/** A unit of a file's column, for people. */
export function unitName(unit: string): string {
  return UNIT_NAMES[unit] ?? unit;
}
