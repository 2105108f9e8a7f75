import { curveThrough } from '@/core/colour/curve';
import {
  cropFrame,
  effectivePpi,
  fitted,
  placedSize,
  replaced,
  tileGeometry,
  tileOf,
  withTone,
} from '@/core/edit/picture';
import { create } from 'mutative';
import { apply, multiply } from '@/core/geometry/matrix';
import { newDesign, setupOf } from '@/core/model/defaults';
import type { Design, PicturePaint, Tone } from '@/core/model/schema';
import { halve, PictureSource, type Pixels } from '@/core/pictures/source';
import { pictureBitmap } from '@/core/render/pictureBitmap';
import { pictureInk } from '@/core/render/pictureInk';
import { withoutSurround } from '@/core/render/surround';
import { rasterPlates } from '@/core/render/plates';
import { asPrint, prepare, type Engines } from '@/core/engines';
import type { Palette } from '@/core/colour/palette';
import { DesignBuilder } from '@/demo/builder';
import fc from '../support/seeded';
import { palettes } from '../support/palettes';
import { cmyk, making } from '../support/sample';
import { testEngines } from '../support/engines';

let engines: Engines;
let print: Palette;
let screen: Palette;
let ember: string;
beforeAll(async () => {
  engines = await testEngines();
  ({ print, screen, ember } = await palettes(engines));
});

const pixels = (space: Pixels['space'], width: number, data: number[], alpha: number[] | null = null): Pixels => ({
  width,
  height: data.length / width / { gray: 1, rgb: 3, cmyk: 4 }[space],
  space,
  data: Uint8Array.from(data),
  alpha: alpha && Uint8Array.from(alpha),
  icc: null,
  ppi: null,
});
function mapped(space: Pixels['space'], tone: Tone | undefined, palette: Palette, ...samples: number[]): number[] {
  const out = new Uint8Array(palette.channels.length);
  pictureInk({ space, icc: null }, tone, palette).map(Uint8Array.from(samples), 0, out);
  return [...out];
}

