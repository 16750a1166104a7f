import type Feature from 'ol/Feature';
import CircleStyle from 'ol/style/Circle';
import Fill from 'ol/style/Fill';
import RegularShape from 'ol/style/RegularShape';
import Stroke from 'ol/style/Stroke';
import Style from 'ol/style/Style';
import Text from 'ol/style/Text';

/** Styles of the sketch in the colours of the present theme. Symbols by role; labels make room for each other. */
export class Styles {
  private readonly css = getComputedStyle(document.documentElement);
  private readonly cache = new Map<string, Style | Style[]>();

  colour(name: string): string {
    return this.css.getPropertyValue(name).trim();
  }

  private kept<T extends Style | Style[]>(key: string, make: () => T): T {
    let style = this.cache.get(key) as T | undefined;
    if (style === undefined) {
      style = make();
      this.cache.set(key, style);
    }
    return style;
  }

  line(f: Feature, selected: boolean): Style | Style[] {
    const style = f.get('style') as string;
    const tone = f.get('tone') as string;
    return this.kept(`line ${style} ${tone} ${selected}`, () => {
      const colour =
        tone === 'bad'
          ? '--vermilion'
          : tone === 'aside'
            ? '--ochre'
            : style === 'vector' || tone === 'planned'
              ? '--cobalt'
              : style === 'shift'
                ? '--vermilion'
                : '--ink-soft';
      const dash = tone === 'aside' ? [8, 5] : style === 'vector' ? [1.5, 3.5] : style === 'levelled' ? [6, 3] : undefined;
      const stroke = new Stroke({
        color: this.colour(colour),
        width: selected ? 3 : tone === 'bad' ? 2.2 : tone === 'planned' ? 1.8 : style === 'vector' ? 1.3 : 0.9,
        lineDash: dash,
      });
      const own = new Style({ stroke, zIndex: selected ? 3 : tone === 'plain' ? 1 : 2 });
      return selected ? [new Style({ stroke: new Stroke({ color: this.colour('--cobalt-soft'), width: 8 }), zIndex: 2 }), own] : own;
    });
  }

  ellipse(): Style {
    return this.kept(
      'ellipse',
      () =>
        new Style({
          stroke: new Stroke({ color: this.colour('--cobalt'), width: 1.1 }),
          fill: new Fill({ color: `color-mix(in srgb, ${this.colour('--cobalt')} 9%, transparent)` }),
        }),
    );
  }

  path(f: Feature, resolution: number): Style | Style[] {
    const kind = f.get('kind') as string;
    const label = f.get('label') as string | undefined;
    const named = label !== undefined && kind === 'index' && resolution < 0.8;
    const own = f.get('colour') as string | undefined;
    if (own) return this.kept(`path ${own}`, () => new Style({ stroke: new Stroke({ color: own, width: 1.8 }) }));
    return this.kept(`path ${kind} ${named ? label : ''}`, () => {
      const [colour, width, dash]: [string, number, number[] | undefined] = ['breakline', 'track', 'feature'].includes(kind)
        ? ['--ink', 1.8, undefined]
        : ['boundary', 'void', 'hull', 'limits'].includes(kind)
          ? ['--teal', 1.6, [7, 4]]
          : kind === 'zero'
            ? ['--ink-soft', 1.2, undefined]
            : kind === 'section' || kind === 'across'
              ? ['--vermilion', kind === 'section' ? 2 : 1.2, undefined]
              : kind === 'area'
                ? ['--cobalt', 1.4, [3, 3]]
                : kind === 'edge'
                  ? ['--rule-strong', 0.5, undefined]
                  : ['--ochre', kind === 'index' ? 1.4 : 0.7, undefined];
      return new Style({
        stroke: new Stroke({ color: this.colour(colour), width, lineDash: dash }),
        text: named
          ? new Text({
              text: label,
              placement: 'line',
              font: "10.5px 'IBM Plex Mono'",
              fill: new Fill({ color: this.colour('--ochre') }),
              stroke: new Stroke({ color: this.colour('--sketch'), width: 4 }),
            })
          : undefined,
      });
    });
  }

  note(f: Feature): Style {
    const text = f.get('text') as string;
    const tone = f.get('tone') as string;
    const below = f.get('below') === true;
    return this.kept(
      `note ${tone} ${text} ${below}`,
      () =>
        new Style({
          text: new Text({
            text,
            ...(below ? { offsetX: 9, offsetY: 6, textAlign: 'left' as const, declutterMode: 'none' as const } : {}),
            font: "11px 'IBM Plex Mono'",
            fill: new Fill({ color: this.colour({ good: '--teal', doubt: '--ochre', bad: '--vermilion' }[tone] ?? '--ink') }),
            stroke: new Stroke({ color: this.colour('--sketch'), width: 3 }),
          }),
        }),
    );
  }

