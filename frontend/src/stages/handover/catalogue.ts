import type { CatalogueView } from '../../api/types';

export type FeatureType = CatalogueView['types'][number];
export type Attribute = FeatureType['attributes'][number];

/** A code without blanks and signs that other programs cannot hold. */
export function correctedCode(code: string): string {
  return code
    .trim()
    .replace(/[^\p{L}\p{N}_.-]+/gu, '_')
    .replace(/^_+|_+$/g, '');
}

export const newAttribute = (name = ''): Attribute => ({
  name,
  kind: 'text',
  required: false,
  options: [],
  default: '',
  least: null,
  most: null,
  decimals: 2,
  number: null,
  unit: '',
  length: 80,
  isFilled: true,
});

export const newType = (code = ''): FeatureType => ({
  code,
  alias: '',
  kind: 'point',
  symbol: 'dot',
  style: 'solid',
  colour: '#2a5bd7',
  logging: 'none',
  every: 1,
  positions: 1,
  solution: 'any',
  accuracy: 0,
  attributes: [],
});

/** What a form begins with: defaults, and date and time as they are now. */
export function beginning(type: FeatureType, now: Date): Record<string, string> {
  const values: Record<string, string> = {};
  const two = (n: number) => String(n).padStart(2, '0');
  for (const a of type.attributes) {
    if (a.kind === 'number') values[a.name] = a.number === null ? '' : a.number.toFixed(a.decimals);
    else if (a.kind === 'date' && a.isFilled) values[a.name] = `${now.getFullYear()}-${two(now.getMonth() + 1)}-${two(now.getDate())}`;
    else if (a.kind === 'time' && a.isFilled) values[a.name] = [now.getHours(), now.getMinutes(), now.getSeconds()].map(two).join(':');
    else values[a.name] = a.default;
  }
  return values;
}

/** What is missing or out of range before a feature may be kept, in words; the server says it again. */
export function missingIn(type: FeatureType, values: Record<string, string>): string {
  for (const a of type.attributes) {
    const value = (values[a.name] ?? '').trim();
    if (value === '') {
      if (a.required) return `${a.name} is missing`;
      continue;
    }
    if (a.kind !== 'number') continue;
    const number = Number(value);
    if (Number.isNaN(number)) return `${a.name} is no number`;
    if ((a.least !== null && number < a.least) || (a.most !== null && number > a.most))
      return `${a.name} is outside ${a.least ?? 'any'} to ${a.most ?? 'any'} ${a.unit}`.trim();
  }
  return '';
}

export const placesNeeded = (type: FeatureType) => ({ point: 1, line: 2, area: 3 })[type.kind] ?? 1;

/** Places at even distances along a way, and how far it is to the next one; beginning so far before the first. */
export function logged(
  from: [number, number],
  to: [number, number],
  every: number,
  left: number,
): { at: [number, number][]; left: number } {
  const length = Math.hypot(to[0] - from[0], to[1] - from[1]);
  const at: [number, number][] = [];
  let along = left;
  for (; along <= length + 1e-9 && length > 0; along += every)
    at.push([from[0] + ((to[0] - from[0]) * along) / length, from[1] + ((to[1] - from[1]) * along) / length]);
  return { at, left: length > 0 ? along - length : left };
}

const SYMBOLS: Record<string, string> = {
  dot: '<circle cx="7" cy="7" r="3" fill="COLOUR" stroke="none"/>',
  circle: '<circle cx="7" cy="7" r="4.5"/>',
  square: '<rect x="2.5" y="2.5" width="9" height="9"/>',
  triangle: '<path d="M7 2 12 11.5H2Z"/>',
  cross: '<path d="M2 7H12M7 2V12"/>',
};
const DASHES: Record<string, string> = { solid: '', dashed: '4 2.5', dotted: '1.5 2' };

/** How a type is drawn, small: its symbol, its line, or an area. */
export function signOf(type: Pick<FeatureType, 'kind' | 'symbol' | 'style' | 'colour'>): string {
  const dash = DASHES[type.style] ? ` stroke-dasharray="${DASHES[type.style]}"` : '';
  const drawn =
    type.kind === 'point'
      ? (SYMBOLS[type.symbol] ?? SYMBOLS.dot!).replace('COLOUR', type.colour)
      : type.kind === 'line'
        ? `<path d="M1 10 5 4 9 9 13 4"${dash}/>`
        : `<path d="M2 4 8 1.5 12.5 6 10 12 3 11Z" fill="${type.colour}" fill-opacity=".15"${dash}/>`;
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="14" height="14" fill="none" stroke="${type.colour}" stroke-width="1.4">${drawn}</svg>`;
  return `data:image/svg+xml,${encodeURIComponent(svg)}`;
}
