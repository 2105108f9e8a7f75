import { table } from '../../model/own';
import { pictureIn } from '../../edit/picture';
import { dashPath } from '../../geometry/dash';
import { IDENTITY, invert, meanScale, multiply, translation, type Matrix } from '../../geometry/matrix';
import { pathBounds, type PathData } from '../../geometry/path';
import { contains, rect, type Rect } from '../../geometry/rect';
import { strokeOutline } from '../../geometry/stroke';
import { scaledEffect, type Effect } from '../../model/effects';
import { MOST_DASHES } from '../../model/paintSchema';
import { BLENDS, type Blend, type NodeOf, type Outline, type Paint } from '../../model/schema';
import { currentColour, nameOf, type Draws, type Held, type Making, type Painted, type Place } from './context';
import { cutsOf } from './cuts';
import { gradientPaint, hrefOf } from './gradients';
import { markersOf } from './markers';
import { isOurs, OURS, outlineFrom, ownPaint, readEffects, readWhole, type InksRead } from './ours';
import { isPattern, patternFill } from './patterns';
import { drawnBy, lineOf, SHAPES, type Drawn } from './shapes';
import { withStyle, type Style } from './style';
import { drawText } from './text';
import { addressOf, localId, readColour, readLength, readShare, readTransform, type Shade } from './values';
import { readViewBox, viewMatrix } from './view';
import { type Element } from './xml';

/** Elements whose content is nothing to see where it stands. */
const UNSEEN: ReadonlySet<string> = new Set([
  'defs',
  'style',
  'title',
  'desc',
  'metadata',
  'linearGradient',
  'radialGradient',
  'pattern',
  'clipPath',
  'mask',
  'marker',
  'symbol',
  'filter',
  'font',
  'font-face',
  'color-profile',
  'cursor',
  'view',
  'solidColor',
]);
const RUNS = table<string>({
  script: 'Scripts are left out.',
  foreignObject: 'Content that is no SVG (foreignObject) is left out.',
  animate: 'Animations are left out: the drawing is taken as it stands.',
  set: 'Animations are left out: the drawing is taken as it stands.',
  animateTransform: 'Animations are left out: the drawing is taken as it stands.',
  animateMotion: 'Animations are left out: the drawing is taken as it stands.',
  animateColor: 'Animations are left out: the drawing is taken as it stands.',
  audio: 'Sounds are left out.',
  video: 'Films are left out.',
  iframe: 'Pages inside the drawing are left out.',
});
const WORDS = table<string>({
  path: 'Path',
  rect: 'Rectangle',
  circle: 'Ellipse',
  ellipse: 'Ellipse',
  line: 'Line',
  polyline: 'Line',
  polygon: 'Polygon',
  g: 'Group',
  a: 'Group',
  svg: 'Group',
  use: 'Copy',
  text: 'Text',
  image: 'Picture',
  switch: 'Group',
});
/** A group, what cuts it and its viewport are up to three of ours: the model takes 200. */
const MOST_DEPTH = 60;

/** One thing that an element is painted with, in order. */
interface Part {
  readonly alpha: number;
  readonly ids: () => string[];
  /** What can share one object with others. */
  readonly fill?: Paint;
  readonly outline?: Outline;
}

const NOTHING = (): string[] => [];

/** Does a style say nothing of an element as a whole? */
const isPlain = (style: Style): boolean =>
  style.opacity === '1' &&
  style['mix-blend-mode'] === 'normal' &&
  style['clip-path'] === 'none' &&
  style.mask === 'none' &&
  style.filter === 'none';

/** Draws elements into objects. */
export class Drawer implements Draws {
  /** Ids that are being used just now: what uses itself is drawn once. */
  readonly using: string[] = [];

  constructor(
    readonly making: Making,
    private readonly held: ReadonlyMap<string, Held>,
    readonly inks: InksRead,
    /** Files of pictures that a drawing of ours brings along. */
    private readonly files: ReadonlyMap<string, Uint8Array>,
  ) {}

