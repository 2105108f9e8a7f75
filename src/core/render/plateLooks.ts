import { deltaE00 } from '../colour/compare';
import { labToSrgb, labToXyz, srgbToLab, xyzToLab, type Triple } from '../colour/spaces';
import type { Plates } from './plates';

/**
 * How plates are shown: as they print; on the paper's own white; as films, in black; how much ink lies at each place;
 * what is out of reach; where inks are laid over each other; two plates held against each other; what has changed since
 * another state.
 */
export type PlateLook = 'ink' | 'paper' | 'black' | 'total' | 'reach' | 'traps' | 'apart' | 'changed';

/** Inks that are on, each as dark as it prints, laid over each other as films would be: RGBA. */
export function filmsOf(plates: Plates, shown?: ReadonlySet<string>): Uint8ClampedArray<ArrayBuffer> {
  const pixels = plates.region.width * plates.region.height;
  const out = new Uint8ClampedArray(pixels * 4);
  const on = plates.data.filter((_, i) => !shown || shown.has(plates.channels[i]));
  for (let i = 0; i < pixels; i++) {
    // What two films let through is the product of what each does.
    let light = 1;
    for (const plate of on) light *= 1 - plate[i] / 255;
    out[4 * i] = out[4 * i + 1] = out[4 * i + 2] = Math.round(light * 255);
    out[4 * i + 3] = 255;
  }
  return out;
}

/** Colours of the map of total ink, by how much of the limit is reached: from paper to what is just borne. */
const SCALE: readonly (readonly [number, number, number])[] = [
  [250, 250, 247],
  [205, 216, 224],
  [142, 167, 188],
  [84, 110, 140],
  [46, 62, 92],
];
/** What bears more ink than the limit. */
const OVER = [214, 40, 40] as const;

/**
 * How much ink lies at each place, all inks that are on together, and where it is more than the limit (1 = 100 %):
 * RGBA.
 */
export function totalInkMap(
  plates: Plates,
  limit: number,
  shown?: ReadonlySet<string>,
): Uint8ClampedArray<ArrayBuffer> {
  const pixels = plates.region.width * plates.region.height;
  const out = new Uint8ClampedArray(pixels * 4);
  const on = plates.data.filter((_, i) => !shown || shown.has(plates.channels[i]));
  // Rounding of 8-bit plates must not raise an alarm.
  const most = limit * 255 + on.length;
  for (let i = 0; i < pixels; i++) {
    let sum = 0;
    for (const plate of on) sum += plate[i];
    const at = Math.min(1, sum / most) * (SCALE.length - 1);
    const k = Math.min(SCALE.length - 2, Math.floor(at));
    for (let c = 0; c < 3; c++)
      out[4 * i + c] = sum > most ? OVER[c] : Math.round(SCALE[k][c] + (SCALE[k + 1][c] - SCALE[k][c]) * (at - k));
    out[4 * i + 3] = 255;
  }
  return out;
}

/** What is pointed out, on a page that steps back. */
const MARKED = [214, 40, 40] as const;

/** A page in pale greys with some of it pointed out, by how far `mark` (0…255) covers each pixel: RGBA. */
export function marked(plates: Plates, mark: Uint8Array): Uint8ClampedArray<ArrayBuffer> {
  const out = filmsOf(plates);
  for (let i = 0, at = 0; i < mark.length; i++, at += 4) {
    const pale = 255 - (255 - out[at]) * 0.3;
    const by = mark[i] / 255;
    for (let c = 0; c < 3; c++) out[at + c] = pale + (MARKED[c] - pale) * by;
  }
  return out;
}

/**
 * So far (ΔE00) a colour prints from how it is meant before it counts as out of reach: seen side by side by anybody
 * (common practice).
 */
const FAR = 5;

