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