  children(e: Element, place: Place): string[] {
    const out: string[] = [];
    for (const child of e.elements) for (const id of this.element(child, place)) out.push(id);
    return out;
  }

  /** The objects of an element, in the space of its parent. */
  element(e: Element, outer: Place): string[] {
    const { making } = this;
    if (e.space !== '') return [];
    making.visit();
    if (RUNS[e.name] !== undefined) {
      making.note(RUNS[e.name]);
      return [];
    }
    if (UNSEEN.has(e.name)) return [];
    if (outer.depth > MOST_DEPTH) {
      making.note(`Parts that lie more than ${MOST_DEPTH} groups deep are left out.`);
      return [];
    }
    let style = making.styles.of(e, outer.style);
    const has = (what: string) => e.foreign && e.attributes.has(`${OURS} ${what}`);
    // What stands for something of ours is no art: the paper, the picture of a blend, the look of a shadow.
    if (has('paper') || has('made')) return [];
    if (has('art')) return this.children(e, { ...outer, depth: outer.depth + 1 });
    // A part of ours that a picture stands for is not shown, but meant.
    if (has('stands'))
      return this.children(e, { ...outer, style: withStyle(style, { display: 'inline' }), depth: outer.depth + 1 });
    if (style.display === 'none') return [];
    // Of a page of ours the paper and the cut at the trim are no part of the art.
    if (has('page')) return this.children(e, { ...outer, style, depth: outer.depth + 1 });
    if (isOurs(e) && style['mix-blend-mode'] === 'multiply') style = withStyle(style, { 'mix-blend-mode': 'normal' });
    if (hasHandler(e)) making.note('Event handlers are left out.');
    const placing = style.transform || e.attributes.get('transform');
    const transform = placing ? readTransform(placing) : IDENTITY;
    if (!transform) {
      making.note('A transform that cannot be read is left out.');
    }
    const own = transform ?? IDENTITY;
    // What is flattened to nothing cannot be seen, nor kept.
    if (own !== IDENTITY && !invert(own)) return [];
    const fontSize = Number(style['font-size']);
    const place: Place = {
      style,
      measures: fontSize === outer.measures.fontSize ? outer.measures : { ...outer.measures, fontSize },
      ctm: own === IDENTITY ? outer.ctm : multiply(outer.ctm, own),
      depth: outer.depth + 1,
      ...(outer.copies && { copies: outer.copies }),
    };
    const name = nameOf(e, WORDS[e.name] ?? 'Object');
    if (SHAPES.has(e.name)) return this.whole(e, style, this.shape(e, place, name), own, name, place);
    switch (e.name) {
      case 'g': {
        const ours = this.ours(e, name);
        if (ours) return this.whole(e, withStyle(style, { 'clip-path': 'none' }), [ours], own, name, place);
        const effects = readEffects(e, this.inks);
        if (effects) return this.withEffects(this.whole(e, style, this.children(e, place), own, name, place), effects);
        return this.whole(e, style, this.children(e, place), own, name, place, true);
      }
      case 'a':
        return this.whole(e, style, this.children(e, place), own, name, place, true);
      case 'switch': {
        const first = e.elements.find((c) => c.space === '' && !UNSEEN.has(c.name) && passes(c));
        return this.whole(e, style, first ? this.element(first, place) : [], own, name, place, true);
      }
      case 'svg':
        return this.whole(e, style, this.nested(e, place, style, null), own, name, place, true);
      case 'use':
        return this.use(e, place, style, own, name);
      case 'text':
        return this.whole(
          e,
          style,
          style.visibility === 'visible' ? drawText(this, e, place, name) : [],
          own,
          name,
          place,
        );
      case 'image':
        return this.whole(e, style, style.visibility === 'visible' ? this.image(e, place, name) : [], own, name, place);
      default:
        making.note(`“${e.name}” is not known and left out.`);
        return [];
    }
  }

