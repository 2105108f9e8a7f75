import { PROCESS } from '../colour/palette';
import type { Plates } from './plates';

/** Degrees at which the dots of each plate stand; spots share that of black (common practice of offset). */
const ANGLES: readonly number[] = [15, 75, 0, 45];
const SPOT_ANGLE = 45;
/** Lines of dots an inch on coated paper (common practice). */
export const SCREEN_LPI = 150;

/** How far a plate lies aside, points across and down. */
export type Aside = readonly [x: number, y: number];

const TILE = 64;
/**
 * A cell of dots, each place numbered by when it is inked as the tint grows: what is inked is exactly the tint's share.
 */
let ranks: Uint16Array | null = null;
function cell(): Uint16Array {
  if (ranks) return ranks;
  // Round dots that grow to a chequer and on to round holes: cos x + cos y falls away from the middle of a dot.
  const height = (i: number) => {
    const [x, y] = [((i % TILE) + 0.5) / TILE, (Math.floor(i / TILE) + 0.5) / TILE];
    return Math.cos(2 * Math.PI * x) + Math.cos(2 * Math.PI * y);
  };
  const order = Array.from({ length: TILE * TILE }, (_, i) => i).sort((a, b) => height(b) - height(a));
  ranks = new Uint16Array(TILE * TILE);
  order.forEach((at, n) => (ranks![at] = n));
  return ranks;
}

/**
 * Plates as a press lays them: in dots at each ink's angle, and each plate as far aside as is said by its name. Pixels
 * must be several to a dot for dots to be seen. What would come from beyond the region is taken from its edge.
 */
export function screened(plates: Plates, lpi: number, aside: Readonly<Record<string, Aside>>): Plates {
  const { region, channels } = plates;
  const { width, height, scale } = region;
  const rank = cell();
  const data = plates.data.map((plate, c) => {
    const [dx, dy] = (aside[channels[c]] ?? [0, 0]).map((v) => Math.round(v * scale));
    const angle = ((c < PROCESS.length ? ANGLES[c] : SPOT_ANGLE) * Math.PI) / 180;
    const perPoint = lpi / 72;
    const [cos, sin] = [Math.cos(angle) * perPoint, Math.sin(angle) * perPoint];
    const out = new Uint8Array(plate.length);
    for (let y = 0; y < height; y++) {
      const from = Math.min(height - 1, Math.max(0, y - dy)) * width;
      const py = region.y + (y - dy) / scale;
      for (let x = 0; x < width; x++) {
        const v = plate[from + Math.min(width - 1, Math.max(0, x - dx))];
        if (v === 0) continue;
        const px = region.x + (x - dx) / scale;
        const u = px * cos + py * sin;
        const w = py * cos - px * sin;
        const i = Math.floor((u - Math.floor(u)) * TILE);
        const j = Math.floor((w - Math.floor(w)) * TILE);
        if (rank[j * TILE + i] < (v / 255) * TILE * TILE) out[y * width + x] = 255;
      }
    }
    return out;
  });
  return { region, channels, data };
}
