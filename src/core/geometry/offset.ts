import { combineTwo } from './boolean/combine';
import type { Region } from './boolean/region';
import { strokeOutline, type StrokeStyle } from './stroke';

/**
 * An area grown by a distance (same unit as its path), or shrunk where that is negative: the area with a line of twice
 * that width laid on its edge, or without it. Curves become straight pieces that stay within `tolerance`. The booleans
 * must have been loaded.
 */
export function offsetRegion(
  area: Region,
  by: number,
  corners: Pick<StrokeStyle, 'join' | 'miterLimit'>,
  tolerance: number,
): Region {
  if (by === 0 || !area.path.length) return area;
  const edge = strokeOutline(area.path, band(by, corners), tolerance);
  return combineTwo(area, { path: edge, rule: 'nonZero' }, by > 0 ? 'union' : 'subtract').region;
}

/** Whole, whatever line it is grown for. */
export const band = (by: number, { join, miterLimit }: Pick<StrokeStyle, 'join' | 'miterLimit'>): StrokeStyle => ({
  join,
  miterLimit,
  width: 2 * Math.abs(by),
  cap: 'butt',
});
