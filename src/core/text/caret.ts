import type { Point } from '../geometry/matrix';
import type { Layout } from './layout';
import type { CaretStop, Line } from './line';

/** Where carets and chosen letters lie in layout space, on straight lines and on bent ones. */

/** The upper and the lower end of a caret, before all is bent. */
export function stopEnds(line: Line, stop: CaretStop): readonly [Point, Point] {
  if (!stop.turn)
    return [
      { x: stop.x, y: line.top },
      { x: stop.x, y: line.bottom },
    ];
  const { x, y, cos, sin } = stop.turn;
  return [
    { x: x + sin * line.ascent, y: y - cos * line.ascent },
    { x: x - sin * line.descent, y: y + cos * line.descent },
  ];
}

/** The upper and the lower end of a caret. */
export function caretEnds(layout: Layout, line: Line, stop: CaretStop): readonly [Point, Point] {
  const [a, b] = stopEnds(line, stop);
  return layout.warp ? [layout.warp(a), layout.warp(b)] : [a, b];
}

/** The stop of an offset on a line: the nearest there is. */
export const stopAt = (line: Line, offset: number): CaretStop =>
  line.carets.reduce(
    (best, c) => (Math.abs(c.offset - offset) < Math.abs(best.offset - offset) ? c : best),
    line.carets[0],
  );

/** The line on which the caret of an offset stands: at a soft break, the next. */
export const lineAt = (layout: Layout, offset: number): Line | undefined =>
  layout.lines.findLast((l) => l.start <= offset && offset <= l.end) ?? layout.lines[layout.lines.length - 1];

/** Does every letter of a line have a place of its own, that must be asked one by one? */
const isBent = (layout: Layout, line: Line): boolean => layout.warp !== undefined || line.carets[0]?.turn !== undefined;

/** The offset nearest to a point of layout space. */
export function offsetAt(layout: Layout, p: Point): number {
  let best: Line | undefined;
  let least = Infinity;
  for (const line of layout.lines) {
    const away = distanceTo(layout, line, p);
    if (away < least) [best, least] = [line, away];
  }
  if (!best) return 0;
  const line = best;
  const away = (c: CaretStop) => (isBent(layout, line) ? fromMiddle(layout, line, c, p) : Math.abs(c.x - p.x));
  return line.carets.reduce((a, c) => (away(c) < away(a) ? c : a), line.carets[0]).offset;
}

function fromMiddle(layout: Layout, line: Line, stop: CaretStop, p: Point): number {
  const [a, b] = caretEnds(layout, line, stop);
  return Math.hypot((a.x + b.x) / 2 - p.x, (a.y + b.y) / 2 - p.y);
}

function distanceTo(layout: Layout, line: Line, p: Point): number {
  if (isBent(layout, line)) return line.carets.reduce((n, c) => Math.min(n, fromMiddle(layout, line, c, p)), Infinity);
  const dy = p.y < line.top ? line.top - p.y : p.y > line.bottom ? p.y - line.bottom : 0;
  // Of lines side by side, in columns, the one below the point.
  const dx = p.x < line.x0 ? line.x0 - p.x : p.x > line.x1 ? p.x - line.x1 : 0;
  return dy + dx * 1e-3;
}

type Area = readonly [Point, Point, Point, Point];

/**
 * The areas of what is chosen on a line, four corners each: of a line that is bent or runs both ways there are several.
 */
export function chosenAreas(layout: Layout, line: Line, from: number, to: number): Area[] {
  const [lo, hi] = [Math.max(from, line.start), Math.min(to, line.end)];
  if (hi < lo) return [];
  const stops = line.carets.filter((c) => c.offset >= lo && c.offset <= hi);
  const area = (a: CaretStop, b: CaretStop): Area => {
    const [p, q] = [caretEnds(layout, line, a), caretEnds(layout, line, b)];
    return [p[0], q[0], q[1], p[1]];
  };
  if (!stops.length) return [];
  if (!isBent(layout, line) && monotone(stops)) return [area(stops[0], stops[stops.length - 1])];
  return stops.slice(1).map((s, i) => area(stops[i], s));
}

const monotone = (stops: readonly CaretStop[]): boolean =>
  stops.every((s, i) => i === 0 || s.x >= stops[i - 1].x) || stops.every((s, i) => i === 0 || s.x <= stops[i - 1].x);
