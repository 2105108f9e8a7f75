import type { ResolvedRamp } from '../colour/ramp';
import type { GradientPaint } from '../model/schema';
import { mm } from '../units/length';

/**
 * Grain: a tile of squares, half of them set, that repeats over the page. Fine enough to melt, coarse enough to print.
 */
export const GRAIN_CELL = mm(0.2);
export const GRAIN_SIZE = 128;

/**
 * The grain that a gradient prints with, everywhere: it needs a ramp that lets nothing through, being painted on top of
 * it.
 */
export const grainOf = (paint: GradientPaint, ramp: ResolvedRamp): number => (ramp.solid ? (paint.grain ?? 0) : 0);

let tile: Uint8Array | null = null;

/**
 * One byte a square, row by row: 1 where the ramp is taken a little further on, 0 where a little before. Always the
 * same.
 */
export function grainTile(): Uint8Array {
  if (tile) return tile;
  const n = GRAIN_SIZE * GRAIN_SIZE;
  tile = new Uint8Array(n).fill(1, n / 2);
  // Shuffled with a fixed seed, so that exactly half are set (Fisher and Yates; a linear congruential generator).
  let seed = 20_261_121;
  for (let i = n - 1; i > 0; i--) {
    seed = (Math.imul(seed, 1664525) + 1013904223) >>> 0;
    const k = Math.floor((seed / 2 ** 32) * (i + 1));
    [tile[i], tile[k]] = [tile[k], tile[i]];
  }
  return tile;
}
