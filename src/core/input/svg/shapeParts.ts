// What a shape is painted with: fill and outline as parts, in one object where nothing speaks against it.
import { dashPath } from '../../geometry/dash';
import { meanScale, multiply, translation } from '../../geometry/matrix';
import { pathBounds, type PathData } from '../../geometry/path';
import type { Rect } from '../../geometry/rect';
import { strokeOutline } from '../../geometry/stroke';
import { MOST_DASHES } from '../../model/paintSchema';
import type { NodeOf, Outline, Paint } from '../../model/schema';
import type { Draws, Place } from './context';
import { markersOf } from './markers';
import { patternFill } from './patterns';
import { drawnBy, lineOf, type Drawn } from './shapes';
import type { Style } from './style';
import { readLength } from './values';
import type { Element } from './xml';

/** One thing that an element is painted with, in order. */
interface Part {
  readonly alpha: number;
  readonly ids: () => string[];
  /** What can share one object with others. */
  readonly fill?: Paint;
  readonly outline?: Outline;
}

const NOTHING = (): string[] => [];

/** The objects of a plain shape: what fills it, its outline and its markers, in the order they are painted. */
export function shapeNodes(drawer: Draws, e: Element, place: Place, name: string): string[] {
  const { making } = drawer;
  const { style } = place;
  const drawn = drawnBy(e, place.measures, style);
  if (!drawn) return [];
  if (drawn.kind === 'path' && !drawn.whole) making.note('Path data with a mistake in it is drawn up to the mistake.');
  const line = lineOf(drawn);
  const shown = style.visibility === 'visible';
  const parts = shown ? partsOf(drawer, e, place, drawn, line, name) : [];
  const markers = shown ? markersOf(drawer, e, drawn, place) : [];
  const { strokeFirst, markersFirst } = orderOf(style['paint-order']);
  if (strokeFirst) parts.reverse();
  const ids =
    strokeFirst && parts.length > 1
      ? parts.flatMap((p) => alone(drawer, p, drawn, line, style, name))
      : joined(drawer, parts, drawn, line, style, name);
  return markersFirst ? [...markers, ...ids] : [...ids, ...markers];
}

function partsOf(drawer: Draws, e: Element, place: Place, drawn: Drawn, line: PathData, name: string): Part[] {
  const { style } = place;
  let known: Rect | null = null;
  // Only gradients and patterns ask for it.
  const box = () => (known ??= pathBounds(line));
  const out: Part[] = [];
  const fill = drawer.paint(style.fill, style['fill-opacity'], box, place, e, 'fill');
  if (fill && e.name !== 'line')
    out.push(
      'pattern' in fill
        ? {
            alpha: fill.alpha,
            ids: () =>
              patternFill(
                drawer,
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
  const width = strokeWidth(place);
  const stroke = width > 0 ? drawer.paint(style.stroke, style['stroke-opacity'], box, place, e, 'stroke') : null;
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
    if (dashed) drawer.making.note('Some dashed lines became lines of separate pieces.');
    out.push({
      alpha: stroke.alpha,
      ids: () => {
        if (!('pattern' in stroke) && even)
          return [drawer.pathNode(name, cut, 'nonZero', [], [{ ...shape, paint: stroke.paint }])];
        const area = strokeOutline(cut, shape, Math.max(1e-4, 0.02 / Math.max(1e-6, meanScale(place.ctm))));
        if ('pattern' in stroke) return patternFill(drawer, stroke.pattern, area, 'nonZero', box(), place, name);
        drawer.making.note('A line squeezed unevenly became a shape.');
        return [drawer.pathNode(name, area, 'nonZero', [stroke.paint], [])];
      },
    });
  } else {
    const dash = native ? { dashes: lengths, ...(offset && { dashOffset: offset }) } : {};
    out.push({ alpha: stroke.alpha, ids: NOTHING, outline: { ...shape, ...dash, paint: stroke.paint } });
  }
  return out;
}

function strokeWidth(place: Place): number {
  const w = readLength(place.style['stroke-width'], place.measures, 'r') ?? 1;
  return place.style['vector-effect'] === 'non-scaling-stroke' ? w / Math.max(1e-9, meanScale(place.ctm)) : w;
}

/** Fill and outline in one object where nothing speaks against it. */
function joined(
  drawer: Draws,
  parts: readonly Part[],
  drawn: Drawn,
  line: PathData,
  style: Style,
  name: string,
): string[] {
  const simple = parts.filter((p) => p.fill || p.outline);
  if (simple.length === parts.length && (parts.length === 1 || parts.every((p) => p.alpha === 1))) {
    if (!parts.length) return [];
    const id = plain(
      drawer,
      drawn,
      line,
      style,
      name,
      parts.filter((p) => p.fill).map((p) => p.fill!),
      parts.filter((p) => p.outline).map((p) => p.outline!),
    );
    if (parts[0].alpha < 1) drawer.making.change(id, { opacity: parts[0].alpha });
    return [id];
  }
  return parts.flatMap((p) => alone(drawer, p, drawn, line, style, name));
}

function alone(drawer: Draws, p: Part, drawn: Drawn, line: PathData, style: Style, name: string): string[] {
  const ids =
    p.fill || p.outline
      ? [plain(drawer, drawn, line, style, name, p.fill ? [p.fill] : [], p.outline ? [p.outline] : [])]
      : p.ids();
  if (p.alpha >= 1 || !ids.length) return ids;
  if (ids.length === 1) {
    drawer.making.change(ids[0], { opacity: p.alpha * (drawer.making.nodes[ids[0]].opacity ?? 1) });
    return ids;
  }
  return [drawer.making.group(name, [1, 0, 0, 1, 0, 0], ids, { opacity: p.alpha })];
}

/** A dialled shape where it is one, else a path. */
function plain(
  drawer: Draws,
  drawn: Drawn,
  line: PathData,
  style: Style,
  name: string,
  fills: readonly Paint[],
  outlines: readonly Outline[],
): string {
  if (drawn.kind === 'path')
    return drawer.pathNode(name, line, style['fill-rule'] === 'evenodd' ? 'evenOdd' : 'nonZero', fills, outlines);
  const { x, y, width, height, radius } = drawn;
  const back = translation(-x, -y);
  const placed = (p: Paint): Paint => ('geometry' in p ? { ...p, geometry: multiply(back, p.geometry) } : p);
  const r: Readonly<Record<string, number>> =
    radius > 0 ? { topLeft: radius, topRight: radius, bottomRight: radius, bottomLeft: radius } : {};
  return drawer.making.add<NodeOf<'shape'>>({
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
