import { applyPaletteSync, buildPaletteSync, utils } from 'image-q';
import { deltaE00 } from '@/core/colour/compare';
import { liftPalette, PURPOSES, isPurpose } from '@/core/colour/lift';
import { contrastRatio, labToLch, luminance } from '@/core/colour/models';
import { srgbToLab, type Triple } from '@/core/colour/spaces';
import { FEW_COLOURS, coloursUsed } from '@/core/scene/coloursUsed';
import { newDesign, setupOf } from '@/core/model/defaults';
import type { Design } from '@/core/model/schema';
import { liftFromScene } from '@/core/render/lifted';
import { prepare, type Engines } from '@/core/engines';
import { DesignBuilder, flat, tint } from '@/demo/builder';
import { demoDesigns } from '@/demo/demos';
import { SPOT_LIBRARY } from '@/core/colour/spotLibrary';
import { measured } from '../support/measured';
import { random } from '../support/random';
import { making } from '../support/sample';
import { testEngines } from '../support/engines';

const W = 256;
const H = 192;

/**
 * A made-up harbour at dusk: sky, water, quay and hills with grain, a small cream lantern, and 1.3 % of a strong red.
 */
function harbour(seed = 5): Uint8ClampedArray {
  const next = random(seed);
  const px = new Uint8ClampedArray(W * H * 4);
  const put = (i: number, c: readonly number[], grain: number) => {
    const g = (next() - 0.5) * grain;
    for (let j = 0; j < 3; j++) px[4 * i + j] = c[j] + g;
    px[4 * i + 3] = 255;
  };
  for (let y = 0; y < H; y++)
    for (let x = 0; x < W; x++) {
      const i = y * W + x;
      const t = y / H;
      if ((x - 190) ** 2 + (y - 120) ** 2 < 14 ** 2) put(i, [205, 36, 46], 8);
      else if ((x - 60) ** 2 + (y - 60) ** 2 < 10 ** 2) put(i, [246, 232, 190], 6);
      else if (t < 0.45) put(i, [40 + 60 * t, 60 + 90 * t, 110 + 110 * t], 14);
      else if (t < 0.6) put(i, [52, 70, 58], 16);
      else if (t < 0.85) put(i, [24 + 20 * t, 60 + 10 * Math.sin(x / 9), 92], 14);
      else put(i, [120, 104, 84], 18);
    }
  return px;
}
const RED: Triple = [205 / 255, 36 / 255, 46 / 255];
const off = (a: Triple, b: Triple) => deltaE00(srgbToLab(a), srgbToLab(b));
const nearest = (c: Triple, list: readonly { rgb: Triple }[]) => Math.min(...list.map((l) => off(c, l.rgb)));

