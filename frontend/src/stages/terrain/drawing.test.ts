import { describe, expect, it } from 'vitest';
import type { DrawingView } from '../../api/types';
import { chained, cornerAt, edgesAt, faceAt, nothingPicked, outline, seenOf, toggledPick, trianglesOf } from './drawing';
import { designMesh, designScene } from './designScene';

/** Two squares of ten metres side by side, each of two triangles with corners of its own, a lid over the first, a line and a point. */
const d: DrawingView = {
  id: 1,
  name: 'd.dxf',
  x: [0, 10, 10, 0, 10, 20, 20, 10, 0, 10, 10, 30, 40, 40, 35],
  y: [0, 0, 10, 10, 0, 0, 10, 10, 0, 0, 10, 0, 0, 10, 5],
  z: [1, 1, 1, 1, 1, 2, 2, 1, 5, 5, 5, 0, 0, 0, 7],
  triangles: [0, 1, 2, 0, 2, 3, 4, 5, 6, 4, 6, 7, 8, 9, 10],
  faceOf: [0, 0, 1, 1, 2],
  layers: ['TOP', 'LID', 'KERB', 'PEG'],
  faceLayer: [0, 0, 1],
  lines: [[11, 12, 13]],
  lineLayer: [2],
  points: [14],
  pointLayer: [3],
};
const all = seenOf(d, new Set());

describe('a drawing', () => {
  it('has faces of several triangles, whose outline leaves out the diagonal', () => {
    expect(trianglesOf(d)).toEqual([[0, 1], [2, 3], [4]]);
    expect(outline(d, [0, 1])).toHaveLength(4);
    expect(outline(d, [0, 1]).flat()).not.toContain(-1);
    expect(outline(d, [0, 1])).toContainEqual([0, 1]);
    expect(outline(d, [0, 1])).not.toContainEqual([2, 0]);
  });
  it('is picked from above: the highest face that is shown', () => {
    expect(faceAt(d, all, 8, 3)).toBe(2);
    expect(faceAt(d, seenOf(d, new Set(['LID'])), 8, 3)).toBe(0);
    expect(faceAt(d, all, 2, 8)).toBe(0);
    expect(faceAt(d, all, 15, 5)).toBe(1);
    expect(faceAt(d, all, 25, 5)).toBeNull();
    expect([...seenOf(d, new Set(['TOP'])).faces]).toEqual([2]);
  });
  it('gives the nearest edge, or the whole of a line', () => {
    expect(edgesAt(d, all, [15, 0.4], 1)).toEqual([[4, 5]]);
    expect(edgesAt(d, all, [15, 3], 1)).toEqual([]);
    expect(edgesAt(d, all, [39.7, 4], 1)).toEqual([
      [11, 12],
      [12, 13],
    ]);
  });
  it('gives the nearest corner, in plan or in space', () => {
    expect(cornerAt(d, all, [19.8, 10.1], 1)).toBe(6);
    expect(cornerAt(d, all, [10, 10, 4.9], 1)).toBe(10);
    expect(cornerAt(d, all, [35, 5.2], 1)).toBe(14);
    expect(cornerAt(d, all, [50, 50], 1)).toBeNull();
  });
  it('is taken and let go', () => {
    const once = toggledPick(nothingPicked(), 'faces', 1);
    expect(once.faces).toEqual([1]);
    expect(toggledPick(once, 'faces', 1).faces).toEqual([]);
    const edge = toggledPick(nothingPicked(), 'edges', [[4, 5]]);
    expect(toggledPick(edge, 'edges', [[5, 4]]).edges).toEqual([]);
    expect(toggledPick(edge, 'corners', null)).toBe(edge);
  });
  it('is joined end to end over corners at one place', () => {
    expect(
      chained(d, [
        [4, 5],
        [0, 1],
        [5, 6],
      ]),
    ).toEqual([[0, 1, 5, 6]]);
    expect(chained(d, outline(d, [0, 1]))).toEqual([[0, 1, 2, 3]]);
    expect(
      chained(d, [
        [0, 1],
        [11, 12],
      ]),
    ).toHaveLength(2);
  });
  it('is painted by layer, what is picked apart from it', () => {
    const scene = designScene(d, all, { faces: [1], edges: [[4, 5]], corners: [0] });
    expect([...scene.faces!.band!]).toEqual([1, 1, 0, 0, 2]);
    expect(scene.faces!.colours).toHaveLength(3);
    expect(scene.points.map((p) => p.role)).toEqual(['surveyed', 'new']);
    expect(scene.paths.filter((p) => p.kind === 'section')).toHaveLength(1);
    const mesh = designMesh(d, seenOf(d, new Set(['LID'])));
    expect(mesh.triangles).toEqual([0, 1, 2, 3]);
    expect(new DataView(mesh.bytes).getUint32(4, true)).toBe(4);
  });
});
