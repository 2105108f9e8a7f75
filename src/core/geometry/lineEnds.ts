import type { Matrix, Point } from './matrix';
import { alongContour, contourLength, parameterAt, segmentLength } from './measure';
import { addEllipse, PathBuilder, transformPath, type PathData } from './path';
import { orientedContours } from './orient';
import type { Rect } from './rect';
import { contoursOf, partOfSegment, pathOfContours, type Contour, type Segment } from './segments';

/**
 * What stands at the end of an open line: an area in weights of the line, its tip at 0 0 and the line coming from the
 * left. The line ends `inset` before the tip.
 */
export interface EndMark {
  readonly path: PathData;
  readonly inset: number;
}

const polygon = (...p: number[]): number[] => [
  0,
  p[0],
  p[1],
  ...Array.from({ length: p.length / 2 - 1 }, (_, i) => [1, p[2 * i + 2], p[2 * i + 3]]).flat(),
  3,
];
/** Clockwise as seen, as the polygons are; the other way round it is a hole. */
function disc(r: number, hole = false): PathData {
  const out = new PathBuilder();
  addEllipse(out, 0, 0, r, r, hole);
  return out.data;
}

/** What ships, by name. */
export const END_MARKS = {
  arrow: { path: polygon(0, 0, -4, 2, -4, -2), inset: 2.5 },
  slim: { path: polygon(0, 0, -6, 1.7, -4.6, 0, -6, -1.7), inset: 4 },
  open: { path: polygon(0, 0, -3, 2.4, -3.7, 1.7, -2, 0, -3.7, -1.7, -3, -2.4), inset: 1.4 },
  bar: { path: polygon(0, -2, 0, 2, -1, 2, -1, -2), inset: 0.5 },
  dot: { path: disc(1.75), inset: 0 },
  ring: { path: [...disc(2.1), ...disc(1.1, true)], inset: 1.6 },
  box: { path: polygon(1.6, -1.6, 1.6, 1.6, -1.6, 1.6, -1.6, -1.6), inset: 0 },
  diamond: { path: polygon(2.2, 0, 0, 2.2, -2.2, 0, 0, -2.2), inset: 0 },
} as const satisfies Record<string, EndMark>;
export type EndMarkName = keyof typeof END_MARKS;

/** A mark that is set on a line, `size` times as large as the table has it. */
export interface LineEnd {
  readonly mark: EndMark;
  readonly size: number;
}

/** The line without what its marks stand for, and the marks, running clockwise. Closed contours have none. */
export function withEnds(
  path: PathData,
  width: number,
  start: LineEnd | null,
  end: LineEnd | null,
): { readonly line: Contour[]; readonly marks: readonly { readonly path: PathData; readonly at: 'start' | 'end' }[] } {
  const line: Contour[] = [];
  const marks: { path: PathData; at: 'start' | 'end' }[] = [];
  for (const c of contoursOf(path)) {
    if (c.closed) {
      line.push(c);
      continue;
    }
    const whole = contourLength(c);
    const inset = (e: LineEnd | null) => (e ? Math.min(whole, e.mark.inset * e.size * width) : 0);
    const [a, b] = [inset(start), inset(end)];
    const segments = partOf(c, a, whole - b, whole);
    if (segments.length) line.push({ segments, closed: false });
    const [first, last] = [c.segments[0], c.segments[c.segments.length - 1]];
    if (start) {
      const tip = { x: first.x0, y: first.y0 };
      const from = alongContour(c, a || whole * 1e-3).point;
      marks.push({ path: placed(start, width, tip, from), at: 'start' });
    }
    if (end) {
      const tip = { x: last.x3, y: last.y3 };
      const from = alongContour(c, whole - (b || whole * 1e-3)).point;
      marks.push({ path: placed(end, width, tip, from), at: 'end' });
    }
  }
  return { line, marks };
}

/** The mark with its tip at a point, pointing there from another. */
function placed({ mark, size }: LineEnd, width: number, tip: Point, from: Point): PathData {
  const [dx, dy] = [tip.x - from.x, tip.y - from.y];
  const n = Math.hypot(dx, dy);
  const [c, s] = n > 0 ? [(dx / n) * size * width, (dy / n) * size * width] : [size * width, 0];
  const m: Matrix = [c, s, -s, c, tip.x, tip.y];
  return transformPath(mark.path, m);
}

/** The pieces of a contour between two lengths. */
function partOf(c: Contour, from: number, to: number, whole: number): Segment[] {
  if (from <= 0 && to >= whole) return [...c.segments];
  const out: Segment[] = [];
  let at = 0;
  for (const s of c.segments) {
    const length = segmentLength(s);
    const [a, b] = [from - at, to - at];
    at += length;
    if (a >= length || b <= 0 || !(length > 0)) continue;
    const [t0, t1] = [a > 0 ? parameterAt(s, a, length) : 0, b < length ? parameterAt(s, b, length) : 1];
    if (t1 > t0) out.push(t0 > 0 || t1 < 1 ? partOfSegment(s, t0, t1) : s);
  }
  return out;
}

/**
 * An area whose contours do not cross, as a mark three weights long: its right edge is the tip. It is filled as it
 * runs, together with the line.
 */
export function markOfArea(path: PathData, box: Rect): PathData {
  const k = 3 / Math.max(box.x1 - box.x0, 1e-6);
  return transformPath(pathOfContours(orientedContours(path)), [k, 0, 0, k, -box.x1 * k, (-(box.y0 + box.y1) / 2) * k]);
}
