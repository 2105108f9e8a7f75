import { multiply, rotation, scaling, translation, type Matrix } from '@/core/geometry/matrix';
import { newDesign, setupOf } from '@/core/model/defaults';
import type { Design, PicturePaint } from '@/core/model/schema';
import { PictureSource, SAMPLES, type Pixels } from '@/core/pictures/source';
import { rasterPlates, type Plates } from '@/core/render/plates';
import { prepare, type Engines } from '@/core/engines';
import { DesignBuilder } from '@/demo/builder';
import { making } from '../support/sample';
import fc from '../support/seeded';
import { testEngines } from '../support/engines';

let engines: Engines;
beforeAll(async () => {
  engines = await testEngines();
});

const SIDE = 24;
/**
 * Greys of a picture of `w` pixels a row on a page of 24 × 24 points, one pixel of the plates a point; 255 is full
 * black.
 */
async function black(
  w: number,
  light: readonly number[],
  geometry: Matrix,
  change: Partial<PicturePaint> = {},
  more: Partial<Pixels> = {},
): Promise<(x: number, y: number) => number> {
  const source = new PictureSource({
    width: w,
    height: light.length / w / SAMPLES.gray,
    space: 'gray',
    data: Uint8Array.from(light),
    alpha: null,
    icc: null,
    ppi: null,
    ...more,
  });
  const b = new DesignBuilder(newDesign('Seen', setupOf(SIDE, SIDE, { bleed: 0 }), making), making);
  const picture = b.picture({
    name: 'p',
    file: 'p.png',
    width: source.full.width,
    height: source.full.height,
    space: 'gray',
  });
  b.place(0, [
    b.shape(
      'Frame',
      'rectangle',
      { x: 0, y: 0, w: SIDE, h: SIDE },
      { fill: { kind: 'picture', picture, geometry, overprint: false, ...change } },
    ),
  ]);
  const d: Design = b.done();
  const palette = await prepare(
    { ...engines, pictures: { get: () => source, load: async () => {}, epoch: 0, problem: () => null } as never },
    d,
  );
  const plates: Plates = rasterPlates(engines.builder.build(d, d.pages[0]), palette, {
    x: 0,
    y: 0,
    scale: 1,
    width: SIDE,
    height: SIDE,
  })!;
  return (x, y) => plates.data[3][y * SIDE + x];
}
const whole: Matrix = [SIDE, 0, 0, SIDE, 0, 0];

test('seen larger, every pixel is a square of its own', async () => {
  const at = await black(2, [0, 255, 255, 0], whole);
  for (const [x, y] of [
    [0, 0],
    [11, 11],
    [12, 12],
    [23, 23],
  ])
    expect(at(x, y)).toBe(255);
  for (const [x, y] of [
    [12, 0],
    [23, 11],
    [0, 12],
    [11, 23],
  ])
    expect(at(x, y)).toBe(0);
});

test('seen smaller, it is the mean of what falls together: fine checks are an even grey, nowhere a pattern', async () => {
  const at = await black(
    192,
    Array.from({ length: 192 * 192 }, (_, i) => (((i % 192) + Math.floor(i / 192)) % 2 ? 255 : 0)),
    whole,
  );
  for (let y = 0; y < SIDE; y++) for (let x = 0; x < SIDE; x++) expect(Math.abs(at(x, y) - 128)).toBeLessThanOrEqual(2);
});

test('tiles come again at every step, mirrored ones to and fro', async () => {
  // A tile of 8 points: four greys from left to right.
  const row = [0, 80, 160, 240];
  const plain = await black(4, row, [8, 0, 0, 8, 0, 0], { tile: 'repeat' });
  const mirrored = await black(4, row, [8, 0, 0, 8, 0, 0], { tile: 'mirror' });
  for (let x = 0; x < 8; x++) {
    expect([plain(x + 8, 3), plain(x + 16, 20)]).toEqual([plain(x, 3), plain(x, 3)]);
    expect([mirrored(15 - x, 3), mirrored(16 + x, 9)]).toEqual([mirrored(x, 3), mirrored(x, 3)]);
  }
  expect([0, 2, 4, 6].map((x) => plain(x, 0))).toEqual(row.map((v) => 255 - v));
});

test('turned by quarters it is the same picture, its places turned', async () => {
  const light = Array.from({ length: 36 }, (_, i) => (i * 37) % 256);
  const upright = await black(6, light, whole);
  const about = (quarters: number) => rotation(quarters * 90, { x: SIDE / 2, y: SIDE / 2 });
  for (const quarters of [1, 2, 3]) {
    const turned = await black(6, light, multiply(about(quarters), whole));
    for (const [x, y] of [
      [2, 2],
      [6, 14],
      [14, 6],
      [21, 10],
    ]) {
      let [u, v] = [x, y];
      for (let q = 0; q < quarters; q++) [u, v] = [SIDE - 1 - v, u];
      expect(turned(u, v)).toBe(upright(x, y));
    }
  }
});

test('one colour stays that colour however it lies, and nothing is inked where the picture is not', async () => {
  await fc.assert(
    fc.asyncProperty(
      fc.integer({ min: 0, max: 254 }),
      fc.double({ min: -180, max: 180, noNaN: true }),
      fc.double({ min: 0.2, max: 3, noNaN: true }),
      async (grey, turn, size) => {
        const geometry = multiply(
          multiply(translation(SIDE / 2, SIDE / 2), rotation(turn)),
          multiply(scaling(size * 16, size * 16), translation(-0.5, -0.5)),
        );
        const at = await black(5, Array<number>(25).fill(grey), geometry);
        const seen = new Set<number>();
        for (let y = 0; y < SIDE; y++) for (let x = 0; x < SIDE; x++) seen.add(at(x, y));
        seen.delete(0);
        expect([...seen]).toEqual([255 - grey]);
        expect(at(SIDE / 2, SIDE / 2)).toBe(255 - grey);
      },
    ),
    { numRuns: 12 },
  );
});

test('what covers half inks half, and colours that cover nowhere do not bleed in when it is seen smaller', async () => {
  const half = await black(1, [0], whole, {}, { alpha: Uint8Array.of(128) });
  expect(Math.abs(half(5, 5) - 128)).toBeLessThanOrEqual(1);
  // Columns in turn: white that covers, black that does not.
  const columns = Array.from({ length: 96 * 96 }, (_, i) => (i % 2 ? 255 : 0));
  const clean = await black(96, columns, whole, {}, { alpha: Uint8Array.from(columns) });
  expect(clean(12, 12)).toBe(0);
});
