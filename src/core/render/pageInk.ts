import type { Palette } from '../colour/palette';
import { bleedRect, type Scene } from '../scene/scene';
import { mostInk, rasterPlates, type Plates } from './plates';
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

/** Measured once a page, off its plates, its bleed included: the ticket and the checks tell the same. Null on a screen. */
export const pageInk = (scene: Scene, palette: Palette): PageInk | null => measure(scene, palette)?.ink ?? null;

/** How much of the trimmed page each ink covers, 0…1 in the order of the channels, tints counted as what they print. Null on a screen. */
export const pageCoverage = (scene: Scene, palette: Palette): readonly number[] | null =>
  measure(scene, palette)?.coverage ?? null;

/**
 * What a square metre of solid ink weighs, in grams: common practice of sheetfed offset, where a film is about 1.2 g/m². Screen
 * printing lays ten times as much.
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

/** The mean of each plate over the page as it is cut. */
function coverageWithin({ data, region }: Plates, { width, height, round }: Scene): number[] {
  const sums = data.map(() => 0);
  let pixels = 0;
  const at = (i: number, from: number) => from + (i + 0.5) / region.scale;
  for (let j = 0; j < region.height; j++) {
    const y = at(j, region.y);
    if (y < 0 || y > height) continue;
    for (let i = 0; i < region.width; i++) {
      const x = at(i, region.x);
      if (x < 0 || x > width) continue;
      if (round && Math.hypot((2 * x) / width - 1, (2 * y) / height - 1) > 1) continue;
      pixels++;
      const k = j * region.width + i;
      for (let c = 0; c < sums.length; c++) sums[c] += data[c][k];
    }
  }
  return sums.map((sum) => (pixels ? sum / 255 / pixels : 0));
}
