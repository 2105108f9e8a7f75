import { readFileSync } from 'node:fs';
import path from 'node:path';
import type { Palette } from '@/core/colour/palette';
import { readOutputProfile } from '@/core/colour/profile';
import { hexOf } from '@/core/colour/spaces';
import { SPOT_LIBRARY } from '@/core/colour/spotLibrary';
import { checkDesign } from '@/core/check/check';
import { exactColour } from '@/core/edit/sample';
import { assetName, damagedAssets, isOwnAsset } from '@/core/file/assets';
import { newDesign, setupOf } from '@/core/model/defaults';
import type { Colour, Design } from '@/core/model/schema';
import { pageMatrix } from '@/core/model/tree';
import { contrastOf, contrastNeeded } from '@/core/render/contrast';
import { sampleLook } from '@/core/render/sample';
import { openEngines, prepare, type Engines } from '@/core/engines';
import { DesignBuilder, flat, tint } from '@/demo/builder';
import { nodeEnv } from '@/env/node';
import { cmyk, linear, making, radial } from '../support/sample';
import { publicFolder, testEngines } from '../support/engines';

let engines: Engines;
beforeAll(async () => {
  engines = await testEngines();
});
const profileBytes = (file: string) => new Uint8Array(readFileSync(path.join(publicFolder, 'icc', file)));

/** Side by side: plain, spot, spot over process, a linear and a radial gradient. */
function bench() {
  const b = new DesignBuilder(newDesign('Sampling', setupOf(200, 60, { bleed: 0 }), making), making);
  const ember = b.spot(SPOT_LIBRARY[0]);
  const tide = b.recipe('Tide', 82, 46, 22, 6);
  const box = (x: number) => ({ x, y: 10, w: 30, h: 30 });
  b.place(0, [
    b.shape('Plain', 'rectangle', box(5), { fill: flat(tide) }),
    b.shape('Spot', 'rectangle', box(45), { fill: flat(tint(ember, 0.5)) }),
    b.shape('Over below', 'rectangle', box(85), { fill: flat(tide) }),
    b.shape('Over', 'rectangle', box(85), { fill: flat(ember, true) }),
    b.shape('Linear', 'rectangle', box(125), {
      fill: linear(
        [
          { offset: 0, colour: tide },
          { offset: 0.6, colour: cmyk(0, 40, 90, 0) },
          { offset: 1, colour: ember },
        ],
        [30, 0, 0, 30, 0, 0],
      ),
    }),
    b.shape('Radial', 'ellipse', box(165), {
      fill: radial(
        [
          { offset: 0, colour: tide },
          { offset: 1, colour: ember },
        ],
        [15, 0, 0, 15, 15, 15],
      ),
    }),
  ]);
  return { d: b.done(), ember, tide };
}

describe('a colour taken off the page', () => {
  const at = async (x: number, y: number): Promise<Colour> => {
    const { d } = bench();
    return sampleLook(engines.builder.build(d, d.pages[0]), await prepare(engines, d), { x, y });
  };
  test('as it looks: process as its recipe, one spot as a tint of it, paper as bare stock', async () => {
    expect(await at(20, 25)).toEqual({ cmyk: [0.82, 0.46, 0.22, 0.06] });
    expect(await at(60, 25)).toEqual({ ink: expect.any(String), tint: 0.5 });
    expect(await at(2, 2)).toEqual({ cmyk: [0, 0, 0, 0] });
  });

  test('as it looks where inks overprint: the recipe nearest to that look', async () => {
    const { d } = bench();
    const palette = await prepare(engines, d);
    const taken = await at(100, 25);
    expect('cmyk' in taken).toBe(true);
    const look = palette.labOfMix([0.82, 0.46, 0.22, 0.06, 1]);
    expect(palette.labOf(taken)[0]).toBeLessThan(palette.labOf({ cmyk: [0.82, 0.46, 0.22, 0.06] })[0]);
    expect(Math.abs(palette.labOf(taken)[0] - look[0])).toBeLessThan(3);
  });

  test('exact: the paint as the object has it; of a gradient the stop nearest to the point', () => {
    const { d, ember, tide } = bench();
    const exact = (name: string, x: number, y = 25) => {
      const n = Object.values(d.nodes).find((o) => o.name === name)!;
      return exactColour(d, n.id, 'fill', pageMatrix(d, d.pages[0], n.id), { x, y });
    };
    expect(exact('Plain', 20)).toEqual(tide);
    expect(exact('Spot', 60)).toEqual(tint(ember, 0.5));
    expect(exact('Linear', 127)).toEqual(tide);
    expect(exact('Linear', 144)).toEqual(cmyk(0, 40, 90, 0));
    expect(exact('Linear', 154)).toEqual(ember);
    expect(exact('Radial', 180)).toEqual(tide);
    expect(exact('Radial', 180, 39)).toEqual(ember);
    const plain = Object.values(d.nodes).find((o) => o.name === 'Plain')!.id;
    expect(exactColour(d, plain, 'outline', [1, 0, 0, 1, 0, 0], { x: 20, y: 25 })).toBeNull();
  });
});