  point(f: Feature, selected: boolean, named: boolean): Style | Style[] {
    const role = f.get('role') as string;
    const name = f.get('name') as string;
    const important = role !== 'surveyed' && role !== 'new' && role !== 'out' && role !== 'rover';
    const labelled = selected || important || (named && role !== 'out' && role !== 'rover');
    const symbol = this.kept(`point ${role} ${selected}`, () => this.symbol(role, selected));
    if (!labelled) return symbol;
    return [
      ...symbol,
      this.kept(
        `label ${name} ${important} ${selected}`,
        () =>
          new Style({
            text: new Text({
              text: name,
              font: `${important || selected ? '600 11.5px' : '10px'} 'IBM Plex Mono'`,
              fill: new Fill({ color: this.colour('--ink') }),
              stroke: new Stroke({ color: this.colour('--sketch'), width: 3.5 }),
              offsetX: 9,
              offsetY: -10,
              textAlign: 'left',
            }),
            zIndex: important ? 2 : 1,
          }),
      ),
    ];
  }

  private symbol(role: string, selected: boolean): Style[] {
    const ink = this.colour('--ink');
    const paper = this.colour('--sketch');
    const stroke = new Stroke({ color: ink, width: 1.4 });
    const base: Style[] = [];
    if (selected)
      base.push(
        new Style({
          image: new CircleStyle({
            radius: 11,
            fill: new Fill({ color: this.colour('--cobalt-soft') }),
            stroke: new Stroke({ color: this.colour('--cobalt'), width: 1.6 }),
            declutterMode: 'none',
          }),
        }),
      );
    const dot = (radius: number) =>
      new Style({ image: new CircleStyle({ radius, fill: new Fill({ color: ink }), declutterMode: 'none' }) });
    switch (role) {
      case 'held':
        return [
          ...base,
          new Style({
            image: new RegularShape({
              points: 4,
              radius: 8.5,
              angle: Math.PI / 4,
              stroke,
              fill: new Fill({ color: paper }),
              declutterMode: 'none',
            }),
          }),
          new Style({ image: new RegularShape({ points: 4, radius: 7, radius2: 0, angle: Math.PI / 4, stroke, declutterMode: 'none' }) }),
        ];
      case 'check':
        return [
          ...base,
          new Style({ image: new CircleStyle({ radius: 6.5, stroke, fill: new Fill({ color: paper }), declutterMode: 'none' }) }),
          new Style({ image: new RegularShape({ points: 4, radius: 6, radius2: 0, angle: Math.PI / 4, stroke, declutterMode: 'none' }) }),
        ];
      case 'control':
        return [
          ...base,
          new Style({
            image: new RegularShape({
              points: 4,
              radius: 7.5,
              angle: Math.PI / 4,
              stroke,
              fill: new Fill({ color: paper }),
              declutterMode: 'none',
            }),
          }),
          dot(1.4),
        ];
      case 'out':
        return [
          ...base,
          new Style({
            image: new CircleStyle({
              radius: 2.4,
              stroke: new Stroke({ color: this.colour('--rule-strong'), width: 1 }),
              declutterMode: 'none',
            }),
          }),
        ];
      case 'surveyed':
        return [
          ...base,
          new Style({
            image: new CircleStyle({ radius: 1.5, fill: new Fill({ color: this.colour('--ink-soft') }), declutterMode: 'none' }),
          }),
        ];
      case 'rover':
        return [
          new Style({
            image: new CircleStyle({
              radius: 9,
              fill: new Fill({ color: this.colour('--cobalt') }),
              stroke: new Stroke({ color: paper, width: 2.5 }),
              declutterMode: 'none',
            }),
            zIndex: 9,
          }),
        ];
      case 'target':
        return [
          new Style({
            image: new CircleStyle({
              radius: 8,
              stroke: new Stroke({ color: this.colour('--vermilion'), width: 2 }),
              declutterMode: 'none',
            }),
          }),
          new Style({
            image: new RegularShape({
              points: 4,
              radius: 12,
              radius2: 0,
              stroke: new Stroke({ color: this.colour('--vermilion'), width: 1.6 }),
              declutterMode: 'none',
            }),
          }),
        ];
      case 'new':
      case 'planned':
        return [
          ...base,
          new Style({
            image: new RegularShape({
              points: 4,
              radius: 3.6,
              stroke: new Stroke({ color: this.colour('--cobalt'), width: 1.1 }),
              fill: new Fill({ color: paper }),
              declutterMode: 'none',
            }),
          }),
        ];
      default:
        return [
          ...base,
          new Style({ image: new CircleStyle({ radius: 5, stroke, fill: new Fill({ color: paper }), declutterMode: 'none' }) }),
          dot(1.3),
        ];
    }
  }
}
