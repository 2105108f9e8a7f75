import { forMedium, keptIn, MODELS, trackOf, type ModelId } from '@/bench/tray/recipe/channels';
import type { Palette } from '@/core/colour/palette';
import { newDesign, setupOf } from '@/core/model/defaults';
import type { OwnColour } from '@/core/model/schema';
import { PaletteKeeper, prepare, type Engines } from '@/core/engines';
import { making } from '../support/sample';
import { random } from '../support/random';
import { testEngines } from '../support/engines';

let engines: Engines;
let print: Palette;
let screen: Palette;
beforeAll(async () => {
  engines = await testEngines();
  print = await prepare(engines, newDesign('Print', setupOf(100, 100), making));
  screen = await prepare(
    engines,
    newDesign('Screen', setupOf(100, 100, { medium: 'screen', unit: 'px', bleed: 0 }), making),
  );
});

const next = random(31);
const examples: [ModelId, OwnColour][] = [
  ['cmyk', { cmyk: [0.1, 0.62, 0.925, 0.04] }],
  ['rgb', { rgb: [0.2, 0.6, 0.4] }],
  ['hsb', { rgb: [0.8, 0.3, 0.1] }],
  ['lab', { lab: [62.5, 14, -33] }],
  ['lch', { lab: [40, -22, 31] }],
];

test.each(examples)('%s: what the fields show is what the colour is made of', (model, colour) => {
  const numbers = MODELS[model].read(colour, print);
  const again = MODELS[model].make(numbers);
  const [key, values] = Object.entries(again)[0] as [string, number[]];
  values.forEach((v, i) => expect(v).toBeCloseTo((colour as unknown as Record<string, number[]>)[key][i], 9));
  expect(numbers).toHaveLength(MODELS[model].channels.length);
  numbers.forEach((v, i) => {
    expect(v).toBeGreaterThanOrEqual(MODELS[model].channels[i].min - 1e-9);
    expect(v).toBeLessThanOrEqual(MODELS[model].channels[i].max + 1e-9);
  });
});

test('any numbers that sliders can give make a colour that the model’s door lets in', () => {
  for (let n = 0; n < 300; n++)
    for (const model of Object.values(MODELS)) {
      const colour = model.make(model.channels.map((c) => c.min + next() * (c.max - c.min)));
      const [key, values] = Object.entries(colour)[0] as [string, number[]];
      values.forEach((v, i) => {
        if (key === 'lab') expect(i === 0 ? v >= 0 && v <= 100 : Math.abs(v) <= 128).toBe(true);
        else expect(v >= 0 && v <= 1).toBe(true);
      });
    }
});

test('a slip opens in the model that a colour is kept in', () => {
  expect(
    [{ cmyk: [0, 0, 0, 1] }, { rgb: [1, 0, 0] }, { lab: [50, 0, 0] }, { gray: 0.4 }].map((c) => keptIn(c as OwnColour)),
  ).toEqual(['cmyk', 'rgb', 'lab', 'cmyk']);
});

test('a track runs through the looks it leads to, and passes the colour it stands on', () => {
  const values = MODELS.cmyk.read({ cmyk: [0, 0.5, 0, 0] }, print);
  const track = trackOf('cmyk', values, 1, print);
  expect(track).toHaveLength(9);
  expect(track[0]).toBe(print.css({ cmyk: [0, 0, 0, 0] }));
  expect(track[4]).toBe(print.css({ cmyk: [0, 0.5, 0, 0] }));
  expect(track[8]).toBe(print.css({ cmyk: [0, 1, 0, 0] }));
});

test('a screen design stays light: what is set in Lab becomes the RGB that a screen shows; print keeps Lab', () => {
  const set: OwnColour = { lab: [60, 80, -40] };
  expect(forMedium(set, print)).toBe(set);
  const made = forMedium(set, screen);
  expect('rgb' in made && made.rgb.every((v) => v >= 0 && v <= 1)).toBe(true);
  expect(screen.mix({ rgb: [0.2, 0.6, 0.4] })).toEqual([0.2, 0.6, 0.4]);
  expect(screen.channels).toEqual(['Red', 'Green', 'Blue']);
});

test('what is kept and what is shown have a palette each, and keep it while a slider moves', () => {
  const keeper = new PaletteKeeper(engines);
  const kept = newDesign('Two', setupOf(100, 100), making);
  const shown = { ...kept, swatches: [...kept.swatches] };
  const [a, b] = [keeper.get(kept), keeper.get(shown)];
  expect(a).not.toBe(b);
  expect(keeper.get(kept)).toBe(a);
  expect(keeper.get(shown)).toBe(b);
});