  // ——— as a whole

  /** Objects of an element with what holds for them together: transform, opacity, blend, cuts. */
  whole(
    e: Element,
    style: Style,
    ids: readonly string[],
    transform: Matrix,
    name: string,
    place: Place,
    grouped = false,
  ): string[] {
    const { making } = this;
    if (!ids.length) return [];
    // Most of a drawing: nothing is said of it as a whole.
    if (ids.length === 1 && !grouped && transform === IDENTITY && isPlain(style)) return [...ids];
    const opacity = readShare(style.opacity) ?? 1;
    const blend = (BLENDS as readonly string[]).includes(style['mix-blend-mode'])
      ? (style['mix-blend-mode'] as Blend)
      : undefined;
    if (style.filter !== 'none') making.note('Filters (shadow, blur and the like) are left out.');
    const cuts = cutsOf(this, style, ids, place);
    const together = { ...(opacity < 1 && { opacity }), ...(blend && { blend }) };
    const moved = transform !== IDENTITY && transform.some((v, i) => v !== IDENTITY[i]);
    if (!cuts.length && ids.length === 1 && !grouped) {
      if (!moved && opacity === 1 && !blend) return [...ids];
      const node = making.nodes[ids[0]];
      making.change(ids[0], {
        ...(moved && { transform: multiply(transform, node.transform) }),
        ...together,
        ...(opacity < 1 && { opacity: opacity * (node.opacity ?? 1) }),
      });
      return [...ids];
    }
    return [making.group(name, transform, [...ids, ...cuts], together)];
  }

  /** Objects with effects: a lone one has them itself. */
  private withEffects(ids: readonly string[], effects: readonly Effect[]): string[] {
    const { making } = this;
    if (!ids.length) return [];
    const [id] =
      ids.length === 1 && !making.nodes[ids[0]].effects ? ids : [making.group('Group', [1, 0, 0, 1, 0, 0], ids)];
    const by = meanScale(making.nodes[id].transform);
    making.change(id, { effects: effects.map((e) => scaledEffect(e, 1 / Math.max(by, 1e-6))) });
    return [id];
  }

  // ——— containers

  /** The inside of an svg or a symbol in its viewport, which cuts what hangs over. `size`: what a use asks for. */
  nested(
    e: Element,
    place: Place,
    style: Style,
    size: { readonly width: string | undefined; readonly height: string | undefined } | null,
  ): string[] {
    const { making } = this;
    const m = place.measures;
    const x = e.name === 'svg' ? (readLength(e.attributes.get('x'), m, 'x') ?? 0) : 0;
    const y = e.name === 'svg' ? (readLength(e.attributes.get('y'), m, 'y') ?? 0) : 0;
    const side = (name: 'width' | 'height', along: 'x' | 'y') =>
      readLength(size?.[name] ?? e.attributes.get(name) ?? '100%', m, along) ?? 0;
    const [w, h] = [side('width', 'x'), side('height', 'y')];
    if (!(w > 0) || !(h > 0)) return [];
    const view = readViewBox(e.attributes.get('viewBox'));
    const matrix = view
      ? viewMatrix(view, rect(x, y, w, h), e.attributes.get('preserveAspectRatio')).matrix
      : translation(x, y);
    const ids = this.children(e, {
      style,
      measures: { width: view?.width ?? w, height: view?.height ?? h, fontSize: m.fontSize },
      ctm: multiply(place.ctm, matrix),
      depth: place.depth + 1,
      ...(place.copies && { copies: place.copies }),
    });
    if (!ids.length) return [];
    const group = making.group('Inside', matrix, ids);
    if (style.overflow === 'visible' || style.overflow === 'auto') return [group];
    const port = rect(x, y, w, h);
    return contains(port, making.boxOf([group]))
      ? [group]
      : [making.group('Inside', [1, 0, 0, 1, 0, 0], [group, making.cutBox(port)])];
  }

