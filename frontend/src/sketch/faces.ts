import { PaintedLayer, type Extent } from './painted';
import type { SceneFaces } from './scene';
import { FEW, thinnedAside } from './thinMesh';

/** x and y on the canvas, and what is shown there. */
type Corner = [number, number, number];

/** The part of a triangle where what is shown lies between two limits. */
export function between(corners: Corner[], low: number, high: number): Corner[] {
  let part = corners;
  for (const [limit, sign] of [
    [low, 1],
    [high, -1],
  ] as const) {
    if (!Number.isFinite(limit)) continue;
    const kept: Corner[] = [];
    part.forEach((a, k) => {
      const b = part[(k + 1) % part.length]!;
      const [da, db] = [sign * (a[2] - limit), sign * (b[2] - limit)];
      if (da >= 0) kept.push(a);
      if ((da > 0 && db < 0) || (da < 0 && db > 0)) {
        const f = da / (da - db);
        kept.push([a[0] + f * (b[0] - a[0]), a[1] + f * (b[1] - a[1]), limit]);
      }
    });
    part = kept;
  }
  return part;
}

/** Number of the band: limits are growing. */
function bandOf(value: number, limits: number[]): number {
  let band = 0;
  while (band < limits.length && value >= limits[band]!) band += 1;
  return band;
}

/** Triangles in view from which on those of the thinner mesh are painted. */
const MOST_SEEN = 60_000;
/** Triangles that are filled as one: a shape of very many takes the square of their number. */
const AT_ONCE = 400;

/** Shapes of one colour, painted by the hundred. */
class Brush {
  private path = new Path2D();
  private held = 0;

  constructor(
    private readonly context: CanvasRenderingContext2D,
    private readonly colour: string,
  ) {}

  dot(x: number, y: number) {
    this.path.rect(x, y, 1, 1);
    this.added();
  }

  shape(corners: Corner[]) {
    corners.forEach(([x, y], k) => (k === 0 ? this.path.moveTo(x, y) : this.path.lineTo(x, y)));
    this.path.closePath();
    this.added();
  }

  end() {
    if (this.held === 0) return;
    this.context.fillStyle = this.colour;
    this.context.strokeStyle = this.colour;
    this.context.lineWidth = 0.6;
    this.context.fill(this.path);
    // A hair over the edge closes the seams between neighbours.
    this.context.stroke(this.path);
    [this.path, this.held] = [new Path2D(), 0];
  }

  private added() {
    this.held += 1;
    if (this.held === AT_ONCE) this.end();
  }
}

/** A layer of filled triangles; what is smaller than a pixel is a dot. Of very many it paints fewer where they would be dots. */
export class FaceLayer extends PaintedLayer<SceneFaces> {
  private thin: SceneFaces | null = null;
  private full: SceneFaces | null = null;

  constructor() {
    super(0.85);
  }

  override show(faces: SceneFaces | null) {
    super.show(faces);
    if (faces === this.full) return;
    [this.full, this.thin] = [faces, null];
    if (!faces || faces.corners.length <= 3 * FEW) return;
    const { xyz, corners, band } = faces;
    thinnedAside({ xyz, corners, ...(band ? { band } : {}) })
      .then((thin) => {
        if (this.full !== faces) return;
        this.thin = { ...faces, ...thin };
        super.show(faces);
      })
      .catch(() => undefined); // then it is painted where one looks closely
  }

  protected paint(context: CanvasRenderingContext2D, faces: SceneFaces, extent: Extent, scale: number, size: [number, number]) {
    const isMuch = faces.corners.length > 3 * FEW && this.seen(faces, extent) > MOST_SEEN;
    const f = isMuch ? this.thin : faces;
    if (!f) return; // until the thinner mesh is there
    const [w, , , n] = extent;
    const brushes = f.colours.map((colour) => (colour === 'transparent' ? null : new Brush(context, colour)));
    const [v, c] = [f.xyz, f.corners];
    for (let i = 0; i < c.length; i += 3) {
      const [a, b, d] = [3 * c[i]!, 3 * c[i + 1]!, 3 * c[i + 2]!];
      const [ax, bx, dx] = [(v[a]! - w) * scale, (v[b]! - w) * scale, (v[d]! - w) * scale];
      const [left, right] = [Math.min(ax, bx, dx), Math.max(ax, bx, dx)];
      if (right < 0 || left > size[0]) continue;
      const [ay, by, dy] = [(n - v[a + 1]!) * scale, (n - v[b + 1]!) * scale, (n - v[d + 1]!) * scale];
      const [top, foot] = [Math.min(ay, by, dy), Math.max(ay, by, dy)];
      if (foot < 0 || top > size[1]) continue;
      const [low, high] = [Math.min(v[a + 2]!, v[b + 2]!, v[d + 2]!), Math.max(v[a + 2]!, v[b + 2]!, v[d + 2]!)];
      const first = f.band ? f.band[i / 3]! : bandOf(low, f.limits);
      if (right - left < 1 && foot - top < 1) {
        brushes[first]?.dot(left, top);
        continue;
      }
      const corners: Corner[] = [
        [ax, ay, v[a + 2]!],
        [bx, by, v[b + 2]!],
        [dx, dy, v[d + 2]!],
      ];
      const last = f.band ? first : bandOf(high, f.limits);
      for (let band = first; band <= last; band += 1) {
        const part = first === last ? corners : between(corners, f.limits[band - 1] ?? -Infinity, f.limits[band] ?? Infinity);
        if (part.length > 2) brushes[band]?.shape(part);
      }
    }
    for (const brush of brushes) brush?.end();
  }

  /** How many triangles lie in view, about: every so manieth is looked at. */
  private seen(f: SceneFaces, [w, s, e, n]: Extent): number {
    const step = Math.max(1, Math.floor(f.corners.length / 3 / 5000));
    let inside = 0;
    for (let i = 0; i < f.corners.length; i += 3 * step) {
      const [x, y] = [f.xyz[3 * f.corners[i]!]!, f.xyz[3 * f.corners[i]! + 1]!];
      if (x >= w && x <= e && y >= s && y <= n) inside += 1;
    }
    return inside * step;
  }
}
