import type { Palette } from '../colour/palette';
import { apply, determinant, type Matrix } from '../geometry/matrix';
import type { PoolsPaint } from '../model/schema';

/** Values of a pools paint: the channels and then the opacity, each 0…1. */
export interface PoolField {
  /** Channels with one behind them for opacity. */
  readonly size: number;
  /** Which channels any pool inks. */
  readonly used: readonly boolean[];
  /** No pool lets anything through. */
  readonly solid: boolean;
  /** Writes the values at a point of the object's own space. */
  at(x: number, y: number, out: Float64Array): void;
  /** The pools' own places, in unit space. */
  readonly places: readonly { readonly x: number; readonly y: number }[];
}

/**
 * Every point is the mean of the pools weighted by (reach / distance)³ (inverse distance weighting, Shepard 1968): each
 * pool's own colour at its place, smooth in between, and far out what the widest reaches make of it. Distances are
 * those of the object's own space, so that a pool is round on a long shape too.
 */
export function poolField(paint: PoolsPaint, palette: Palette): PoolField {
  const n = palette.channels.length;
  const size = n + 1;
  const unit = Math.sqrt(Math.abs(determinant(paint.geometry)));
  const pools = paint.pools.map((p) => ({
    ...apply(paint.geometry, p),
    r2: (p.reach * unit) ** 2,
    values: [...palette.mix(p.colour), p.opacity ?? 1],
  }));
  // Flat numbers: this is asked for tens of thousands of points a picture.
  const count = pools.length;
  const px = Float64Array.from(pools, (p) => p.x);
  const py = Float64Array.from(pools, (p) => p.y);
  const r2 = Float64Array.from(pools, (p) => p.r2);
  const values = Float64Array.from(pools.flatMap((p) => p.values));
  const at = (x: number, y: number, out: Float64Array): void => {
    let sum = 0;
    for (let i = 0; i < size; i++) out[i] = 0;
    for (let k = 0; k < count; k++) {
      const dx = x - px[k];
      const dy = y - py[k];
      const d2 = dx * dx + dy * dy;
      const base = k * size;
      if (d2 < 1e-12) {
        for (let i = 0; i < size; i++) out[i] = values[base + i];
        return;
      }
      const q = r2[k] / d2;
      const w = q * Math.sqrt(q);
      sum += w;
      for (let i = 0; i < size; i++) out[i] += w * values[base + i];
    }
    const share = 1 / sum;
    for (let i = 0; i < size; i++) out[i] *= share;
  };
  return {
    size,
    used: palette.channels.map((_, i) => pools.some((p) => p.values[i] > 0)),
    solid: pools.every((p) => p.values[n] >= 1),
    at,
    places: paint.pools,
  };
}

/** Levels of a plate that a straight piece may be off. */
const TOLERANCE = 0.4 / 255;

/**
 * The field over a window of pixels as one byte raster a channel and one for opacity: squares that are smooth enough
 * are filled straight across from their corners, others are quartered.
 */
export function rasterPools(field: PoolField, toOwn: Matrix, width: number, height: number): Uint8Array[] {
  const { size } = field;
  const data = Array.from({ length: size }, () => new Uint8Array(width * height));
  const value = (px: number, py: number): Float64Array => {
    const out = new Float64Array(size);
    const x = px + 0.5;
    const y = py + 0.5;
    field.at(toOwn[0] * x + toOwn[2] * y + toOwn[4], toOwn[1] * x + toOwn[3] * y + toOwn[5], out);
    return out;
  };
  // Channels that no pool inks, and opacity where nothing shows through, are the same everywhere.
  const moving = Array.from({ length: size }, (_, i) => i).filter((i) => (i < size - 1 ? field.used[i] : !field.solid));
  if (field.solid) data[size - 1].fill(255);
  const fill = (
    x0: number,
    y0: number,
    n: number,
    a: Float64Array,
    b: Float64Array,
    c: Float64Array,
    d: Float64Array,
  ): void => {
    const [w, h] = [Math.min(n, width - x0), Math.min(n, height - y0)];
    for (const i of moving) fillSquare(data[i], width, x0, y0, w, h, n, a[i], b[i], c[i], d[i]);
  };
  const off = (p: Float64Array, q: Float64Array, m: Float64Array): boolean => {
    for (let k = 0; k < moving.length; k++) {
      const i = moving[k];
      const away = (p[i] + q[i]) / 2 - m[i];
      if (away > TOLERANCE || away < -TOLERANCE) return true;
    }
    return false;
  };
  const square = (
    x0: number,
    y0: number,
    n: number,
    a: Float64Array,
    b: Float64Array,
    c: Float64Array,
    d: Float64Array,
  ): void => {
    if (x0 >= width || y0 >= height) return;
    if (n === 1) return fill(x0, y0, 1, a, b, c, d);
    const h = n / 2;
    const [top, left, middle, right, bottom] = [
      value(x0 + h, y0),
      value(x0, y0 + h),
      value(x0 + h, y0 + h),
      value(x0 + n, y0 + h),
      value(x0 + h, y0 + n),
    ];
    if (
      !off(a, b, top) &&
      !off(a, c, left) &&
      !off(a, d, middle) &&
      !off(b, c, middle) &&
      !off(b, d, right) &&
      !off(c, d, bottom)
    )
      return fill(x0, y0, n, a, b, c, d);
    square(x0, y0, h, a, top, left, middle);
    square(x0 + h, y0, h, top, b, middle, right);
    square(x0, y0 + h, h, left, middle, c, bottom);
    square(x0 + h, y0 + h, h, middle, right, bottom, d);
  };
  const N = 32;
  for (let y = 0; y < height; y += N)
    for (let x = 0; x < width; x += N)
      square(x, y, N, value(x, y), value(x + N, y), value(x, y + N), value(x + N, y + N));
  return data;
}

