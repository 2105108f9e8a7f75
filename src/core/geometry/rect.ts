import { apply, type Matrix, type Point } from './matrix';

/** An upright box; `x1 < x0` means empty. */
export interface Rect {
  readonly x0: number;
  readonly y0: number;
  readonly x1: number;
  readonly y1: number;
}

export const EMPTY_RECT: Rect = { x0: Infinity, y0: Infinity, x1: -Infinity, y1: -Infinity };

/** A rectangle from its corner and its size. */
export const rect = (x: number, y: number, width: number, height: number): Rect => ({
  x0: x,
  y0: y,
  x1: x + width,
  y1: y + height,
});
/** What two have in common; `isEmpty` where that is nothing. */
export const intersect = (a: Rect, b: Rect): Rect => ({
  x0: Math.max(a.x0, b.x0),
  y0: Math.max(a.y0, b.y0),
  x1: Math.min(a.x1, b.x1),
  y1: Math.min(a.y1, b.y1),
});
/** Does it hold no point at all? One without a width still holds some. */
export const isEmpty = (r: Rect): boolean => !(r.x1 >= r.x0 && r.y1 >= r.y0);
/** From left to right; negative where it is empty. */
export const width = (r: Rect): number => r.x1 - r.x0;
/** From top to bottom; negative where it is empty. */
export const height = (r: Rect): number => r.y1 - r.y0;
/** The point in its middle. */
export const centre = (r: Rect): Point => ({ x: (r.x0 + r.x1) / 2, y: (r.y0 + r.y1) / 2 });

/** The least that holds both. */
export function union(a: Rect, b: Rect): Rect {
  return { x0: Math.min(a.x0, b.x0), y0: Math.min(a.y0, b.y0), x1: Math.max(a.x1, b.x1), y1: Math.max(a.y1, b.y1) };
}
/** The least that holds all; empty for none. */
export const unionAll = (list: Iterable<Rect>): Rect => {
  let all = EMPTY_RECT;
  for (const r of list) all = union(all, r);
  return all;
};
/** Larger by so much on every side. */
export const grow = (r: Rect, by: number): Rect => ({ x0: r.x0 - by, y0: r.y0 - by, x1: r.x1 + by, y1: r.y1 + by });
/** Do two have a point in common, edges included? */
export const overlaps = (a: Rect, b: Rect): boolean => a.x0 <= b.x1 && a.x1 >= b.x0 && a.y0 <= b.y1 && a.y1 >= b.y0;
/** Does one hold the other? */
export const contains = (outer: Rect, inner: Rect): boolean =>
  inner.x0 >= outer.x0 && inner.x1 <= outer.x1 && inner.y0 >= outer.y0 && inner.y1 <= outer.y1;
/** Does it hold a point, edges included? */
export const holds = (r: Rect, p: Point): boolean => p.x >= r.x0 && p.x <= r.x1 && p.y >= r.y0 && p.y <= r.y1;

/** Its corners, clockwise from the top left. */
export function corners(r: Rect): [Point, Point, Point, Point] {
  return [
    { x: r.x0, y: r.y0 },
    { x: r.x1, y: r.y0 },
    { x: r.x1, y: r.y1 },
    { x: r.x0, y: r.y1 },
  ];
}

/** Maps the unit square to a box. */
export const rectMatrix = (r: Rect): Matrix => [r.x1 - r.x0, 0, 0, r.y1 - r.y0, r.x0, r.y0];

/** The upright box round a mapped box. */
export function transformRect(m: Matrix, r: Rect): Rect {
  if (isEmpty(r)) return EMPTY_RECT;
  // What stays upright needs no corners; most does.
  if (m[1] === 0 && m[2] === 0) {
    const x0 = m[0] * r.x0 + m[4];
    const x1 = m[0] * r.x1 + m[4];
    const y0 = m[3] * r.y0 + m[5];
    const y1 = m[3] * r.y1 + m[5];
    return { x0: x0 < x1 ? x0 : x1, y0: y0 < y1 ? y0 : y1, x1: x0 < x1 ? x1 : x0, y1: y0 < y1 ? y1 : y0 };
  }
  return fromPoints(corners(r).map((p) => apply(m, p)));
}

/** The least that holds all points; empty for none. */
export function fromPoints(points: Iterable<Point>): Rect {
  let { x0, y0, x1, y1 } = EMPTY_RECT;
  for (const p of points) {
    if (p.x < x0) x0 = p.x;
    if (p.y < y0) y0 = p.y;
    if (p.x > x1) x1 = p.x;
    if (p.y > y1) y1 = p.y;
  }
  return { x0, y0, x1, y1 };
}
