import { tableReader, type ColourTable } from '@/core/colour/inkTable';
import { coarseLooks, lookNear, lookTable, lookUp } from '@/core/render/lookTable';
import { toneLight, toneReader, toneSteps } from '@/core/render/tone';
import fc from '../support/seeded';

/** A table of random looks, and the same for the reader of plates. */
function randomTable(
  inputs: 3 | 4,
  grid: number,
  seed: number,
): { readonly exact: ColourTable; readonly rgba: Uint8ClampedArray<ArrayBuffer> } {
  const count = grid ** inputs;
  const rgba = new Uint8ClampedArray(count * 4);
  const nodes = new Float32Array(count * 3);
  for (let i = 0; i < count; i++) {
    for (let k = 0; k < 3; k++) {
      seed = (Math.imul(seed, 1664525) + 1013904223) >>> 0;
      nodes[3 * i + k] = rgba[4 * i + k] = seed >>> 24;
    }
    rgba[4 * i + 3] = 255;
  }
  return { exact: { inputs, outputs: 3, grid, nodes }, rgba };
}
const unpacked = (v: number) => [v & 255, (v >>> 8) & 255, (v >>> 16) & 255, v >>> 24];
const byte = fc.integer({ min: 0, max: 255 });

// Oracle: the reader that makes plates, in floating point.
test.each([
  [3, 2],
  [3, 17],
  [3, 33],
  [4, 5],
  [4, 17],
] as const)(
  '%d inputs, %d nodes a side: looked up in whole numbers, within two levels of the exact reader',
  (inputs, grid) => {
    const { exact, rgba } = randomTable(inputs, grid, 11);
    const table = lookTable(exact, rgba);
    const read = tableReader(exact);
    fc.assert(
      fc.property(fc.array(byte, { minLength: inputs * 20, maxLength: inputs * 20 }), (samples) => {
        const src = Uint8Array.from(samples);
        const out = new Uint32Array(22);
        lookUp(table, src, 20, out, 1);
        // Nothing is written beside the pixels asked for.
        expect([out[0], out[21]]).toEqual([0, 0]);
        const values = new Float32Array(3);
        for (let i = 0; i < 20; i++) {
          read(src, i * inputs, values);
          const seen = unpacked(out[1 + i]);
          expect(seen[3]).toBe(255);
          // Random nodes are as far apart as can be: a 512th of a cube's side is half a level.
          values.forEach((v, k) => expect(Math.abs(seen[k] - v)).toBeLessThanOrEqual(2));
        }
      }),
      { numRuns: 40 },
    );
  },
);

test('at its nodes a table is what it was given', () => {
  const { exact, rgba } = randomTable(3, 18, 3);
  const out = new Uint32Array(1);
  for (const [i, j, k] of [
    [0, 0, 0],
    [17, 17, 17],
    [3, 0, 16],
    [5, 9, 1],
    [17, 0, 8],
  ]) {
    lookUp(lookTable(exact, rgba), Uint8Array.of(i * 15, j * 15, k * 15), 1, out, 0);
    const at = 4 * ((i * 18 + j) * 18 + k);
    expect(unpacked(out[0])).toEqual([...rgba.slice(at, at + 4)]);
  }
});

test('the nearest of 64 steps: at most two levels from the sample, ends and middle kept', () => {
  // A table that changes nothing shows how far a sample is moved.
  const grid = 2;
  const rgba = Uint8ClampedArray.from(
    { length: 32 },
    (_, n) => [(n >> 4) & 1, (n >> 3) & 1, (n >> 2) & 1, 1][n & 3] * 255,
  );
  const looks = coarseLooks(lookTable({ inputs: 3, grid }, rgba));
  const all = Uint8Array.from({ length: 256 * 3 }, (_, i) => Math.floor(i / 3));
  const out = new Uint32Array(256);
  lookNear(looks, all, 256, out, 0);
  out.forEach((v, sample) =>
    unpacked(v)
      .slice(0, 3)
      .forEach((seen) => expect(Math.abs(seen - sample)).toBeLessThanOrEqual(2)),
  );
  expect([unpacked(out[0]), unpacked(out[255])]).toEqual([
    [0, 0, 0, 255],
    [255, 255, 255, 255],
  ]);
  // Steps only go up.
  for (let i = 1; i < 256; i++) expect(out[i] & 255).toBeGreaterThanOrEqual(out[i - 1] & 255);
});

test('a row toned at once is what pixels toned one by one are, within a level', () =>
  fc.assert(
    fc.property(
      fc.array(byte, { minLength: 30, maxLength: 30 }),
      fc.record({
        brightness: fc.double({ min: -1, max: 1, noNaN: true }),
        contrast: fc.double({ min: -1, max: 1, noNaN: true }),
        saturation: fc.double({ min: -1, max: 1, noNaN: true }),
        invert: fc.boolean(),
      }),
      (samples, tone) => {
        const src = Uint8Array.from(samples);
        const steps = toneSteps('rgb', tone)!;
        const [one, row] = [new Uint8Array(4), new Uint8Array(30)];
        toneLight(src, steps, row);
        const read = toneReader('rgb', tone)!;
        for (let i = 0; i < 30; i += 3) {
          read(src, i, one);
          for (let k = 0; k < 3; k++) expect(Math.abs(row[i + k] - one[k])).toBeLessThanOrEqual(1);
        }
      },
    ),
  ));

test('tone that does nothing asks for no steps', () => {
  expect([
    toneSteps('rgb', undefined),
    toneSteps('rgb', { fade: 0.5 }),
    toneSteps('gray', { saturation: 1 }),
    toneReader('cmyk', {}),
  ]).toEqual([null, null, null, null]);
});
