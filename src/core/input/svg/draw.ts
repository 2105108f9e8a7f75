import { table } from '../../model/own';
import { IDENTITY, invert, meanScale, multiply, translation, type Matrix } from '../../geometry/matrix';
import type { PathData } from '../../geometry/path';
import { contains, rect, type Rect } from '../../geometry/rect';
import { scaledEffect, type Effect } from '../../model/effects';
import { BLENDS, type Blend, type NodeOf, type Outline, type Paint } from '../../model/schema';
import { currentColour, nameOf, type Draws, type Held, type Making, type Painted, type Place } from './context';
import { cutsOf } from './cuts';
import { gradientPaint, hrefOf } from './gradients';
import { pictureNode } from './images';
import { isOurs, OURS, outlineFrom, ownPaint, readEffects, readWhole, type InksRead } from './ours';
import { isPattern } from './patterns';
import { shapeNodes } from './shapeParts';
import { SHAPES } from './shapes';
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
    if (SHAPES.has(e.name)) return this.whole(e, style, shapeNodes(this, e, place, name), own, name, place);
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

  // ——— objects

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

  private image(e: Element, place: Place, name: string): string[] {
    const held = this.held.get(hrefOf(e) ?? '');
    return held ? pictureNode(this.making, held, e, place, name) : [];
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
}

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
