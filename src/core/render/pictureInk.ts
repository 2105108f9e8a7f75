import { curveThrough } from '../colour/curve';
import { tableReader } from '../colour/inkTable';
import type { Palette } from '../colour/palette';
import type { Tone, ToneInk } from '../model/pictureSchema';
import type { Pixels } from '../pictures/source';

/** How the pixels of a picture become channels. Every painter and the PDF use this, so that they cannot disagree. */
export interface PictureInk {
  /** Which channels it can ink at all. */
  readonly used: readonly boolean[];
  /** From the samples at `from` to one byte a channel in `out`. */
  readonly map: (src: Uint8Array, from: number, out: Uint8Array) => void;
}

type Kind = Pick<Pixels, 'space' | 'icc'>;
type Reader = (src: Uint8Array, from: number, out: Uint8Array) => void;

/** A picture with its tone on its way to the channels of a palette. */
export function pictureInk(kind: Kind, tone: Tone | undefined, palette: Palette): PictureInk {
  const toned = toneReader(kind.space, tone);
  if (tone?.inks) return inInks(kind.space, toned, tone.inks, tone.fade ?? 0, palette);
  const keep = 1 - (tone?.fade ?? 0);
  const n = palette.channels.length;
  const straight = separated(kind, palette);
  const samples = new Uint8Array(4);
  const faded = Uint8Array.from({ length: 256 }, (_, v) => (palette.screen ? 255 - (255 - v) * keep : v * keep) + 0.5);
  const used = palette.channels.map((_, i) => palette.screen || (i < 4 && (kind.space !== 'gray' || i === 3)));
  return {
    used,
    map(src, from, out) {
      if (toned) {
        toned(src, from, samples);
        straight(samples, 0, out);
      } else straight(src, from, out);
      if (keep < 1) for (let i = 0; i < n; i++) out[i] = faded[out[i]];
    },
  };
}

/** Untoned colours to channels: by the profile's table, or as they are. */
function separated({ space, icc }: Kind, palette: Palette): Reader {
  const table = palette.pictureTable(space, icc);
  const n = palette.channels.length;
  if (space === 'gray') {
    const light = grayLights(table && tableReader(table));
    return palette.screen
      ? (src, from, out) => void out.fill(light[src[from]], 0, 3)
      : (src, from, out) => {
          out.fill(0);
          out[3] = 255 - light[src[from]];
        };
  }
  const count = palette.screen ? 3 : 4;
  if (!table)
    return (src, from, out) => {
      for (let i = 0; i < count; i++) out[i] = src[from + i];
      for (let i = count; i < n; i++) out[i] = 0;
    };
  const read = tableReader(table);
  const values = new Float32Array(count);
  return (src, from, out) => {
    read(src, from, values);
    for (let i = 0; i < count; i++) out[i] = values[i] + 0.5;
    for (let i = count; i < n; i++) out[i] = 0;
  };
}

function grayLights(read: ((src: Uint8Array, from: number, out: Float32Array) => void) | null): Uint8Array {
  const out = new Float32Array(1);
  return Uint8Array.from({ length: 256 }, (_, v) => {
    if (!read) return v;
    read(Uint8Array.of(v, v, v), 0, out);
    return out[0] + 0.5;
  });
}

/** Printed in one or two inks: how dark a pixel is says how much of each; on a screen they are laid over each other. */
function inInks(space: Pixels['space'], toned: Reader | null, inks: readonly ToneInk[], fade: number, palette: Palette): PictureInk {
  const n = palette.channels.length;
  const table = new Uint8Array(256 * n);
  const parts = inks.map((ink) => ({ mix: palette.mix(ink.colour), curve: curveThrough(ink.curve ?? STRAIGHT) }));
  const used = palette.channels.map(() => palette.screen);
  for (let dark = 0; dark < 256; dark++)
    for (let i = 0; i < n; i++) {
      let v = palette.screen ? 1 : 0;
      for (const { mix, curve } of parts) {
        const tint = curve(dark / 255) * (1 - fade);
        if (palette.screen) v *= 1 - tint * (1 - mix[i]);
        else v += tint * mix[i];
      }
      table[dark * n + i] = Math.min(1, v) * 255 + 0.5;
      if (!palette.screen && v > 0) used[i] = true;
    }
  const samples = new Uint8Array(4);
  const darkness = DARKNESS[space];
  return {
    used,
    map(src, from, out) {
      if (toned) toned(src, from, samples);
      const at = n * (toned ? darkness(samples, 0) : darkness(src, from));
      for (let i = 0; i < n; i++) out[i] = table[at + i];
    },
  };
}

export const STRAIGHT = [[0, 0], [1, 1]] as const;

/** Luma by the weights of ITU-R BT.709, of encoded values, 0…255. */
const luma = (a: number, b: number, c: number): number => (54 * a + 183 * b + 19 * c + 128) >> 8;
/** How dark a pixel is, 0…255. For inks: what they take away, black beside the others. */
const DARKNESS: Readonly<Record<Pixels['space'], (src: Uint8Array, from: number) => number>> = {
  gray: (s, i) => 255 - s[i],
  rgb: (s, i) => 255 - luma(s[i], s[i + 1], s[i + 2]),
  cmyk: (s, i) => Math.min(255, luma(s[i], s[i + 1], s[i + 2]) + s[i + 3]),
};

/**
 * The tone on a picture's own samples, or null where there is none: levels, invert, brightness and contrast by one table
 * of light, then saturation. Inks count as the light they leave; turning light and dark round takes black into the others.
 */
function toneReader(space: Pixels['space'], tone: Tone | undefined): Reader | null {
  if (!tone) return null;
  const light = lightTable(tone);
  const saturation = space === 'gray' ? 0 : (tone.saturation ?? 0);
  if (!light && !saturation) return null;
  const curve = light ?? Uint8Array.from({ length: 256 }, (_, v) => v);
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
  if (space === 'rgb') return (src, from, out) => colour(curve[src[from]], curve[src[from + 1]], curve[src[from + 2]], out);
  const invert = tone.invert === true;
  return (src, from, out) => {
    const k = src[from + 3];
    const ink = (v: number) => 255 - curve[invert ? ((255 - v) * (255 - k) + 127) / 255 | 0 : 255 - v];
    colour(ink(src[from]), ink(src[from + 1]), ink(src[from + 2]), out);
    out[3] = invert ? 0 : 255 - curve[255 - k];
  };
}

function saturated(v: number, y: number, by: number): number {
  const x = y + (v - y) * (1 + by);
  return x < 0 ? 0 : x > 255 ? 255 : x + 0.5;
}

function lightTable({ levels, invert, brightness = 0, contrast = 0 }: Tone): Uint8Array | null {
  if (!levels && !invert && !brightness && !contrast) return null;
  // A contrast of 1 leaves black and white alone, −1 one grey.
  const slope = Math.tan((Math.min(contrast, 0.998) + 1) * (Math.PI / 4));
  return Uint8Array.from({ length: 256 }, (_, n) => {
    let v = n / 255;
    if (levels) v = Math.min(1, Math.max(0, (v - levels.black) / Math.max(1e-3, levels.white - levels.black))) ** (1 / levels.middle);
    if (invert) v = 1 - v;
    v = 0.5 + (v + brightness - 0.5) * slope;
    return Math.min(1, Math.max(0, v)) * 255 + 0.5;
  });
}