describe('tone', () => {
  test('no tone leaves numbers alone: inks as they came, light as it is', () => {
    expect(mapped('cmyk', undefined, print, 10, 20, 30, 40)).toEqual([10, 20, 30, 40, 0]);
    expect(mapped('rgb', undefined, screen, 10, 20, 30)).toEqual([10, 20, 30]);
    expect(mapped('gray', undefined, print, 200)).toEqual([0, 0, 0, 55, 0]);
  });

  // Source: the definitions in the schema, worked out by hand.
  test.each<[string, Tone, number, number]>([
    ['brightness adds light', { brightness: 0.2 }, 100, 151],
    ['brightness stops at white', { brightness: 0.9 }, 200, 255],
    ['contrast turns about the middle', { contrast: -1 }, 255, 128],
    ['invert turns light round', { invert: true }, 100, 155],
    ['levels set black', { levels: { black: 0.5, white: 1, middle: 1 } }, 127, 0],
    ['levels set white', { levels: { black: 0, white: 0.5, middle: 1 } }, 200, 255],
    ['a middle of 2 is a square root', { levels: { black: 0, white: 1, middle: 2 } }, 64, 128],
    ['fade goes towards bare', { fade: 0.5 }, 55, 155],
  ])('%s', (_, tone, from, to) => expect(Math.abs(mapped('gray', tone, screen, from)[0] - to)).toBeLessThanOrEqual(1));

  test('saturation −1 leaves the luma of ITU-R BT.709', () => {
    const [r, g, b] = mapped('rgb', { saturation: -1 }, screen, 200, 100, 50);
    expect([r, g, b].every((v) => Math.abs(v - (0.2126 * 200 + 0.7152 * 100 + 0.0722 * 50)) <= 1.5)).toBe(true);
  });

  test('one ink: darkness is tint, by its curve, on that plate alone', () => {
    const tone: Tone = {
      inks: [
        {
          colour: { ink: ember, tint: 1 },
          curve: [
            [0, 0],
            [0.5, 0.2],
            [1, 1],
          ],
        },
      ],
    };
    expect(mapped('gray', tone, print, 255)).toEqual([0, 0, 0, 0, 0]);
    expect(mapped('gray', tone, print, 0)).toEqual([0, 0, 0, 0, 255]);
    expect(Math.abs(mapped('gray', tone, print, 127)[4] - 51)).toBeLessThanOrEqual(2);
    expect(pictureInk({ space: 'gray', icc: null }, tone, print).used).toEqual([false, false, false, false, true]);
  });

  test('two inks lie over each other, never more than full; on a screen one through the other', () => {
    const tone: Tone = { inks: [{ colour: cmyk(0, 80, 0, 60) }, { colour: cmyk(0, 0, 0, 60) }] };
    expect(mapped('gray', tone, print, 0)).toEqual([0, 204, 0, 255, 0]);
    const light: Tone = { inks: [{ colour: { rgb: [1, 0.5, 0.5] } }, { colour: { rgb: [0.5, 0.5, 1] } }] };
    expect(mapped('gray', light, screen, 0).map((v) => Math.round(v / 8))).toEqual(
      [128, 64, 128].map((v) => Math.round(v / 8)),
    );
  });

  test('an inverted CMYK picture keeps no black of its own', () =>
    expect(mapped('cmyk', { invert: true }, print, 0, 0, 0, 255).slice(0, 4)).toEqual([0, 0, 0, 0]));

  test('Quick shows what the plates hold, whatever the tone (1/255)', async () => {
    const source = new PictureSource(
      pixels(
        'rgb',
        4,
        Array.from({ length: 48 }, (_, i) => (i * 53) % 256),
      ),
    );
    const b = new DesignBuilder(newDesign('Same', setupOf(4, 4, { bleed: 0 }), making), making);
    const picture = b.picture({ name: 'p', file: 'p.png', width: 4, height: 4, space: 'rgb' });
    const tones: (Tone | undefined)[] = [
      undefined,
      { brightness: 0.1, contrast: 0.2, saturation: -0.4 },
      {
        inks: [
          { colour: cmyk(100, 40, 0, 0) },
          {
            colour: cmyk(0, 0, 0, 100),
            curve: [
              [0, 0],
              [0.6, 0.1],
              [1, 0.9],
            ],
          },
        ],
        fade: 0.2,
      },
    ];
    for (const tone of tones) {
      const copy = new DesignBuilder(b.done(), making);
      copy.place(0, [
        copy.shape(
          'F',
          'rectangle',
          { x: 0, y: 0, w: 4, h: 4 },
          { fill: { kind: 'picture', picture, geometry: [4, 0, 0, 4, 0, 0], overprint: false, ...(tone && { tone }) } },
        ),
      ]);
      const d: Design = { ...copy.done(), pictures: b.done().pictures! };
      const palette = await prepare(
        { ...engines, pictures: { get: () => source, load: async () => {}, epoch: 0, problem: () => null } as never },
        d,
      );
      const plates = rasterPlates(engines.builder.build(d, d.pages[0]), palette, {
        x: 0,
        y: 0,
        scale: 1,
        width: 4,
        height: 4,
      })!;
      const { compositePlates } = await import('@/core/render/composite');
      const truth = compositePlates(plates, palette);
      const quick = pictureBitmap(source, tone, palette, 16).data;
      expect(Math.max(...truth.map((v, i) => Math.abs(v - quick[i])))).toBeLessThanOrEqual(1);
    }
    expect(asPrint(b.done()).setup.medium).toBe('print');
  });

  test('tones at rest are left out of the document', () => {
    const paint: PicturePaint = { kind: 'picture', picture: 'p', geometry: [1, 0, 0, 1, 0, 0], overprint: false };
    expect(withTone(withTone(paint, { brightness: 0.3, invert: true }), { brightness: 0, invert: undefined })).toEqual(
      paint,
    );
  });
});

