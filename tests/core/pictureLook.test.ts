import fs from 'node:fs';
import path from 'node:path';
import type { Tone } from '@/core/model/schema';
import { PictureSource, SAMPLES, type Pixels } from '@/core/pictures/source';
import { pictureBitmap } from '@/core/render/pictureBitmap';
import { pictureLook } from '@/core/render/pictureLook';
import { type Engines } from '@/core/engines';
import type { Palette } from '@/core/colour/palette';
import { palettes } from '../support/palettes';
import { cmyk } from '../support/sample';
import { testEngines } from '../support/engines';

let engines: Engines;
let print: Palette;
let screen: Palette;
let ember: string;
beforeAll(async () => {
  engines = await testEngines();
  ({ print, screen, ember } = await palettes(engines));
});

/** Colours from all over, each a few times in a row, as in pictures; the same every time. */
function colours(space: Pixels['space'], more: Partial<Pixels> = {}): PictureSource {
  const [width, height] = [96, 80];
  const n = SAMPLES[space];
  const data = new Uint8Array(width * height * n);
  let seed = 7;
  for (let i = 0; i < data.length; i++) {
    seed = (Math.imul(seed, 1664525) + 1013904223) >>> 0; // the generator of Numerical Recipes
    data[i] = i % 11 < 3 && i >= n ? data[i - n] : seed >>> 24;
  }
  // White, black and a run of greys too.
  data.fill(255, 0, n);
  data.fill(0, n, 2 * n);
  for (let i = 2; i < 258; i++) data.fill(i - 2, i * n, i * n + Math.min(3, n));
  return new PictureSource({ width, height, space, data, alpha: null, icc: null, ppi: null, ...more });
}

const TONES: readonly (readonly [string, () => Tone | undefined])[] = [
  ['no tone', () => undefined],
  ['brighter, harder, paler', () => ({ brightness: 0.1, contrast: 0.3, saturation: -0.4 })],
  ['levels and more colour', () => ({ levels: { black: 0.1, white: 0.8, middle: 1.4 }, saturation: 0.5 })],
  ['inverted and faded', () => ({ invert: true, fade: 0.35 })],
  [
    'in one ink, by a curve',
    () => ({
      inks: [
        {
          colour: { ink: ember, tint: 1 },
          curve: [
            [0, 0],
            [0.5, 0.3],
            [1, 1],
          ],
        },
      ],
    }),
  ],
  [
    'in two inks, faded',
    () => ({ inks: [{ colour: cmyk(100, 40, 0, 0) }, { colour: cmyk(0, 0, 0, 100) }], fade: 0.2 }),
  ],
];

/** Mean and largest difference of two bitmaps, in 255ths. */
function apart(source: PictureSource, tone: Tone | undefined, palette: Palette): { mean: number; worst: number } {
  const quick = pictureLook(source, tone, palette, 1e9);
  const full = pictureBitmap(source, tone, palette, 1e9);
  expect([quick.width, quick.height]).toEqual([full.width, full.height]);
  let [sum, worst] = [0, 0];
  full.data.forEach((v, i) => {
    const d = Math.abs(v - quick.data[i]);
    sum += d;
    worst = Math.max(worst, d);
  });
  return { mean: sum / full.data.length, worst };
}

describe('a look while a slider moves', () => {
  const all = (['rgb', 'cmyk', 'gray'] as const).flatMap((space) =>
    TONES.map(([name, tone]) => [space, name, tone] as const),
  );
  test.each(all)('%s, %s: near what is printed (mean 0.8, worst 8 or 24 of 255)', (space, _, tone) => {
    const t = tone();
    const d = apart(colours(space), t, print);
    // Greys and tones in inks are looked up whole; RGB at the nearest of 64 steps; CMYK between the press's own nodes,
    // where a few of the darkest mixes bend.
    if (space === 'gray' || t?.inks) expect(d.worst).toBe(0);
    else expect([d.mean <= 0.8, d.worst <= (space === 'rgb' ? 8 : 24), d]).toEqual([true, true, d]);
  });

  test.each(TONES.filter(([, t]) => !t.toString().includes('inks')))(
    'on a screen, RGB, %s: within a level',
    (_, tone) => expect(apart(colours('rgb'), tone(), screen).worst).toBeLessThanOrEqual(1),
  );

  test('CMYK and pictures with a profile of their own on a screen', () => {
    const icc = new Uint8Array(fs.readFileSync(path.join(process.cwd(), 'public/icc/srgb.icc')));
    for (const source of [colours('cmyk'), colours('rgb', { icc })]) {
      const d = apart(source, { brightness: -0.1 }, screen);
      expect([d.mean <= 0.8, d.worst <= 2, d]).toEqual([true, true, d]);
    }
  });

  test('white stays the bare paper and black the full ink: nothing flashes when a slider is taken up', () => {
    for (const tone of [undefined, { saturation: 0.2 }]) {
      const [quick, full] = [
        pictureLook(colours('rgb'), tone, print, 1e9).data,
        pictureBitmap(colours('rgb'), tone, print, 1e9).data,
      ];
      expect([...quick.slice(0, 4)]).toEqual([...full.slice(0, 4)]);
      expect([...quick.slice(4, 8)].every((v, i) => Math.abs(v - full[4 + i]) <= 1)).toBe(true);
    }
  });

  test('covers as the picture does, and is cut out of its surround', () => {
    const alpha = Uint8Array.from({ length: 96 * 80 }, (_, i) => i & 255);
    const see = pictureLook(colours('rgb', { alpha }), { brightness: 0.1 }, print, 1e9).data;
    expect(alpha.every((a, i) => see[4 * i + 3] === a)).toBe(true);
    // A dark square on white, four times as large as it is looked at.
    const side = 64;
    const data = Uint8Array.from({ length: side * side * 3 }, (_, i) => {
      const [x, y] = [Math.floor(i / 3) % side, Math.floor(i / 3 / side)];
      return x >= 16 && x < 48 && y >= 16 && y < 48 ? 30 : 255;
    });
    const cut = pictureLook(
      new PictureSource({ width: side, height: side, space: 'rgb', data, alpha: null, icc: null, ppi: null }),
      { surround: { tolerance: 10, soft: 2 } },
      print,
      16 * 16,
    );
    expect([cut.width, cut.height]).toEqual([16, 16]);
    const cover = (x: number, y: number) => cut.data[4 * (y * 16 + x) + 3];
    expect([cover(0, 0), cover(3, 8), cover(4, 4), cover(8, 8), cover(12, 8)]).toEqual([0, 0, 255, 255, 0]);
  });

  test('another fade, profile or palette is not shown the last one’s looks', () => {
    const source = colours('rgb');
    const first = pictureLook(source, { fade: 0.1 }, print, 1e9).data;
    const more = pictureLook(source, { fade: 0.8 }, print, 1e9).data;
    const lit = pictureLook(source, { fade: 0.8 }, screen, 1e9).data;
    expect(more).not.toEqual(first);
    expect(lit).not.toEqual(more);
    expect(pictureLook(source, { fade: 0.1 }, print, 1e9).data).toEqual(first);
  });
});
