import { TilesRenderer } from '3d-tiles-renderer';
import * as THREE from 'three';
import { OrbitControls } from 'three/addons/controls/OrbitControls.js';
import { type ColourBy, colours, type PointValues, type Range, usual } from './cloudColours';

/** Pixels between points at which finer tiles are fetched. */
const APART = 2.5;
/** Pixels about a click within which a point is met. */
const CLICK = 9;
/** Pixels of a point. */
const SIZE = 2.6;

export interface Met {
  e: number;
  n: number;
  h: number;
  classOf: number | null;
}
interface Batch {
  getPropertyArray(key: string): ArrayLike<number> | null;
  getKeys(): string[];
}
type Tile = THREE.Points & { batchTable: Batch };

const given = (colour: string) => new THREE.Color().setStyle(colour, THREE.LinearSRGBColorSpace);

/** A cloud of points in space, fetched tile by tile as the view needs them. Coordinates are the tileset's own, height upwards. */
export class CloudSpace {
  readonly dom: HTMLCanvasElement;
  private readonly renderer: THREE.WebGLRenderer;
  private readonly scene = new THREE.Scene();
  private readonly camera = new THREE.PerspectiveCamera(40, 1, 0.1, 1e6);
  private readonly controls: OrbitControls;
  private readonly marks = new THREE.Group();
  private readonly box = new THREE.Box3();
  private tiles: TilesRenderer | null = null;
  private by: ColourBy = 'elevation';
  private heights: Range | null = null;
  private intensities: Range | null = null;
  private waiting = 0;
  private isHome = false;

  /** Throws where the browser has no WebGL. */
  constructor(
    private readonly host: HTMLElement,
    private readonly fetcher: ((url: string) => Promise<unknown>) | null = null,
  ) {
    this.renderer = new THREE.WebGLRenderer({ antialias: true, preserveDrawingBuffer: true });
    this.renderer.setPixelRatio(window.devicePixelRatio);
    // Colours are those that were given, as on the map and in the tables.
    this.renderer.outputColorSpace = THREE.LinearSRGBColorSpace;
    this.dom = this.renderer.domElement;
    host.append(this.dom);
    this.camera.up.set(0, 0, 1);
    this.scene.add(this.marks);
    this.controls = new OrbitControls(this.camera, this.dom);
    this.controls.addEventListener('change', () => this.draw());
  }

  /** Extent: west, south, lowest, east, north, highest. Heights are coloured from low to high; where nobody says between which, as they usually are in the first tile. */
  show(url: string, by: ColourBy, heights: Range | null, extent: number[]): void {
    this.forget();
    [this.by, this.heights, this.intensities, this.isHome] = [by, heights, null, false];
    const [west, south, low, east, north, high] = extent as [number, number, number, number, number, number];
    this.box.set(new THREE.Vector3(west, south, low), new THREE.Vector3(east, north, high));
    const tiles = new TilesRenderer(url);
    tiles.errorTarget = APART;
    if (this.fetcher) tiles.registerPlugin({ fetchData: this.fetcher } as never);
    tiles.setCamera(this.camera);
    tiles.addEventListener('load-tileset', () => this.home());
    tiles.addEventListener('load-model', (event) => {
      this.dress((event as unknown as { scene: Tile }).scene);
      this.draw();
    });
    tiles.addEventListener('needs-update', () => this.draw());
    tiles.addEventListener('tiles-load-end', () => this.draw());
    this.scene.add(tiles.group);
    this.tiles = tiles;
    this.draw();
  }

  colourBy(by: ColourBy): void {
    this.by = by;
    this.tiles?.forEachLoadedModel((scene) => this.dress(scene as Tile));
    this.draw();
  }

  /** Crosses where places were picked. */
  mark(places: [number, number, number][], colour: string): void {
    for (const drawn of this.marks.children) (drawn as THREE.Points).geometry.dispose();
    this.marks.clear();
    if (places.length === 0) return;
    const about = places[0]!;
    const geometry = new THREE.BufferGeometry().setFromPoints(
      places.map((p) => new THREE.Vector3(p[0] - about[0], p[1] - about[1], p[2] - about[2])),
    );
    const material = new THREE.PointsMaterial({ color: given(colour), size: 11, sizeAttenuation: false, depthTest: false });
    const line = new THREE.Line(geometry, new THREE.LineBasicMaterial({ color: given(colour), depthTest: false }));
    this.marks.add(new THREE.Points(geometry, material), line);
    this.marks.position.set(...about).add(this.offset());
    this.draw();
  }