describe('curves', () => {
  test('run through their points and never swing beyond their neighbours', () =>
    fc.assert(
      fc.property(
        fc.array(
          fc
            .tuple(fc.integer({ min: 0, max: 1000 }), fc.integer({ min: 0, max: 1000 }))
            .map(([x, y]) => [x / 1000, y / 1000] as const),
          { minLength: 2, maxLength: 8 },
        ),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (points, x) => {
          const sorted = [...points].sort((a, b) => a[0] - b[0]);
          const f = curveThrough(sorted);
          const distinct = sorted.filter((p, i) => i === sorted.length - 1 || sorted[i + 1][0] > p[0]);
          for (const p of distinct) expect(Math.abs(f(p[0]) - p[1])).toBeLessThan(1e-6);
          const after = distinct.findIndex((p) => p[0] >= x);
          if (after > 0) {
            const [a, b] = [distinct[after - 1][1], distinct[after][1]];
            expect(f(x)).toBeGreaterThanOrEqual(Math.min(a, b) - 1e-9);
            expect(f(x)).toBeLessThanOrEqual(Math.max(a, b) + 1e-9);
          }
        },
      ),
    ));
});

describe('taking out the surround', () => {
  /** A white ground, a dark ring with a white hole, a pale seam between. */
  const W = 9;
  const ring = Array.from({ length: W * W }, (_, i) => {
    const d = Math.max(Math.abs((i % W) - 4), Math.abs(Math.floor(i / W) - 4));
    return d === 2 ? 20 : d === 3 ? 160 : 255;
  });
  const rgb = pixels(
    'rgb',
    W,
    ring.flatMap((v) => [v, v, v]),
  );

  test('goes from the edge inwards and leaves what is shut in', () => {
    const { alpha } = withoutSurround(rgb, { tolerance: 10, soft: 0 });
    expect(alpha![0]).toBe(0);
    expect(alpha![2 * W + 4]).toBe(255);
    expect(alpha![4 * W + 4]).toBe(255); // the hole is white, but not joined to the edge
  });

  test('a seam fades, and what the ground had mixed into it is taken out', () => {
    const cut = withoutSurround(rgb, { tolerance: 10, soft: 80 });
    const at = 1 * W + 4;
    expect(cut.alpha![at]).toBeGreaterThan(20);
    expect(cut.alpha![at]).toBeLessThan(235);
    expect(cut.data[3 * at]).toBeLessThan(rgb.data[3 * at]);
    expect(rgb.data[3 * at]).toBe(160); // the file's own pixels stay
  });

  test('of inks and of what is half clear already', () => {
    const inks = pixels(
      'cmyk',
      3,
      [0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 200, 200, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0],
      [255, 255, 255, 255, 100, 255, 255, 255, 255],
    );
    const { alpha } = withoutSurround(inks, { tolerance: 5, soft: 0 });
    expect([...alpha!]).toEqual([0, 0, 0, 0, 100, 0, 0, 0, 0]);
  });
});

