import { invert, multiply, type Matrix } from '../geometry/matrix';
import { intersect, isEmpty } from '../geometry/rect';
import type { TriangleMesh } from '../geometry/mesh';
import { strokeMesh } from '../geometry/strokeMesh';
import type { GradientPaint } from '../model/schema';
import type { Leaf } from '../scene/scene';
import type { Region } from './coverage';
import { regionRect } from './region';

/** Steps of a ramp's table; far finer than the 256 levels of a plate. */
export const RAMP_STEPS = 2048;
const rampIndex = (t: number): number => (t <= 0 ? 0 : t >= 1 ? RAMP_STEPS : (t * RAMP_STEPS + 0.5) | 0);

/**
 * Where each pixel of a row lies on the ramp: writes the table's index for the pixels from..to. Answers true where the
 * whole row has one, then only `index[from]` is written.
 */
export type Field = (y: number, from: number, to: number, index: Uint16Array) => boolean;

/** The field of a ramp over a region, by its kind; null where the gradient has no extent. */
export function fieldOf(item: Leaf, paint: GradientPaint, region: Region): Field | null {
  const course = courseOf(item, paint);
  if (course) return meshField(course, item, region);
  const toUnit = invert(multiply(item.matrix, paint.geometry));
  if (!toUnit) return null;
  if (paint.gradient === 'linear') return linearField(toUnit, region);
  if (paint.gradient === 'radial' && !paint.focus?.some((v) => v !== 0)) return roundField(toUnit, region);
  return pointField(toUnit, region, paint.gradient === 'box' ? boxT : radialT(paint.focus));
}

/** The triangles of a gradient that follows its line, in page points; null for all others. */
export function courseOf(item: Leaf, paint: GradientPaint): ((tolerance: number, pad: number) => TriangleMesh) | null {
  if (item.type === 'fill' || !item.stroke || !paint.strokeMapping) return null;
  const { stroke } = item;
  const { path } = item.placed;
  const { strokeMapping } = paint;
  return (tolerance, pad) => strokeMesh(path, stroke, strokeMapping, tolerance, pad);
}

/** The whole region's places on the ramp; null where the gradient has no extent. */
export function fieldMap(item: Leaf, paint: GradientPaint, region: Region): Uint16Array | null {
  const field = fieldOf(item, paint, region);
  if (!field) return null;
  const { width, height } = region;
  const map = new Uint16Array(width * height);
  const row = new Uint16Array(width);
  for (let y = 0; y < height; y++) {
    if (field(y, 0, width, row)) row.fill(row[0]);
    map.set(row, y * width);
  }
  return map;
}

function linearField([a, , c, , e]: Matrix, { x: ox, y: oy, scale, width }: Region): Field {
  const step = a / scale;
  // Across such a line the colour is the same all along a row.
  const level = Math.abs(step) * width < 0.5 / RAMP_STEPS;
  return (y, from, to, index) => {
    const u0 = a * (ox + (from + 0.5) / scale) + c * (oy + (y + 0.5) / scale) + e;
    if (level) {
      index[from] = rampIndex(u0);
      return true;
    }
    for (let x = from; x < to; x++) index[x] = rampIndex(u0 + (x - from) * step);
    return false;
  };
}

function pointField(
  [a, b, c, d, e, f]: Matrix,
  { x: ox, y: oy, scale }: Region,
  t: (u: number, v: number) => number,
): Field {
  const [uStep, vStep] = [a / scale, b / scale];
  return (y, from, to, index) => {
    const [px, py] = [ox + (from + 0.5) / scale, oy + (y + 0.5) / scale];
    const [u0, v0] = [a * px + c * py + e, b * px + d * py + f];
    for (let x = from; x < to; x++) index[x] = rampIndex(t(u0 + (x - from) * uStep, v0 + (x - from) * vStep));
    return false;
  };
}

/** The field of a circle seen from its middle, by far the most usual: a loop of its own. */
function roundField([a, b, c, d, e, f]: Matrix, { x: ox, y: oy, scale }: Region): Field {
  const [uStep, vStep] = [a / scale, b / scale];
  return (y, from, to, index) => {
    const [px, py] = [ox + (from + 0.5) / scale, oy + (y + 0.5) / scale];
    const [u0, v0] = [a * px + c * py + e, b * px + d * py + f];
    for (let x = from; x < to; x++) {
      const [u, v] = [u0 + (x - from) * uStep, v0 + (x - from) * vStep];
      const q = u * u + v * v;
      index[x] = q < 1 ? (Math.sqrt(q) * RAMP_STEPS + 0.5) | 0 : RAMP_STEPS;
    }
    return false;
  };
}

