import type { HaulView, SliceView, UnitsView, VolumeView } from '../../api/types';
import { figures, words, type Column } from '../../figures/columns';
import { length, volume, volumeUnit } from '../../format/units';

const bare = (m3: number, units: UnitsView) => volume(m3, units).replace(/ \S+$/, '');

export function volumeColumns(units: UnitsView): Column<VolumeView>[] {
  const m3 = (key: string, value: (v: VolumeView) => number) =>
    figures<VolumeView>(key, key, 78, value, (v) => bare(value(v), units), { unit: volumeUnit(units) });
  return [
    { ...words<VolumeView>('name', 'volume', 120, (v) => v.name), width: 'minmax(120px, 1fr)' },
    { ...words<VolumeView>('against', 'against', 120, (v) => v.comparedTo), width: 'minmax(100px, 1fr)' },
    m3('cut', (v) => v.cut),
    m3('fill', (v) => v.fill),
    m3('net', (v) => v.net),
    words('state', '', 64, (v) => (v.stale.length > 0 ? '◐ stale' : '✓ fresh')),
  ];
}

export function sliceColumns(units: UnitsView): Column<SliceView>[] {
  const unit = units.length;
  const m3 = (key: 'cut' | 'fill') =>
    figures<SliceView>(
      key,
      key,
      90,
      (s) => s[key],
      (s) => (s[key] === 0 ? '–' : bare(s[key], units)),
      { unit: volumeUnit(units) },
    );
  return [
    figures(
      'from',
      'from',
      90,
      (s) => s.from,
      (s) => length(s.from, units, -1),
      { unit },
    ),
    figures(
      'to',
      'to',
      90,
      (s) => s.to,
      (s) => length(s.to, units, -1),
      { unit },
    ),
    m3('cut'),
    m3('fill'),
  ];
}

export function haulColumns(units: UnitsView): Column<HaulView>[] {
  const m3 = (key: string, title: string, hint: string, value: (h: HaulView) => number) =>
    figures<HaulView>(key, title, 78, value, (h) => bare(value(h), units), { unit: volumeUnit(units), hint });
  return [
    { ...words<HaulView>('material', 'material', 110, (h) => h.material), width: 'minmax(110px, 1fr)' },
    m3('loose', 'cut, loose', 'the cut on the lorries', (h) => h.looseCut),
    m3('makes', 'makes fill', 'fill that the cut gives, compacted', (h) => h.makes),
    m3('over', 'over, loose', 'what is carried away; with a minus brought in', (h) => h.looseOver),
    figures(
      'mass',
      'over',
      70,
      (h) => h.massOver,
      (h) => h.massOver.toFixed(0).replace('-', '−'),
      { unit: 't' },
    ),
    figures('loads', 'loads', 52, (h) => h.loads),
  ];
}
