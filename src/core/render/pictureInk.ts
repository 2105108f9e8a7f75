import { curveThrough } from '../colour/curve';
import { tableReader, type ColourTable } from '../colour/inkTable';
import type { Palette } from '../colour/palette';
import type { Tone, ToneInk } from '../model/pictureSchema';
import type { Pixels } from '../pictures/source';
import { DARKNESS, toneReader, type Reader } from './tone';

/** How the pixels of a picture become channels. Every painter and the PDF use this, so that they cannot disagree. */
export interface PictureInk {
  /** Which channels it can ink at all. */
  readonly used: readonly boolean[];
  /** From the samples at `from` to one byte a channel in `out`. */
  readonly map: Reader;
}

type Kind = Pick<Pixels, 'space' | 'icc'>;

/** The stations of that way: first the tone on the picture's own samples, then what becomes channels. */
export type PictureWay = { readonly toned: Reader | null; readonly used: readonly boolean[] } & (
  | {
      /** By how dark a pixel is alone: the channels of all 256 darknesses, packed. */
      readonly by: 'darkness';
      readonly darkness: (src: Uint8Array, from: number) => number;
      readonly channels: Uint8Array;
    }
  | {
      /** By all its samples: through a table of the profile's, or as they are where that is null; then faded. */
      readonly by: 'samples';
      readonly table: ColourTable | null;
      readonly faded: Uint8Array | null;
    }
);

/** How pixels of a kind become inks (or light) under a tone. */
export function pictureWay(kind: Kind, tone: Tone | undefined, palette: Palette): PictureWay {
  const toned = toneReader(kind.space, tone);
  const fade = tone?.fade ?? 0;
  const darkness = DARKNESS[kind.space];
  if (tone?.inks) return { by: 'darkness', toned, darkness, ...inInks(tone.inks, fade, palette) };
  const faded =
    fade > 0
      ? Uint8Array.from(
          { length: 256 },
          (_, v) => (palette.screen ? 255 - (255 - v) * (1 - fade) : v * (1 - fade)) + 0.5,
        )
      : null;
  const used = palette.channels.map((_, i) => palette.screen || (i < 4 && (kind.space !== 'gray' || i === 3)));
  const table = palette.pictureTable(kind.space, kind.icc);
  if (kind.space === 'gray') return { by: 'darkness', toned, darkness, used, channels: grays(table, faded, palette) };
  return { by: 'samples', toned, used, table, faded };
}

/** A picture with its tone on its way to the channels of a palette. */
export function pictureInk(kind: Kind, tone: Tone | undefined, palette: Palette): PictureInk {
  const way = pictureWay(kind, tone, palette);
  const { toned, used } = way;
  const n = palette.channels.length;
  const samples = new Uint8Array(4);
  if (way.by === 'darkness') {
    const { darkness, channels } = way;
    return {
      used,
      map(src, from, out) {
        if (toned) toned(src, from, samples);
        const at = n * (toned ? darkness(samples, 0) : darkness(src, from));
        for (let i = 0; i < n; i++) out[i] = channels[at + i];
      },
    };
  }
  const straight = separated(way.table, palette);
  const { faded } = way;
  return {
    used,
    map(src, from, out) {
      if (toned) {
        toned(src, from, samples);
        straight(samples, 0, out);
      } else straight(src, from, out);
      if (faded) for (let i = 0; i < n; i++) out[i] = faded[out[i]];
    },
  };
}

/** Untoned colours to channels: by the profile's table, or as they are. */
function separated(table: ColourTable | null, palette: Palette): Reader {
  const n = palette.channels.length;
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

/** Greys by how dark they are: black ink, or light on a screen. */
function grays(table: ColourTable | null, faded: Uint8Array | null, palette: Palette): Uint8Array {
  const n = palette.channels.length;
  const channels = new Uint8Array(256 * n);
  const read = table && tableReader(table);
  const light = new Float32Array(1);
  for (let dark = 0; dark < 256; dark++) {
    const v = 255 - dark;
    light[0] = v;
    if (read) read(Uint8Array.of(v, v, v), 0, light);
    const seen = Math.floor(light[0] + 0.5);
    if (palette.screen) channels.fill(faded ? faded[seen] : seen, dark * n, dark * n + 3);
    else channels[dark * n + 3] = faded ? faded[255 - seen] : 255 - seen;
  }
  return channels;
}

/** Printed in one or two inks: how dark a pixel is says how much of each; on a screen they are laid over each other. */
function inInks(
  inks: readonly ToneInk[],
  fade: number,
  palette: Palette,
): { channels: Uint8Array; used: readonly boolean[] } {
  const n = palette.channels.length;
  const channels = new Uint8Array(256 * n);
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
      channels[dark * n + i] = Math.min(1, v) * 255 + 0.5;
      if (!palette.screen && v > 0) used[i] = true;
    }
  return { channels, used };
}

export const STRAIGHT = [
  [0, 0],
  [1, 1],
] as const;