  /** The point under a place on the screen; null where there is none. */
  meet(clientX: number, clientY: number): Met | null {
    if (!this.tiles) return null;
    const frame = this.dom.getBoundingClientRect();
    const [x, y] = [clientX - frame.left, clientY - frame.top];
    const seen = new THREE.Vector3();
    let best: Met | null = null;
    let least = CLICK * CLICK;
    let nearest = Infinity;
    this.tiles.forEachLoadedModel((model) => {
      const scene = model as Tile;
      if (!scene.parent) return; // kept, but not shown now
      const position = scene.geometry.getAttribute('position');
      const classes = scene.batchTable.getPropertyArray('CLASSIFICATION');
      const toScreen = new THREE.Matrix4()
        .multiplyMatrices(this.camera.projectionMatrix, this.camera.matrixWorldInverse)
        .multiply(scene.matrixWorld);
      for (let i = 0; i < position.count; i += 1) {
        seen.fromBufferAttribute(position, i).applyMatrix4(toScreen);
        const away = (0.5 * (seen.x + 1) * frame.width - x) ** 2 + (0.5 * (1 - seen.y) * frame.height - y) ** 2;
        // Of those within a few pixels the one in front; beyond, the nearest on the screen.
        const isBetter = away < 9 && least < 9 ? seen.z < nearest : away < least;
        if (seen.z < 1 && isBetter) {
          [least, nearest] = [Math.min(away, least), seen.z];
          const p = new THREE.Vector3().fromBufferAttribute(position, i).add(scene.position);
          best = { e: p.x, n: p.y, h: p.z, classOf: classes ? classes[i]! : null };
        }
      }
    });
    return best;
  }

  /** From a little above the south, all of it in view. */
  home(): void {
    if (!this.tiles || this.box.isEmpty()) return;
    const middle = this.box.getCenter(new THREE.Vector3());
    const size = this.box.getSize(new THREE.Vector3());
    const reach = 1.5 * Math.max(size.x, size.y, size.z, 1);
    // About its middle, so that single precision is enough for what is drawn.
    this.tiles.group.position.copy(middle).negate();
    this.tiles.group.updateMatrixWorld(true);
    if (this.isHome) this.controls.reset();
    this.isHome = true;
    this.camera.position.set(-0.35 * reach, -0.85 * reach, 0.7 * reach);
    this.camera.near = reach / 2000;
    this.camera.far = reach * 20;
    this.camera.updateProjectionMatrix();
    this.controls.target.set(0, 0, 0);
    this.controls.update();
    this.controls.saveState();
    this.draw();
  }

  /** Turns by parts of a circle, and comes closer by a factor. */
  turn(aside: number, up: number, closer: number): void {
    const upright = new THREE.Vector3(1, 0, 0);
    const s = new THREE.Spherical().setFromVector3(
      this.camera.position
        .clone()
        .sub(this.controls.target)
        .applyAxisAngle(upright, -Math.PI / 2),
    );
    s.theta += aside;
    s.phi = Math.min(1.55, Math.max(0.05, s.phi - up));
    s.radius /= closer;
    this.camera.position.copy(
      new THREE.Vector3()
        .setFromSpherical(s)
        .applyAxisAngle(upright, Math.PI / 2)
        .add(this.controls.target),
    );
    this.controls.update();
    this.draw();
  }

  resize(): void {
    const { clientWidth: w, clientHeight: h } = this.host;
    if (w === 0 || h === 0) return;
    this.renderer.setSize(w, h);
    this.camera.aspect = w / h;
    this.camera.updateProjectionMatrix();
    this.draw();
  }

  /** How many points are drawn now. */
  shown(): number {
    let count = 0;
    this.tiles?.forEachLoadedModel((model) => {
      if (model.parent) count += (model as Tile).geometry.getAttribute('position').count;
    });
    return count;
  }

  background(colour: string): void {
    this.renderer.setClearColor(given(colour));
    this.draw();
  }

  dispose(): void {
    this.forget();
    this.controls.dispose();
    this.renderer.dispose();
    this.dom.remove();
  }

  private forget(): void {
    if (this.tiles) {
      this.scene.remove(this.tiles.group);
      this.tiles.dispose();
    }
    this.tiles = null;
  }

  private offset(): THREE.Vector3 {
    return this.tiles ? this.tiles.group.position.clone() : new THREE.Vector3();
  }

  private dress(scene: Tile): void {
    const position = scene.geometry.getAttribute('position');
    const material = scene.material as THREE.PointsMaterial;
    const kept = scene.userData as { colours?: ArrayLike<number> | null };
    kept.colours ??= (scene.geometry.getAttribute('color')?.array as Uint8Array | undefined) ?? null;
    const intensities = scene.batchTable.getKeys().includes('INTENSITY') ? scene.batchTable.getPropertyArray('INTENSITY') : null;
    const of: PointValues = {
      heights: (i) => position.getZ(i) + scene.position.z,
      classes: scene.batchTable.getPropertyArray('CLASSIFICATION'),
      intensities,
      colours: kept.colours,
    };
    // The first tile shows some of every part: what is usual in it is usual in all.
    this.intensities ??= intensities ? usual(intensities) : null;
    this.heights ??= usual(Array.from({ length: position.count }, (_v, i) => of.heights(i)));
    const values = colours(position.count, this.by, of, this.heights, this.intensities ?? { from: 0, to: 65535 });
    scene.geometry.setAttribute('color', new THREE.BufferAttribute(values, 3, true));
    material.vertexColors = true;
    material.size = SIZE;
    material.sizeAttenuation = false;
    material.needsUpdate = true;
  }

  /** In the next frame, once however often it is asked for. */
  private draw(): void {
    if (this.waiting) return;
    this.waiting = requestAnimationFrame(() => {
      this.waiting = 0;
      if (!this.tiles) return;
      this.camera.updateMatrixWorld();
      this.tiles.setResolutionFromRenderer(this.camera, this.renderer);
      this.tiles.update();
      this.renderer.render(this.scene, this.camera);
    });
  }
}
