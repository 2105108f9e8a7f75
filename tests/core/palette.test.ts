import { SPOT_LIBRARY } from '@/core/colour/spotLibrary';
import { Palette } from '@/core/colour/palette';
import { mixAt } from '@/core/colour/ramp';
import { newDesign, setupOf } from '@/core/model/defaults';
import type { Design } from '@/core/model/schema';
import { PaletteKeeper, prepare, type Engines } from '@/core/engines';
import { making } from '../support/sample';
import { testEngines } from '../support/engines';

let engines: Engines;
let design: Design;
let p: Palette;
beforeAll(async () => {
  engines = await testEngines();
  design = {
    ...newDesign('Palette', setupOf(100, 100), making),
    inks: [
      { ...SPOT_LIBRARY[0], id: 'ember' },
      { ...SPOT_LIBRARY[1], id: 'kelp' },
    ],
    swatches: [
      { id: 'tide', name: 'Tide', kind: 'colour', colour: { cmyk: [0.8, 0.4, 0.2, 0] } },
      { id: 'tin', name: 'Tin', kind: 'colour', colour: { ink: 'kelp', tint: 1 } },
      {
        id: 'ramp',
        name: 'Ramp',
        kind: 'ramp',
        stops: [
          { offset: 1, colour: { swatch: 'tin', tint: 0.5 } },
          { offset: 0.2, colour: { swatch: 'tide', tint: 1 } },
        ],
      },
    ],
  };
  p = await prepare(engines, design);
});

test('one channel a process ink and a spot, in the order of the design', () =>
  expect(p.channels).toEqual(['Cyan', 'Magenta', 'Yellow', 'Black', 'Ember 66-43', 'Kelp 38-167']));

test.each<[string, Parameters<Palette['mix']>[0], number[]]>([
  ['a recipe is taken as it is', { cmyk: [0.1, 0.2, 0.3, 0.4] }, [0.1, 0.2, 0.3, 0.4, 0, 0]],
  ['grey is black alone', { gray: 0.25 }, [0, 0, 0, 0.75, 0, 0]],
  ['a spot has its own plate and nothing else', { ink: 'ember', tint: 0.7 }, [0, 0, 0, 0, 0.7, 0]],
  ['a swatch at part strength', { swatch: 'tide', tint: 0.5 }, [0.4, 0.2, 0.1, 0, 0, 0]],
  ['a spot swatch at part strength', { swatch: 'tin', tint: 0.25 }, [0, 0, 0, 0, 0, 0.25]],
])('%s', (_, colour, mix) => p.mix(colour).forEach((v, i) => expect(v).toBeCloseTo(mix[i], 9)));

test('screen and Lab colours become process inks within the limit that the profile keeps', () => {
  for (const colour of [{ rgb: [0, 0, 0] }, { rgb: [1, 0, 0] }, { rgb: [1, 1, 1] }, { lab: [50, 20, -30] }] as const) {
    const mix = p.mix(colour);
    expect(mix.slice(4)).toEqual([0, 0]);
    expect(mix.reduce((a, b) => a + b, 0)).toBeLessThan(3);
  }
  expect(p.mix({ rgb: [1, 1, 1] }).every((v) => v < 0.005)).toBe(true);
});

test('a Lab colour that the press can print looks like itself', () => {
  const lab = p.labOf({ lab: [60, 10, -20] });
  [60, 10, -20].forEach((v, i) => expect(Math.abs(lab[i] - v)).toBeLessThan(1.5));
});

test('a ramp is in order, knows its inks, and is flat outside its stops', () => {
  const ramp = p.ramp({ swatch: 'ramp' });
  expect(ramp.stops.map((s) => s.offset)).toEqual([0.2, 1]);
  expect(ramp.used).toEqual([true, true, true, false, false, true]);
  expect(mixAt(ramp, 0)).toEqual(ramp.stops[0].mix);
  expect(mixAt(ramp, 2)).toEqual(ramp.stops[1].mix);
  mixAt(ramp, 0.6).forEach((v, i) => expect(v).toBeCloseTo((ramp.stops[0].mix[i] + ramp.stops[1].mix[i]) / 2, 9));
});

test('a firm edge: two stops at one place change at once', () => {
  const ramp = p.ramp({
    stops: [
      { offset: 0, colour: { gray: 1 } },
      { offset: 0.5, colour: { gray: 1 } },
      { offset: 0.5, colour: { gray: 0 } },
      { offset: 1, colour: { gray: 0 } },
    ],
  });
  expect(mixAt(ramp, 0.4999)[3]).toBe(0);
  expect(mixAt(ramp, 0.5001)[3]).toBe(1);
});

test('references that lead nowhere are a mistake of ours and say so', () => {
  expect(() => p.mix({ swatch: 'gone', tint: 1 })).toThrow('unknown swatch: gone');
  expect(() => p.mix({ ink: 'gone', tint: 1 })).toThrow('unknown ink: gone');
  expect(() => p.ramp({ swatch: 'tide' })).toThrow('unknown gradient swatch: tide');
  expect(() => engines.room.get('nowhere.icc')).toThrow('nowhere.icc was not prepared');
});

test('a screen design is made of light: colours stay what they are, tints go towards white', async () => {
  const s = await prepare(engines, { ...design, setup: { ...design.setup, medium: 'screen' } });
  expect(s.channels).toEqual(['Red', 'Green', 'Blue']);
  expect(s.mix({ rgb: [0.2, 0.4, 0.6] })).toEqual([0.2, 0.4, 0.6]);
  expect(s.css({ rgb: [0.2, 0.4, 0.6] })).toBe('#336699');
  s.mix({ swatch: 'tide', tint: 0 }).forEach((v) => expect(v).toBe(1));
  expect(s.css({ ink: 'ember', tint: 1 })).toBe(p.css({ ink: 'ember', tint: 1 }));
});

test('the palette is kept until something it was made from changes', () => {
  const keeper = new PaletteKeeper(engines);
  const first = keeper.get(design);
  expect(keeper.get({ ...design, nodes: {} })).toBe(first);
  expect(keeper.get({ ...design, swatches: [...design.swatches] })).not.toBe(first);
});

test('another paper, another look, the same recipe', async () => {
  const news = await prepare(engines, { ...design, profile: { file: 'newsprint-tr002.icc', totalInkLimit: 2.4 } });
  expect(news.mix({ swatch: 'tide', tint: 1 })).toEqual(p.mix({ swatch: 'tide', tint: 1 }));
  expect(news.css({ swatch: 'tide', tint: 1 })).not.toBe(p.css({ swatch: 'tide', tint: 1 }));
  await expect(prepare(engines, { ...design, profile: { file: 'srgb.icc', totalInkLimit: 3 } })).rejects.toThrow(
    'not a profile for printing inks',
  );
  await expect(prepare(engines, { ...design, profile: { file: 'gone.icc', totalInkLimit: 3 } })).rejects.toThrow(
    'icc/gone.icc is missing',
  );
});
