import { liftPalette, type LiftOptions } from '../colour/lift';
import type { Palette } from '../colour/palette';
import { hexOf, srgbToLab, type Triple } from '../colour/spaces';
import type { OwnColour } from '../model/schema';
import type { NodeId } from '../model/tree';
import { trimRect, type Scene } from '../scene/scene';
import { compositePlates } from './composite';
import { coverageOf, itemsOf, regionWith } from './parts';
import { rasterPlates } from './plates';

export interface LiftedColour {
  /** The colour in the design's terms: a recipe in whole percents for print, RGB for a screen. */
  readonly colour: OwnColour;
  readonly hex: string;
  readonly share: number;
}

const PIXELS = 1_000_000;

/** A palette out of a page, or out of some of its objects, as they look. */
export function liftFromScene(scene: Scene, palette: Palette, options: Omit<LiftOptions, 'inkOf'>, nodes?: ReadonlySet<NodeId>): LiftedColour[] {
  const part = nodes ? itemsOf(scene, nodes) : null;
  if (nodes && !part) return [];
  const region = regionWith(part?.box ?? trimRect(scene), PIXELS);
  const pixels = compositePlates(rasterPlates(part ? { ...scene, items: part.items } : scene, palette, region)!, palette);
  if (part) {
    const mask = coverageOf(scene, part.items, palette, region);
    for (let i = 0; i < mask.length; i++) pixels[4 * i + 3] = mask[i] > 127 ? 255 : 0;
  }
  return liftFromPixels(pixels, palette, options);
}

/** The same out of RGBA pixels in sRGB. */
export function liftFromPixels(pixels: Uint8ClampedArray, palette: Palette, options: Omit<LiftOptions, 'inkOf'>): LiftedColour[] {
  const recipe = (rgb: Triple) => palette.recipeOf({ lab: srgbToLab(rgb) });
  const inkOf = palette.screen ? undefined : (rgb: Triple) => recipe(rgb).reduce((a, b) => a + b, 0);
  return liftPalette(pixels, { ...options, ...(inkOf && { inkOf }) }).map(({ rgb, share }) => ({ colour: palette.screen ? { rgb } : { cmyk: recipe(rgb) }, hex: hexOf(rgb), share }));
}
