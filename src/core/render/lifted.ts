import { liftPalette, type LiftOptions } from '../colour/lift';
import type { Palette } from '../colour/palette';
import { deltaE00 } from '../colour/compare';
import { hexOf, parseHex, srgbToLab, type Triple } from '../colour/spaces';
import { tinted } from '../colour/tints';
import type { OwnColour } from '../model/schema';
import type { NodeId } from '../model/tree';
import { trimRect, type Scene } from '../scene/scene';
import { walkPaints, withContent } from '../scene/walk';
import { clearBlurredEdges } from './blurredEdges';
import { compositePlates } from './composite';
import { artOf, coverageOf } from './parts';
import { regionWith } from './region';
import { rasterPlates } from './plates';

export interface LiftedColour {
  /**
   * The colour in the design's terms: one that the page is painted with, or a recipe in whole percents (RGB for a
   * screen).
   */
  readonly colour: OwnColour;
  readonly hex: string;
  readonly share: number;
}

const PIXELS = 1_000_000;
/** ΔE00 below which two looks are one. */
const SAME = 1;

/** A palette out of a page, or out of some of its objects, as they look. */
export function liftFromScene(
  scene: Scene,
  palette: Palette,
  options: Omit<LiftOptions, 'inkOf'>,
  nodes?: ReadonlySet<NodeId>,
): LiftedColour[] {
  const part = nodes ? artOf(scene, nodes) : null;
  if (nodes && !part) return [];
  const region = regionWith(part?.box ?? trimRect(scene), PIXELS);
  const shown = part ? withContent(scene, part.parts) : scene;
  const pixels = compositePlates(rasterPlates(shown, palette, region)!, palette);
  clearBlurredEdges(pixels, region.width, region.height);
  if (part) {
    const mask = coverageOf(scene, part.parts, palette, region);
    for (let i = 0; i < mask.length; i++) if (mask[i] < 250) pixels[4 * i + 3] = 0;
  }
  return named(liftFromPixels(pixels, palette, options), shown, palette);
}

/** A flat colour of the page that looks the same is meant itself, a spot ink above all: it is not mixed anew. */
function named(lifted: readonly LiftedColour[], shown: Scene, palette: Palette): LiftedColour[] {
  const flat = new Map<string, { colour: OwnColour; lab: Triple }>();
  walkPaints(shown.root, (paint) => {
    if (paint.kind !== 'colour') return;
    const { colour: own, tint } = palette.own(paint.colour);
    const colour = tinted(own, tint);
    const key = JSON.stringify(colour);
    if (!flat.has(key)) flat.set(key, { colour, lab: srgbToLab(palette.lookOfMix(palette.mix(paint.colour))) });
  });
  return lifted.map((l) => {
    const lab = srgbToLab(parseHex(l.hex)!);
    const same = [...flat.values()].map((f) => ({ ...f, off: deltaE00(f.lab, lab) })).sort((a, b) => a.off - b.off)[0];
    return same && same.off < SAME ? { ...l, colour: same.colour } : l;
  });
}

/** The same out of RGBA pixels in sRGB. */
function liftFromPixels(
  pixels: Uint8ClampedArray,
  palette: Palette,
  options: Omit<LiftOptions, 'inkOf'>,
): LiftedColour[] {
  const recipe = (rgb: Triple) => palette.recipeOf({ lab: srgbToLab(rgb) });
  const inkOf = palette.screen ? undefined : (rgb: Triple) => recipe(rgb).reduce((a, b) => a + b, 0);
  return liftPalette(pixels, { ...options, ...(inkOf && { inkOf }) }).map(({ rgb, share }) => ({
    colour: palette.screen ? { rgb } : { cmyk: recipe(rgb) },
    hex: hexOf(rgb),
    share,
  }));
}
