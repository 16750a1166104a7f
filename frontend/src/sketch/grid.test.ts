// @vitest-environment happy-dom
import type OlMap from 'ol/Map';
import { describe, expect, it } from 'vitest';
import { drawGrid } from './grid';
import type { Styles } from './styles';

/** A canvas that remembers what was written on it. */
function paper() {
  const texts: { text: string; x: number; y: number }[] = [];
  const lines: [number, number][] = [];
  const context = new Proxy(
    {
      fillText: (text: string, x: number, y: number) => texts.push({ text, x, y }),
      moveTo: (x: number, y: number) => lines.push([x, y]),
    } as Record<string, unknown>,
    { get: (o, k: string) => o[k] ?? (() => undefined), set: () => true },
  );
  const canvas = { width: 0, height: 0, getContext: () => context } as unknown as HTMLCanvasElement;
  return { canvas, texts, lines };
}

function map(width: number, height: number, extent: number[]): OlMap {
  return { getSize: () => [width, height], getView: () => ({ calculateExtent: () => extent }) } as unknown as OlMap;
}
const styles = { colour: () => '#000' } as unknown as Styles;

describe('the grid of the sketch', () => {
  it('draws at round coordinates and writes their values where there is room', () => {
    const { canvas, texts, lines } = paper();
    drawGrid(canvas, map(610, 680, [493010, 6027890, 493773.5, 6028741]), styles);
    const eastings = texts.filter((t) => t.text.endsWith('E'));
    expect(eastings.map((t) => t.text)).toEqual(['493\u2009200 E', '493\u2009400 E', '493\u2009600 E']);
    expect(texts.filter((t) => t.text.endsWith('N')).map((t) => t.text)).toContain('6\u2009028\u2009200 N');
    for (const t of texts) expect(t.x).toBeGreaterThan(0);
    expect(lines.length).toBeGreaterThan(5);
  });

  it('gives decimals when the site is small', () => {
    const { canvas, texts } = paper();
    drawGrid(canvas, map(600, 600, [0, 0, 1.5, 1.5]), styles);
    expect(texts.map((t) => t.text)).toContain('0.4 E');
  });

  it('waits for a size', () => {
    const { canvas, texts } = paper();
    drawGrid(canvas, { getSize: () => undefined } as unknown as OlMap, styles);
    expect(texts).toEqual([]);
  });
});