  private use(e: Element, place: Place, style: Style, own: Matrix, name: string): string[] {
    const { making } = this;
    const href = hrefOf(e);
    const id = localId(href);
    const target = id ? making.byId.get(id) : undefined;
    if (!id && href?.trim()) making.note(`Something outside the file is not fetched: ${href.trim().slice(0, 60)}.`);
    if (!id || !target || this.using.includes(id)) return [];
    for (let p: Element | null = e; p; p = p.parent) if (p === target) return [];
    const moved = multiply(
      own,
      translation(
        readLength(e.attributes.get('x'), place.measures, 'x') ?? 0,
        readLength(e.attributes.get('y'), place.measures, 'y') ?? 0,
      ),
    );
    const inner: Place = { ...place, ctm: multiply(place.ctm, translation(moved[4] - own[4], moved[5] - own[5])) };
    this.using.push(id);
    const ids = making.asCopy(() => this.used(target, e, inner, style));
    this.using.pop();
    return this.whole(e, style, ids, moved, name, place, true);
  }

  private used(target: Element, e: Element, inner: Place, style: Style): string[] {
    const { making } = this;
    if (target.name === 'symbol' || target.name === 'svg') {
      const targetStyle = making.styles.of(target, style);
      return targetStyle.display === 'none'
        ? []
        : this.whole(
            target,
            targetStyle,
            this.nested(target, inner, targetStyle, {
              width: e.attributes.get('width'),
              height: e.attributes.get('height'),
            }),
            readTransform(target.attributes.get('transform')) ?? [1, 0, 0, 1, 0, 0],
            nameOf(target, 'Symbol'),
            inner,
            true,
          );
    }
    return this.element(target, inner);
  }

  /** What a group of our own drawings stands for; null for any other. */
  private ours(e: Element, name: string): string | null {
    const read = readWhole(e, this.inks);
    if (!read) return null;
    let { paint } = read;
    if (paint.kind === 'picture') {
      const bytes = read.picture && this.files.get(read.picture.file);
      if (!bytes) return null;
      paint = { ...paint, picture: this.making.pictureOf({ picture: read.picture!, bytes }) };
    }
    return this.pathNode(
      name,
      read.path,
      read.rule,
      read.line ? [] : [paint],
      read.line ? [outlineFrom(read.line, paint)] : [],
    );
  }

  // ——— shapes

  shape(e: Element, place: Place, name: string): string[] {
    const { making } = this;
    const { style } = place;
    const drawn = drawnBy(e, place.measures, style);
    if (!drawn) return [];
    if (drawn.kind === 'path' && !drawn.whole)
      making.note('Path data with a mistake in it is drawn up to the mistake.');
    const line = lineOf(drawn);
    const shown = style.visibility === 'visible';
    const parts = shown ? this.parts(e, place, drawn, line, name) : [];
    const markers = shown ? markersOf(this, e, drawn, place) : [];
    const { strokeFirst, markersFirst } = orderOf(style['paint-order']);
    if (strokeFirst) parts.reverse();
    const ids =
      strokeFirst && parts.length > 1
        ? parts.flatMap((p) => this.alone(p, drawn, line, style, name))
        : this.joined(parts, drawn, line, style, name);
    return markersFirst ? [...markers, ...ids] : [...ids, ...markers];
  }

