import { execFileSync } from 'node:child_process';
import path from 'node:path';
import { readFileSync } from 'node:fs';
import Color from 'colorjs.io';
import { converter } from 'culori';
import { deltaE00 } from '@/core/colour/compare';
import { Palette } from '@/core/colour/palette';
import { Press } from '@/core/colour/press';
import { SPOT_LIBRARY, findSpots } from '@/core/colour/spotLibrary';
import {
  D50,
  cieF,
  decodeSrgb,
  encodeSrgb,
  hexOf,
  labToSrgb,
  labToXyz,
  parseHex,
  srgbToLab,
  type Triple,
} from '@/core/colour/spaces';
import { ColourEngine } from '@/core/colour/icc';
import { newDesign, setupOf } from '@/core/model/defaults';
import type { Design } from '@/core/model/schema';
import { prepare, type Engines } from '@/core/engines';
import { publicFolder, testEngines } from '../support/engines';
import { measured } from '../support/measured';
import { random } from '../support/random';

const coated = path.join(publicFolder, 'icc/coated-tr006.icc');
const srgb = path.join(publicFolder, 'icc/srgb.icc');

/** Little CMS's own command: the outside witness for everything that goes through a profile. */
function transicc(args: string[], rows: number[][]): number[][] {
  const out = execFileSync('transicc', ['-n', ...args], {
    input: `${rows.map((r) => r.join(' ')).join('\n')}\n`,
    encoding: 'utf8',
  });
  return out
    .trim()
    .split('\n')
    .map((line) => line.trim().split(/\s+/).map(Number));
}

describe('colour difference', () => {
  test('the 34 pairs of Sharma, Wu and Dalal (2005)', () => {
    const pairs = JSON.parse(readFileSync(path.join(import.meta.dirname, '../data/ciede2000-pairs.json'), 'utf8')) as {
      a: Triple;
      b: Triple;
      dE: number;
    }[];
    expect(pairs).toHaveLength(34);
    const worst = Math.max(...pairs.map(({ a, b, dE }) => Math.abs(deltaE00(a, b) - dE)));
    measured('CIEDE2000, 34 pairs', `worst ${worst.toExponential(2)}`, '1e-4', 'Sharma, Wu, Dalal 2005');
    expect(worst).toBeLessThan(1e-4);
    for (const { a, b } of pairs) {
      expect(deltaE00(b, a)).toBeCloseTo(deltaE00(a, b), 10);
    }
  });
});

describe('spaces against colorjs.io and culori', () => {
  const lab50 = converter('lab');
  test('sRGB to Lab (D50) and back', () => {
    const next = random(11);
    for (let i = 0; i < 300; i++) {
      const rgb: Triple = [next(), next(), next()];
      const mine = srgbToLab(rgb);
      const theirs = new Color('srgb', [...rgb]).to('lab').coords as number[];
      const third = lab50({ mode: 'rgb', r: rgb[0], g: rgb[1], b: rgb[2] })!;
      mine.forEach((v, j) => expect(Math.abs(v - theirs[j])).toBeLessThan(1e-4));
      [third.l, third.a, third.b].forEach((v, j) => expect(Math.abs(v - mine[j])).toBeLessThan(1e-3));
      labToSrgb(mine).forEach((v, j) => expect(Math.abs(v - rgb[j])).toBeLessThan(1e-6));
    }
  });
  test('the transfer curve and hex', () => {
    for (const v of [0, 0.001, 0.003, 0.02, 0.2, 0.5, 1]) {
      expect(
        Math.abs(encodeSrgb(v) - (new Color('srgb-linear', [v, v, v]).to('srgb').coords as number[])[0]),
      ).toBeLessThan(1e-4);
      expect(decodeSrgb(encodeSrgb(v))).toBeCloseTo(v, 12);
    }
    expect(parseHex('#0b3a5e')).toEqual([11 / 255, 58 / 255, 94 / 255]);
    expect(parseHex('fc0')).toEqual([1, 0.8, 0]);
    expect(parseHex('#12345')).toBeNull();
    expect(hexOf([1, 0.8, 0])).toBe('#ffcc00');
  });
});

