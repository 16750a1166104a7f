<script setup lang="ts">
import 'ol/ol.css';
import Feature from 'ol/Feature';
import LineString from 'ol/geom/LineString';
import Point from 'ol/geom/Point';
import Polygon from 'ol/geom/Polygon';
import Draw, { createBox } from 'ol/interaction/Draw';
import VectorLayer from 'ol/layer/Vector';
import OlMap from 'ol/Map';
import Projection from 'ol/proj/Projection';
import VectorSource from 'ol/source/Vector';
import View from 'ol/View';
import { computed, onBeforeUnmount, onMounted, ref, watch } from 'vue';
import { group } from '../format/units';
import { isTyping } from '../frame/keys';
import { useProject } from '../state/project';
import { useSession } from '../state/session';
import { CellLayer } from './cells';
import { FaceLayer } from './faces';
import { drawGrid } from './grid';
import { roundNumber, type Drawing, type Scene, type ScenePoint } from './scene';
import { Styles } from './styles';
import { MOST, thinned } from './thin';

const props = withDefaults(
  defineProps<{
    scene: Scene;
    selected?: Set<string>;
    selectedPoints?: Set<string>;
    drawing?: Drawing;
    still?: boolean;
    /** On a small screen: without what explains it. */
    bare?: boolean;
    /** What moves while the rest stays, the first of which is kept in sight; and a line from it. */
    moving?: ScenePoint[];
    lead?: [[number, number], [number, number]] | null;
    /** Where to look, whenever it changes: least easting and northing, greatest. */
    look?: number[] | null;
  }>(),
  {
    bare: false,
    moving: () => [],
    lead: null,
    look: null,
    selected: () => new Set(),
    selectedPoints: () => new Set(),
    drawing: false,
    still: false,
  },
);
const emit = defineEmits<{
  select: [key: string, add: boolean];
  point: [name: string, add: boolean];
  drawn: [vertices: [number, number][]];
  place: [e: number, n: number];
  over: [e: number, n: number, resolution: number];
}>();

const project = useProject();
const session = useSession();
const host = ref<HTMLElement>();
const canvas = ref<HTMLCanvasElement>();
const bar = ref({ metres: 100, pixels: 80 });
const cursor = ref('');
const exaggeration = ref(1);
/** Of a scene too large to draw whole: how many points are drawn, and how many there are where the sketch looks. */
const shown = ref<{ drawn: number; inView: number } | null>(null);
const MOST_NAMED = 400;
let map: OlMap | null = null;
let styles = new Styles();
let draw: Draw | null = null;
let fitted = '';
const cells = new CellLayer();
const faces = new FaceLayer();
const sources = {
  paths: new VectorSource(),
  lines: new VectorSource(),
  ellipses: new VectorSource(),
  points: new VectorSource(),
  selection: new VectorSource(),
  notes: new VectorSource(),
  moving: new VectorSource(),
};

const kinds = computed(() => {
  const s = props.scene;
  const legend: string[] = [];
  if (s.lines.some((l) => l.style === 'sight')) legend.push('— sighted');
  if (s.lines.some((l) => l.style === 'vector')) legend.push('··· GNSS vector');
  const roles = new Set(s.points.map((p) => p.role));
  if (roles.has('held')) legend.push('▣ held');
  if (roles.has('control')) legend.push('▢ weighted control');
  if (roles.has('check')) legend.push('⊗ check point');
  if (roles.has('adjusted')) legend.push('⊙ adjusted');
  if (roles.has('surveyed')) legend.push('· surveyed');
  if (roles.has('new')) legend.push('◇ to be accepted');
  if (roles.has('planned')) legend.push('◇ planned');
  if (s.paths.some((p) => p.kind === 'contour' || p.kind === 'index')) legend.push('~ contour');
  if (s.paths.some((p) => p.kind === 'breakline')) legend.push('━ breakline');
  if (s.paths.some((p) => p.kind === 'track')) legend.push('━ track');
  if (s.paths.some((p) => p.kind === 'feature')) legend.push('━ line feature');
  if (s.paths.some((p) => p.kind === 'boundary')) legend.push('┅ boundary');
  if (s.paths.some((p) => p.kind === 'zero')) legend.push('━ no difference');
  if (s.paths.some((p) => p.kind === 'section')) legend.push('━ section');
  if (roles.has('out')) legend.push('∘ left out');
  if (s.paths.some((p) => p.kind === 'hull')) legend.push('┅ hull of the pairs');
  if (s.paths.some((p) => p.kind === 'limits')) legend.push('┅ limits of the extract');
  return legend;
});

