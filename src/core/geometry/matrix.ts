/** An affine map `[a b c d e f]`: x' = a·x + c·y + e, y' = b·x + d·y + f (PDF 32000-1 8.3.3, SVG `matrix()`). */
export type Matrix = readonly [number, number, number, number, number, number];
export interface Point {
  readonly x: number;
  readonly y: number;
}

export const IDENTITY: Matrix = [1, 0, 0, 1, 0, 0];

/** `outer ∘ inner`: first `inner`, then `outer`. */
export function multiply(outer: Matrix, inner: Matrix): Matrix {
  // By index: thousands are multiplied at a time, and taking arrays apart goes through iterators.
  const a = outer[0];
  const b = outer[1];
  const c = outer[2];
  const d = outer[3];
  const g = inner[0];
  const h = inner[1];
  const i = inner[2];
  const j = inner[3];
  const k = inner[4];
  const l = inner[5];
  return [
    a * g + c * h,
    b * g + d * h,
    a * i + c * j,
    b * i + d * j,
    a * k + c * l + outer[4],
    b * k + d * l + outer[5],
  ];
}

/** By how much areas grow; negative where it mirrors. */
export function determinant(m: Matrix): number {
  return m[0] * m[3] - m[1] * m[2];
}

/** The inverse, or null where the map flattens the plane. */
export function invert(m: Matrix): Matrix | null {
  const det = determinant(m);
  if (!Number.isFinite(det) || Math.abs(det) < 1e-18) return null;
  const [a, b, c, d, e, f] = m;
  return [d / det, -b / det, -c / det, a / det, (c * f - d * e) / det, (b * e - a * f) / det];
}

/** A point, mapped. */
export function apply(m: Matrix, p: Point): Point {
  return { x: m[0] * p.x + m[2] * p.y + m[4], y: m[1] * p.x + m[3] * p.y + m[5] };
}

/** Turns and scales, without the shift. */
export function applyVector(m: Matrix, p: Point): Point {
  return { x: m[0] * p.x + m[2] * p.y, y: m[1] * p.x + m[3] * p.y };
}

/** The map that moves by so much. */
export const translation = (x: number, y: number): Matrix => [1, 0, 0, 1, x, y];
/** Does it only move? */
export const isTranslation = (m: Matrix): boolean => m[0] === 1 && m[1] === 0 && m[2] === 0 && m[3] === 1;
/** The map that scales about 0, 0. */
export const scaling = (sx: number, sy: number): Matrix => [sx, 0, 0, sy, 0, 0];

/** A turn by `degrees`, clockwise as seen (y points down), about a point. Quarter turns are exact. */
export function rotation(degrees: number, about: Point = { x: 0, y: 0 }): Matrix {
  const quarter = ((degrees % 360) + 360) % 360;
  const exact: Record<number, [number, number]> = { 0: [1, 0], 90: [0, 1], 180: [-1, 0], 270: [0, -1] };
  const rad = (degrees * Math.PI) / 180;
  const [cos, sin] = exact[quarter] ?? [Math.cos(rad), Math.sin(rad)];
  return [cos, sin, -sin, cos, about.x - cos * about.x + sin * about.y, about.y - sin * about.x - cos * about.y];
}

/** How far the map turns the x axis, in degrees, clockwise as seen, −180 < angle ≤ 180. */
export function angleOf(m: Matrix): number {
  return (Math.atan2(m[1], m[0]) * 180) / Math.PI;
}

/** The mean scale of the map: the square root of how it changes areas. */
export function meanScale(m: Matrix): number {
  return Math.sqrt(Math.abs(determinant(m)));
}