describe('out of reach', () => {
  let palette: Palette;
  beforeAll(async () => {
    palette = await prepare(engines, bench().d);
  });
  test.each<[string, Parameters<Palette['reach']>[0], boolean]>([
    ['a vivid blue', { rgb: [0, 0, 1] }, true],
    ['a vivid green', { rgb: [0, 1, 0] }, true],
    ['a quiet brown', { rgb: [0.5, 0.35, 0.25] }, false],
    ['paper white', { rgb: [1, 1, 1] }, false],
    ['a Lab that paper bears', { lab: [60, 10, 20] }, false],
    ['a Lab that none does', { lab: [60, 90, -90] }, true],
  ])('%s', (_, colour, beyond) => {
    expect(palette.reach(colour)!.beyond).toBe(beyond);
    if (beyond) expect(palette.reach(colour)!.prints).toBeGreaterThan(2);
    // The printable one prints as the colour did, whole percents apart.
    const recipe = palette.recipeOf(colour as { lab: [number, number, number] });
    expect(palette.reach({ cmyk: recipe })).toBeNull();
    const a = palette.labOf(colour);
    palette.labOf({ cmyk: recipe }).forEach((v, i) => expect(Math.abs(v - a[i])).toBeLessThan(1.5));
  });

  test('ink and stand-in: none apart for a process ink, far for a vivid one', () => {
    expect(
      palette.standInDistance({ lab: palette.labOf({ cmyk: [0, 0.5, 0.5, 0] }), alternate: [0, 0.5, 0.5, 0] }),
    ).toBeLessThan(0.05);
    expect(palette.standInDistance(SPOT_LIBRARY[0])).toBeGreaterThan(3);
    expect(hexOf(palette.lookOfInk(SPOT_LIBRARY[0]))).toBe(
      hexOf(palette.press.look([0, 0, 0, 0], [{ table: palette.press.spotTable(SPOT_LIBRARY[0].lab), tint: 1 }])),
    );
  });
});

describe('contrast against what lies under it', () => {
  async function contrast(top: Colour, below: Colour | null, kind: 'text' | 'shape') {
    const b = new DesignBuilder(newDesign('Contrast', setupOf(120, 60, { bleed: 0 }), making), making);
    const art = [
      ...(below ? [b.shape('Below', 'rectangle', { x: 0, y: 0, w: 120, h: 60 }, { fill: flat(below) })] : []),
      kind === 'shape'
        ? b.shape('Top', 'ellipse', { x: 20, y: 10, w: 40, h: 30 }, { fill: flat(top) })
        : b.displayText('Top', 10, 40, [
            {
              align: 'left',
              leading: 1,
              runs: [{ text: 'Walk', face: 'archivo-600', size: 24, tracking: 0, fill: flat(top), outline: null }],
            },
          ]),
    ];
    b.place(0, art);
    const d = b.done();
    await engines.fonts.load(['archivo-600']);
    const id = Object.values(d.nodes).find((n) => n.name === 'Top')!.id;
    return contrastOf(engines.builder.build(d, d.pages[0]), await prepare(engines, d), new Set([id]));
  }
  test('black on bare stock reads, yellow does not; the same for letters and shapes', async () => {
    for (const kind of ['text', 'shape'] as const) {
      expect((await contrast(cmyk(0, 0, 0, 100), null, kind))!.low).toBeGreaterThan(10);
      const weak = (await contrast(cmyk(0, 0, 100, 0), null, kind))!;
      expect(weak.low).toBeLessThan(contrastNeeded('shape'));
      expect(weak.low).toBeGreaterThanOrEqual(1);
    }
  });
  test('what lies below counts, not the paper', async () => {
    const onDark = await contrast(cmyk(0, 0, 100, 0), cmyk(100, 86, 38, 44), 'text');
    expect(onDark!.low).toBeGreaterThan(contrastNeeded('text'));
    expect((await contrast(cmyk(50, 0, 0, 0), cmyk(50, 0, 0, 0), 'shape'))!.typical).toBeCloseTo(1, 5);
  });
  test('nothing that shows has no contrast', async () => {
    const { d } = bench();
    expect(contrastOf(engines.builder.build(d, d.pages[0]), await prepare(engines, d), new Set(['gone']))).toBeNull();
  });
});