function extent(): [number, number, number, number] | null {
  const box: [number, number, number, number] = [Infinity, Infinity, -Infinity, -Infinity];
  const reach = (e: number, n: number) => {
    if (e < box[0]) box[0] = e;
    if (n < box[1]) box[1] = n;
    if (e > box[2]) box[2] = e;
    if (n > box[3]) box[3] = n;
  };
  // Where lines shape a surface, the sketch shows that; the rest is a drag away.
  const isShaped = props.scene.paths.some((p) => p.kind !== 'feature' && p.kind !== 'track' && p.kind !== 'area');
  for (const p of isShaped ? [] : props.scene.points) reach(p.e, p.n);
  props.scene.cells?.e.forEach((e, i) => reach(e, props.scene.cells!.n[i]!));
  for (const p of props.scene.paths) for (let i = 0; i < p.path.length; i += 2) reach(p.path[i]!, p.path[i + 1]!);
  if (box[0] > box[2]) return null;
  const pad = 0.5 * Math.max(1, 0.02 * Math.max(box[2] - box[0], box[3] - box[1]));
  return [box[0] - pad, box[1] - pad, box[2] + pad, box[3] + pad];
}

function fit() {
  if (props.look) {
    map?.getView().fit(props.look, { padding: [12, 12, 30, 12], size: map.getSize() });
    return;
  }
  const box = extent();
  if (box) map?.getView().fit(box, { padding: [60, 40, 64, 84], size: map.getSize() });
}

function ellipse(e: number, n: number, a: number, b: number, bearing: number): Polygon {
  const ring: [number, number][] = [];
  const t = (bearing * Math.PI) / 180;
  for (let i = 0; i <= 48; i += 1) {
    const s = (2 * Math.PI * i) / 48;
    const along = a * Math.cos(s);
    const across = b * Math.sin(s);
    ring.push([e + along * Math.sin(t) + across * Math.cos(t), n + along * Math.cos(t) - across * Math.sin(t)]);
  }
  return new Polygon([ring]);
}

function build() {
  const s = props.scene;
  const box = extent();
  const span = box ? Math.max(box[2] - box[0], box[3] - box[1]) : 1;
  const largest = Math.max(1e-9, ...s.ellipses.map((x) => x.semiMajor), ...s.shifts.map((x) => Math.hypot(x.de, x.dn)));
  exaggeration.value = roundNumber(Math.max(1, ((s.ellipses.length > 0 ? 0.06 : 0.12) * span) / largest));
  cells.show(s.cells ?? null);
  faces.show(s.faces ?? null);
  sources.paths.clear();
  sources.paths.addFeatures(
    s.paths.map((p) => {
      const c: [number, number][] = [];
      for (let i = 0; i < p.path.length; i += 2) c.push([p.path[i]!, p.path[i + 1]!]);
      return new Feature({ geometry: new LineString(c), kind: p.kind, label: p.label, colour: p.colour });
    }),
  );
  sources.lines.clear();
  sources.lines.addFeatures([
    ...s.lines.map((l) => new Feature({ geometry: new LineString([l.from, l.to]), key: l.key, style: l.style, tone: l.tone })),
    ...s.shifts.map(
      (v) =>
        new Feature({
          geometry: new LineString([
            [v.e, v.n],
            [v.e + v.de * exaggeration.value, v.n + v.dn * exaggeration.value],
          ]),
          style: 'shift',
          tone: 'plain',
        }),
    ),
  ]);
  sources.ellipses.clear();
  sources.ellipses.addFeatures(
    s.ellipses
      .filter((x) => x.semiMajor > 0)
      .map(
        (x) =>
          new Feature({
            geometry: ellipse(x.e, x.n, x.semiMajor * exaggeration.value, x.semiMinor * exaggeration.value, x.bearing),
            name: x.name,
          }),
      ),
  );
  sources.notes.clear();
  sources.notes.addFeatures(
    s.notes.map((x) => new Feature({ geometry: new Point([x.e, x.n]), text: x.text, tone: x.tone, below: x.below })),
  );
  highlight();
  const key = box ? box.map((v) => v.toFixed(0)).join() : '';
  if (key !== fitted && map) {
    // Whoever is placing things looks where they chose to look.
    if (!props.still || fitted === '') fit();
    fitted = key;
  }
  placePoints();
}

