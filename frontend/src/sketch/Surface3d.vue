<script setup lang="ts">
import * as THREE from 'three';
import { OrbitControls } from 'three/addons/controls/OrbitControls.js';
import { onBeforeUnmount, onMounted, ref, watch } from 'vue';
import { isTyping } from '../frame/keys';
import { useSession } from '../state/session';
import { FEW, thinnedAside } from './thinMesh';

export interface Contour3d {
  h: number;
  lines: number[][];
}
/** Triangles, and edges and corners by vertices of the mesh, that stand out. */
export interface Marks3d {
  triangles: number[];
  segments: [number, number][];
  corners: number[];
  /** Edges that are drawn without standing out. */
  outline: [number, number][];
}
export interface Line3d {
  colour: string;
  vertices: [number, number, number][];
}
/** Tint: by height, by steepness, or by what lies above and below nothing. */
const props = withDefaults(
  defineProps<{
    mesh: ArrayBuffer | null;
    contours: Contour3d[];
    tint?: 'elevation' | 'slope' | 'difference';
    marks?: Marks3d;
    /** Lines beside the surface, in space. */
    lines?: Line3d[];
    /** Who stands on it. */
    rover?: [number, number, number] | null;
    /** On a small screen: without what explains it. */
    bare?: boolean;
  }>(),
  {
    lines: () => [],
    rover: null,
    bare: false,
    tint: 'elevation',
    marks: undefined,
  },
);
/** A place, the triangle that was met, and how far about it a click reaches, metres. */
const emit = defineEmits<{ read: [e: number, n: number, h: number, triangle: number, within: number] }>();
const session = useSession();
const host = ref<HTMLElement>();
const exaggeration = ref(props.bare ? 1 : 2);
const wire = ref(false);
const failure = ref('');
let renderer: THREE.WebGLRenderer | null = null;
let scene = new THREE.Scene();
let camera = new THREE.PerspectiveCamera(40, 1, 0.1, 1e6);
let controls: OrbitControls | null = null;
const body = new THREE.Group();
const marked = new THREE.Group();
const standing = new THREE.Group();
/** Vertices about the middle, and corners of triangles, of what is drawn. */
let shape = { position: new Float32Array(), index: new Uint32Array() };
let size = 100;

/** Subdued tints from low to high, alike in lightness so that shading carries the form. */
const TINTS = [0x8fa8a0, 0xa9b89d, 0xc6c49f, 0xd2bd94, 0xcbb39a, 0xd9d2c8].map((c) => new THREE.Color(c));

/** Steep is dark; blue below, warm above. */
const STEEP = [0xefe9da, 0xe8d3a6, 0xdcb87c, 0xca9558, 0xb0763f].map((c) => new THREE.Color(c));
const EITHER = [0x2f5f9e, 0x8fb0d6, 0xe9e6dc, 0xe0ab70, 0xa8602a].map((c) => new THREE.Color(c));

function between(f: number, colours = TINTS): THREE.Color {
  const x = Math.min(0.9999, Math.max(0, f)) * (colours.length - 1);
  const i = Math.floor(x);
  return colours[i]!.clone().lerp(colours[i + 1]!, x - i);
}

/** The mesh without its shared corners, each triangle in the colour of its slope. */
function bySlope(shared: THREE.BufferGeometry): THREE.BufferGeometry {
  const geometry = shared.toNonIndexed();
  const normal = geometry.clone();
  normal.computeVertexNormals();
  const up = normal.getAttribute('normal');
  const colour = new Float32Array(3 * up.count);
  for (let i = 0; i < up.count; i += 1) {
    const slope = Math.hypot(up.getX(i), up.getY(i)) / Math.max(1e-9, Math.abs(up.getZ(i)));
    between(slope / 0.6, STEEP).toArray(colour, 3 * i);
  }
  geometry.setAttribute('color', new THREE.BufferAttribute(colour, 3));
  return geometry;
}

let mid = [0, 0, 0];
/** The surface as it is, and a thinner one that stands in for it while the view moves. */
let whole: THREE.Mesh | null = null;
let thin: THREE.Mesh | null = null;
const caster = new THREE.Raycaster();
/** Screen units about a click that still are what is under it. */
const CLICK = 12;
let pressedAt: [number, number] = [0, 0];