/** Levels as whole numbers with 16 places behind the point: a step is one addition. */
const FIXED = 255 * 65536;

/** One plate's square of side `n`, straight across from its corner values; `w` by `h` of it lie within the window. */
function fillSquare(
  plate: Uint8Array,
  width: number,
  x0: number,
  y0: number,
  w: number,
  h: number,
  n: number,
  a: number,
  b: number,
  c: number,
  d: number,
): void {
  for (let y = 0; y < h; y++) {
    const f = y / n;
    const left = a + f * (c - a);
    const right = b + f * (d - b);
    let v = (left * FIXED + 32768) | 0;
    const step = (((right - left) * FIXED) / n) | 0;
    const start = (y0 + y) * width + x0;
    for (let p = start, end = start + w; p < end; p++) {
      plate[p] = v >> 16;
      v = (v + step) | 0;
    }
  }
}

export interface Lattice {
  /** Unit-space lines, rising. */
  readonly us: readonly number[];
  readonly vs: readonly number[];
  /** Row by row: the values at each crossing. */
  readonly values: readonly Float64Array[];
}

const MOST_LINES = 110;

/**
 * Lines through unit space between which the field is straight within half a level; every pool lies on a crossing, so
 * that the mesh is exact there. `box` is the part of unit space to cover.
 */
export function poolLattice(
  field: PoolField,
  geometry: Matrix,
  box: { x0: number; y0: number; x1: number; y1: number },
): Lattice {
  const at = (u: number, v: number): Float64Array => {
    const out = new Float64Array(field.size);
    const p = apply(geometry, { x: u, y: v });
    field.at(p.x, p.y, out);
    return out;
  };
  const start = (lo: number, hi: number, own: readonly number[]): number[] =>
    [
      ...new Set([
        ...Array.from({ length: 9 }, (_, i) => lo + ((hi - lo) * i) / 8),
        ...own.filter((x) => x > lo && x < hi),
      ]),
    ].sort((a, b) => a - b);
  let us = start(
    box.x0,
    box.x1,
    field.places.map((p) => p.x),
  );
  let vs = start(
    box.y0,
    box.y1,
    field.places.map((p) => p.y),
  );
  const error = (a: Float64Array, b: Float64Array, m: Float64Array): number => {
    let worst = 0;
    for (let i = 0; i < field.size; i++) worst = Math.max(worst, Math.abs((a[i] + b[i]) / 2 - m[i]));
    return worst;
  };
  /** Halves the spans of one direction where the field bends too much, the worst first. */
  const refine = (
    lines: readonly number[],
    across: readonly number[],
    get: (p: number, q: number) => Float64Array,
  ): number[] => {
    const bends = lines.slice(1).map((b, i) => {
      const a = lines[i];
      let worst = 0;
      for (const q of across) worst = Math.max(worst, error(get(a, q), get(b, q), get((a + b) / 2, q)));
      return { mid: (a + b) / 2, worst };
    });
    const room = MOST_LINES - lines.length;
    const more = bends
      .filter((x) => x.worst > 0.5 / 255)
      .sort((a, b) => b.worst - a.worst)
      .slice(0, Math.max(0, room));
    return more.length ? [...lines, ...more.map((x) => x.mid)].sort((a, b) => a - b) : [...lines];
  };
  for (let round = 0; round < 7; round++) {
    const before = us.length + vs.length;
    us = refine(us, vs, (p, q) => at(p, q));
    vs = refine(vs, us, (p, q) => at(q, p));
    if (us.length + vs.length === before) break;
  }
  return { us, vs, values: vs.flatMap((v) => us.map((u) => at(u, v))) };
}
