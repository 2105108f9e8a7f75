import { meanScale, translation, type Matrix } from '../geometry/matrix';
import { offsetRegion } from '../geometry/offset';
import { CLOSE, COORDS, MOVE, transformPath, type FillRule, type PathData } from '../geometry/path';
import { grow } from '../geometry/rect';
import { strokeOutline, type StrokeStyle } from '../geometry/stroke';
import { combineTwo } from '../geometry/boolean/combine';
import type { Region } from '../geometry/boolean/region';
import type { Outline } from '../model/schema';
import { PlacedPath } from './placedPath';
import type { Leaf } from './scene';

/** An outline as it is drawn on the page, from a space that `matrix` maps there. */
export function strokeStyle(o: Outline, matrix: Matrix): StrokeStyle {
  const scale = meanScale(matrix);
  const dash = o.dashes && {
    dash: { lengths: o.dashes.map((v) => v * scale), offset: (o.dashOffset ?? 0) * scale },
  };
  return { width: o.width * scale, cap: o.cap, join: o.join, miterLimit: o.miterLimit, ...dash };
}

/** How far a line can reach from its path. */
export function reach(s: StrokeStyle): number {
  return (s.width / 2) * (s.join === 'miter' ? Math.max(s.miterLimit, Math.SQRT2) : Math.SQRT2);
}

/** An area with a line, and the spaces they are given in. */
interface Lined {
  readonly node: string;
  readonly placed: PlacedPath;
  readonly rule: FillRule;
  /** The space of the paint's geometry, on the page. */
  readonly matrix: Matrix;
}

/** The lines of an area that lie below its fills, or over them. */
export function paintLines(out: Leaf[], area: Lined, outlines: readonly Outline[], behind: boolean): void {
  for (const outline of outlines) {
    if ((outline.behind ?? false) !== behind) continue;
    for (const line of [betweenDashes(outline), outline]) {
      const leaf = line && strokeLeaf(area, line);
      if (leaf) out.push(leaf);
    }
  }
}

const undashed = new WeakMap<Outline, Outline>();
/** What is seen between the dashes of a line, whole below them; null for nothing. */
export function betweenDashes(o: Outline): Outline | null {
  if (!o.dashes || !o.between) return null;
  let line = undashed.get(o);
  if (!line) {
    const { dashes: _, dashOffset: __, between, ...rest } = o;
    undashed.set(o, (line = { ...rest, paint: between }));
  }
  return line;
}

/** An outline as it is laid on the page; null where nothing is to be seen of it. */
function strokeLeaf({ node, placed: edge, rule, matrix }: Lined, outline: Outline): Leaf | null {
  const { paint } = outline;
  if (paint.kind === 'none' || !(outline.width > 0)) return null;
  const stroke = strokeStyle(outline, matrix);
  const away = (outline.away ?? 0) * meanScale(matrix);
  const side = isArea(edge.own) ? outline.side : undefined;
  // What follows the line runs along its middle; anything else on one side is the part of a line twice as wide there.
  const follows = paint.kind === 'gradient' && paint.strokeMapping !== undefined;
  const by = side && follows ? away + (side === 'inside' ? -0.5 : 0.5) * stroke.width : away;
  const placed = by ? offsetPath(edge, rule, by, stroke) : edge;
  if (!placed.own.length) return null;
  if (side && !follows) {
    const region = sideOf(placed, by ? 'nonZero' : rule, stroke, side);
    if (!region.path.length) return null;
    const part = new PlacedPath(region.path, translation(placed.toPage[4], placed.toPage[5]));
    const box = part.bounds;
    return {
      type: 'fill',
      node,
      inkBounds: box,
      paintBounds: box,
      paint,
      matrix,
      placed: part,
      rule: region.rule,
      line: true,
    };
  }
  const bounds = grow(placed.bounds, reach(stroke));
  return { type: 'stroke', node, inkBounds: bounds, paintBounds: bounds, paint, matrix, placed, stroke };
}

/** Is every contour of it closed? */
const isArea = (path: PathData): boolean => {
  let open = 0;
  for (let i = 0; i < path.length; i += 1 + COORDS[path[i]]) open += path[i] === MOVE ? 1 : path[i] === CLOSE ? -1 : 0;
  return open === 0;
};

/** The part of a line on one side strays no further from the true one than this, in points. */
const FINE = 0.004;
const sides = new WeakMap<PathData, { readonly key: string; readonly region: Region }[]>();
/** What of a line of full width lies on one side of the edge of an area, seen from where the area is put. */
function sideOf({ own: path, toPage }: PlacedPath, rule: FillRule, s: StrokeStyle, side: 'inside' | 'outside'): Region {
  const [a, b, c, d] = toPage;
  const dash = s.dash ? [...s.dash.lengths, s.dash.offset] : [];
  const key = [a, b, c, d, rule, side, s.width, s.cap, s.join, s.miterLimit, ...dash].join();
  let known = sides.get(path);
  if (!known) sides.set(path, (known = []));
  let made = known.find((k) => k.key === key);
  if (!made) {
    const area: Region = { path: transformPath(path, [a, b, c, d, 0, 0]), rule };
    const line: Region = { path: strokeOutline(area.path, { ...s, width: 2 * s.width }, FINE), rule: 'nonZero' };
    made = { key, region: combineTwo(line, area, side === 'inside' ? 'intersect' : 'subtract').region };
    known.push(made);
    if (known.length > MOST_KEPT) known.shift();
  }
  return made.region;
}

/** A grown edge strays no further from the true one than this, in points. */
const TOLERANCE = 0.01;
const offsets = new WeakMap<PathData, { readonly key: string; readonly path: PathData }[]>();
/** So many lines of one area, and two sizes of each while it is dragged, are remembered. */
const MOST_KEPT = 12;

/** The edge of an area grown by `by` points of the page. What is only moved keeps it. */
function offsetPath({ own: path, toPage }: PlacedPath, rule: FillRule, by: number, stroke: StrokeStyle): PlacedPath {
  const [a, b, c, d, e, f] = toPage;
  const key = [a, b, c, d, by, rule, stroke.join, stroke.miterLimit].join();
  let known = offsets.get(path);
  if (!known) offsets.set(path, (known = []));
  let made = known.find((k) => k.key === key);
  if (!made) {
    const area = { path: transformPath(path, [a, b, c, d, 0, 0]), rule };
    made = { key, path: offsetRegion(area, by, stroke, TOLERANCE).path };
    known.push(made);
    if (known.length > MOST_KEPT) known.shift();
  }
  return new PlacedPath(made.path, translation(e, f));
}
