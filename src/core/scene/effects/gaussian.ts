import type { Cover, Window } from './effect';

/** Beyond so many standard deviations an edge has faded to under a fifth of a level of 255. */
export const TAIL = 3.2;
/** Pixels of a standard deviation beyond which a coarser raster is blurred. */
const FINE = 6;

/**
 * A cover blurred by a Gaussian and moved, over a window of its own. `sigma`, `dx` and `dy` in pixels; they may be
 * parts of pixels. Rows first, columns then: the Gaussian is separable. Off the closed form of an edge by less than
 * 1/255.
 */
export function blurred(art: Cover, window: Window, sigma: number, dx: number, dy: number): Uint8Array {
  const coarse = Math.floor(sigma / FINE);
  if (coarse >= 2) return blurredCoarsely(art, window, sigma, dx, dy, coarse);
  const data = convolved(art.data, art, window, sigma, dx, dy);
  const out = new Uint8Array(data.length);
  for (let i = 0; i < out.length; i++) out[i] = data[i] + 0.5;
  return out;
}

/**
 * The same on squares of `n` pixels, which lie alike whatever the window. Their mean and the straight lines between
 * them blur a little themselves: that much is taken off.
 */
function blurredCoarsely(art: Cover, window: Window, sigma: number, dx: number, dy: number, n: number): Uint8Array {
  const small = squares(art, n);
  const x = Math.floor((window.x - n) / n);
  const y = Math.floor((window.y - n) / n);
  const part: Window = {
    x,
    y,
    width: Math.ceil((window.x + window.width + n) / n) - x + 1,
    height: Math.ceil((window.y + window.height + n) / n) - y + 1,
  };
  const own = Math.sqrt(Math.max(0, sigma * sigma - (n * n - 1) / 12 - (n * n) / 6)) / n;
  const soft = convolved(small.data, small, part, own, dx / n, dy / n);
  const out = new Uint8Array(window.width * window.height);
  for (let row = 0; row < window.height; row++) {
    // The middle of a square lies half its side from where it begins.
    const v = (window.y + row + 0.5) / n - 0.5 - part.y;
    const j = Math.floor(v);
    const fy = v - j;
    for (let col = 0; col < window.width; col++) {
      const u = (window.x + col + 0.5) / n - 0.5 - part.x;
      const i = Math.floor(u);
      const fx = u - i;
      const at = j * part.width + i;
      const top = soft[at] * (1 - fx) + soft[at + 1] * fx;
      const foot = soft[at + part.width] * (1 - fx) + soft[at + part.width + 1] * fx;
      out[row * window.width + col] = top * (1 - fy) + foot * fy + 0.5;
    }
  }
  return out;
}

/** The mean of each square of `n` pixels of the page's grid. */
function squares(art: Cover, n: number): Window & { readonly data: Float32Array } {
  const x = Math.floor(art.x / n);
  const y = Math.floor(art.y / n);
  const width = Math.ceil((art.x + art.width) / n) - x;
  const height = Math.ceil((art.y + art.height) / n) - y;
  const data = new Float32Array(width * height);
  for (let row = 0; row < art.height; row++) {
    const to = (Math.floor((art.y + row) / n) - y) * width;
    for (let col = 0; col < art.width; col++)
      data[to + Math.floor((art.x + col) / n) - x] += art.data[row * art.width + col];
  }
  for (let i = 0; i < data.length; i++) data[i] /= n * n;
  return { x, y, width, height, data };
}