describe('out of a picture', () => {
  test.each(PURPOSES.map((p) => p.id))(
    'three to eight colours, all of the picture, the same every time: %s',
    (purpose) => {
      const px = harbour();
      for (let count = 3; count <= 8; count++) {
        const lifted = liftPalette(px, { count, purpose });
        expect(lifted).toHaveLength(count);
        expect(liftPalette(px.slice(), { count, purpose })).toEqual(lifted);
        expect(lifted.reduce((n, l) => n + l.share, 0)).toBeCloseTo(1, 9);
        for (let i = 0; i < count; i++) for (let j = 0; j < i; j++) expect(lifted[i].rgb).not.toEqual(lifted[j].rgb);
      }
    },
  );

  test('a small strong accent is found', () => {
    expect(nearest(RED, liftPalette(harbour(), { count: 5, purpose: 'asSeen' }))).toBeLessThan(5);
    expect(nearest(RED, liftPalette(harbour(), { count: 5, purpose: 'farApart' }))).toBeLessThan(5);
  });

  // Oracle: wuquant of image-q, on the same picture. Its palette must be found again, colour by colour, in ours.
  test('as far as an independent quantiser goes, as seen is what it sees', () => {
    const px = harbour();
    const container = utils.PointContainer.fromUint8Array(Uint8Array.from(px), W, H);
    const wu = buildPaletteSync([container], {
      colors: 8,
      paletteQuantization: 'wuquant',
      colorDistanceFormula: 'euclidean',
    });
    const theirs = wu
      .getPointContainer()
      .getPointArray()
      .map((p): Triple => [p.r / 255, p.g / 255, p.b / 255]);
    const ours = liftPalette(px, { count: 8, purpose: 'asSeen' });
    const distances = theirs.map((c) => nearest(c, ours));
    const mean = distances.reduce((a, b) => a + b, 0) / distances.length;
    measured(
      'lifted palette against wuquant, 8 colours',
      `mean nearest ΔE00 ${mean.toFixed(2)}`,
      '≤ 8',
      'image-q 4.0.0',
    );
    expect(mean).toBeLessThan(8);
    expect(applyPaletteSync).toBeDefined();
  });

  test('each purpose does what it says', () => {
    const px = harbour();
    const lift = (purpose: (typeof PURPOSES)[number]['id']) => liftPalette(px, { count: 5, purpose });
    const apart = (l: readonly { rgb: Triple }[]) =>
      Math.min(...l.flatMap((a, i) => l.slice(0, i).map((b) => off(a.rgb, b.rgb))));
    const ink = (l: readonly { rgb: Triple }[]) => l.reduce((n, c) => n + 3 - c.rgb[0] - c.rgb[1] - c.rgb[2], 0);
    const seen = lift('asSeen');
    expect(apart(lift('farApart'))).toBeGreaterThanOrEqual(apart(seen));
    expect(ink(lift('lowInk'))).toBeLessThan(ink(seen));
    const [ground, ...text] = lift('groundAndText');
    for (const t of text) expect(contrastRatio(luminance(t.rgb), luminance(ground.rgb))).toBeGreaterThanOrEqual(4.49);
    const hues = lift('closeKin')
      .map((l) => labToLch(srgbToLab(l.rgb)))
      .filter((l) => l[1] > 6)
      .map((l) => l[2]);
    for (const a of hues) for (const b of hues) expect(Math.abs(((a - b + 540) % 360) - 180)).toBeLessThan(100);
  });

  test('a picture of one colour, of two, of none; numbers that make no palette', () => {
    const flatPicture = (...colours: number[][]) =>
      new Uint8ClampedArray(colours.flatMap((c) => Array.from({ length: 50 }, () => [...c, 255]).flat()));
    expect(liftPalette(flatPicture([200, 30, 40]), { count: 5, purpose: 'asSeen' })).toEqual([
      { rgb: [200 / 255, 30 / 255, 40 / 255], share: 1 },
    ]);
    expect(liftPalette(flatPicture([200, 30, 40], [10, 10, 10]), { count: 5, purpose: 'farApart' })).toHaveLength(2);
    expect(liftPalette(new Uint8ClampedArray(400), { count: 5, purpose: 'asSeen' })).toEqual([]);
    for (const purpose of PURPOSES)
      expect(
        liftPalette(flatPicture([128, 128, 128]), { count: 3, purpose: purpose.id }).length,
      ).toBeGreaterThanOrEqual(1);
    expect(() => liftPalette(new Uint8ClampedArray(4), { count: 2, purpose: 'asSeen' })).toThrow('3 to 8');
    expect([isPurpose('lowInk'), isPurpose('loud')]).toEqual([true, false]);
  });
});

