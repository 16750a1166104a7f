import { type ColourBy, classOf } from '../sketch/cloudColours';
import { CloudSpace } from '../sketch/cloudSpace';

/** A cloud in a folder of its own: this page, and tiles beside it. */
interface Published {
  name: string;
  project: string;
  reference: string;
  at: string;
  points: number;
  extent: number[];
  hasColours: boolean;
  hasIntensities: boolean;
}
interface Overview {
  tileset: unknown;
  tiles: Record<string, string>;
}
declare global {
  interface Window {
    cloud: Published;
    /** The upper tiles, where the page is opened from a disk and may not read files. */
    overview?: Overview;
  }
}

const { cloud, overview } = window;
const style = document.createElement('style');
style.textContent = `
  html, body { margin: 0; height: 100%; background: #fbfaf5; color: #1f2a37; font: 14px/1.4 system-ui, sans-serif; }
  body { display: grid; grid-template-rows: auto 1fr auto; }
  header, footer { display: flex; flex-wrap: wrap; gap: 4px 16px; align-items: baseline; padding: 8px 14px; border-bottom: 1px solid #d9d2bf; }
  footer { border: 0; border-top: 1px solid #d9d2bf; font-size: 12px; color: #5a5f66; }
  h1 { font-size: 16px; margin: 0; }
  .number { font-family: ui-monospace, monospace; font-variant-numeric: tabular-nums; }
  .spacer { flex: 1; }
  main { position: relative; min-height: 0; }
  canvas { display: block; }
`;
document.head.append(style);

function element<K extends keyof HTMLElementTagNameMap>(tag: K, text = '', name = ''): HTMLElementTagNameMap[K] {
  const made = document.createElement(tag);
  made.textContent = text;
  made.className = name;
  return made;
}

const number = (v: number, digits: number) => v.toLocaleString('en', { minimumFractionDigits: digits, maximumFractionDigits: digits });
const head = element('header');
const choice = element('select');
choice.setAttribute('aria-label', 'Colour by');
for (const [key, label, has] of [
  ['elevation', 'height', true],
  ['class', 'class', true],
  ['intensity', 'intensity', cloud.hasIntensities],
  ['colour', 'its colours', cloud.hasColours],
] as const) {
  const option = element('option', `colour by ${label}`);
  [option.value, option.disabled] = [key, !has];
  choice.append(option);
}
const whole = element('button', 'all of it');
head.append(
  element('h1', cloud.name),
  element('span', cloud.project),
  element('span', `${number(cloud.points, 0)} points`, 'number'),
  element('span', '', 'spacer'),
  choice,
  whole,
);
const main = element('main');
const foot = element('footer');
const read = element('span', 'Turn with a drag, closer with the wheel. Click a point to read it.', 'number');
foot.append(read, element('span', '', 'spacer'), element('span', `${cloud.reference}, metres · made ${cloud.at.slice(0, 10)}`));
if (overview) foot.append(element('span', 'Opened from a disk: a part of the points. From a web server all of them are shown.'));
document.body.append(head, main, foot);

const bytes = (text: string) => Uint8Array.from(atob(text), (c) => c.charCodeAt(0)).buffer;
const held = (of: Overview) => (url: string) => {
  const name = url.slice(url.lastIndexOf('/') + 1);
  return Promise.resolve(name === 'tileset.json' ? structuredClone(of.tileset) : bytes(of.tiles[name] ?? ''));
};
try {
  const space = new CloudSpace(main, overview ? held(overview) : null);
  space.background('#fbfaf5');
  new ResizeObserver(() => space.resize()).observe(main);
  space.resize();
  space.show('tiles/tileset.json', 'elevation', null, cloud.extent);
  choice.addEventListener('change', () => space.colourBy(choice.value as ColourBy));
  whole.addEventListener('click', () => space.home());
  let pressed = [0, 0];
  space.dom.addEventListener('pointerdown', (e) => (pressed = [e.clientX, e.clientY]));
  space.dom.addEventListener('pointerup', (e) => {
    if (Math.hypot(e.clientX - pressed[0]!, e.clientY - pressed[1]!) > 4) return;
    const met = space.meet(e.clientX, e.clientY);
    if (!met) return;
    space.mark([[met.e, met.n, met.h]], '#2a5bd7');
    const kind = met.classOf === null ? '' : `, ${classOf(met.classOf).name}`;
    read.textContent = `${number(met.e, 3)} E  ${number(met.n, 3)} N  ${number(met.h, 3)} m${kind}`;
  });
} catch {
  main.append(element('p', 'This browser cannot draw in three dimensions (no WebGL).'));
}