/** A click, not the end of a turn, reads the place under it. */
function released(event: PointerEvent) {
  if (Math.hypot(event.clientX - pressedAt[0], event.clientY - pressedAt[1]) > 4 || event.button !== 0 || !renderer) return;
  const box = renderer.domElement.getBoundingClientRect();
  const at = new THREE.Vector2((2 * (event.clientX - box.left)) / box.width - 1, 1 - (2 * (event.clientY - box.top)) / box.height);
  caster.setFromCamera(at, camera);
  const hit = whole ? caster.intersectObject(whole)[0] : undefined;
  if (!hit) return;
  const within = (CLICK * 2 * hit.distance * Math.tan((camera.fov * Math.PI) / 360)) / box.height;
  const place = [hit.point.x + mid[0]!, hit.point.y + mid[1]!, hit.point.z / exaggeration.value + mid[2]!] as const;
  emit('read', ...place, hit.faceIndex ?? 0, within);
}

/** Arrows turn the view, plus and minus come closer and go away. */
function turned(event: KeyboardEvent) {
  if (!controls || event.ctrlKey || event.metaKey) return;
  const s = new THREE.Spherical().setFromVector3(
    camera.position
      .clone()
      .sub(controls.target)
      .applyAxisAngle(new THREE.Vector3(1, 0, 0), -Math.PI / 2),
  );
  const step = 0.08;
  if (event.key === 'ArrowLeft') s.theta -= step;
  else if (event.key === 'ArrowRight') s.theta += step;
  else if (event.key === 'ArrowUp') s.phi = Math.max(0.05, s.phi - step);
  else if (event.key === 'ArrowDown') s.phi = Math.min(1.5, s.phi + step);
  else if (event.key === '+') s.radius *= 0.9;
  else if (event.key === '-') s.radius *= 1.1;
  else return;
  event.preventDefault();
  camera.position.copy(
    new THREE.Vector3()
      .setFromSpherical(s)
      .applyAxisAngle(new THREE.Vector3(1, 0, 0), Math.PI / 2)
      .add(controls.target),
  );
  controls.update();
  paint();
}

/** What is drawn no more gives its room back. */
function emptied(group: THREE.Group) {
  for (const drawn of group.children) (drawn as THREE.Mesh).geometry.dispose();
  group.clear();
}

function build() {
  emptied(body);
  [whole, thin] = [null, null];
  if (!props.mesh) return;
  const head = new DataView(props.mesh);
  const n = head.getUint32(0, true);
  const t = head.getUint32(4, true);
  const values = new Float64Array(props.mesh.slice(8, 8 + 24 * n));
  const index = new Uint32Array(props.mesh.slice(8 + 24 * n, 8 + 24 * n + 12 * t));
  const low = [Infinity, Infinity, Infinity];
  const high = [-Infinity, -Infinity, -Infinity];
  for (let i = 0; i < values.length; i += 1) {
    low[i % 3] = Math.min(low[i % 3]!, values[i]!);
    high[i % 3] = Math.max(high[i % 3]!, values[i]!);
  }
  mid = [0, 1, 2].map((k) => (k === 2 && props.tint === 'difference' ? 0 : 0.5 * (low[k]! + high[k]!)));
  const reach = Math.max(1e-6, Math.abs(low[2]!), Math.abs(high[2]!));
  size = Math.max(high[0]! - low[0]!, high[1]! - low[1]!, 1);
  const geometryOf = (xyz: Float64Array, corners: Uint32Array) => {
    const count = xyz.length / 3;
    const position = new Float32Array(3 * count);
    const colour = new Float32Array(3 * count);
    // Of 256 shades made once: a colour made for each of a million vertices takes seconds.
    const shades = Array.from({ length: 256 }, (_v, k) => between(k / 255, props.tint === 'difference' ? EITHER : TINTS).toArray());
    const [from, range] = props.tint === 'difference' ? [-reach, 2 * reach] : [low[2]!, Math.max(1e-6, high[2]! - low[2]!)];
    for (let i = 0; i < count; i += 1) {
      for (let k = 0; k < 3; k += 1) position[3 * i + k] = xyz[3 * i + k]! - mid[k]!;
      colour.set(shades[Math.min(255, Math.max(0, Math.round((255 * (xyz[3 * i + 2]! - from)) / range)))]!, 3 * i);
    }
    const geometry = new THREE.BufferGeometry();
    geometry.setAttribute('position', new THREE.BufferAttribute(position, 3));
    geometry.setAttribute('color', new THREE.BufferAttribute(colour, 3));
    geometry.setIndex(new THREE.BufferAttribute(corners, 1));
    return geometry;
  };
  const material = new THREE.MeshLambertMaterial({
    vertexColors: true,
    side: THREE.DoubleSide,
    flatShading: true,
    polygonOffset: true,
    polygonOffsetFactor: 1,
    polygonOffsetUnits: 1,
  });
  const meshOf = (g: THREE.BufferGeometry) => new THREE.Mesh(props.tint === 'slope' ? bySlope(g) : g, material);
  const geometry = geometryOf(values, index);
  shape = { position: geometry.getAttribute('position').array as Float32Array<ArrayBuffer>, index };
  mark();
  const surface = meshOf(geometry);
  whole = surface;
  body.add(surface);
  if (t > FEW)
    thinnedAside({ xyz: values, corners: index })
      .then((fewer) => {
        if (whole !== surface) return;
        thin = meshOf(geometryOf(fewer.xyz, fewer.corners));
        thin.visible = false;
        body.add(thin);
      })
      .catch(() => undefined); // the whole is turned then
  const ink = getComputedStyle(document.documentElement).getPropertyValue('--ink').trim();
  if (wire.value)
    body.add(
      new THREE.LineSegments(
        new THREE.WireframeGeometry(geometry),
        new THREE.LineBasicMaterial({ color: ink, transparent: true, opacity: 0.25 }),
      ),
    );
  // All contours as one thing to draw: thousands of lines of their own would halt the view.
  const ends: number[] = [];
  for (const level of props.contours)
    for (const line of level.lines)
      for (let i = 0; i + 3 < line.length; i += 2)
        for (const k of [i, i + 2]) ends.push(line[k]! - mid[0]!, line[k + 1]! - mid[1]!, level.h - mid[2]!);
  const drawn = new THREE.BufferGeometry().setAttribute('position', new THREE.BufferAttribute(Float32Array.from(ends), 3));
  body.add(new THREE.LineSegments(drawn, new THREE.LineBasicMaterial({ color: 0x6d5a2e, transparent: true, opacity: 0.75 })));
  const byColour = new Map<string, number[]>();
  for (const { colour, vertices } of props.lines) {
    const of = byColour.get(colour) ?? byColour.set(colour, []).get(colour)!;
    for (let i = 1; i < vertices.length; i += 1)
      for (const v of [vertices[i - 1]!, vertices[i]!]) of.push(v[0] - mid[0]!, v[1] - mid[1]!, v[2] - mid[2]!);
  }
  for (const [colour, vertices] of byColour) {
    const line = new THREE.BufferGeometry().setAttribute('position', new THREE.BufferAttribute(Float32Array.from(vertices), 3));
    body.add(new THREE.LineSegments(line, new THREE.LineBasicMaterial({ color: colour })));
  }
  body.scale.z = exaggeration.value;
  stand();
}

