import type { Palette } from '../colour/palette';
import type { Rect } from '../geometry/rect';
import type { Item } from '../scene/scene';
import { compositePlates } from './composite';
import { rasterAlone } from './plates';
import { regionWith } from './region';

/** RGBA pixels, not premultiplied. */
export interface Bitmap {
  readonly width: number;
  readonly height: number;
  readonly data: Uint8ClampedArray<ArrayBuffer>;
}

/** An item's paint over a box of the page as it looks on bare paper, in about so many pixels; whatever the item's form. */
export function paintBitmap(item: Item, palette: Palette, box: Rect, pixels: number): Bitmap {
  const region = regionWith(box, pixels);
  const { plates, alpha } = rasterAlone(item, palette, region);
  const data = compositePlates(plates, palette);
  for (let i = 0; i < alpha.length; i++) data[4 * i + 3] = alpha[i];
  return { width: region.width, height: region.height, data };
}
