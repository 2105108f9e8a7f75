import type { Palette } from '../colour/palette';
import { pointAt, type ResolvedRamp } from '../colour/ramp';
import type { Rect } from '../geometry/rect';
import type { Leaf } from '../scene/scene';
import { compositePlates } from './composite';
import { RAMP_STEPS } from './field';
import { rasterAlone } from './plates';
import { regionWith } from './region';

/** RGBA pixels, not premultiplied. */
export interface Bitmap {
  readonly width: number;
  readonly height: number;
  readonly data: Uint8ClampedArray<ArrayBuffer>;
}

/** Colours that a ramp is looked up in: finer than the steps of a screen. */
const LOOKS = 512;

/** A map of places on a ramp in that ramp's looks: what a gradient becomes when only its colours change. */
export function mapBitmap(
  map: Uint16Array,
  width: number,
  height: number,
  ramp: ResolvedRamp,
  palette: Palette,
): Bitmap {
  const looks = new Uint32Array(LOOKS + 1);
  const bytes = new Uint8ClampedArray(looks.buffer);
  for (let n = 0; n <= LOOKS; n++) {
    const { mix, opacity } = pointAt(ramp, n / LOOKS);
    const [r, g, b] = palette.lookOfMix(mix);
    bytes.set([r * 255, g * 255, b * 255, opacity * 255], 4 * n);
  }
  const out = new Uint32Array(map.length);
  for (let i = 0; i < map.length; i++) out[i] = looks[((map[i] * LOOKS) / RAMP_STEPS + 0.5) | 0];
  return { width, height, data: new Uint8ClampedArray(out.buffer) };
}

/**
 * An item's paint over a box of the page as it looks on bare paper, in about so many pixels; whatever the item's form.
 */
export function paintBitmap(item: Leaf, palette: Palette, box: Rect, pixels: number): Bitmap {
  const region = regionWith(box, pixels);
  const { plates, alpha } = rasterAlone(item, palette, region);
  const data = compositePlates(plates, palette);
  for (let i = 0; i < alpha.length; i++) data[4 * i + 3] = alpha[i];
  return { width: region.width, height: region.height, data };
}
