import { hsbToRgb, labToLch, lchToLab, rgbToHsb } from '@/core/colour/models';
import type { Palette } from '@/core/colour/palette';
import { clip01, labToSrgb, type Triple } from '@/core/colour/spaces';
import type { OwnColour } from '@/core/model/schema';
import { mapTuple } from '@/core/units/tuple';

export type ModelId = 'cmyk' | 'rgb' | 'hsb' | 'lab' | 'lch';

interface Channel {
  readonly label: string;
  readonly name: string;
  readonly min: number;
  readonly max: number;
  readonly suffix?: string;
  readonly decimals?: number;
}

interface Model {
  readonly word: string;
  readonly channels: readonly Channel[];
  /** The numbers that fields and sliders show. */
  read(c: OwnColour, palette: Palette): number[];
  /** The colour that numbers make. */
  make(values: readonly number[]): OwnColour;
}

const percent = (label: string, name: string): Channel => ({ label, name, min: 0, max: 100, suffix: '%', decimals: 1 });
const triple = (v: readonly number[]): Triple => [v[0], v[1], v[2]];
/** What an RGB model shows: its own numbers, or the look on paper. */
const rgbOf = (c: OwnColour, palette: Palette): Triple => ('rgb' in c ? c.rgb : palette.lookOfMix(palette.mix(c)));
const rgb = (v: Triple): OwnColour => ({ rgb: mapTuple(v, clip01) });
const lab = ([l, a, b]: Triple): OwnColour => ({
  lab: [Math.min(100, Math.max(0, l)), Math.min(128, Math.max(-128, a)), Math.min(128, Math.max(-128, b))],
});

/** The models a recipe can be looked at and changed in. */
export const MODELS: Readonly<Record<ModelId, Model>> = {
  cmyk: {
    word: 'CMYK',
    channels: [percent('C', 'Cyan'), percent('M', 'Magenta'), percent('Y', 'Yellow'), percent('K', 'Black')],
    read: (c, palette) => palette.processOf(c).map((v) => v * 100),
    make: (v) => ({ cmyk: [v[0] / 100, v[1] / 100, v[2] / 100, v[3] / 100] }),
  },
  rgb: {
    word: 'RGB',
    channels: ['Red', 'Green', 'Blue'].map((name) => ({ label: name[0], name, min: 0, max: 255 })),
    read: (c, palette) => rgbOf(c, palette).map((v) => v * 255),
    make: (v) => rgb(mapTuple(triple(v), (x) => x / 255)),
  },
  hsb: {
    word: 'HSB',
    channels: [
      { label: 'H', name: 'Hue', min: 0, max: 360, suffix: '°', decimals: 1 },
      percent('S', 'Saturation'),
      percent('B', 'Brightness'),
    ],
    read: (c, palette) => {
      const [h, s, b] = rgbToHsb(rgbOf(c, palette));
      return [h, s * 100, b * 100];
    },
    make: (v) => rgb(hsbToRgb([v[0], v[1] / 100, v[2] / 100])),
  },
  lab: {
    word: 'Lab',
    channels: [
      { label: 'L', name: 'Lightness', min: 0, max: 100, decimals: 1 },
      { label: 'a', name: 'Green to red', min: -128, max: 128, decimals: 1 },
      { label: 'b', name: 'Blue to yellow', min: -128, max: 128, decimals: 1 },
    ],
    read: (c, palette) => [...palette.wantedLab(c)],
    make: (v) => lab(triple(v)),
  },
  lch: {
    word: 'LCh',
    channels: [
      { label: 'L', name: 'Lightness', min: 0, max: 100, decimals: 1 },
      { label: 'C', name: 'Chroma', min: 0, max: 130, decimals: 1 },
      { label: 'h', name: 'Hue angle', min: 0, max: 360, suffix: '°', decimals: 1 },
    ],
    read: (c, palette) => [...labToLch(palette.wantedLab(c))],
    make: (v) => lab(lchToLab(triple(v))),
  },
};

/** The model that a colour is kept in: the one its numbers are exact in. */
export const keptIn = (c: OwnColour): ModelId =>
  'cmyk' in c || 'ink' in c || 'gray' in c ? 'cmyk' : 'rgb' in c ? 'rgb' : 'lab';

/** A screen design keeps to light: what is set in Lab becomes the RGB that a screen shows. */
export function forMedium(c: OwnColour, palette: Palette): OwnColour {
  return palette.screen && 'lab' in c ? rgb(labToSrgb(c.lab)) : c;
}

const STEPS = 8;

/** CSS colours along a channel's track, all other channels as they are, as they will look. */
export function trackOf(model: ModelId, values: readonly number[], channel: number, palette: Palette): string[] {
  const { channels, make } = MODELS[model];
  const { min, max } = channels[channel];
  return Array.from({ length: STEPS + 1 }, (_, i) =>
    palette.css(forMedium(make(values.map((v, j) => (j === channel ? min + ((max - min) * i) / STEPS : v))), palette)),
  );
}