/** A box: how far out of its middle, the sides being at 1. */
const boxT = (u: number, v: number): number => Math.max(Math.abs(u), Math.abs(v));

/**
 * A circle seen from a focus within it: 0 at the focus, 1 on the circle (PDF 32000-1 8.7.4.5.4 with a starting circle
 * of no size).
 */
function radialT(focus: readonly [number, number] | undefined): (u: number, v: number) => number {
  if (!focus || (focus[0] === 0 && focus[1] === 0)) return (u, v) => Math.sqrt(u * u + v * v);
  const [fx, fy] = focus;
  const k = 1 - fx * fx - fy * fy;
  return (u, v) => {
    const [dx, dy] = [u - fx, v - fy];
    const along = fx * dx + fy * dy;
    return (along + Math.sqrt(along * along + (dx * dx + dy * dy) * k)) / k;
  };
}

/** Triangles drawn into a map of indexes once; each pixel takes what lies under its middle. */
function meshField(course: (tolerance: number, pad: number) => TriangleMesh, item: Leaf, region: Region): Field | null {
  const box = intersect(item.inkBounds, regionRect(region));
  if (isEmpty(box)) return null;
  const x0 = Math.max(0, Math.floor((box.x0 - region.x) * region.scale) - 1);
  const y0 = Math.max(0, Math.floor((box.y0 - region.y) * region.scale) - 1);
  const width = Math.min(region.width, Math.ceil((box.x1 - region.x) * region.scale) + 1) - x0;
  const height = Math.min(region.height, Math.ceil((box.y1 - region.y) * region.scale) + 1) - y0;
  const map = new Uint16Array(width * height);
  const mesh = course(0.08 / region.scale, 1.5 / region.scale);
  for (let i = 0; i < mesh.length; i += 9) {
    const corner = (k: number) =>
      [
        (mesh[i + k] - region.x) * region.scale - x0,
        (mesh[i + k + 1] - region.y) * region.scale - y0,
        mesh[i + k + 2],
      ] as const;
    fillTriangle(map, width, height, corner(0), corner(3), corner(6));
  }
  return (y, from, to, index) => {
    const base = (y - y0) * width - x0;
    for (let x = from; x < to; x++) index[x] = map[base + x];
    return false;
  };
}

type Corner = readonly [x: number, y: number, t: number];

function fillTriangle(map: Uint16Array, width: number, height: number, a: Corner, b: Corner, c: Corner): void {
  const area = (b[0] - a[0]) * (c[1] - a[1]) - (c[0] - a[0]) * (b[1] - a[1]);
  if (Math.abs(area) < 1e-12) return;
  // t is a plane over the triangle.
  const tx = ((b[2] - a[2]) * (c[1] - a[1]) - (c[2] - a[2]) * (b[1] - a[1])) / area;
  const ty = ((c[2] - a[2]) * (b[0] - a[0]) - (b[2] - a[2]) * (c[0] - a[0])) / area;
  const top = Math.max(0, Math.ceil(Math.min(a[1], b[1], c[1]) - 0.5));
  const bottom = Math.min(height - 1, Math.floor(Math.max(a[1], b[1], c[1]) - 0.5));
  for (let y = top; y <= bottom; y++) {
    const py = y + 0.5;
    let [lo, hi] = [Infinity, -Infinity];
    for (const [p, q] of [
      [a, b],
      [b, c],
      [c, a],
    ] as const) {
      if (p[1] === q[1]) {
        if (p[1] === py) [lo, hi] = [Math.min(lo, p[0], q[0]), Math.max(hi, p[0], q[0])];
        continue;
      }
      const f = (py - p[1]) / (q[1] - p[1]);
      if (f < 0 || f > 1) continue;
      const x = p[0] + f * (q[0] - p[0]);
      if (x < lo) lo = x;
      if (x > hi) hi = x;
    }
    // A hair of slack: neighbours share their edge, and no pixel may fall between.
    const from = Math.max(0, Math.ceil(lo - 0.5 - 1e-6));
    const to = Math.min(width - 1, Math.floor(hi - 0.5 + 1e-6));
    const t0 = a[2] + (py - a[1]) * ty;
    const base = y * width;
    for (let x = from; x <= to; x++) map[base + x] = rampIndex(t0 + (x + 0.5 - a[0]) * tx);
  }
}
