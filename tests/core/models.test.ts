import Color from 'colorjs.io';
import { converter, filterDeficiencyDeuter, filterDeficiencyProt, filterDeficiencyTrit } from 'culori';
import {
  contrastRatio,
  hsbToRgb,
  labToLch,
  lettersOn,
  lchToLab,
  luminance,
  oklabToSrgb,
  rgbToHsb,
  srgbToOklab,
} from '@/core/colour/models';
import { decodeSrgb, srgbToLab, type Triple } from '@/core/colour/spaces';
import { VISIONS, filterMatrix, seenBy } from '@/core/colour/vision';
import { random } from '../support/random';

const next = random(41);
const colours = Array.from({ length: 300 }, (): Triple => [next(), next(), next()]);
const near = (a: readonly number[], b: readonly number[], by = 1e-4) =>
  a.forEach((v, i) => expect(Math.abs(v - b[i])).toBeLessThan(by));
/** Angles are the same all the way round. */
const nearAngle = (a: number, b: number, by = 1e-3) => expect(Math.abs(((a - b + 540) % 360) - 180)).toBeLessThan(by);

// Oracles: colorjs.io and culori.
test('HSB and back', () => {
  const hsv = converter('hsv');
  for (const rgb of colours) {
    const mine = rgbToHsb(rgb);
    const theirs = new Color('srgb', [...rgb]).to('hsv').coords as number[];
    const third = hsv({ mode: 'rgb', r: rgb[0], g: rgb[1], b: rgb[2] })!;
    nearAngle(mine[0], theirs[0]);
    nearAngle(mine[0], third.h!);
    near([mine[1] * 100, mine[2] * 100], theirs.slice(1));
    near(mine.slice(1), [third.s, third.v]);
    near(hsbToRgb(mine), rgb, 1e-9);
  }
  expect(rgbToHsb([0.3, 0.3, 0.3])).toEqual([0, 0, 0.3]);
  expect(rgbToHsb([0, 0, 0])).toEqual([0, 0, 0]);
});

test('OKLab and back', () => {
  const oklab = converter('oklab');
  for (const rgb of colours) {
    const mine = srgbToOklab(rgb);
    near(mine, new Color('srgb', [...rgb]).to('oklab').coords as number[]);
    const third = oklab({ mode: 'rgb', r: rgb[0], g: rgb[1], b: rgb[2] })!;
    near(mine, [third.l, third.a, third.b]);
    near(oklabToSrgb(mine), rgb, 1e-5);
  }
});

test('LCh and back', () => {
  const lch = converter('lch');
  for (const rgb of colours) {
    const lab = srgbToLab(rgb);
    const mine = labToLch(lab);
    const theirs = new Color('lab', [...lab]).to('lch').coords as number[];
    near(mine.slice(0, 2), theirs.slice(0, 2));
    nearAngle(mine[2], theirs[2]);
    const third = lch({ mode: 'lab', l: lab[0], a: lab[1], b: lab[2] })!;
    near(mine.slice(0, 2), [third.l, third.c]);
    near(lchToLab(mine), lab, 1e-9);
  }
});

// WCAG 2.2: black on white is 21 : 1; 4.5 : 1 is #767676 on white (the well-known limit, common practice).
test('contrast', () => {
  expect(contrastRatio(luminance([0, 0, 0]), luminance([1, 1, 1]))).toBeCloseTo(21, 10);
  const grey = (v: number): Triple => [v / 255, v / 255, v / 255];
  expect(contrastRatio(luminance(grey(0x76)), 1)).toBeGreaterThanOrEqual(4.5);
  expect(contrastRatio(luminance(grey(0x77)), 1)).toBeLessThan(4.5);
  for (const rgb of colours)
    expect(contrastRatio(luminance(rgb), lettersOn(rgb) === '#000' ? 0 : 1)).toBeGreaterThanOrEqual(4.5);
  for (const rgb of colours.slice(0, 60)) {
    const theirs = new Color('srgb', [...rgb]).contrast(new Color('srgb', [1, 1, 1]), 'WCAG21');
    expect(contrastRatio(luminance(rgb), 1)).toBeCloseTo(theirs, 2);
  }
});

// Oracle: the matrices of Machado, Oliveira, Fernandes 2009 as culori has them. It applies them to the numbers it is
// given; they are meant for linear light, so linear light is what it is given.
test('what others see', () => {
  const theirs = {
    protan: filterDeficiencyProt(1),
    deutan: filterDeficiencyDeuter(1),
    tritan: filterDeficiencyTrit(1),
  };
  for (const [id, filter] of Object.entries(theirs))
    for (const rgb of colours.slice(0, 80)) {
      const [r, g, b] = rgb.map(decodeSrgb);
      const seen = filter({ mode: 'rgb', r, g, b });
      const mine = seenBy(id as 'protan', rgb).map(decodeSrgb);
      near(
        mine,
        [seen.r, seen.g, seen.b].map((v) => Math.min(1, Math.max(0, v))),
        1e-5,
      );
    }
  expect(seenBy('all', [0.1, 0.2, 0.3])).toEqual([0.1, 0.2, 0.3]);
  const [r, g, b] = seenBy('grey', [0.9, 0.2, 0.1]);
  expect(r).toBe(g);
  expect(g).toBe(b);
});

test('white and grey stay what they are for all eyes, and every filter has twenty numbers', () => {
  for (const v of VISIONS) {
    near(seenBy(v.id, [1, 1, 1]), [1, 1, 1], 1e-3);
    near(seenBy(v.id, [0.5, 0.5, 0.5]), [0.5, 0.5, 0.5], 1e-3);
    const filter = filterMatrix(v.id);
    if (v.id === 'all') expect(filter).toBeNull();
    else expect(filter!.split(' ')).toHaveLength(20);
  }
});