/** All points of a scene; of a very large one those that show something where the sketch looks. */
function placePoints() {
  let points = props.scene.points;
  shown.value = null;
  const size = map?.getSize();
  if (map && size && points.length > MOST) {
    const resolution = map.getView().getResolution() ?? 1;
    const [w, s, e, n] = map.getView().calculateExtent(size) as [number, number, number, number];
    const [x, y] = [0.25 * (e - w), 0.25 * (n - s)];
    const drawn = thinned(points, [w - x, s - y, e + x, n + y], resolution);
    shown.value = { drawn: drawn.points.length, inView: drawn.inView };
    points = drawn.points;
  }
  sources.points.clear();
  sources.points.addFeatures(points.map((p) => new Feature({ geometry: new Point([p.e, p.n]), name: p.name, role: p.role })));
}

/** What moves, drawn again without the rest; who walks out of sight takes the sketch along. */
function move() {
  const features = props.moving.map((p) => new Feature({ geometry: new Point([p.e, p.n]), name: p.name, role: p.role }));
  if (props.lead) features.unshift(new Feature({ geometry: new LineString(props.lead), style: 'shift', tone: 'plain' }) as never);
  sources.moving.clear();
  sources.moving.addFeatures(features);
  const [at, size] = [props.moving[0], map?.getSize()];
  if (!map || !at || !size) return;
  const pixel = map.getPixelFromCoordinate([at.e, at.n]) as [number, number] | null;
  const margin = 30;
  const isSeen = pixel && pixel.every((v, k) => v > margin && v < size[k]! - margin);
  if (pixel && !isSeen) map.getView().setCenter([at.e, at.n]);
}

/** Names are written where they can be read. */
function isNamed(resolution: number): boolean {
  return shown.value ? shown.value.inView < MOST_NAMED : resolution * Math.sqrt(props.scene.points.length) < 3.2;
}

/** What is selected is drawn on a layer of its own, so that selecting does not draw thousands of others again. */
function highlight() {
  const features: Feature[] = [];
  for (const l of props.selected.size > 0 ? props.scene.lines : []) {
    if (props.selected.has(l.key)) features.push(new Feature({ geometry: new LineString([l.from, l.to]), style: l.style, tone: l.tone }));
  }
  for (const p of props.selectedPoints.size > 0 ? props.scene.points : []) {
    if (props.selectedPoints.has(p.name)) features.push(new Feature({ geometry: new Point([p.e, p.n]), name: p.name, role: p.role }));
  }
  sources.selection.clear();
  sources.selection.addFeatures(features);
}

function restyle() {
  for (const layer of map?.getLayers().getArray() ?? []) layer.changed();
}

function afterRender() {
  if (!map || !canvas.value) return;
  const view = map.getView();
  const resolution = view.getResolution() ?? 1;
  const metres = roundNumber(120 * resolution);
  bar.value = { metres, pixels: metres / resolution };
  drawGrid(canvas.value, map, styles);
}

