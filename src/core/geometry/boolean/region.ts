import { pathBounds, type FillRule, type PathData } from '../path';
import { EMPTY_RECT, union, type Rect } from '../rect';

/** An area of the plane: a path and how its inside is told. Open contours count as closed. */
export interface Region {
  readonly path: PathData;
  readonly rule: FillRule;
}
export const NOTHING: Region = { path: [], rule: 'evenOdd' };

export type BooleanOp = 'union' | 'subtract' | 'intersect' | 'exclude';

/** Whether a point belongs to the result, from whether it lies in the first and in the second. */
export const BELONGS: Readonly<Record<BooleanOp, (a: boolean, b: boolean) => boolean>> = {
  union: (a, b) => a || b,
  subtract: (a, b) => a && !b,
  intersect: (a, b) => a && b,
  exclude: (a, b) => a !== b,
};

/** The box round regions. */
export const boundsOf = (...regions: readonly Region[]): Rect =>
  regions.reduce((box, r) => (r.path.length ? union(box, pathBounds(r.path)) : box), EMPTY_RECT);
