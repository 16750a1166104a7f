import { afterEach, describe, expect, it, vi } from 'vitest';
import { alongLine, isNear, stripOf } from './cloudStrip';

const box = (x: number, y: number, half: number) => ({ boundingVolume: { box: [x, y, 0, half, 0, 0, 0, half, 0, 0, 0, half] } });

/** A .pnts tile as the OGC standard has it (22-025r4, section 10.3). */
function pnts(points: [number, number, number][]): ArrayBuffer {
  const json = JSON.stringify({ POINTS_LENGTH: points.length, RTC_CENTER: [0, 0, 0], POSITION: { byteOffset: 0 } }).padEnd(100);
  const bytes = new ArrayBuffer(28 + json.length + 12 * points.length);
  const view = new DataView(bytes);
  view.setUint32(12, json.length, true);
  new Uint8Array(bytes, 28, json.length).set(new TextEncoder().encode(json));
  points.flat().forEach((v, i) => view.setFloat32(28 + json.length + 4 * i, v, true));
  return bytes;
}

describe('a strip along a line', () => {
  afterEach(() => vi.unstubAllGlobals());
  const bend: [number, number][] = [
    [0, 0],
    [10, 0],
    [10, 5],
  ];

  it('measures along it, round its corners, and ends where it ends', () => {
    expect(alongLine(bend, 4, 0.5)).toEqual([4, 0.5]);
    expect(alongLine(bend, 10.25, 3)).toEqual([13, 0.25]);
    expect(alongLine(bend, 11, -1)[0]).toBe(10);
    expect(alongLine(bend, -1, 0)[1]).toBeGreaterThan(5);
    expect(alongLine(bend, 10, 6)[1]).toBeGreaterThan(5);
  });

  it('reads tiles that may hold points of it, and no others', async () => {
    expect(isNear(box(5, 3, 2), bend, 0.5)).toBe(true);
    expect(isNear(box(0, 9, 2), bend, 0.5)).toBe(false);
    const tiles: Record<string, ArrayBuffer> = {
      'r.pnts': pnts([
        [1, 0.25, 7],
        [1, 3, 9],
      ]),
      'a.pnts': pnts([[10, 4, 8]]),
      'b.pnts': pnts([[0, 40, 8]]),
    };
    const asked: string[] = [];
    vi.stubGlobal('fetch', async (url: string) => {
      const name = url.slice(url.lastIndexOf('/') + 1);
      asked.push(name);
      const root = {
        ...box(0, 0, 30),
        content: { uri: 'r.pnts' },
        children: [
          { ...box(10, 4, 3), content: { uri: 'a.pnts' } },
          { ...box(0, 40, 3), content: { uri: 'b.pnts' } },
        ],
      };
      return { json: async () => ({ root }), arrayBuffer: async () => tiles[name] };
    });
    expect(await stripOf('/x/tileset.json', bend, 0.5)).toEqual({ along: [1, 14], h: [7, 8], isSome: false });
    expect(asked).toEqual(['tileset.json', 'r.pnts', 'a.pnts']);
  });
});