describe('out of a page', () => {
  let engines: Engines;
  beforeAll(async () => {
    engines = await testEngines();
  });
  const page = async (d: Design) => ({
    scene: engines.builder.build(d, d.pages[0]),
    palette: await prepare(engines, d),
  });

  test('the ticket: its own colours come back, the spot ink as the ink it is', async () => {
    const ticket = demoDesigns().find((x) => x.file === 'supper-ticket')!.design;
    const { scene, palette } = await page(ticket);
    const lifted = liftFromScene(scene, palette, { count: 6, purpose: 'asSeen' });
    const ember = ticket.inks[0].id;
    expect(lifted.map((l) => l.colour)).toEqual(
      expect.arrayContaining([
        { cmyk: [0.02, 0.08, 0.34, 0] },
        { cmyk: [0, 0.36, 0.92, 0] },
        { cmyk: [0.82, 0.46, 0.22, 0.06] },
        { ink: ember, tint: 1 },
      ]),
    );
  });

  test('out of some objects only what they show counts, not the paper round them', async () => {
    const ticket = demoDesigns().find((x) => x.file === 'supper-ticket')!.design;
    const { scene, palette } = await page(ticket);
    const stub = Object.values(ticket.nodes).find((n) => n.name === 'Stub')!.id;
    expect(
      liftFromScene(scene, palette, { count: 4, purpose: 'asSeen' }, new Set([stub])).map((l) => l.colour),
    ).toEqual([{ cmyk: [0, 0.36, 0.92, 0] }]);
    expect(liftFromScene(scene, palette, { count: 4, purpose: 'asSeen' }, new Set(['nothing']))).toEqual([]);
  });

  test('a screen design gives RGB', async () => {
    const b = new DesignBuilder(
      newDesign('Button', setupOf(60, 40, { medium: 'screen', unit: 'px', bleed: 0 }), making),
      making,
    );
    b.place(0, [
      b.shape('Ground', 'rectangle', { x: 0, y: 0, w: 60, h: 40 }, { fill: flat({ rgb: [0.2, 0.4, 0.6] }) }),
      b.shape('Dot', 'ellipse', { x: 20, y: 10, w: 20, h: 20 }, { fill: flat({ rgb: [1, 0.6, 0] }) }),
    ]);
    const { scene, palette } = await page(b.done());
    expect(liftFromScene(scene, palette, { count: 3, purpose: 'farApart' }).map((l) => l.colour)).toEqual(
      expect.arrayContaining([{ rgb: [0.2, 0.4, 0.6] }, { rgb: [1, 0.6, 0] }]),
    );
  });

  test('colours in use: tints count with their ink, bare stock not at all, hidden things neither', async () => {
    const b = new DesignBuilder(newDesign('Mark', setupOf(100, 40), making), making);
    const ember = b.spot(SPOT_LIBRARY[0]);
    const tide = b.recipe('Tide', 82, 46, 22, 6);
    const box = (i: number, c: Parameters<typeof flat>[0]) =>
      b.shape(`Box ${i}`, 'rectangle', { x: i * 12, y: 5, w: 10, h: 10 }, { fill: flat(c) });
    b.place(0, [
      box(0, ember),
      box(1, tint(ember, 0.3)),
      box(2, tide),
      box(3, { cmyk: [0.82, 0.46, 0.22, 0.06] }),
      box(4, { cmyk: [0, 0, 0, 0] }),
      box(5, { cmyk: [0, 0, 0, 1] }),
      box(6, { rgb: [0.1, 0.9, 0.2] }),
    ]);
    const d = b.done();
    const { scene, palette } = await page(d);
    const used = coloursUsed(scene, palette);
    expect(used).toHaveLength(4);
    expect(used.length).toBeGreaterThan(FEW_COLOURS);
    // The same recipe typed twice is one colour on paper.
    expect(used.map((u) => u.nodes.length)).toEqual([2, 2, 1, 1]);
    const one = Object.values(d.nodes).find((n) => n.name === 'Box 1')!.id;
    expect(coloursUsed(scene, palette, new Set([one]))).toEqual([{ colour: ember, nodes: [one] }]);
  });
});

describe('smoothed edges are no colours', () => {
  const page = (fill: (b: DesignBuilder) => string[]) => {
    const b = new DesignBuilder(newDesign('Edges', setupOf(200, 140, { bleed: 0 }), making), making);
    b.place(0, fill(b));
    return b.done();
  };
  const black = flat({ cmyk: [0, 0, 0, 1] });
  test.each([
    [
      'a black box',
      (b: DesignBuilder) => [b.shape('Box', 'rectangle', { x: 20.3, y: 30.7, w: 100.4, h: 60.2 }, { fill: black })],
    ],
    [
      'a black box, turned',
      (b: DesignBuilder) => [b.shape('Box', 'rectangle', { x: 60, y: 40, w: 80, h: 60, turn: 17 }, { fill: black })],
    ],
    ['a disc', (b: DesignBuilder) => [b.shape('Disc', 'ellipse', { x: 40, y: 20, w: 101, h: 101 }, { fill: black })]],
    ['a star', (b: DesignBuilder) => [b.shape('Star', 'star', { x: 40, y: 20, w: 110, h: 110 }, { fill: black })]],
  ] as const)('%s on white is two colours, whatever they are chosen for', async (_, fill) => {
    const engines = await testEngines();
    const design = page(fill);
    const palette = await prepare(engines, design);
    const scene = engines.builder.build(design, design.pages[0]);
    for (const purpose of ['asSeen', 'farApart', 'lowInk'] as const)
      expect([purpose, liftFromScene(scene, palette, { count: 5, purpose }).length]).toEqual([purpose, 2]);
    // Kin are of one hue, and greys have hardly any.
    expect(liftFromScene(scene, palette, { count: 5, purpose: 'closeKin' }).length).toBeLessThanOrEqual(2);
    // Of the object alone: what it is filled with.
    expect(
      liftFromScene(scene, palette, { count: 5, purpose: 'asSeen' }, new Set(design.pages[0].children)).map(
        (l) => l.colour,
      ),
    ).toEqual([{ cmyk: [0, 0, 0, 1] }]);
  });
});
