import type { Palette } from '../colour/palette';
import { bleedRect, type Scene } from '../scene/scene';
import { rasterPlates, type Plates } from './plates';
import type { Region } from './coverage';
import { regionOf } from './region';

/** Fine enough that an area a printer would notice (about 0.5 mm) covers a pixel. */
const DPI = 50;

/** The most ink at any place of a page, 1 = 100 %, and where it is (page points). */
export interface PageInk {
  readonly total: number;
  readonly x: number;
  readonly y: number;
}

interface Measured {
  readonly palette: Palette;
  readonly ink: PageInk;
  readonly coverage: readonly number[];
}
const measured = new WeakMap<Scene, Measured>();

/**
 * Measured once a page, off its plates, its bleed included: the ticket and the checks tell the same. Null on a screen.
 */
export const pageInk = (scene: Scene, palette: Palette): PageInk | null => measure(scene, palette)?.ink ?? null;

/**
 * How much of the trimmed page each ink covers, 0…1 in the order of the channels, tints counted as what they print.
 * Null on a screen.
 */
export const pageCoverage = (scene: Scene, palette: Palette): readonly number[] | null =>
  measure(scene, palette)?.coverage ?? null;

/**
 * What a square metre of solid ink weighs, in grams: common practice of sheetfed offset, where a film is about 1.2
 * g/m². Screen printing lays ten times as much.
 */
export const SOLID_GRAMS = 1.2;

function measure(scene: Scene, palette: Palette): Measured | null {
  if (palette.screen) return null;
  const known = measured.get(scene);
  if (known?.palette === palette) return known;
  const plates = rasterPlates(scene, palette, regionOf(bleedRect(scene), DPI))!;
  const made = { palette, ink: mostInk(plates), coverage: coverageWithin(plates, scene) };
  measured.set(scene, made);
  return made;
}

/** Adds a plate's pixels: the first and third of every four to `even`, the second and fourth to `odd`, 16 bits each. */
function addPairs(plate: Uint8Array, even: Uint32Array, odd: Uint32Array): void {
  const four = even.length * 4;
  const bytes = plate.byteOffset % 4 || plate.length < four ? new Uint8Array(four) : plate;
  if (bytes !== plate) bytes.set(plate);
  const words = new Uint32Array(bytes.buffer, bytes.byteOffset, even.length);
  for (let k = 0; k < words.length; k++) {
    even[k] += words[k] & 0xff00ff;
    odd[k] += (words[k] >>> 8) & 0xff00ff;
  }
}

/** The most ink at any pixel, 1 = 100 %, and where (page points). */
export function mostInk({ data, region }: Plates): PageInk {
  const pixels = region.width * region.height;
  // Four pixels at a time, their sums in sixteen bits each: room for more plates than there can be. (Low byte first, as
  // in every machine that runs this.)
  const [even, odd] = [new Uint32Array(Math.ceil(pixels / 4)), new Uint32Array(Math.ceil(pixels / 4))];
  for (const plate of data) addPairs(plate, even, odd);
  let best = 0;
  let at = 0;
  for (let k = 0; k < even.length; k++) {
    const [e, o] = [even[k], odd[k]];
    if ((e & 0xffff) <= best && (o & 0xffff) <= best && e >>> 16 <= best && o >>> 16 <= best) continue;
    [e & 0xffff, o & 0xffff, e >>> 16, o >>> 16].forEach((sum, i) => {
      if (sum > best) [best, at] = [sum, 4 * k + i];
    });
  }
  return {
    total: best / 255,
    x: region.x + ((at % region.width) + 0.5) / region.scale,
    y: region.y + (Math.floor(at / region.width) + 0.5) / region.scale,
  };
}

/** The mean of each plate over the page as it is cut. */
function coverageWithin({ data, region }: Plates, scene: Scene): number[] {
  const rows = rowsWithin(region, scene);
  const pixels = rows.reduce((sum, [from, to]) => sum + to - from, 0);
  return data.map((plate) => {
    let sum = 0;
    for (const [from, to] of rows) for (let k = from; k < to; k++) sum += plate[k];
    return pixels ? sum / 255 / pixels : 0;
  });
}

/**
 * Of each row of pixels those whose middles lie on the page as it is cut: the first, and the first that no longer does.
 */
function rowsWithin(region: Region, { width, height, round }: Scene): readonly (readonly [number, number])[] {
  const rows: [number, number][] = [];
  const column = (x: number) => Math.min(region.width, Math.max(0, Math.ceil((x - region.x) * region.scale - 0.5)));
  for (let j = 0; j < region.height; j++) {
    const y = region.y + (j + 0.5) / region.scale;
    if (y < 0 || y > height) continue;
    const half = (width / 2) * (round ? Math.sqrt(Math.max(0, 1 - ((2 * y) / height - 1) ** 2)) : 1);
    const [from, to] = [column(width / 2 - half), column(width / 2 + half)];
    if (to > from) rows.push([j * region.width + from, j * region.width + to]);
  }
  return rows;
}
