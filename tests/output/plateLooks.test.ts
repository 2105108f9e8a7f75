import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import path from 'node:path';
import { paperWhite } from '@/core/colour/paperWhite';
import { srgbToLab } from '@/core/colour/spaces';
import { newDesign, setupOf } from '@/core/model/defaults';
import type { Colour, Design } from '@/core/model/schema';
import { asScreen, paletteOf, prepare, type Engines } from '@/core/engines';
import { compositePlates } from '@/core/render/composite';
import { SCREEN_LPI, screened } from '@/core/render/halftone';
import { changedInk, inksOver, onPaper, outOfReach, platesApart } from '@/core/render/plateLooks';
import { rasterPlates, type Plates } from '@/core/render/plates';
import { regionOf } from '@/core/render/region';
import { trimRect } from '@/core/scene/scene';
import { DesignBuilder, flat } from '@/demo/builder';
import { cmyk, making } from '../support/sample';
import { publicFolder, testEngines } from '../support/engines';

let engines: Engines;
beforeAll(async () => {
  engines = await testEngines();
});
const block = (b: DesignBuilder, x: number, w: number, colour: Colour) =>
  b.shape('Block', 'rectangle', { x, y: 0, w, h: 72 }, { fill: flat(colour) });
function design(...colours: Colour[]): Design {
  const b = new DesignBuilder(newDesign('Looks', setupOf(72 * colours.length, 72, { bleed: 0 }), making), making);
  b.place(
    0,
    colours.map((c, i) => block(b, 72 * i, 72, c)),
  );
  return b.done();
}
async function platesOf(
  d: Design,
  dpi: number,
): Promise<{ plates: Plates; palette: Awaited<ReturnType<typeof prepare>> }> {
  const palette = await prepare(engines, d);
  const scene = engines.builder.build(d, d.pages[0]);
  return { palette, plates: rasterPlates(scene, palette, regionOf(trimRect(scene), dpi))! };
}
const flatPlate = (value: number, side: number, scale: number): Plates => ({
  region: { x: 0, y: 0, scale, width: side, height: side },
  channels: ['Cyan', 'Magenta', 'Yellow', 'Black'],
  data: [value, 0, 0, 0].map((v) => new Uint8Array(side * side).fill(v)),
});

test('out of reach: a blue that only light can be is marked, a recipe and a soft grey are not', async () => {
  const d = design({ rgb: [0, 0, 1] }, cmyk(100, 90, 0, 0), { rgb: [0.6, 0.62, 0.64] });
  const { plates, palette } = await platesOf(d, 36);
  const light = paletteOf(asScreen(d), engines);
  const meant = rasterPlates(engines.builder.build(d, d.pages[0]), light, plates.region)!;
  const mark = outOfReach(compositePlates(plates, palette), compositePlates(meant, light));
  const share = [0, 1, 2].map((n) => {
    let sum = 0;
    for (let y = 0; y < 36; y++) for (let x = 0; x < 36; x++) sum += mark[y * plates.region.width + n * 36 + x] / 255;
    return sum / 36 / 36;
  });
  expect(share).toEqual([1, 0, 0]);
});

// Oracle: transicc (Little CMS) on the same profile, absolute colorimetric.
test.each(['coated-tr006.icc', 'newsprint-tr002.icc', 'uncoated-f29.icc'])(
  'on the paper’s own white: bare paper looks as %s says, black stays black',
  (name) => {
    const file = path.join(publicFolder, 'icc', name);
    const rgba = new Uint8ClampedArray([255, 255, 255, 255, 0, 0, 0, 255]);
    onPaper(rgba, paperWhite(readFileSync(file))!);
    const seen = srgbToLab([rgba[0] / 255, rgba[1] / 255, rgba[2] / 255]);
    const said = execFileSync('transicc', ['-i', file, '-o', '*Lab', '-t', '3', '-n'], { input: '0 0 0 0\n' });
    const want = String(said).trim().split(/\s+/).map(Number);
    expect(want).toHaveLength(3);
    // 8-bit pixels.
    seen.forEach((v, i) => expect(Math.abs(v - want[i])).toBeLessThan(0.5));
    expect([...rgba.slice(4)]).toEqual([0, 0, 0, 255]);
  },
);
test('a profile that does not say how white its paper is', () => {
  expect(paperWhite(new Uint8Array(20))).toBeNull();
});

test('ink over a square is the mean of what lies in it; outside there is none', () => {
  const plates = flatPlate(0, 20, 1);
  for (let y = 0; y < 20; y++) for (let x = 10; x < 20; x++) plates.data[1][y * 20 + x] = 255;
  expect(inksOver(plates, 10.5, 10.5)).toEqual([0, 1, 0, 0]);
  expect(inksOver(plates, 10.5, 10.5, 8)![1]).toBeCloseTo(5 / 9, 9);
  expect(inksOver(plates, -1, 3)).toBeNull();
});

test('two plates: the first blue, the second orange, both grey, none white', () => {
  const plates = flatPlate(0, 2, 1);
  plates.data[0].set([255, 0, 255, 0]);
  plates.data[3].set([0, 255, 255, 0]);
  const out = platesApart(plates, ['Cyan', 'Black']);
  const at = (i: number) => [...out.slice(4 * i, 4 * i + 3)];
  expect(at(0)).toEqual([20, 110, 150]);
  expect(at(1)).toEqual([200, 90, 20]);
  expect(at(2)).toEqual([105, 105, 105]);
  expect(at(3)).toEqual([255, 255, 255]);
});

test('what has changed is told ink by ink by their names, a new ink and a new page too', () => {
  const [was, now] = [flatPlate(100, 2, 1), flatPlate(100, 2, 1)];
  expect([...changedInk(now, was)]).toEqual([0, 0, 0, 0]);
  now.data[2][1] = 50;
  expect([...changedInk(now, was)]).toEqual([0, 255, 0, 0]);
  const spot = { ...now, channels: [...now.channels, 'Ember'], data: [...now.data, new Uint8Array([0, 0, 9, 0])] };
  expect([...changedInk(spot, was)]).toEqual([0, 255, 255, 0]);
  expect([...changedInk(now, null)]).toEqual([255, 255, 255, 255]);
});

describe('dots', () => {
  test.each([13, 64, 128, 200, 255])('a tint of %i/255 inks just its share, on every plate’s angle', (v) => {
    // Some eleven pixels a dot; a thousand dots.
    const plates = flatPlate(0, 400, (11.37 * SCREEN_LPI) / 72);
    for (const plate of plates.data) plate.fill(v);
    for (const plate of screened(plates, SCREEN_LPI, {}).data) {
      const share = plate.reduce((sum, p) => sum + p, 0) / 255 / plate.length;
      expect(Math.abs(share - v / 255)).toBeLessThan(0.01);
      expect(new Set(plate).size).toBeLessThanOrEqual(2);
    }
  });
  test('a plate that lies aside is moved by just that', () => {
    const plates = flatPlate(0, 100, 10);
    for (let y = 40; y < 60; y++) plates.data[0].fill(255, y * 100 + 40, y * 100 + 60);
    const moved = screened(plates, SCREEN_LPI, { Cyan: [1.2, -0.5] }).data[0];
    const on: number[] = [];
    moved.forEach((p, i) => p && on.push(i));
    expect([on[0] % 100, Math.floor(on[0] / 100), on.length]).toEqual([52, 35, 400]);
  });
});
