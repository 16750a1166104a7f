import type { FlightsView, FlightView, MissionView, RaysView, UnitsView } from '../../api/types';
import type { Column } from '../../figures/columns';
import { length, lengthUnit, small, smallUnit } from '../../format/units';
import { emptyScene, type Scene, type ScenePath } from '../../sketch/scene';

export type Ray = { image: string; x: number; y: number };

export function groupHeadline(f: FlightView | null, m: MissionView): { words: string; tone: 'holds' | 'doubt' | 'fails' } {
  if (!f) return { words: `${m.name}: ${m.images.length} images, not oriented yet`, tone: 'doubt' };
  if (!f.converged)
    return { words: 'The orientation does not come to an end: look at what the file says of camera and places', tone: 'fails' };
  if (f.alone.length > 0) return { words: `${f.alone.length} of ${f.images} images do not join the others`, tone: 'fails' };
  return { words: `The images agree: pick a place in one of them`, tone: 'holds' };
}

export function groupSentences(f: FlightView | null, m: MissionView, units: UnitsView): string {
  const missing = m.missing > 0 ? ` ${m.missing} of its images have not come in.` : '';
  if (!f)
    return `Taken about ${length(m.above, units, -2)} ${lengthUnit(units)} from what they show; a pixel there is ${small(m.pixel, units)} ${smallUnit(units)}.${missing}`;
  const left = f.left > 0 ? `; ${f.left} that contradicted the others are left out` : '';
  return (
    `${f.joined} of ${f.images} images joined by ${f.points} tie points, ${f.rays} rays${left}. ` +
    `A pixel shows ${small(f.pixel, units)} ${smallUnit(units)}.${missing}`
  );
}

/** How well a picked place is known, and whether a ray speaks against the others. */
export function placeWords(rays: RaysView | null, units: UnitsView): { words: string; tone: 'holds' | 'doubt' | 'quiet' } {
  if (!rays) return { words: 'Click a place in an image; the others are searched for it.', tone: 'quiet' };
  if (!rays.place || !rays.sd)
    return {
      words:
        rays.rays.length > 1
          ? rays.mistaken
            ? `The rays do not meet; that of ${rays.mistaken} speaks against the others.`
            : 'The rays do not meet; take the mistaken one away.'
          : 'Found in no other image. Choose another and click the place where the line runs.',
      tone: 'doubt',
    };
  const plan = small(Math.hypot(rays.sd[0]!, rays.sd[1]!), units);
  const known = `known to ${plan} ${smallUnit(units)} in plan, ${small(rays.sd[2]!, units)} in height`;
  if (rays.mistaken) return { words: `The ray of ${rays.mistaken} speaks against the others; move it or take it away.`, tone: 'doubt' };
  return { words: `${rays.rays.length} rays meet; the place is ${known}`, tone: 'holds' };
}

export const off = (r: RaysView['rays'][number]): number => (r.dx === null || r.dy === null ? 0 : Math.hypot(r.dx, r.dy));

const figure = { align: 'right' as const, mono: true };
export const rayColumns: Column<RaysView['rays'][number]>[] = [
  { key: 'image', title: 'image', width: 'minmax(100px, 1fr)', value: (r) => r.image },
  ...(['x', 'y'] as const).map((title) => ({
    key: title,
    title,
    unit: 'px',
    width: '70px',
    ...figure,
    value: (r: RaysView['rays'][number]) => r[title],
    text: (r: RaysView['rays'][number]) => r[title].toFixed(1),
  })),
  {
    key: 'off',
    title: 'off by',
    unit: 'px',
    width: '70px',
    ...figure,
    value: off,
    text: (r) => (r.dx === null ? '—' : off(r).toFixed(2)),
  },
  {
    key: 'alike',
    title: 'alike',
    unit: '%',
    width: '66px',
    ...figure,
    value: (r) => r.alike,
    text: (r) => (r.alike === null ? 'clicked' : (100 * r.alike).toFixed(0)),
  },
  { key: 'remove', title: '', width: '64px', value: () => '' },
];

type GroupRow = { id: number; name: string; images: number; flight: FlightView | null };
export const groupRows = (stage: FlightsView): GroupRow[] =>
  stage.missions.filter((m) => m.isGroup).map((m) => ({ ...m, flight: stage.flights.find((f) => f.mission === m.id) ?? null }));
export const groupColumns: Column<GroupRow>[] = [
  { key: 'name', title: 'group', width: 'minmax(100px, 1fr)', value: (g) => g.name },
  { key: 'images', title: 'images', width: '70px', ...figure, value: (g) => g.images },
  {
    key: 'points',
    title: 'tie points',
    width: '84px',
    ...figure,
    value: (g) => g.flight?.points ?? null,
    text: (g) => String(g.flight?.points ?? '—'),
  },
  {
    key: 'state',
    title: '',
    width: '110px',
    value: (g) => (!g.flight ? 'not oriented' : g.flight.stale.length > 0 ? '◐ stale' : '✓ oriented'),
  },
];

/** Where the images were taken and look, and the place that is picked. */
export function groupScene(m: MissionView | null, points: FlightsView['points'], place: number[] | null, active: string): Scene {
  if (!m) return emptyScene;
  const paths: ScenePath[] = m.images
    .filter((i) => i.footprint.length === 3)
    .map((i) => ({
      path: [...i.footprint, i.footprint[0]!].flatMap((c) => [c[0], c[1]]),
      kind: i.file === active ? 'boundary' : 'track',
    }));
  return {
    ...emptyScene,
    points: [
      ...points.map((p) => ({ name: p.name, e: p.e, n: p.n, role: p.role === 'check' ? ('check' as const) : ('control' as const) })),
      ...(place ? [{ name: 'picked', e: place[0]!, n: place[1]!, role: 'surveyed' as const }] : []),
    ],
    paths,
    notes: m.images.map((i) => ({ e: i.e, n: i.n, text: '·', tone: 'plain' as const })),
    caption: 'what each image looks at, in plan',
  };
}

/** Rays with one set, moved or taken away; the first stays first. */
export function withRay(rays: Ray[], image: string, at: { x: number; y: number } | null): Ray[] {
  const round = (v: number) => Math.round(v * 100) / 100;
  if (!at) return rays.filter((r) => r.image !== image);
  const ray = { image, x: round(at.x), y: round(at.y) };
  return rays.some((r) => r.image === image) ? rays.map((r) => (r.image === image ? ray : r)) : [...rays, ray];
}
