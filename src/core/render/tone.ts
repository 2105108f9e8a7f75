import type { Tone } from '../model/pictureSchema';
import type { Pixels } from '../pictures/source';

/** From the samples of a pixel at `from` to as many in `out`. */
export type Reader = (src: Uint8Array, from: number, out: Uint8Array) => void;

/** Luma by the weights of ITU-R BT.709, of encoded values, 0…255. */
const luma = (a: number, b: number, c: number): number => (54 * a + 183 * b + 19 * c + 128) >> 8;
/** How dark a pixel is, 0…255. For inks: what they take away, black beside the others. */
export const DARKNESS: Readonly<Record<Pixels['space'], (src: Uint8Array, from: number) => number>> = {
  gray: (s, i) => 255 - s[i],
  rgb: (s, i) => 255 - luma(s[i], s[i + 1], s[i + 2]),
  cmyk: (s, i) => Math.min(255, luma(s[i], s[i + 1], s[i + 2]) + s[i + 3]),
};

/**
 * The tone on a picture's own samples, or null where there is none: levels, invert, brightness and contrast by one
 * table of light, then saturation. Inks count as the light they leave; turning light and dark round takes black into
 * the others.
 */
export function toneReader(space: Pixels['space'], tone: Tone | undefined): Reader | null {
  const steps = toneSteps(space, tone);
  if (!steps) return null;
  const { light: curve, saturation } = steps;
  if (space === 'gray') return (src, from, out) => void (out[0] = curve[src[from]]);
  const colour = (a: number, b: number, c: number, out: Uint8Array): void => {
    if (!saturation) {
      out[0] = a;
      out[1] = b;
      out[2] = c;
      return;
    }
    const y = luma(a, b, c);
    out[0] = saturated(a, y, saturation);
    out[1] = saturated(b, y, saturation);
    out[2] = saturated(c, y, saturation);
  };
  if (space === 'rgb')
    return (src, from, out) => colour(curve[src[from]], curve[src[from + 1]], curve[src[from + 2]], out);
  const invert = tone?.invert === true;
  return (src, from, out) => {
    const k = src[from + 3];
    const ink = (v: number) => 255 - curve[invert ? (((255 - v) * (255 - k) + 127) / 255) | 0 : 255 - v];
    colour(ink(src[from]), ink(src[from + 1]), ink(src[from + 2]), out);
    out[3] = invert ? 0 : 255 - curve[255 - k];
  };
}

function saturated(v: number, y: number, by: number): number {
  const x = y + (v - y) * (1 + by);
  return x < 0 ? 0 : x > 255 ? 255 : x + 0.5;
}

/**
 * What toning does to light, step after step: a table of it, then how far colours go from grey (−1 all the way back).
 */
export interface ToneSteps {
  readonly light: Uint8Array;
  readonly saturation: number;
}

/** What a tone does to light and saturation; null where it does nothing. */
export function toneSteps(space: Pixels['space'], tone: Tone | undefined): ToneSteps | null {
  const light = tone && lightTable(tone);
  const saturation = space === 'gray' ? 0 : (tone?.saturation ?? 0);
  if (!light && !saturation) return null;
  return { light: light ?? Uint8Array.from({ length: 256 }, (_, v) => v), saturation };
}

/** A row of RGB toned at once, in whole numbers: within a level of `toneReader`, for looks that cannot wait. */
export function toneLight(src: Uint8Array, { light, saturation }: ToneSteps, out: Uint8Array): void {
  const more = Math.round(256 * (1 + saturation));
  for (let i = 0; i < src.length; i += 3) {
    const r = light[src[i]];
    const g = light[src[i + 1]];
    const b = light[src[i + 2]];
    const y = luma(r, g, b);
    out[i] = byte(y + ((more * (r - y) + 128) >> 8));
    out[i + 1] = byte(y + ((more * (g - y) + 128) >> 8));
    out[i + 2] = byte(y + ((more * (b - y) + 128) >> 8));
  }
}

const byte = (v: number): number => (v < 0 ? 0 : v > 255 ? 255 : v);

function lightTable({ levels, invert, brightness = 0, contrast = 0 }: Tone): Uint8Array | null {
  if (!levels && !invert && !brightness && !contrast) return null;
  // A contrast of 1 leaves black and white alone, −1 one grey.
  const slope = Math.tan((Math.min(contrast, 0.998) + 1) * (Math.PI / 4));
  return Uint8Array.from({ length: 256 }, (_, n) => {
    let v = n / 255;
    if (levels)
      v =
        Math.min(1, Math.max(0, (v - levels.black) / Math.max(1e-3, levels.white - levels.black))) **
        (1 / levels.middle);
    if (invert) v = 1 - v;
    v = 0.5 + (v + brightness - 0.5) * slope;
    return Math.min(1, Math.max(0, v)) * 255 + 0.5;
  });
}
