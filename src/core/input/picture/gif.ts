import { GifReader } from 'omggif';
import { ascii, PictureProblem, view, type PictureFormat } from './types';

/** GIF: the first of its pictures, on its whole canvas. */
export const GIF: PictureFormat = {
  name: 'GIF',
  ending: 'gif',
  is: (b) => /^GIF8[79]a$/.test(ascii(b, 0, 6)),
  size: (b) => (b.length < 10 ? null : { width: view(b).getUint16(6, true), height: view(b).getUint16(8, true) }),
  async read(bytes) {
    try {
      const gif = new GifReader(bytes as unknown as Buffer);
      const pixels = gif.width * gif.height;
      const rgba = new Uint8Array(pixels * 4);
      const frame = gif.frameInfo(0);
      if (frame.x + frame.width > gif.width || frame.y + frame.height > gif.height) throw new Error('its first picture lies outside its canvas');
      gif.decodeAndBlitFrameRGBA(0, rgba);
      return fromRgba(gif.width, gif.height, rgba, null);
    } catch (e) {
      throw new PictureProblem(`it is damaged (${e instanceof Error ? e.message : String(e)})`);
    }
  },
};

/** Pixels of red, green, blue and cover; where all cover fully, none is kept. */
export function fromRgba(width: number, height: number, rgba: ArrayLike<number>, ppi: number | null) {
  const pixels = width * height;
  const data = new Uint8Array(pixels * 3);
  const alpha = new Uint8Array(pixels);
  let solid = true;
  for (let i = 0; i < pixels; i++) {
    data[3 * i] = rgba[4 * i];
    data[3 * i + 1] = rgba[4 * i + 1];
    data[3 * i + 2] = rgba[4 * i + 2];
    alpha[i] = rgba[4 * i + 3];
    if (alpha[i] !== 255) solid = false;
  }
  return { width, height, space: 'rgb' as const, data, alpha: solid ? null : alpha, icc: null, ppi };
}