/** Where what prints looks other than what was meant: 255 there, 0 elsewhere. Both are RGBA of the same pixels. */
export function outOfReach(printed: Uint8ClampedArray, meant: Uint8ClampedArray): Uint8Array {
  const out = new Uint8Array(printed.length / 4);
  const known = new Map<number, number>();
  const labs = new Map<number, Triple>();
  const labAt = (rgba: Uint8ClampedArray, at: number, key: number): Triple => {
    let lab = labs.get(key);
    if (!lab) labs.set(key, (lab = srgbToLab([rgba[at] / 255, rgba[at + 1] / 255, rgba[at + 2] / 255])));
    return lab;
  };
  const keyAt = (rgba: Uint8ClampedArray, at: number) => (rgba[at] << 16) | (rgba[at + 1] << 8) | rgba[at + 2];
  for (let i = 0, at = 0; i < out.length; i++, at += 4) {
    const [a, b] = [keyAt(printed, at), keyAt(meant, at)];
    if (a === b) continue;
    const both = a * 0x1000000 + b;
    let mark = known.get(both);
    if (mark === undefined) {
      mark = deltaE00(labAt(printed, at, a), labAt(meant, at, b)) > FAR ? 255 : 0;
      known.set(both, mark);
    }
    out[i] = mark;
  }
  return out;
}

/** Pixels that are relative to white as they look on a paper of this white (shares of D50 light), in place. */
export function onPaper(rgba: Uint8ClampedArray, white: Triple): void {
  const known = new Map<number, readonly [number, number, number]>();
  for (let at = 0; at < rgba.length; at += 4) {
    const key = (rgba[at] << 16) | (rgba[at + 1] << 8) | rgba[at + 2];
    let seen = known.get(key);
    if (!seen) {
      const [x, y, z] = labToXyz(srgbToLab([rgba[at] / 255, rgba[at + 1] / 255, rgba[at + 2] / 255]));
      const [r, g, b] = labToSrgb(xyzToLab([x * white[0], y * white[1], z * white[2]]));
      known.set(key, (seen = [r * 255, g * 255, b * 255]));
    }
    for (let c = 0; c < 3; c++) rgba[at + c] = seen[c];
  }
}

/**
 * Inks 0…1 at a page point, one a plate; over a square round it (side in points) their mean; null outside the region.
 */
export function inksOver({ region, data }: Plates, x: number, y: number, square = 0): readonly number[] | null {
  const px = Math.floor((x - region.x) * region.scale);
  const py = Math.floor((y - region.y) * region.scale);
  if (px < 0 || py < 0 || px >= region.width || py >= region.height) return null;
  const reach = Math.round((square * region.scale) / 2);
  const [x0, x1] = [Math.max(0, px - reach), Math.min(region.width - 1, px + reach)];
  const [y0, y1] = [Math.max(0, py - reach), Math.min(region.height - 1, py + reach)];
  const pixels = (x1 - x0 + 1) * (y1 - y0 + 1);
  return data.map((plate) => {
    let sum = 0;
    for (let j = y0; j <= y1; j++) for (let i = x0; i <= x1; i++) sum += plate[j * region.width + i];
    return sum / 255 / pixels;
  });
}

/** Colours of two plates that are held against each other: what only the first has, only the second, and both. */
const FIRST = [20, 110, 150] as const;
const SECOND = [200, 90, 20] as const;

/** Two plates over each other: the first in blue, the second in orange, what both have in grey: RGBA. */
export function platesApart(
  { region, channels, data }: Plates,
  [a, b]: readonly [string, string],
): Uint8ClampedArray<ArrayBuffer> {
  const pixels = region.width * region.height;
  const out = new Uint8ClampedArray(pixels * 4).fill(255);
  const [first, second] = [data[channels.indexOf(a)], data[channels.indexOf(b)]];
  for (let i = 0, at = 0; i < pixels; i++, at += 4) {
    const [p, q] = [(first?.[i] ?? 0) / 255, (second?.[i] ?? 0) / 255];
    const both = Math.min(p, q);
    for (let c = 0; c < 3; c++)
      out[at + c] = 255 - (p - both) * (255 - FIRST[c]) - (q - both) * (255 - SECOND[c]) - both * 150;
  }
  return out;
}

/**
 * Where the plates of two states of a page differ by more than rounding: 255 there. A page that was not: wherever it
 * has ink.
 */
export function changedInk(now: Plates, was: Plates | null): Uint8Array {
  const out = new Uint8Array(now.region.width * now.region.height);
  const names = new Set([...now.channels, ...(was?.channels ?? [])]);
  const of = (p: Plates | null, name: string) => p?.data[p.channels.indexOf(name)];
  for (const name of names) {
    const [a, b] = [of(now, name), of(was, name)];
    for (let i = 0; i < out.length; i++) if (Math.abs((a?.[i] ?? 0) - (b?.[i] ?? 0)) > 3) out[i] = 255;
  }
  return out;
}
