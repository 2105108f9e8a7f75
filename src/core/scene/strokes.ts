import { meanScale, type Matrix } from '../geometry/matrix';
import type { StrokeStyle } from '../geometry/stroke';
import type { Outline } from '../model/schema';

/** An outline as it is drawn on the page, from a space that `matrix` maps there. */
export function strokeStyle(o: Outline, matrix: Matrix): StrokeStyle {
  return { width: o.width * meanScale(matrix), cap: o.cap, join: o.join, miterLimit: o.miterLimit };
}

/** How far a line can reach from its path. */
export function reach(s: StrokeStyle): number {
  return (s.width / 2) * (s.join === 'miter' ? Math.max(s.miterLimit, Math.SQRT2) : Math.SQRT2);
}