describe('a paper of one’s own', () => {
  test.each(['coated-tr006.icc', 'uncoated-f29.icc', 'newsprint-tr002.icc'])(
    '%s can be printed with, and has a name',
    (file) => {
      expect(readOutputProfile(profileBytes(file))).toMatchObject({ ok: true, name: expect.stringMatching(/\w{4}/) });
    },
  );
  test('what cannot be printed with is refused with the reason', () => {
    const coated = profileBytes('coated-tr006.icc');
    const say = (bytes: Uint8Array) => {
      const r = readOutputProfile(bytes);
      return r.ok ? 'taken' : r.message;
    };
    expect(say(profileBytes('srgb.icc'))).toBe('It is a profile for screens (RGB), not for printing inks (CMYK).');
    expect(say(new Uint8Array(50))).toBe('It is not an ICC profile.');
    expect(say(coated.slice(0, 50_000))).toBe('It is cut off: its end is missing.');
    const without = (tag: string) => {
      const copy = coated.slice();
      const view = new DataView(copy.buffer);
      for (let i = 0; i < view.getUint32(128); i++)
        if (String.fromCharCode(...copy.subarray(132 + 12 * i, 135 + 12 * i)) === tag) copy[132 + 12 * i] = 120;
      return copy;
    };
    expect(say(without('B2A'))).toMatch(/which inks make a look/);
    expect(say(without('A2B'))).toMatch(/how inks look/);
    const device = coated.slice();
    device.set([115, 99, 110, 114], 12);
    expect(say(device)).toMatch(/not one of an output device/);
  });

  test('its looks are its own, recipes stay; a design whose profile is missing is still shown, and says so', async () => {
    const bytes = profileBytes('newsprint-tr002.icc');
    const name = await assetName(bytes, 'icc');
    expect(isOwnAsset(name)).toBe(true);
    expect(await damagedAssets(new Map([[name, bytes]]))).toEqual([]);
    expect(await damagedAssets(new Map([[name, bytes.slice(1)]]))).toEqual([name]);
    const { d, tide } = bench();
    const own: Design = { ...d, profile: { file: name, name: 'Harbour news', totalInkLimit: 2.4 } };
    const env = nodeEnv(publicFolder);
    const having = await openEngines({ ...env, asset: async (f) => (f.endsWith(name) ? bytes : env.asset(f)) });
    const mine = await prepare(having, own);
    const shipped = await prepare(having, { ...d, profile: { file: 'newsprint-tr002.icc', totalInkLimit: 2.4 } });
    expect(mine.css(tide)).toBe(shipped.css(tide));
    expect(mine.mix(tide)).toEqual(shipped.mix(tide));
    expect(mine.substituted).toBe(false);
    const lacking = await prepare(engines, own);
    expect(lacking.substituted).toBe(true);
    expect(lacking.css(tide)).toBe((await prepare(engines, d)).css(tide));
    expect(checkDesign(own, engines.builder, lacking).find((f) => f.code === 'ink.profileMissing')).toMatchObject({
      severity: 'stop',
      message: expect.stringContaining('Harbour news'),
    });
    await expect(prepare(engines, { ...d, profile: { file: 'gone.icc', totalInkLimit: 3 } })).rejects.toThrow(
      /gone.icc/,
    );
  });
});
