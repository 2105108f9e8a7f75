import type { Palette } from '../colour/palette';
import { bleedRect, type Scene } from '../scene/scene';
import { mostInk, rasterPlates } from './plates';
import { regionOf } from './region';

/** Fine enough that an area a printer would notice (about 0.5 mm) covers a pixel. */
const DPI = 50;

/** The most ink at any place of a page, 1 = 100 %, and where it is (page points). */
export interface PageInk {
  readonly total: number;
  readonly x: number;
  readonly y: number;
}

const measured = new WeakMap<Scene, { readonly palette: Palette; readonly ink: PageInk }>();

/** Measured once a page, off its plates, its bleed included: the ticket and the checks tell the same. Null on a screen. */
export function pageInk(scene: Scene, palette: Palette): PageInk | null {
  if (palette.screen) return null;
  const known = measured.get(scene);
  if (known?.palette === palette) return known.ink;
  const ink = mostInk(rasterPlates(scene, palette, regionOf(bleedRect(scene), DPI))!);
  measured.set(scene, { palette, ink });
  return ink;
}