  private parts(e: Element, place: Place, drawn: Drawn, line: PathData, name: string): Part[] {
    const { style } = place;
    let known: Rect | null = null;
    // Only gradients and patterns ask for it.
    const box = () => (known ??= pathBounds(line));
    const out: Part[] = [];
    const fill = this.paint(style.fill, style['fill-opacity'], box, place, e, 'fill');
    if (fill && e.name !== 'line')
      out.push(
        'pattern' in fill
          ? {
              alpha: fill.alpha,
              ids: () =>
                patternFill(
                  this,
                  fill.pattern,
                  line,
                  style['fill-rule'] === 'evenodd' ? 'evenOdd' : 'nonZero',
                  box(),
                  place,
                  name,
                ),
            }
          : { alpha: fill.alpha, ids: NOTHING, fill: fill.paint },
      );
    if (style.stroke === 'none') return out;
    const width = this.strokeWidth(place);
    const stroke = width > 0 ? this.paint(style.stroke, style['stroke-opacity'], box, place, e, 'stroke') : null;
    if (!stroke) return out;
    const dashes =
      style['stroke-dasharray'] === 'none'
        ? []
        : style['stroke-dasharray'].split(/[\s,]+/).map((v) => readLength(v, place.measures, 'r') ?? NaN);
    const dashed = dashes.length > 0 && dashes.every((d) => d >= 0) && dashes.some((d) => d > 0);
    const shape: Omit<Outline, 'paint'> = {
      width,
      cap: cap(style['stroke-linecap']),
      join: join(style['stroke-linejoin']),
      miterLimit: Math.min(1000, Math.max(1, Number(style['stroke-miterlimit']) || 4)),
    };
    const [a, b, c, d] = place.ctm;
    const even =
      Math.abs(Math.hypot(a, b) - Math.hypot(c, d)) < 0.01 * Math.hypot(a, b) &&
      Math.abs(a * c + b * d) < 0.01 * Math.hypot(a, b) * Math.hypot(c, d);
    const offset = readLength(style['stroke-dashoffset'], place.measures, 'r') ?? 0;
    const lengths = dashes.length % 2 ? [...dashes, ...dashes] : dashes;
    const native = dashed && lengths.length <= MOST_DASHES;
    if ('pattern' in stroke || !even || (dashed && !native)) {
      const cut = dashed ? dashPath(line, { lengths: dashes, offset }) : line;
      if (dashed) this.making.note('Some dashed lines became lines of separate pieces.');
      out.push({
        alpha: stroke.alpha,
        ids: () => {
          if (!('pattern' in stroke) && even)
            return [this.pathNode(name, cut, 'nonZero', [], [{ ...shape, paint: stroke.paint }])];
          const area = strokeOutline(cut, shape, Math.max(1e-4, 0.02 / Math.max(1e-6, meanScale(place.ctm))));
          if ('pattern' in stroke) return patternFill(this, stroke.pattern, area, 'nonZero', box(), place, name);
          this.making.note('A line squeezed unevenly became a shape.');
          return [this.pathNode(name, area, 'nonZero', [stroke.paint], [])];
        },
      });
    } else {
      const dash = native ? { dashes: lengths, ...(offset && { dashOffset: offset }) } : {};
      out.push({ alpha: stroke.alpha, ids: NOTHING, outline: { ...shape, ...dash, paint: stroke.paint } });
    }
    return out;
  }

  private strokeWidth(place: Place): number {
    const w = readLength(place.style['stroke-width'], place.measures, 'r') ?? 1;
    return place.style['vector-effect'] === 'non-scaling-stroke' ? w / Math.max(1e-9, meanScale(place.ctm)) : w;
  }

  /** Fill and outline in one object where nothing speaks against it. */
  private joined(parts: readonly Part[], drawn: Drawn, line: PathData, style: Style, name: string): string[] {
    const simple = parts.filter((p) => p.fill || p.outline);
    if (simple.length === parts.length && (parts.length === 1 || parts.every((p) => p.alpha === 1))) {
      if (!parts.length) return [];
      const id = this.plain(
        drawn,
        line,
        style,
        name,
        parts.filter((p) => p.fill).map((p) => p.fill!),
        parts.filter((p) => p.outline).map((p) => p.outline!),
      );
      if (parts[0].alpha < 1) this.making.change(id, { opacity: parts[0].alpha });
      return [id];
    }
    return parts.flatMap((p) => this.alone(p, drawn, line, style, name));
  }

