import type { BaselineRunView, BaselinesView, BaselineView } from '../../api/types';
import { clock, type Zone } from './times';

export interface Verdict {
  headline: string;
  sentences: string[];
}

export function runOf(b: BaselineView): BaselineRunView | null {
  return b.runs[0] ?? null;
}

const plural = (n: number, one: string, many = `${one}s`) => `${n} ${n === 1 ? one : many}`;

/** The answer of the stage in words: what is not fixed, what left its mark, how loops close. */
export function verdict(view: BaselinesView, zone: Zone): Verdict {
  const solved = view.baselines.filter((b) => b.runs.length > 0 && !b.moves);
  const fixed = solved.filter((b) => runOf(b)?.solution === 'fixed');
  const open = solved.filter((b) => runOf(b)?.solution !== 'fixed');
  const moved = view.baselines.filter((b) => (b.epochs?.moves.length ?? 0) > 0);
  const names = [...new Set(moved.map((b) => b.epochs!.mark))];
  const sentences: string[] = [];
  if (solved.length === 0 && view.baselines.every((b) => b.runs.length === 0)) {
    const independent = view.baselines.filter((b) => b.independent).length;
    return {
      headline:
        view.baselines.length > 0 ? `${plural(view.baselines.length, 'baseline')} can be processed` : 'No two receivers recorded together',
      sentences:
        view.baselines.length > 0
          ? [`${independent} of them are independent: they carry all that was recorded; the others close loops.`]
          : ['A baseline needs two occupations with two minutes in common. Bring in the other receiver’s file, or a reference station’s.'],
    };
  }
  for (const name of names) {
    const b = moved.find((m) => m.epochs!.mark === name)!;
    const move = b.epochs!.moves[0]!;
    const keep = b.epochs!.keep === null ? null : b.epochs!.stands[b.epochs!.keep];
    const left = view.leap ?? 0;
    sentences.push(
      `${name} moved ${Math.hypot(move.shift[0]!, move.shift[1]!).toFixed(0)} mm ${compass(move.shift[0]!, move.shift[1]!)} between ` +
        `${clock(b.epochs!.first + move.from, zone, left)} and ${clock(b.epochs!.first + move.to, zone, left)}` +
        (b.epochs!.moves.length > 1 ? `, and ${b.epochs!.moves.length - 1} more time(s).` : ' and stayed there.') +
        (keep
          ? ` The ${Math.round((keep.to - keep.from) / 60)} minutes ${b.epochs!.keep === 0 ? 'before' : 'of its longest stand'} ${isTrimmed(view, b) ? 'are' : 'can be'} kept.`
          : ''),
    );
  }
  const isOpen = open.length === 0 ? '' : `${plural(open.length, 'baseline is', 'baselines are')} not fixed`;
  const headline =
    names.length > 0 && open.length > 0
      ? `${names.join(', ')} left ${names.length === 1 ? 'its mark' : 'their marks'}; ${plural(fixed.length, 'baseline is', 'baselines are')} fixed`
      : open.length > 0
        ? `${isOpen}; ${plural(fixed.length, 'is', 'are')} fixed`
        : solved.length === 0
          ? `${plural(view.baselines.filter((b) => b.runs.length > 0).length, 'track is', 'tracks are')} there`
          : solved.length === 1
            ? 'The baseline is fixed'
            : `All ${solved.length} baselines are fixed`;
  const closures = view.closures.filter((c) => c.independent);
  const worst = closures[0];
  if (worst) {
    sentences.push(
      worst.size <= worst.allowed
        ? `Loops and repeats close: the worst by ${(1000 * worst.size).toFixed(0)} mm of ${(1000 * worst.allowed).toFixed(0)} allowed.`
        : `${worst.kind === 'loop' ? 'The loop' : 'The repeat'} ${worst.marks.join(' – ')} misses by ${(1000 * worst.size).toFixed(0)} mm, ${(1000 * worst.allowed).toFixed(0)} allowed.`,
    );
  } else if (view.closures.length === 0) {
    sentences.push('Nothing checks them yet: no loop, no baseline measured twice.');
  } else {
    sentences.push('Loops are of receivers that recorded at once: they close by themselves and check nothing.');
  }
  if (open.length > 0 && names.length === 0) {
    sentences.push('Solve one epoch by epoch to see whether its receiver stood still.');
  }
  return { headline, sentences };
}

/** Whether a part of the rover's session is used only. */
export function isTrimmed(view: BaselinesView, b: BaselineView): boolean {
  const rover = view.occupations.find((o) => o.id === b.rover);
  return rover !== undefined && (rover.trimFrom !== null || rover.trimTo !== null);
}

const POINTS = ['north', 'north-east', 'east', 'south-east', 'south', 'south-west', 'west', 'north-west'];

export function compass(east: number, north: number): string {
  return POINTS[(Math.round((Math.atan2(east, north) * 4) / Math.PI) + 8) % 8]!;
}
