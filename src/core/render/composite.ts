import type { Palette } from '../colour/palette';
import type { Plates } from './plates';

/** The pixels of plates as they look on paper, RGBA. `shown` limits the inks that are on the press. */
export function compositePlates(
  plates: Plates,
  palette: Palette,
  shown?: ReadonlySet<string>,
): Uint8ClampedArray<ArrayBuffer> {
  const pixels = plates.region.width * plates.region.height;
  const out = new Uint8ClampedArray(pixels * 4);
  const on = plates.data.map((plate, i) => (!shown || shown.has(plates.channels[i]) ? plate : null));
  if (palette.screen) {
    for (let c = 0; c < 3; c++) {
      const plate = on[c];
      for (let i = 0; i < pixels; i++) out[4 * i + c] = plate ? plate[i] : 0;
    }
    for (let i = 0; i < pixels; i++) out[4 * i + 3] = 255;
    return out;
  }
  palette.press.composite(on, palette.spotInks, pixels, out);
  return out;
}