/** What is picked stands out in front of the surface. */
function mark() {
  emptied(marked);
  marked.scale.z = exaggeration.value;
  const m = props.marks;
  if (!m) return;
  const colour = getComputedStyle(document.documentElement).getPropertyValue('--cobalt').trim();
  const of = (vertices: number[]) => {
    const p = new Float32Array(3 * vertices.length);
    vertices.forEach((v, i) => p.set(shape.position.subarray(3 * v, 3 * v + 3), 3 * i));
    return new THREE.BufferGeometry().setAttribute('position', new THREE.BufferAttribute(p, 3));
  };
  const faces = m.triangles.flatMap((t) => [...shape.index.subarray(3 * t, 3 * t + 3)]);
  const before = { polygonOffset: true, polygonOffsetFactor: -1, polygonOffsetUnits: -1 };
  marked.add(new THREE.Mesh(of(faces), new THREE.MeshBasicMaterial({ color: colour, side: THREE.DoubleSide, ...before })));
  const style = getComputedStyle(document.documentElement);
  const [ink, red] = [style.getPropertyValue('--ink').trim(), style.getPropertyValue('--vermilion').trim()];
  marked.add(new THREE.LineSegments(of(m.outline.flat()), new THREE.LineBasicMaterial({ color: ink, transparent: true, opacity: 0.45 })));
  marked.add(new THREE.LineSegments(of(m.segments.flat()), new THREE.LineBasicMaterial({ color: red, depthTest: false })));
  marked.add(
    new THREE.Points(
      of([...m.corners, ...m.segments.flat()]),
      new THREE.PointsMaterial({ color: red, size: 8, sizeAttenuation: false, depthTest: false }),
    ),
  );
}

/** A pole with a head where the rover is. */
function stand() {
  emptied(standing);
  if (!props.rover) return;
  const [x, y, z] = props.rover.map((v, k) => v - mid[k]!) as [number, number, number];
  const colour = getComputedStyle(document.documentElement).getPropertyValue('--cobalt').trim();
  const [top, head] = [z * exaggeration.value + 0.09 * size, 0.018 * size];
  const pole = new THREE.BufferGeometry().setFromPoints([new THREE.Vector3(x, y, z * exaggeration.value), new THREE.Vector3(x, y, top)]);
  const ball = new THREE.Mesh(new THREE.SphereGeometry(head, 16, 12), new THREE.MeshLambertMaterial({ color: colour }));
  ball.position.set(x, y, top);
  standing.add(new THREE.Line(pole, new THREE.LineBasicMaterial({ color: colour })), ball);
}

