import { combineTwo } from '../geometry/boolean/combine';
import type { Region } from '../geometry/boolean/region';
import { meanScale, translation, type Matrix } from '../geometry/matrix';
import { offsetRegion } from '../geometry/offset';
import { CLOSE, COORDS, MOVE, transformPath, type FillRule, type PathData } from '../geometry/path';
import { strokeOutline, type StrokeStyle } from '../geometry/stroke';
import type { GradientPaint, Outline, Paint } from '../model/schema';
import { endPaint, formOf, isFormed } from './lineForm';

/** An outline as it is drawn on the page, from a space that `matrix` maps there. */
export function strokeStyle(o: Outline, matrix: Matrix): StrokeStyle {
  const scale = meanScale(matrix);
  const dash = o.dashes && {
    dash: {
      lengths: o.dashes.map((v) => v * scale),
      offset: (o.dashOffset ?? 0) * scale,
      ...(o.dashFit && { fit: o.dashFit }),
    },
  };
  return { width: o.width * scale, cap: o.cap, join: o.join, miterLimit: o.miterLimit, ...dash };
}

/** An edge with a line, and the space that the line's lengths and its paint are given in, on the page. */
export interface Edge {
  readonly path: PathData;
  readonly toPage: Matrix;
  readonly rule: FillRule;
  readonly matrix: Matrix;
}

/** What a line comes to: a band along a path, or an area (then there is no `stroke`). `toPage` places the path. */
export interface LaidLine {
  readonly path: PathData;
  readonly toPage: Matrix;
  readonly paint: Exclude<Paint, { kind: 'none' }>;
  readonly rule: FillRule;
  readonly stroke?: StrokeStyle;
}

const undashed = new WeakMap<Outline, Outline>();
/** What is seen between the dashes of a line, whole below them; null for nothing. */
export function betweenDashes(o: Outline): Outline | null {
  if (!o.dashes || !o.between) return null;
  let line = undashed.get(o);
  if (!line) {
    const { dashes: _, dashOffset: __, dashFit: ___, between, ...rest } = o;
    undashed.set(o, (line = { ...rest, paint: between }));
  }
  return line;
}

/** An outline with what is between its dashes, bottom to top: nothing where nothing is to be seen of it. */
export function layLine(edge: Edge, outline: Outline): LaidLine[] {
  const below = betweenDashes(outline);
  return [...(below ? lay(edge, below) : []), ...lay(edge, outline)];
}

function lay({ path: own, toPage, rule, matrix }: Edge, outline: Outline): LaidLine[] {
  const { paint } = outline;
  if (paint.kind === 'none' || !(outline.width > 0)) return [];
  const stroke = strokeStyle(outline, matrix);
  const away = (outline.away ?? 0) * meanScale(matrix);
  const side = isArea(own) ? outline.side : undefined;
  // What follows the line, or strays from it, runs along its middle; anything else on one side is the part of a line
  // twice as wide there.
  const follows = paint.kind === 'gradient' && paint.strokeMapping !== undefined;
  const formed = isFormed(outline);
  const shifts = follows || formed;
  const by = side && shifts ? away + (side === 'inside' ? -0.5 : 0.5) * stroke.width : away;
  const at = translation(toPage[4], toPage[5]);
  const [path, place] = by ? [offsetPath(own, toPage, rule, by, stroke), at] : [own, toPage];
  if (!path.length) return [];
  if (side && !shifts) {
    const region = sideOf(path, place, by ? 'nonZero' : rule, stroke, side);
    return region.path.length ? [{ path: region.path, toPage: at, paint, rule: region.rule }] : [];
  }
  const whole = { paint, rule: 'nonZero' as const };
  if (!formed) return [{ ...whole, path, toPage: place, stroke }];
  const { line, area, ends } = formOf(path, place, outline, stroke, follows);
  return [
    ...(line.length ? [{ ...whole, path: line, toPage: at, stroke }] : []),
    ...(area.length ? [{ ...whole, path: area, toPage: at }] : []),
    ...ends.map((end) => ({
      ...whole,
      paint: endPaint(paint as GradientPaint, end.path, matrix, at, end.at),
      path: end.path,
      toPage: at,
    })),
  ];
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
function sideOf(path: PathData, toPage: Matrix, rule: FillRule, s: StrokeStyle, side: 'inside' | 'outside'): Region {
  const [a, b, c, d] = toPage;
  const dash = s.dash ? [...s.dash.lengths, s.dash.offset, s.dash.fit] : [];
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
function offsetPath(path: PathData, toPage: Matrix, rule: FillRule, by: number, stroke: StrokeStyle): PathData {
  const [a, b, c, d] = toPage;
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
  return made.path;
}
