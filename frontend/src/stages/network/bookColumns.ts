import type { BookSetupView, HeldSightView, PlacedView, UnitsView } from '../../api/types';
import { figures, words, type Column } from '../../figures/columns';
import { angle, height, length, lengthUnit, small, smallAngle, smallUnit } from '../../format/units';

export type Target = BookSetupView['targets'][number];
export type Pointing = BookSetupView['pointings'][number];

const orEmpty = (value: number | null, text: (value: number) => string) => (value === null ? '' : text(value));

export const setupColumns = (u: UnitsView): Column<BookSetupView>[] => {
  const fine = (key: string, title: string, of: (s: BookSetupView) => number | null) =>
    figures<BookSetupView>(key, title, 62, of, (s) => smallAngle(of(s), u), { sortBy: (s) => Math.abs(of(s) ?? 0) });
  return [
    words('station', 'station', 60, (s) => s.station),
    figures(
      'hi',
      'hi',
      52,
      (s) => s.hi,
      (s) => length(s.hi, u),
      { unit: lengthUnit(u) },
    ),
    figures('rounds', 'rounds', 50, (s) => s.rounds),
    figures('targets', 'targets', 52, (s) => s.targets.length),
    fine('collimation', 'collimation', (s) => s.collimation),
    fine('index', 'index', (s) => s.index),
    fine('spread', 'spread', (s) => s.sdDirection ?? s.spread),
    figures(
      'ppm',
      'ppm',
      44,
      (s) => s.ppm,
      (s) => s.ppm.toFixed(1),
    ),
    words('mode', 'goes in as', 66, (s) => (s.mode === 'means' ? 'means' : 'pointings')),
  ];
};

export const targetColumns = (u: UnitsView, onGrid: boolean): Column<Target>[] => {
  const line = (key: string, title: string, of: (t: Target) => number | null, hint = '') =>
    figures<Target>(key, title, 78, of, (t) => length(of(t), u, 1), { unit: lengthUnit(u), hint });
  return [
    words('target', 'target', 54, (t) => t.target),
    words('faces', 'faces', 40, (t) => t.faces),
    figures('n', 'sights', 40, (t) => t.pointings),
    figures(
      'direction',
      'direction',
      88,
      (t) => t.direction,
      (t) => angle(t.direction, u),
    ),
    figures(
      'zenith',
      'zenith',
      84,
      (t) => t.zenith,
      (t) => angle(t.zenith, u),
    ),
    line('slope', 'slope', (t) => t.slope),
    line('horizontal', 'horizontal', (t) => t.horizontal, 'At the height of the instrument, with curvature and refraction'),
    ...(onGrid
      ? [
          line('ellipsoid', 'ellipsoid', (t) => t.ellipsoid, 'The horizontal distance brought down to the ellipsoid'),
          line('grid', 'grid', (t) => t.grid, 'On the grid: the ellipsoidal distance times the mean scale of the line'),
        ]
      : []),
    figures(
      'dh',
      'height diff.',
      76,
      (t) => t.heightDifference,
      (t) => height(t.heightDifference, u, 1),
      { unit: lengthUnit(u) },
    ),
  ];
};

export const pointingColumns = (u: UnitsView): Column<Pointing>[] => [
  figures('line', 'line', 40, (p) => p.line),
  words('round', 'round', 64, (p) => p.round),
  figures('face', 'face', 36, (p) => p.face),
  words('target', 'target', 54, (p) => `${p.target}${p.corrected ? ' ✎' : ''}`),
  figures(
    'ht',
    'ht',
    52,
    (p) => p.ht,
    (p) => length(p.ht, u),
    { unit: lengthUnit(u) },
  ),
  figures(
    'direction',
    'direction',
    92,
    (p) => p.direction,
    (p) => orEmpty(p.direction, (v) => angle(v, u)),
  ),
  figures(
    'zenith',
    'zenith',
    92,
    (p) => p.zenith,
    (p) => orEmpty(p.zenith, (v) => angle(v, u)),
  ),
  figures(
    'distance',
    'distance',
    78,
    (p) => p.distance,
    (p) => length(p.distance, u, 1),
    { unit: lengthUnit(u) },
  ),
];

export const placedColumns = (u: UnitsView): Column<PlacedView>[] => {
  const place = (key: 'e' | 'n' | 'h', title: string) =>
    figures<PlacedView>(
      key,
      title,
      key === 'h' ? 62 : 82,
      (p) => p[key],
      (p) => (key === 'h' ? height(p.h, u) : length(p[key], u)),
      { unit: lengthUnit(u) },
    );
  const sd = (key: string, title: string, of: (p: PlacedView) => number | null) =>
    figures<PlacedView>(key, title, 34, of, (p) => small(of(p), u), {
      unit: smallUnit(u),
      hint: 'Standard deviation, from this set-up and the marks it leans on',
    });
  const off = (key: 'offE' | 'offN' | 'offH', title: string) =>
    figures<PlacedView>(
      key,
      title,
      46,
      (p) => p[key],
      (p) => small(p[key], u, true),
      { unit: smallUnit(u), hint: 'From this set-up less what the project knows' },
    );
  return [
    words('name', 'point', 48, (p) => p.name),
    place('e', 'easting'),
    place('n', 'northing'),
    place('h', 'height'),
    sd('sd', 'sd', (p) => (p.sdE === null || p.sdN === null ? null : Math.max(p.sdE, p.sdN))),
    sd('sdH', 'sd H', (p) => p.sdH),
    off('offE', 'off E'),
    off('offN', 'off N'),
    off('offH', 'off H'),
  ];
};

export const heldColumns = (u: UnitsView): Column<HeldSightView>[] => {
  const fine = (key: 'across' | 'along' | 'up', title: string) =>
    figures<HeldSightView>(
      key,
      title,
      110,
      (s) => s[key],
      (s) => small(s[key], u, true),
      {
        unit: smallUnit(u),
        hint: 'Observed less computed',
        sortBy: (s) => Math.abs(s[key] ?? 0),
      },
    );
  return [
    words('target', 'leans on', 80, (s) => s.target),
    fine('across', 'across'),
    fine('along', 'along'),
    fine('up', 'in height'),
    words('flagged', '', 60, (s) => (s.flagged ? '▲ look' : '')),
  ];
};
