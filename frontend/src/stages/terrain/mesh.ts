/** A surface as the server sends it: x, y, z of its vertices and three corners of each triangle. */
export interface MeshShape {
  xyz: Float64Array;
  corners: Uint32Array;
}

/** Counts, vertices, corners of triangles. */
export function readMesh(buffer: ArrayBuffer | null): MeshShape | null {
  if (!buffer) return null;
  const head = new DataView(buffer);
  const n = head.getUint32(0, true);
  const t = head.getUint32(4, true);
  return {
    xyz: new Float64Array(buffer.slice(8, 8 + 24 * n)),
    corners: new Uint32Array(buffer.slice(8 + 24 * n, 8 + 24 * n + 12 * t)),
  };
}

export function fromBase64(text: string): ArrayBuffer {
  return Uint8Array.from(atob(text), (c) => c.charCodeAt(0)).buffer;
}

/** Gradient of the plane of a triangle, metres a metre. */
export function gradient(m: MeshShape, first: number): [number, number] {
  const [a, b, c] = [0, 1, 2].map((k) => 3 * m.corners[first + k]!) as [number, number, number];
  const v = m.xyz;
  const [ux, uy, uz] = [v[b]! - v[a]!, v[b + 1]! - v[a + 1]!, v[b + 2]! - v[a + 2]!];
  const [wx, wy, wz] = [v[c]! - v[a]!, v[c + 1]! - v[a + 1]!, v[c + 2]! - v[a + 2]!];
  const twice = ux * wy - uy * wx;
  return [(uz * wy - uy * wz) / twice, (ux * wz - uz * wx) / twice];
}

export interface Reading {
  /** First corner of the triangle that holds the place. */
  first: number;
  h: number;
  /** Metres a metre. */
  slope: number;
}

/** What a surface says at a place; null beside it. */
export function readAt(m: MeshShape, e: number, n: number): Reading | null {
  const v = m.xyz;
  for (let first = 0; first < m.corners.length; first += 3) {
    let inside = true;
    for (let k = 0; k < 3 && inside; k += 1) {
      const p = 3 * m.corners[first + k]!;
      const q = 3 * m.corners[first + ((k + 1) % 3)]!;
      inside = (v[q]! - v[p]!) * (n - v[p + 1]!) - (v[q + 1]! - v[p + 1]!) * (e - v[p]!) >= 0;
    }
    if (!inside) continue;
    const [gx, gy] = gradient(m, first);
    const a = 3 * m.corners[first]!;
    return { first, h: v[a + 2]! + gx * (e - v[a]!) + gy * (n - v[a + 1]!), slope: Math.hypot(gx, gy) };
  }
  return null;
}

export interface Swap {
  /** The two corners an edge nearest to the place would run between instead, easting and northing. */
  to: [[number, number], [number, number]];
}

/** The edge nearest to a place, and the other diagonal of its two triangles; null where there is none, or it would fall outside them. */
export function swapAt(m: MeshShape, e: number, n: number): Swap | null {
  const at = readAt(m, e, n);
  if (!at) return null;
  const v = m.xyz;
  let best = Infinity;
  let edge: [number, number, number] = [0, 0, 0];
  for (let k = 0; k < 3; k += 1) {
    const [p, q, r] = [0, 1, 2].map((j) => m.corners[at.first + ((k + j) % 3)]!) as [number, number, number];
    const [dx, dy] = [v[3 * q]! - v[3 * p]!, v[3 * q + 1]! - v[3 * p + 1]!];
    const away = Math.abs(dx * (n - v[3 * p + 1]!) - dy * (e - v[3 * p]!)) / Math.hypot(dx, dy);
    if (away < best) [best, edge] = [away, [p, q, r]];
  }
  const [p, q, r] = edge;
  for (let first = 0; first < m.corners.length; first += 3) {
    for (let k = 0; k < 3; k += 1) {
      if (m.corners[first + k] !== q || m.corners[first + ((k + 1) % 3)] !== p) continue;
      const s = m.corners[first + ((k + 2) % 3)]!;
      const side = (i: number) =>
        (v[3 * s]! - v[3 * r]!) * (v[3 * i + 1]! - v[3 * r + 1]!) - (v[3 * s + 1]! - v[3 * r + 1]!) * (v[3 * i]! - v[3 * r]!);
      // Only in a convex quadrangle does the other diagonal stay inside.
      if (side(p) * side(q) >= 0) return null;
      return {
        to: [
          [v[3 * r]!, v[3 * r + 1]!],
          [v[3 * s]!, v[3 * s + 1]!],
        ],
      };
    }
  }
  return null;
}
