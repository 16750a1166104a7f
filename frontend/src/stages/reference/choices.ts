import type { LocalizationRequest } from '../../api/types';
import type { Pair } from './pairs';

type Parameter = 'shiftE' | 'shiftN' | 'rotation' | 'scale';

/** What is fitted and what is held: metres, degrees clockwise, a plain ratio. */
export interface FitChoices {
  hold: Record<Parameter, boolean>;
  held: Record<Parameter, number | null>;
  vertical: 'none' | 'shift' | 'plane';
}

export const everythingFitted = (): FitChoices => ({
  hold: { shiftE: false, shiftN: false, rotation: false, scale: false },
  held: { shiftE: 0, shiftN: 0, rotation: 0, scale: 1 },
  vertical: 'shift',
});

/** As a request says it: a held value, or null for what is fitted. */
export function asked(c: FitChoices): Pick<LocalizationRequest, Parameter | 'vertical'> {
  const value = (p: Parameter) => (c.hold[p] ? c.held[p] : null);
  return { shiftE: value('shiftE'), shiftN: value('shiftN'), rotation: value('rotation'), scale: value('scale'), vertical: c.vertical };
}

interface Place {
  e: number;
  n: number;
  h: number | null;
}

/** The open file of a localization, as far as the page takes it up again (docs/formats.md). */
export interface LocalizationFile {
  name: string;
  grid: { system: string; heights: string };
  horizontal: { shift: { e: number; n: number }; rotation: number; scale: number; held: string[] };
  vertical: { model: FitChoices['vertical'] };
  pairs: { name: string; local: Place; grid: Place; use: { horizontal: boolean; vertical: boolean } }[];
}

export function choicesOf(file: LocalizationFile): FitChoices {
  const { shift, rotation, scale, held } = file.horizontal;
  const free = everythingFitted();
  const hold = {
    shiftE: held.includes('shift.e'),
    shiftN: held.includes('shift.n'),
    rotation: held.includes('rotation'),
    scale: held.includes('scale'),
  };
  return {
    hold,
    // What was fitted is offered again as nothing turned and nothing stretched; shifts are best taken as they came out.
    held: {
      shiftE: shift.e,
      shiftN: shift.n,
      rotation: hold.rotation ? rotation : free.held.rotation,
      scale: hold.scale ? scale : free.held.scale,
    },
    vertical: file.vertical.model,
  };
}

export function pairsOf(file: LocalizationFile): Pair[] {
  return file.pairs.map((p) => ({
    name: p.name,
    localE: p.local.e,
    localN: p.local.n,
    localH: p.local.h,
    gridE: p.grid.e,
    gridN: p.grid.n,
    gridH: p.grid.h,
    ...p.use,
  }));
}

/** Heights and geoid of the grid side: "ellipsoidal", or "geoid|WHICH". */
export function heightsOf(file: LocalizationFile): { heights: 'ellipsoidal' | 'geoid'; geoid: string } {
  return file.grid.heights.startsWith('geoid|')
    ? { heights: 'geoid', geoid: file.grid.heights.slice(6) }
    : { heights: 'ellipsoidal', geoid: '' };
}