function click(pixel: [number, number], add: boolean) {
  if (props.drawing) return;
  const point = map!.forEachFeatureAtPixel(pixel, (f) => f.get('name') as string | undefined, {
    hitTolerance: 6,
    layerFilter: (l) => l.get('role') === 'points',
  });
  if (point) {
    emit('point', point, add);
    return;
  }
  const key = map!.forEachFeatureAtPixel(pixel, (f) => f.get('key') as string | undefined, {
    hitTolerance: 5,
    layerFilter: (l) => l.get('role') === 'lines',
  });
  if (key) emit('select', key, add);
  else {
    const [e, n] = map!.getCoordinateFromPixel(pixel) as [number, number];
    emit('place', e, n);
  }
}

const key = computed(() => [props.scene.cells, props.scene.faces].find((k) => k && k.labels.length > 0) ?? null);

function pressed(event: KeyboardEvent) {
  if (!isTyping(event) && event.key === 'z' && !event.ctrlKey && !event.metaKey) fit();
}

onMounted(() => {
  const layer = (role: keyof typeof sources, style: (f: Feature, resolution: number) => unknown, declutter = false) => {
    const l = new VectorLayer({ source: sources[role], style: style as never, declutter });
    l.set('role', role);
    return l;
  };
  map = new OlMap({
    target: host.value,
    controls: [],
    layers: [
      faces.layer,
      cells.layer,
      layer('paths', (f, r) => styles.path(f, r), true),
      layer('lines', (f) => styles.line(f, false)),
      layer('ellipses', () => styles.ellipse()),
      layer('selection', (f) => (f.get('name') ? styles.point(f, true, true) : styles.line(f, true))),
      layer('notes', (f) => styles.note(f), true),
      layer('points', (f, r) => styles.point(f, false, isNamed(r)), true),
      layer('moving', (f) => (f.get('name') ? styles.point(f, false, true) : styles.line(f, true))),
    ],
    view: new View({
      projection: new Projection({ code: 'project', units: 'm', extent: [-1e8, -1e8, 1e8, 1e8] }),
      center: [0, 0],
      resolution: 1,
      constrainResolution: false,
      minResolution: 1e-4,
      enableRotation: false,
      showFullExtent: true,
    }),
  });
  // Whoever waits for the sketch, a test or a printer, sees when it is drawn.
  map.on('rendercomplete', () => {
    host.value?.setAttribute('data-drawn', '');
    host.value?.setAttribute('data-view', map?.getView().calculateExtent(map.getSize()).join(' ') ?? '');
  });
  map.on('postrender', afterRender);
  map.on('moveend', () => props.scene.points.length > MOST && placePoints());
  map.on('click', (e) =>
    click(e.pixel as [number, number], (e.originalEvent as PointerEvent).ctrlKey || (e.originalEvent as PointerEvent).shiftKey),
  );
  map.on('pointermove', (e) => {
    const [x, y] = e.coordinate as [number, number];
    cursor.value = `${x.toFixed(2)} E  ${y.toFixed(2)} N`;
    emit('over', x, y, map?.getView().getResolution() ?? 1);
  });
  build();
  move();
  // It may be shown only because something is to be drawn on it.
  drawOn(props.drawing);
  window.addEventListener('keydown', pressed);
  new ResizeObserver(() => map?.updateSize()).observe(host.value!);
});
onBeforeUnmount(() => {
  window.removeEventListener('keydown', pressed);
  map?.setTarget(undefined);
  map = null;
});

watch(() => props.scene, build);
watch(() => props.moving, move);
watch(() => props.look, fit);
watch([() => props.selected, () => props.selectedPoints], highlight);
watch(
  () => session.theme,
  () => {
    styles = new Styles();
    restyle();
  },
);
function drawOn(on: Drawing) {
  if (draw) map?.removeInteraction(draw);
  draw = null;
  if (on && map) {
    draw = new Draw({
      source: new VectorSource(),
      ...(on === 'box'
        ? { type: 'Circle' as const, geometryFunction: createBox() }
        : { type: on === 'line' ? ('LineString' as const) : ('Polygon' as const), freehand: on === 'lasso' }),
    });
    draw.on('drawend', (e) => {
      const shape = e.feature.getGeometry() as Polygon | LineString;
      // A hand draws more corners than it means.
      const c = (on === 'lasso' ? (shape.simplify(2 * (map?.getView().getResolution() ?? 1)) as Polygon) : shape).getCoordinates();
      emit('drawn', on === 'line' ? (c as [number, number][]) : (c[0] as [number, number][]).slice(0, -1));
    });
    map.addInteraction(draw);
  }
}
watch(() => props.drawing, drawOn);
defineExpose({ fit });
</script>

