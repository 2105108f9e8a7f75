import type { Blend } from '../model/schema';

/**
 * Blend functions of W3C Compositing and Blending 1 (ISO 32000-1 11.3.5 has the same), on light 0…1: ground, source.
 */
const SEPARABLE: Readonly<Partial<Record<Blend, (cb: number, cs: number) => number>>> = {
  multiply: (b, s) => b * s,
  screen: (b, s) => b + s - b * s,
  overlay: (b, s) => hardLight(s, b),
  darken: Math.min,
  lighten: Math.max,
  'color-dodge': (b, s) => (b === 0 ? 0 : s >= 1 ? 1 : Math.min(1, b / (1 - s))),
  'color-burn': (b, s) => (b >= 1 ? 1 : s <= 0 ? 0 : 1 - Math.min(1, (1 - b) / s)),
  'hard-light': hardLight,
  'soft-light': (b, s) => {
    if (s <= 0.5) return b - (1 - 2 * s) * b * (1 - b);
    const d = b <= 0.25 ? ((16 * b - 12) * b + 4) * b : Math.sqrt(b);
    return b + (2 * s - 1) * (d - b);
  },
  difference: (b, s) => Math.abs(b - s),
  exclusion: (b, s) => b + s - 2 * b * s,
};

function hardLight(b: number, s: number): number {
  return s <= 0.5 ? 2 * b * s : b + (2 * s - 1) - b * (2 * s - 1);
}

/**
 * Modes under which an ink that the source has none of would not stay as it is: spot plates take them as plain (ISO
 * 32000-1 11.7.4.2).
 */
const PLAIN_FOR_SPOTS: ReadonlySet<Blend> = new Set([
  'difference',
  'exclusion',
  'hue',
  'saturation',
  'color',
  'luminosity',
]);

type Rgb = [number, number, number];
const lum = ([r, g, b]: Rgb): number => 0.3 * r + 0.59 * g + 0.11 * b;
const sat = (c: Rgb): number => Math.max(...c) - Math.min(...c);

function clipColour(c: Rgb): Rgb {
  const l = lum(c);
  const n = Math.min(...c);
  const x = Math.max(...c);
  let out = c;
  if (n < 0) out = out.map((v) => l + ((v - l) * l) / (l - n)) as Rgb;
  if (x > 1) out = out.map((v) => l + ((v - l) * (1 - l)) / (x - l)) as Rgb;
  return out;
}
function setLum(c: Rgb, l: number): Rgb {
  const d = l - lum(c);
  return clipColour([c[0] + d, c[1] + d, c[2] + d]);
}
function setSat(c: Rgb, s: number): Rgb {
  const [low, high] = [Math.min(...c), Math.max(...c)];
  return high > low ? (c.map((v) => ((v - low) * s) / (high - low)) as Rgb) : [0, 0, 0];
}

const WHOLE: Readonly<Partial<Record<Blend, (cb: Rgb, cs: Rgb) => Rgb>>> = {
  hue: (b, s) => setLum(setSat(s, sat(b)), lum(b)),
  saturation: (b, s) => setLum(setSat(b, sat(s)), lum(b)),
  color: (b, s) => setLum(s, lum(b)),
  luminosity: (b, s) => setLum(b, lum(s)),
};

/** One channel blended, for every pair of bytes of light: ground × 256 + source. */
const tables = new Map<Blend, Uint8Array>();
function tableOf(mode: Blend): Uint8Array | null {
  const f = SEPARABLE[mode];
  if (!f) return null;
  let table = tables.get(mode);
  if (!table) {
    table = new Uint8Array(65536);
    for (let b = 0; b < 256; b++) for (let s = 0; s < 256; s++) table[b * 256 + s] = f(b / 255, s / 255) * 255 + 0.5;
    tables.set(mode, table);
  }
  return table;
}

/**
 * Blends one pixel: `ground` and `source` are bytes a channel (inks, or lights where `screen`), the result goes to
 * `out`. Inks are blended as the light they leave; black goes with the ground, or with the source where lightness is
 * taken from it.
 */
export function blender(
  mode: Blend,
  screen: boolean,
  channels: number,
): (ground: Uint8Array, source: Uint8Array, out: Uint8Array) => void {
  const table = tableOf(mode);
  const flip = screen ? 0 : 255;
  const spotTable = PLAIN_FOR_SPOTS.has(mode) ? null : table;
  const spots = (ground: Uint8Array, source: Uint8Array, out: Uint8Array) => {
    for (let i = 4; i < channels; i++)
      out[i] = spotTable ? 255 - spotTable[(255 - ground[i]) * 256 + 255 - source[i]] : source[i];
  };
  const process = screen ? 3 : Math.min(4, channels);
  if (table)
    return (ground, source, out) => {
      for (let i = 0; i < process; i++) out[i] = flip ^ table[(flip ^ ground[i]) * 256 + (flip ^ source[i])];
      if (!screen) spots(ground, source, out);
    };
  const whole = WHOLE[mode]!;
  const light = (p: Uint8Array): Rgb => [(flip ^ p[0]) / 255, (flip ^ p[1]) / 255, (flip ^ p[2]) / 255];
  return (ground, source, out) => {
    const mixed = whole(light(ground), light(source));
    for (let i = 0; i < 3; i++) out[i] = flip ^ (Math.min(1, Math.max(0, mixed[i])) * 255 + 0.5);
    if (screen) return;
    out[3] = mode === 'luminosity' ? source[3] : ground[3];
    spots(ground, source, out);
  };
}