function home() {
  camera.position.set(-0.55 * size, -0.95 * size, 0.75 * size);
  camera.near = size / 1000;
  camera.far = size * 20;
  camera.updateProjectionMatrix();
  controls?.target.set(0, 0, 0);
  controls?.update();
}

function paint() {
  if (!renderer) return;
  renderer.setClearColor(new THREE.Color(getComputedStyle(document.documentElement).getPropertyValue('--sketch').trim()));
  renderer.render(scene, camera);
}

/** While the view moves the thinner mesh stands in; when it rests all is there. */
function moving(on: boolean) {
  if (!whole || !thin) return;
  [thin.visible, whole.visible] = [on, !on];
  if (!on) paint();
}

function resize() {
  if (!renderer || !host.value) return;
  const { clientWidth: w, clientHeight: h } = host.value;
  if (w === 0 || h === 0) return;
  renderer.setSize(w, h);
  camera.aspect = w / h;
  camera.updateProjectionMatrix();
  paint();
}

function key(event: KeyboardEvent) {
  if (!isTyping(event) && event.key === 'z' && !event.ctrlKey) {
    home();
    paint();
  }
}

onMounted(() => {
  try {
    renderer = new THREE.WebGLRenderer({ antialias: true, preserveDrawingBuffer: true });
  } catch {
    failure.value = 'This browser cannot draw in three dimensions (no WebGL). The map shows the same surface.';
    return;
  }
  renderer.setPixelRatio(window.devicePixelRatio);
  host.value!.append(renderer.domElement);
  scene = new THREE.Scene();
  camera = new THREE.PerspectiveCamera(40, 1, 0.1, 1e6);
  camera.up.set(0, 0, 1);
  scene.add(body, marked, standing, new THREE.HemisphereLight(0xffffff, 0x8a8778, 1.6));
  const sun = new THREE.DirectionalLight(0xffffff, 1.9);
  sun.position.set(-1, 1, 1.3);
  scene.add(sun);
  controls = new OrbitControls(camera, renderer.domElement);
  controls.addEventListener('change', paint);
  controls.addEventListener('start', () => moving(true));
  controls.addEventListener('end', () => moving(false));
  build();
  home();
  new ResizeObserver(resize).observe(host.value!);
  resize();
  window.addEventListener('keydown', key);
});
onBeforeUnmount(() => {
  window.removeEventListener('keydown', key);
  controls?.dispose();
  renderer?.dispose();
});
watch(
  () => props.mesh,
  () => {
    build();
    home();
    paint();
  },
);
watch(
  () => props.marks,
  () => {
    mark();
    paint();
  },
);
watch(exaggeration, (by) => {
  [body.scale.z, marked.scale.z] = [by, by];
  stand();
  paint();
});
watch(
  () => props.rover,
  () => {
    stand();
    paint();
  },
);
watch([() => props.contours, () => props.lines, () => props.tint, wire, () => session.theme], () => {
  build();
  paint();
});
</script>

<template>
  <div class="three">
    <div
      ref="host"
      class="host"
      tabindex="0"
      role="application"
      aria-label="Surface in three dimensions"
      @pointerdown="(e) => (pressedAt = [e.clientX, e.clientY])"
      @pointerup="released"
      @keydown="turned"
    />
    <ElAlert v-if="failure" type="error" :closable="false">{{ failure }}</ElAlert>
    <div v-if="!bare" class="foot quiet">
      <label
        >heights ×
        <ElInputNumber
          v-model="exaggeration"
          size="small"
          :min="1"
          :max="50"
          :precision="0"
          controls-position="right"
          aria-label="Heights times"
      /></label>
      <ElCheckbox v-model="wire">triangles</ElCheckbox>
      <span>drag or arrows to turn, wheel or + − to come closer, right button to move, click to read</span>
    </div>
  </div>
</template>

<style scoped>
.three {
  position: relative;
  height: 100%;
}
.host {
  position: absolute;
  inset: 0;
}
.el-alert {
  width: auto;
  position: absolute;
  top: 50px;
  left: 14px;
}
.foot {
  position: absolute;
  left: 14px;
  right: 14px;
  bottom: 8px;
  display: flex;
  gap: 18px;
  align-items: center;
  font-size: 11.5px;
  background: color-mix(in srgb, var(--sketch) 80%, transparent);
}
.el-input-number {
  width: 76px;
}
</style>
