import type { SheetRequest, SheetsView, SheetView } from '../../api/types';

export type Window = SheetView['windows'][number];
export type Size = SheetsView['sizes'][number];

/** Millimetres about the sheet that stay free. */
const MARGIN = 15;
const GAP = 6;
/** Room for the title block at the foot. */
const TITLE = 52;

/** Width and height of the paper as it lies. */
export function paper(sizes: Size[], name: string, landscape: boolean): { width: number; height: number } {
  const s = sizes.find((x) => x.name === name) ?? { width: 297, height: 420 };
  return landscape ? { width: s.height, height: s.width } : { width: s.width, height: s.height };
}

export function newWindow(view: number): Window {
  return {
    view,
    x: MARGIN,
    y: MARGIN,
    width: 100,
    height: 100,
    scale: 500,
    e: null,
    n: null,
    rotation: 0,
    frame: 'print',
    grid: true,
    coordinates: true,
    north: true,
    bar: true,
    legend: true,
  };
}

/** Windows side by side over the sheet; one fills it. */
export function arranged(windows: Window[], page: { width: number; height: number }, plain: boolean): Window[] {
  const round = (v: number) => Math.round(10 * v) / 10;
  const width = round((page.width - 2 * MARGIN - GAP * (windows.length - 1)) / Math.max(1, windows.length));
  const height = round(page.height - 2 * MARGIN - (plain ? 0 : TITLE - MARGIN / 2));
  return windows.map((w, i) => ({ ...w, x: round(MARGIN + i * (width + GAP)), y: MARGIN, width, height }));
}

/** Windows that reach beyond the paper, in words. */
export function beyond(windows: Window[], page: { width: number; height: number }): string {
  const out = windows.findIndex((w) => w.x + w.width > page.width || w.y + w.height > page.height);
  return out < 0 ? '' : `Window ${out + 1} reaches beyond the paper.`;
}

export function requestOf(s: SheetView): SheetRequest {
  const { name, size, landscape, plain, windows, tables, fields, revisions } = s;
  return { name, size, landscape, plain, windows, tables, fields, revisions };
}

export const scaleText = (denominator: number) => `1 : ${Number(denominator.toFixed(2))}`;