  private alone(p: Part, drawn: Drawn, line: PathData, style: Style, name: string): string[] {
    const ids =
      p.fill || p.outline
        ? [this.plain(drawn, line, style, name, p.fill ? [p.fill] : [], p.outline ? [p.outline] : [])]
        : p.ids();
    if (p.alpha >= 1 || !ids.length) return ids;
    if (ids.length === 1) {
      this.making.change(ids[0], { opacity: p.alpha * (this.making.nodes[ids[0]].opacity ?? 1) });
      return ids;
    }
    return [this.making.group(name, [1, 0, 0, 1, 0, 0], ids, { opacity: p.alpha })];
  }

  /** A dialled shape where it is one, else a path. */
  private plain(
    drawn: Drawn,
    line: PathData,
    style: Style,
    name: string,
    fills: readonly Paint[],
    outlines: readonly Outline[],
  ): string {
    if (drawn.kind === 'path')
      return this.pathNode(name, line, style['fill-rule'] === 'evenodd' ? 'evenOdd' : 'nonZero', fills, outlines);
    const { x, y, width, height, radius } = drawn;
    const back = translation(-x, -y);
    const placed = (p: Paint): Paint => ('geometry' in p ? { ...p, geometry: multiply(back, p.geometry) } : p);
    const r: Readonly<Record<string, number>> =
      radius > 0 ? { topLeft: radius, topRight: radius, bottomRight: radius, bottomLeft: radius } : {};
    return this.making.add<NodeOf<'shape'>>({
      name,
      kind: 'shape',
      shape: drawn.kind === 'box' ? 'rectangle' : 'ellipse',
      knobs: drawn.kind === 'box' ? r : {},
      transform: translation(x, y),
      width,
      height,
      fills: fills.map(placed),
      outlines: outlines.map((o) => ({ ...o, paint: placed(o.paint) })),
    });
  }

  pathNode(
    name: string,
    path: PathData,
    fillRule: 'nonZero' | 'evenOdd',
    fills: readonly Paint[],
    outlines: readonly Outline[],
  ): string {
    return this.making.add<NodeOf<'path'>>({
      name,
      kind: 'path',
      transform: [1, 0, 0, 1, 0, 0],
      path,
      fillRule,
      fills,
      outlines,
    });
  }

  // ——— paints

  /** What a fill or stroke property comes to; null for nothing to see. */
  paint(
    text: string,
    share: string,
    box: Rect | (() => Rect),
    place: Place,
    e: Element | null,
    which: 'fill' | 'stroke',
  ): Painted | null {
    const { making } = this;
    const alpha = readShare(share) ?? 1;
    const own = e && ownPaint(e, which, text, this.inks);
    if (own) return { paint: own, alpha };
    const current = currentColour(place.style);
    const { id, plain } = addressOf(text);
    const server = id ? making.byId.get(id) : undefined;
    if (server?.name === 'linearGradient' || server?.name === 'radialGradient') {
      const made = gradientPaint(
        server,
        making.byId,
        making.styles,
        typeof box === 'function' ? box() : box,
        place.measures,
        current,
        making.note,
      );
      return made.paint.kind === 'none' ? null : { paint: made.paint, alpha: made.alpha * alpha };
    }
    if (server?.name === 'pattern' && isPattern(making, server, place)) return { pattern: server, alpha };
    if (plain === 'none' || plain === '') return null;
    const shade = readColour(plain, current);
    if (!shade) {
      making.note(`A colour that is not known is left out: ${plain.slice(0, 40)}.`);
      return null;
    }
    return shade.alpha * alpha > 0 ? { paint: this.colourPaint(shade), alpha: shade.alpha * alpha } : null;
  }