<template>
  <div class="sketch">
    <canvas ref="canvas" class="grid" aria-hidden="true" />
    <div ref="host" class="map" tabindex="0" role="application" aria-label="Map of the project" />
    <div class="corner"><slot name="corner" /></div>
    <div class="foot">
      <div v-if="!bare" class="legend">
        <div v-if="scene.ellipses.length > 0 || scene.shifts.length > 0">
          {{ scene.ellipses.length > 0 ? `ellipses ${Math.round(100 * scene.confidence)} %` : 'vectors' }}, drawn ×{{
            exaggeration.toLocaleString('en').replaceAll(',', '\u2009')
          }}
        </div>
        <div v-if="shown && shown.drawn < shown.inView">
          {{ group(String(shown.drawn)) }} of {{ group(String(shown.inView)) }} points here drawn; zoom in for the rest
        </div>
        <div v-if="key" class="key">
          <span v-for="(colour, i) in key.colours" :key="i"
            ><i :style="{ background: colour }" /><b v-if="i > 0">{{ key.labels[i - 1] }}</b></span
          >
        </div>
        <div v-if="scene.caption">{{ scene.caption }}</div>
        <div>{{ kinds.join('   ') }}</div>
      </div>
      <div class="scale mono">
        <span class="bar" :style="{ width: `${bar.pixels}px` }" />{{ bar.metres >= 1000 ? `${bar.metres / 1000} km` : `${bar.metres} m` }}
      </div>
      <div class="north mono" title="Grid north">N ↑</div>
    </div>
    <div v-if="!bare" class="cursor mono quiet">{{ cursor }}</div>
    <div v-if="!bare && scene.points.length === 0 && scene.paths.length === 0 && !key" class="nothing quiet">
      {{ project.points.length === 0 ? 'The sketch fills as points come in.' : 'Nothing to draw here yet.' }}
    </div>
  </div>
</template>

<style scoped>
.sketch {
  position: relative;
  height: 100%;
}
.map {
  position: absolute;
  inset: 0;
}
.map:focus-visible {
  outline-offset: -2px;
}
.grid {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  pointer-events: none;
}
.corner {
  position: absolute;
  top: 8px;
  left: 14px;
  display: flex;
  gap: 14px;
  align-items: center;
  background: color-mix(in srgb, var(--sketch) 86%, transparent);
  padding: 2px 6px 2px 0;
}
.foot {
  position: absolute;
  left: 14px;
  right: 14px;
  bottom: 8px;
  display: flex;
  gap: 18px;
  align-items: flex-end;
  pointer-events: none;
  font-size: 11px;
  color: var(--ink-soft);
}
.legend {
  flex: 1;
  white-space: pre-wrap;
  background: color-mix(in srgb, var(--sketch) 80%, transparent);
}
.key {
  display: flex;
  margin-bottom: 3px;
}
.key span {
  flex: 0 1 58px;
  height: 26px;
}
.key b {
  font: 10.5px 'IBM Plex Mono';
  display: inline-block;
  transform: translateX(-50%);
}
.key i {
  display: block;
  height: 11px;
  border: 1px solid var(--rule-strong);
  margin-right: -1px;
}
.scale {
  display: grid;
  justify-items: center;
  color: var(--ink);
}
.bar {
  height: 6px;
  border: 1px solid var(--ink);
  border-top: 0;
}
.north {
  color: var(--ink);
  font-size: 12px;
}
.cursor {
  position: absolute;
  right: 14px;
  top: 10px;
  font-size: 11px;
  background: color-mix(in srgb, var(--sketch) 80%, transparent);
}
.nothing {
  position: absolute;
  inset: 0;
  display: grid;
  place-content: center;
  pointer-events: none;
}
</style>
