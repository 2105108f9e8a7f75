import { IDENTITY, invert, multiply, type Matrix } from '../geometry/matrix';

/**
 * A transform below `outer`, taken through a map of the page; null where it stays as it is, or lies in what is flat.
 */
export function taken(transform: Matrix, outer: Matrix, map: Matrix): Matrix | null {
  const back = outer === IDENTITY ? IDENTITY : invert(outer);
  if (!back) return null;
  const next = back === IDENTITY ? multiply(map, transform) : multiply(back, multiply(map, multiply(outer, transform)));
  return next.some((v, i) => v !== transform[i]) ? next : null;
}