  /** One paint for each colour that is read: a drawing has few colours, and many objects in each. */
  private readonly colourPaints = new Map<Shade, Paint>();
  private colourPaint(shade: Shade): Paint {
    let paint = this.colourPaints.get(shade);
    if (!paint) this.colourPaints.set(shade, (paint = { kind: 'colour', colour: shade.colour, overprint: false }));
    return paint;
  }

  // ——— pictures

  private image(e: Element, place: Place, name: string): string[] {
    const { making } = this;
    const held = this.held.get(hrefOf(e) ?? '');
    if (!held) return [];
    const m = place.measures;
    const { picture } = held;
    const side = (attribute: 'width' | 'height', along: 'x' | 'y') => {
      const text = e.attributes.get(attribute);
      return text === undefined || text === 'auto' ? null : readLength(text, m, along);
    };
    const [gw, gh] = [side('width', 'x'), side('height', 'y')];
    const w = gw ?? (gh !== null ? (gh * picture.width) / picture.height : picture.width);
    const h = gh ?? (gw !== null ? (gw * picture.height) / picture.width : picture.height);
    if (!(w > 0) || !(h > 0)) return [];
    const [x, y] = [readLength(e.attributes.get('x'), m, 'x') ?? 0, readLength(e.attributes.get('y'), m, 'y') ?? 0];
    const { matrix, slice } = viewMatrix(
      { x: 0, y: 0, width: picture.width, height: picture.height },
      rect(0, 0, w, h),
      e.attributes.get('preserveAspectRatio'),
    );
    const geometry = multiply(matrix, [picture.width, 0, 0, picture.height, 0, 0]);
    const id = making.pictureOf(held);
    const paint: Paint = { ...pictureIn({ ...picture, id }, rect(0, 0, w, h), 'stretch'), geometry };
    // The frame is the picture itself, unless it is cut.
    const frame = slice
      ? rect(0, 0, w, h)
      : { x0: geometry[4], y0: geometry[5], x1: geometry[4] + geometry[0], y1: geometry[5] + geometry[3] };
    return [
      making.add<NodeOf<'shape'>>({
        name,
        kind: 'shape',
        shape: 'rectangle',
        knobs: {},
        transform: translation(x + frame.x0, y + frame.y0),
        width: frame.x1 - frame.x0,
        height: frame.y1 - frame.y0,
        fills: [{ ...paint, geometry: multiply(translation(-frame.x0, -frame.y0), geometry) }],
        outlines: [],
      }),
    ];
  }
}

const FILL_FIRST = { strokeFirst: false, markersFirst: false };
/** What is painted before what (SVG 2, 13.8). */
function orderOf(text: string): typeof FILL_FIRST {
  if (text === 'normal') return FILL_FIRST;
  const order = text.split(/\s+/);
  const [fill, stroke] = [order.indexOf('fill'), order.indexOf('stroke')];
  return { strokeFirst: stroke >= 0 && (fill < 0 || stroke < fill), markersFirst: order[0] === 'markers' };
}

const cap = (text: string): Outline['cap'] => (text === 'round' || text === 'square' ? text : 'butt');
const join = (text: string): Outline['join'] => (text === 'round' || text === 'bevel' ? text : 'miter');

function hasHandler(e: Element): boolean {
  for (const name of e.names) if (name.startsWith('on') && /^on[a-z]+$/.test(name)) return true;
  return false;
}

/** Would this child of a switch be shown? Languages: English; features and extensions: those of plain drawings. */
function passes(e: Element): boolean {
  const language = e.attributes.get('systemLanguage');
  if (language !== undefined && !language.split(',').some((l) => /^en\b/i.test(l.trim()))) return false;
  if ((e.attributes.get('requiredExtensions') ?? '').trim()) return false;
  // A drawing at rest: no document to script, nothing that moves.
  if (/DOM|Script|Animation|Anim|View|Cursor|Extensibility/i.test(e.attributes.get('requiredFeatures') ?? ''))
    return false;
  return e.name !== 'foreignObject';
}
