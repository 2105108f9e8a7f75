import type { Palette } from '../colour/palette';
import type { Tone } from '../model/pictureSchema';
import { SAMPLES, type PictureSource } from '../pictures/source';
import type { Bitmap } from './bitmap';
import { compositePlates } from './composite';
import { pictureInk } from './pictureInk';
import { cutSource } from './surround';

/** A picture with its tone as it looks on bare paper, in about so many pixels or as many as it has. */
export function pictureBitmap(source: PictureSource, tone: Tone | undefined, palette: Palette, pixels: number): Bitmap {
  const level = cutSource(source, tone).levelWith(pixels);
  const { width, height, data, alpha, space } = level;
  const n = SAMPLES[space];
  const ink = pictureInk(level, tone, palette);
  const planes = palette.channels.map(() => new Uint8Array(width * height));
  const out = new Uint8Array(planes.length);
  for (let i = 0; i < width * height; i++) {
    ink.map(data, i * n, out);
    for (let c = 0; c < planes.length; c++) planes[c][i] = out[c];
  }
  const look = compositePlates(
    { region: { x: 0, y: 0, scale: 1, width, height }, channels: palette.channels, data: planes },
    palette,
  );
  if (alpha) for (let i = 0; i < alpha.length; i++) look[4 * i + 3] = alpha[i];
  return { width, height, data: look };
}