describe('laid into a frame', () => {
  const wide = { width: 400, height: 200 };
  const box = { x0: 10, y0: 20, x1: 110, y1: 120 };
  test.each([
    ['fill', [200, 0, 0, 100, -40, 20]],
    ['fit', [100, 0, 0, 50, 10, 45]],
    ['stretch', [100, 0, 0, 100, 10, 20]],
    ['centre', [96, 0, 0, 48, 12, 46]],
  ] as const)('%s', (fit, matrix) =>
    expect(fitted(wide, box, fit).map((v) => Math.round(v * 1e6) / 1e6)).toEqual(matrix),
  );

  test('placed at its own resolution, and no larger than the page', () => {
    expect(
      placedSize(
        { id: 'p', name: '', file: 'p.png', space: 'rgb', width: 300, height: 150, ppi: 150 },
        { width: 1000, height: 1000 },
      ),
    ).toEqual({ width: 144, height: 72 });
    expect(
      placedSize(
        { id: 'p', name: '', file: 'p.png', space: 'rgb', width: 3000, height: 1500 },
        { width: 360, height: 1000 },
      ),
    ).toEqual({ width: 360, height: 180 });
  });

  const paint: PicturePaint = {
    kind: 'picture',
    picture: 'p',
    geometry: [200, 0, 0, 100, 5, 7],
    overprint: false,
    tone: { fade: 0.2 },
  };
  test('effective resolution falls as it grows, by the coarser of its two ways', () => {
    expect(effectivePpi(wide, paint, [1, 0, 0, 1, 0, 0])).toBeCloseTo(144, 9);
    expect(effectivePpi(wide, paint, [2, 0, 0, 1, 0, 0])).toBeCloseTo(72, 9);
    expect(effectivePpi(wide, paint, [0, 1, -1, 0, 0, 0])).toBeCloseTo(144, 9);
  });

  test('another picture covers at least what the old one did, about the same middle, with the same tone', () =>
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 4000 }), fc.integer({ min: 1, max: 4000 }), (width, height) => {
        const next = replaced(paint, wide, { id: 'q', name: '', file: 'q.png', space: 'rgb', width, height });
        expect(next.tone).toEqual({ fade: 0.2 });
        const [a, b] = [apply(next.geometry, { x: 0, y: 0 }), apply(next.geometry, { x: 1, y: 1 })];
        expect([(a.x + b.x) / 2, (a.y + b.y) / 2].map((v) => Math.round(v * 1e6))).toEqual([105e6, 57e6]);
        expect(b.x - a.x).toBeGreaterThanOrEqual(200 - 1e-6);
        expect(b.y - a.y).toBeGreaterThanOrEqual(100 - 1e-6);
        expect((b.x - a.x) / (b.y - a.y) / (width / height)).toBeCloseTo(1, 6);
      }),
    ));

  test('cropping the frame leaves the picture where it is on the page', () => {
    const b = new DesignBuilder(newDesign('Crop', setupOf(400, 400), making), making);
    const picture = b.picture({ name: 'p', file: 'p.png', ...wide, space: 'rgb' });
    const id = b.shape(
      'Frame',
      'rectangle',
      { x: 50, y: 60, w: 200, h: 100, turn: 30 },
      { fill: { ...paint, picture } },
    );
    b.place(0, [id]);
    const before = b.done();
    const after = create(before, (d) => cropFrame(d, id, { x0: 20, y0: -10, x1: 150, y1: 90 })) as Design;
    const on = (d: Design) => {
      const n = d.nodes[id] as Extract<Design['nodes'][string], { kind: 'shape' }>;
      return multiply(n.transform, (n.fills[0] as PicturePaint).geometry).map((v) => Math.round(v * 1e9) / 1e9);
    };
    expect(on(after)).toEqual(on(before));
    expect(after.nodes[id]).toMatchObject({ width: 130, height: 100 });
  });

  test('tiles: size, place and turn come back, flipped ones stay flipped', () => {
    const g = tileGeometry(wide, { width: 40, x: 3, y: 4, turn: 30 }, [1, 0, 0, -1, 0, 0]);
    expect(tileOf(g)).toMatchObject({ width: expect.closeTo(40, 9), x: 3, y: 4, turn: expect.closeTo(30, 9) });
    expect(g[0] * g[3] - g[1] * g[2]).toBeCloseTo(-800, 6);
    expect(tileGeometry(wide, { width: 0, x: 0, y: 0, turn: 0 }, g)[0]).toBeGreaterThan(1);
  });
});

describe('a picture from afar', () => {
  test('each half is the mean of four, odd edges too; clear pixels colour nothing', () => {
    expect([...halve(pixels('gray', 4, [0, 100, 200, 40, 20, 80, 0, 0])).data]).toEqual([50, 60]);
    expect(halve(pixels('gray', 3, [0, 0, 90, 0, 0, 90, 60, 60, 60]))).toMatchObject({ width: 1, height: 1 });
    const half = halve(pixels('rgb', 2, [255, 0, 0, 0, 255, 0, 0, 255, 0, 0, 255, 0], [255, 0, 0, 0]));
    expect([...half.data, ...half.alpha!]).toEqual([255, 0, 0, 64]);
  });
  test('the level asked for has no fewer pixels, if there is one', () => {
    const source = new PictureSource(
      pixels(
        'gray',
        64,
        Array.from({ length: 64 * 64 }, () => 9),
      ),
    );
    expect(source.levelWith(300)).toMatchObject({ width: 32 });
    expect(source.levelWith(1e9)).toMatchObject({ width: 64 });
    expect(source.level(40)).toMatchObject({ width: 1, height: 1 });
  });
});
