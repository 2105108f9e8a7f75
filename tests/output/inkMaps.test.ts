import { mostInk, pageCoverage, pageInk } from '@/core/render/pageInk';
import { filmsOf, totalInkMap } from '@/core/render/plateLooks';
import { rasterPlates } from '@/core/render/plates';
import { newDesign, setupOf } from '@/core/model/defaults';
import type { Colour, Design, Setup } from '@/core/model/schema';
import { SPOT_LIBRARY } from '@/core/colour/spotLibrary';
import { prepare, type Engines } from '@/core/engines';
import { DesignBuilder, flat } from '@/demo/builder';
import { random } from '../support/random';
import { cmyk, making } from '../support/sample';
import { testEngines } from '../support/engines';

let engines: Engines;
beforeAll(async () => {
  engines = await testEngines();
});
const block = (b: DesignBuilder, x: number, y: number, w: number, h: number, colour: Colour, overprint = false) =>
  b.shape('Block', 'rectangle', { x, y, w, h }, { fill: flat(colour, overprint) });
function design(draw: (b: DesignBuilder) => string[], setup: Partial<Setup> = {}): Design {
  const b = new DesignBuilder(newDesign('Inks', setupOf(288, 144, { bleed: 9, ...setup }), making), making);
  b.place(0, draw(b));
  return b.done();
}
async function opened(d: Design) {
  const palette = await prepare(engines, d);
  return { palette, scene: engines.builder.build(d, d.pages[0]) };
}

test('how much of a page each ink covers: closed forms, the bleed left out, what is knocked out not counted', async () => {
  const d = design((b) => {
    const spot = b.spot(SPOT_LIBRARY[0]);
    return [
      // Half of the page, and all the bleed beside it, in two inks; a quarter of that half knocked out by a spot ink's
      // tint.
      block(b, -9, -9, 153, 162, cmyk(40, 0, 0, 100)),
      block(b, 0, 0, 72, 72, { ...spot, tint: 0.5 } as Colour),
      // Overprinted: it takes nothing away.
      block(b, 72, 72, 72, 72, cmyk(0, 100, 0, 0), true),
    ];
  });
  const { scene, palette } = await opened(d);
  const got = pageCoverage(scene, palette)!;
  const half = (1 / 2) * (3 / 4);
  for (const [channel, want] of [0.4 * half, 1 / 8, 0, half, (1 / 8) * 0.5].entries())
    expect(Math.abs(got[channel] - want)).toBeLessThan(3e-3);
  expect(palette.channels).toHaveLength(5);
});

test('of a round page only what is round counts; a screen has no inks', async () => {
  const all = (b: DesignBuilder) => [block(b, -9, -9, 400, 400, cmyk(0, 0, 100, 0))];
  const disc = await opened(design(all, { width: 200, height: 200, round: true }));
  expect(pageCoverage(disc.scene, disc.palette)![2]).toBeCloseTo(1, 3);
  const lights = await opened(design((b) => [block(b, 0, 0, 50, 50, { rgb: [0, 0, 0] })], { medium: 'screen' }));
  expect(pageCoverage(lights.scene, lights.palette)).toBeNull();
  expect(pageInk(lights.scene, lights.palette)).toBeNull();
});

test('films are black, lie over each other as films do; the map of total ink is red where, and only where, it is too much', async () => {
  const d = design((b) => [
    block(b, 0, 0, 72, 144, cmyk(50, 0, 0, 50)),
    block(b, 72, 0, 72, 144, cmyk(100, 100, 90, 0)),
    block(b, 144, 0, 72, 144, cmyk(100, 100, 100, 20)),
  ]);
  const { scene, palette } = await opened(d);
  const region = { x: 0, y: 0, scale: 1 / 12, width: 24, height: 12 };
  const plates = rasterPlates(scene, palette, region)!;
  const at = (pixels: Uint8ClampedArray, column: number) => [
    ...pixels.slice(4 * (6 * 24 + column), 4 * (6 * 24 + column) + 4),
  ];
  const films = filmsOf(plates);
  // Half let through by each of two: a quarter of the light.
  expect(at(films, 2)[0]).toBeCloseTo(255 * 0.25, -0.5);
  expect(at(films, 8).slice(0, 3)).toEqual([0, 0, 0]);
  expect(at(films, 22)).toEqual([255, 255, 255, 255]);
  // One of them alone.
  expect(at(filmsOf(plates, new Set(['Black'])), 2)[0]).toBeCloseTo(255 * 0.5, -0.5);
  expect(at(filmsOf(plates, new Set(['Black'])), 8)).toEqual([255, 255, 255, 255]);
  const map = totalInkMap(plates, 3);
  const isRed = (p: number[]) => p[0] > 180 && p[1] < 80 && p[2] < 80;
  expect([2, 8, 14, 22].map((c) => isRed(at(map, c)))).toEqual([false, false, true, false]);
  // The more ink the darker, as long as it is borne.
  expect(at(map, 22)[1]).toBeGreaterThan(at(map, 2)[1]);
  expect(at(map, 2)[1]).toBeGreaterThan(at(map, 8)[1]);
  expect(isRed(at(totalInkMap(plates, 2.5), 8))).toBe(true);
  expect(isRed(at(totalInkMap(plates, 3, new Set(['Cyan', 'Magenta'])), 14))).toBe(false);
});

test('the most ink is where the sum of all plates is, the first of several: plates of any size, wherever they lie in memory', () => {
  const next = random(11);
  for (let turn = 0; turn < 200; turn++) {
    const [width, height] = [1 + Math.floor(next() * 9), 1 + Math.floor(next() * 7)];
    const data = Array.from({ length: 1 + Math.floor(next() * 6) }, () => {
      const plate = new Uint8Array(new ArrayBuffer(80), Math.floor(next() * 9), width * height);
      // Few values, so that there are several places of the most; and full ones, so that sums do not run over.
      for (let i = 0; i < plate.length; i++) plate[i] = next() < 0.5 ? 255 : Math.floor(next() * 3);
      return plate;
    });
    const sums = Array.from({ length: width * height }, (_, i) => data.reduce((sum, plate) => sum + plate[i], 0));
    const at = sums.indexOf(Math.max(...sums));
    expect(mostInk({ channels: [], data, region: { x: 3, y: 5, scale: 2, width, height } })).toEqual({
      total: sums[at] / 255,
      x: 3 + ((at % width) + 0.5) / 2,
      y: 5 + (Math.floor(at / width) + 0.5) / 2,
    });
  }
});
