import { createCanvas, type GlobalCompositeOperation } from '@napi-rs/canvas';
import { BLENDS, type Blend } from '@/core/model/schema';
import { blender } from '@/core/render/blend';
import fc from '../support/seeded';

const byte = fc.integer({ min: 0, max: 255 });
const light = fc.tuple(byte, byte, byte);
const inks = fc.array(byte, { minLength: 6, maxLength: 6 });

function blend(mode: Blend, screen: boolean, ground: readonly number[], source: readonly number[]): number[] {
  const out = new Uint8Array(ground.length);
  blender(mode, screen, ground.length)(Uint8Array.from(ground), Uint8Array.from(source), out);
  return [...out];
}

// Oracle: the canvas of another maker, which follows W3C Compositing and Blending 1, chapter 10.
describe('on a screen, as a canvas blends', () => {
  const colours = [
    [0, 0, 0],
    [255, 255, 255],
    [128, 128, 128],
    [255, 0, 0],
    [40, 90, 200],
    [250, 180, 30],
    [12, 60, 40],
    [200, 190, 210],
    [1, 254, 127],
    [90, 90, 91],
  ] as const;
  const canvas = createCanvas(colours.length, colours.length);
  const ctx = canvas.getContext('2d');
  test.each(BLENDS.map((m) => [m]))('%s: within 2/255', (mode) => {
    ctx.globalCompositeOperation = 'source-over';
    colours.forEach((c, y) => {
      ctx.fillStyle = `rgb(${c.join()})`;
      ctx.fillRect(0, y, colours.length, 1);
    });
    ctx.globalCompositeOperation = mode as GlobalCompositeOperation;
    colours.forEach((c, x) => {
      ctx.fillStyle = `rgb(${c.join()})`;
      ctx.fillRect(x, 0, 1, colours.length);
    });
    const seen = ctx.getImageData(0, 0, colours.length, colours.length).data;
    const far: string[] = [];
    colours.forEach((ground, y) =>
      colours.forEach((source, x) => {
        const ours = blend(mode, true, ground, source);
        const at = 4 * (y * colours.length + x);
        if (ours.some((v, i) => Math.abs(v - seen[at + i]) > 2))
          far.push(
            `${ground.join()} under ${source.join()}: ${ours.join()}, not ${[...seen.slice(at, at + 3)].join()}`,
          );
      }),
    );
    expect(far).toEqual([]);
  });
});

describe('inks are blended as the light they leave', () => {
  test('cyan, magenta and yellow are the turned round of a screen’s red, green and blue', () =>
    fc.assert(
      fc.property(fc.constantFrom(...BLENDS), light, light, (mode, ground, source) => {
        const turned = (c: readonly number[]) => c.map((v) => 255 - v);
        const onPaper = blend(mode, false, [...turned(ground), 0], [...turned(source), 0]).slice(0, 3);
        expect(turned(onPaper)).toEqual(blend(mode, true, ground, source));
      }),
    ));
  test('bare stock multiplied leaves every ink below as it is', () =>
    fc.assert(
      fc.property(inks, (ground) => expect(blend('multiply', false, ground, [0, 0, 0, 0, 0, 0])).toEqual(ground)),
    ));
  test('what is multiplied never takes ink away, what is screened never adds any', () =>
    fc.assert(
      fc.property(inks, inks, (ground, source) => {
        blend('multiply', false, ground, source).forEach((v, i) =>
          expect(v).toBeGreaterThanOrEqual(Math.max(ground[i], source[i])),
        );
        blend('screen', false, ground, source).forEach((v, i) =>
          expect(v).toBeLessThanOrEqual(Math.min(ground[i], source[i])),
        );
      }),
    ));
  // ISO 32000-1 11.7.4.2: spot plates take no part in modes that would ink where nothing is, nor in those of whole
  // colours.
  test.each(['difference', 'exclusion', 'hue', 'saturation', 'color', 'luminosity'] as const)(
    '%s leaves spot plates to the source',
    (mode) =>
      fc.assert(
        fc.property(inks, inks, (ground, source) =>
          expect(blend(mode, false, ground, source).slice(4)).toEqual(source.slice(4)),
        ),
      ),
  );
  // ISO 32000-1 11.3.5.3: black goes with the backdrop, and with the source where its lightness is taken.
  test.each(['hue', 'saturation', 'color', 'luminosity'] as const)('%s: where black comes from', (mode) =>
    fc.assert(
      fc.property(inks, inks, (ground, source) =>
        expect(blend(mode, false, ground, source)[3]).toBe(mode === 'luminosity' ? source[3] : ground[3]),
      ),
    ),
  );
  test('order does not matter where it must not', () =>
    fc.assert(
      fc.property(
        fc.constantFrom<Blend>('multiply', 'screen', 'darken', 'lighten', 'difference', 'exclusion'),
        light,
        light,
        (mode, a, b) => expect(blend(mode, true, a, b)).toEqual(blend(mode, true, b, a)),
      ),
    ));
});