function convolved(
  data: Uint8Array | Float32Array,
  art: Window,
  window: Window,
  sigma: number,
  dx: number,
  dy: number,
): Float32Array {
  const across = kernel(sigma, dx);
  const down = kernel(sigma, dy);
  // Rows of the art, as wide as the window; empty ones are passed over.
  const rows = new Float32Array(art.height * window.width);
  const some = new Uint8Array(art.height);
  for (let row = 0; row < art.height; row++) {
    const line = data.subarray(row * art.width, (row + 1) * art.width);
    const to = rows.subarray(row * window.width, (row + 1) * window.width);
    for (let col = 0; col < art.width;) {
      const v = line[col];
      let end = col + 1;
      while (end < art.width && line[end] === v) end++;
      if (v !== 0) {
        some[row] = 1;
        spread(to, art.x + col + across.first - window.x, end - col, v, across);
      }
      col = end;
    }
  }
  const out = new Float32Array(window.width * window.height);
  for (let row = 0; row < art.height; row++) {
    if (!some[row]) continue;
    const y = art.y + row + down.first - window.y;
    const { weights } = down;
    for (let k = Math.max(0, -y); k < Math.min(weights.length, window.height - y); k++) {
      const w = weights[k];
      const to = (y + k) * window.width;
      const from = row * window.width;
      for (let x = 0; x < window.width; x++) out[to + x] += rows[from + x] * w;
    }
  }
  return out;
}

/**
 * Lays `count` pixels of one value side by side, each spread by the kernel, the first beginning at `x`: within them it
 * is the value.
 */
function spread(to: Float32Array, x: number, count: number, v: number, { weights, sums }: Kernel): void {
  const taps = weights.length;
  const end = Math.min(count + taps - 1, to.length - x);
  // Rising, whole, falling; what is shorter than the kernel is never whole.
  const whole = count >= taps ? taps - 1 : end;
  let j = Math.max(0, -x);
  for (; j < whole && j < end; j++) to[x + j] += v * (sums[Math.min(j + 1, taps)] - sums[Math.max(0, j + 1 - count)]);
  for (; j < count && j < end; j++) to[x + j] += v;
  for (; j < end; j++) to[x + j] += v * (1 - sums[j + 1 - count]);
}

interface Kernel {
  /** How many pixels on from its own the first weight falls. */
  readonly first: number;
  readonly weights: Float64Array;
  /** Of the first so many weights; of all of them 1. */
  readonly sums: Float64Array;
}

/**
 * What a pixel gives to those round it: a Gaussian moved by `shift`, seen through the straight line between two pixels
 * (whose variance, a sixth, is taken off it), so that a part of a pixel moves and a narrow one does not vanish.
 */
function kernel(sigma: number, shift: number): Kernel {
  const s = Math.sqrt(Math.max(0, sigma * sigma - 1 / 6));
  const reach = Math.ceil(TAIL * s) + 1;
  const first = Math.floor(shift) - reach;
  const weights = new Float64Array(2 * reach + 2);
  let sum = 0;
  for (let k = 0; k < weights.length; k++) {
    const t = first + k - shift;
    sum += weights[k] = Math.max(0, bend(t + 1, s) - 2 * bend(t, s) + bend(t - 1, s));
  }
  const sums = new Float64Array(weights.length + 1);
  for (let k = 0; k < weights.length; k++) sums[k + 1] = sums[k] + (weights[k] /= sum);
  return { first, weights, sums };
}

/** The second integral of a Gaussian of standard deviation `s`: x·Φ(x/s) + s·φ(x/s). */
function bend(x: number, s: number): number {
  if (s < 1e-6) return Math.max(0, x);
  const t = x / s;
  return x * 0.5 * (1 + erf(t / Math.SQRT2)) + (s * Math.exp(-0.5 * t * t)) / Math.sqrt(2 * Math.PI);
}

/** Abramowitz and Stegun, Handbook of Mathematical Functions, 7.1.26; off by at most 1.5e-7. */
export function erf(x: number): number {
  const t = 1 / (1 + 0.3275911 * Math.abs(x));
  const y =
    1 -
    ((((1.061405429 * t - 1.453152027) * t + 1.421413741) * t - 0.284496736) * t + 0.254829592) * t * Math.exp(-x * x);
  return x < 0 ? -y : y;
}
