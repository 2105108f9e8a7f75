import type { Palette } from '../colour/palette';
import type { Point } from '../geometry/matrix';
import type { Colour } from '../model/schema';
import type { Scene } from '../scene/scene';
import { rasterPlates } from './plates';

/** Pixels a point: a sample is an eighth of a point wide. */
const SCALE = 8;

/** The colour at a point of the page as it looks, in the design's terms. */
export function sampleLook(scene: Scene, palette: Palette, p: Point): Colour {
  const half = 0.5 / SCALE;
  const plates = rasterPlates(scene, palette, { x: p.x - half, y: p.y - half, scale: SCALE, width: 1, height: 1 })!;
  return palette.colourOfMix(plates.data.map((d) => d[0] / 255));
}