describe('through the profiles', () => {
  let engines: Engines;
  let engine: ColourEngine;
  let design: Design;
  let palette: Palette;
  beforeAll(async () => {
    engines = await testEngines();
    engine = await ColourEngine.load(engines.env);
    design = newDesign('colour', setupOf(100, 100), engines.env);
    palette = await prepare(engines, design);
  });

  test('the look of 2,000 mixes is within 4.5 levels of transicc at the worst', () => {
    const next = random(7);
    const rows = Array.from({ length: 2000 }, () =>
      [next(), next(), next(), next() ** 2].map((v) => Math.round(v * 255) / 255),
    );
    const theirs = transicc(
      ['-i', coated, '-o', srgb, '-t1'],
      rows.map((r) => r.map((v) => v * 100)),
    );
    const flat = new Uint8Array(rows.length * 4).map((_, i) => Math.round(rows[i >> 2][i & 3] * 255));
    const plates = [0, 1, 2, 3].map((c) => flat.filter((_, i) => (i & 3) === c));
    const pixels = new Uint8ClampedArray(rows.length * 4);
    palette.press.composite(plates, [], rows.length, pixels);
    let worst = 0;
    let sum = 0;
    rows.forEach((_, i) => {
      for (let j = 0; j < 3; j++) {
        const d = Math.abs(pixels[4 * i + j] - Math.min(255, Math.max(0, theirs[i][j])));
        worst = Math.max(worst, d);
        sum += d;
      }
    });
    measured(
      'look of 2,000 mixes',
      `worst ${worst.toFixed(2)} levels, mean ${(sum / rows.length / 3).toFixed(3)}`,
      '≤ 4.5 levels',
      'transicc (Little CMS)',
    );
    expect(worst).toBeLessThanOrEqual(4.5);
    expect(sum / rows.length / 3).toBeLessThan(0.5);
  });

  test('a swatch looks on its card as it does in the plates', () => {
    const next = random(3);
    for (let i = 0; i < 200; i++) {
      const mix = [next(), next(), next(), next()].map((v) => Math.round(v * 255) / 255);
      const out = new Uint8ClampedArray(4);
      palette.press.composite(
        mix.map((v) => Uint8Array.of(Math.round(v * 255))),
        [],
        1,
        out,
      );
      palette.press.look(mix, []).forEach((v, j) => expect(Math.abs(v * 255 - out[j])).toBeLessThan(1.01));
    }
  });

  test('screen colours become inks as transicc makes them, with black-point compensation', () => {
    const next = random(5);
    const rows = Array.from({ length: 400 }, () => [next(), next(), next()]);
    let off = 0;
    const theirs = transicc(
      ['-i', srgb, '-o', coated, '-t1', '-b'],
      rows.map((r) => r.map((v) => v * 255)),
    );
    rows.forEach((rgb, i) => {
      const mix = palette.mix({ rgb: rgb as unknown as Triple });
      for (let j = 0; j < 4; j++) off = Math.max(off, Math.abs(mix[j] * 100 - theirs[i][j]));
    });
    measured('screen colours to inks, 400 colours', `worst ${off.toFixed(4)} % ink`, '≤ 0.01 % ink', 'transicc -t1 -b');
    expect(off).toBeLessThanOrEqual(0.01);
  });

  test('a file that is no profile is refused, not taken', () =>
    expect(() => engine.open(new Uint8Array(200).fill(7))).toThrow('not an ICC profile'));

  test('spot tints are spaced by SCTV (ISO 20654, formula from memory) within 0.5 %', () => {
    for (const ink of SPOT_LIBRARY.slice(0, 12)) {
      const table = palette.press.spotTable(ink.lab);
      const v = (tint: number) => {
        const [x, y, z] = labToXyz(palette.press.lab([0, 0, 0, 0], [{ table, tint }]));
        return [x / D50[0], y / D50[1], z / D50[2]].map((u) => 116 * cieF(u) - 16);
      };
      const paper = v(0);
      const distance = (tint: number) => Math.hypot(...v(tint).map((c, i) => c - paper[i]));
      const solid = distance(1);
      for (let t = 0; t <= 20; t++) expect(Math.abs(distance(t / 20) / solid - t / 20)).toBeLessThan(0.005);
    }
  });

  test('a solid spot is its own Lab, and overprints darken', () => {
    const ember = SPOT_LIBRARY[0];
    const table = palette.press.spotTable(ember.lab);
    expect(deltaE00(palette.press.lab([0, 0, 0, 0], [{ table, tint: 1 }]), ember.lab)).toBeLessThan(0.1);
    const over = palette.press.lab([1, 0.86, 0.38, 0.44], [{ table, tint: 1 }]);
    expect(over[0]).toBeLessThan(palette.press.lab([1, 0.86, 0.38, 0.44], [])[0]);
  });

  test('one bake is the same as the next', () => {
    const profile = engine.open(new Uint8Array(readFileSync(coated)));
    const again = Press.bake(engine, profile);
    expect(again.look([0.2, 0.4, 0.6, 0.1], [])).toEqual(palette.press.look([0.2, 0.4, 0.6, 0.1], []));
  });
});

describe('the spot library', () => {
  test('about sixty inks whose numbers mean what they say', () => {
    expect(SPOT_LIBRARY.length).toBeGreaterThanOrEqual(58);
    expect(new Set(SPOT_LIBRARY.map((i) => i.name)).size).toBe(SPOT_LIBRARY.length);
    for (const { name, lab } of SPOT_LIBRARY) {
      const [l, hue] = name.split(' ').pop()!.split('-').map(Number);
      expect(l).toBe(lab[0]);
      const real = ((Math.atan2(lab[2], lab[1]) * 180) / Math.PI + 360) % 360;
      expect(Math.abs(((real - hue + 540) % 360) - 180)).toBeLessThanOrEqual(0.6);
    }
  });
  test('found by the start of a word or a number', () => {
    expect(findSpots('emb').map((i) => i.name)).toEqual(['Ember 66-43']);
    expect(findSpots('66').some((i) => i.name === 'Ember 66-43')).toBe(true);
    expect(findSpots('rope').map((i) => i.name)).toEqual(
      expect.arrayContaining(['Coral Rope 68-32', 'Mint Rope 84-150']),
    );
    expect(findSpots('zzz')).toEqual([]);
    expect(findSpots('').length).toBe(SPOT_LIBRARY.length);
  });
});
