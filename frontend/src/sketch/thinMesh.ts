/** Vertices x, y, z and corners of triangles; what each triangle is coloured by, where that is said. */
export interface MeshParts {
  xyz: Float64Array;
  corners: Uint32Array;
  band?: Uint8Array;
}

/** Triangles up to which a mesh is drawn as it is. */
export const FEW = 150_000;
/** Squares across the longer side of a thinned mesh. */
const ACROSS = 260;

/**
 * A mesh that looks alike from afar: vertices in one square of the plan become their mean, and triangles that collapse go (vertex
 * clustering, Rossignac and Borrel 1993). At most two triangles remain to a square.
 */
export function thinned(mesh: MeshParts, across = ACROSS): MeshParts {
  const { xyz, corners } = mesh;
  const n = xyz.length / 3;
  if (n === 0) return mesh;
  let [west, south, east, north] = [Infinity, Infinity, -Infinity, -Infinity];
  for (let i = 0; i < n; i += 1) {
    west = Math.min(west, xyz[3 * i]!);
    east = Math.max(east, xyz[3 * i]!);
    south = Math.min(south, xyz[3 * i + 1]!);
    north = Math.max(north, xyz[3 * i + 1]!);
  }
  const side = Math.max(east - west, north - south, 1e-9) / across;
  const columns = Math.floor((east - west) / side) + 1;
  const rows = Math.floor((north - south) / side) + 1;
  const numberOf = new Int32Array(columns * rows).fill(-1);
  const to = new Uint32Array(n);
  const sums: number[] = [];
  const counts: number[] = [];
  for (let i = 0; i < n; i += 1) {
    const square = Math.floor((xyz[3 * i + 1]! - south) / side) * columns + Math.floor((xyz[3 * i]! - west) / side);
    if (numberOf[square]! < 0) {
      numberOf[square] = counts.length;
      counts.push(0);
      sums.push(0, 0, 0);
    }
    const k = numberOf[square]!;
    to[i] = k;
    counts[k]! += 1;
    for (let c = 0; c < 3; c += 1) sums[3 * k + c]! += xyz[3 * i + c]!;
  }
  const seen = new Set<string>();
  const kept: number[] = [];
  const band: number[] = [];
  for (let t = 0; t < corners.length; t += 3) {
    const [a, b, c] = [to[corners[t]!]!, to[corners[t + 1]!]!, to[corners[t + 2]!]!];
    if (a === b || b === c || c === a) continue;
    const key = [a, b, c].sort((p, q) => p - q).join(' ');
    if (seen.has(key)) continue;
    seen.add(key);
    kept.push(a, b, c);
    if (mesh.band) band.push(mesh.band[t / 3]!);
  }
  return {
    xyz: Float64Array.from(sums, (v, i) => v / counts[Math.floor(i / 3)]!),
    corners: Uint32Array.from(kept),
    ...(mesh.band ? { band: Uint8Array.from(band) } : {}),
  };
}

/** As {@link thinned}, by a thread of its own where there is one, so that the page stays at hand. */
export function thinnedAside(mesh: MeshParts): Promise<MeshParts> {
  if (typeof Worker === 'undefined') return Promise.resolve(thinned(mesh));
  return new Promise((resolve, reject) => {
    const worker = new Worker(new URL('./thinMesh.worker.ts', import.meta.url), { type: 'module' });
    worker.onmessage = (event: MessageEvent<MeshParts>) => {
      resolve(event.data);
      worker.terminate();
    };
    worker.onerror = (event) => {
      reject(new Error(event.message));
      worker.terminate();
    };
    worker.postMessage(mesh);
  });
}
