import { readRecipes } from '@/core/edit/recipeLine';
import { recipeName } from '@/core/edit/recipeName';
import { tinted } from '@/core/colour/tints';
import type { OwnColour, Swatch } from '@/core/model/schema';
import fc from '../support/seeded';

const swatches: Swatch[] = [
  { id: 'a', name: 'Dusk', kind: 'colour', colour: { cmyk: [1, 0.72, 0.08, 0.2] } },
  { id: 'b', name: 'Ember 66-43', kind: 'colour', colour: { ink: 'i', tint: 1 } },
  {
    id: 'c',
    name: 'Night',
    kind: 'ramp',
    stops: [
      { offset: 0, colour: { gray: 0 } },
      { offset: 1, colour: { gray: 1 } },
    ],
  },
];
const read = (text: string) => readRecipes(text, { swatches });
const percent = fc.integer({ min: 0, max: 100 });

test('any four percentages, with any name and any of the usual marks between them', () => {
  const word = fc.stringMatching(/^[A-Za-z][a-z]{1,9}$/);
  fc.assert(
    fc.property(
      fc.array(word, { minLength: 0, maxLength: 3 }),
      fc.tuple(percent, percent, percent, percent),
      fc.constantFrom(' ', ', ', ' / ', '  ', ',', '\t'),
      fc.boolean(),
      (words, values, between, signs) => {
        const name = words.join(' ');
        const line = `${name}${name ? ' ' : ''}${values.map((v) => (signs ? `${v}%` : v)).join(between)}`;
        const [r] = read(line);
        expect(r).toMatchObject({ ok: true });
        if (!r.ok) return;
        expect(r.recipe.colour).toEqual({ cmyk: values.map((v) => v / 100) });
        expect(r.recipe.name).toBe(
          name || recipeName(values.map((v) => v / 100) as unknown as Parameters<typeof recipeName>[0]),
        );
      },
    ),
    { numRuns: 300 },
  );
});

test('never throws, and never lets an impossible ink through', () => {
  fc.assert(
    fc.property(fc.string({ maxLength: 60 }), (text) => {
      for (const r of read(text)) {
        if (!r.ok) expect(r.message.length).toBeGreaterThan(5);
        else if ('cmyk' in r.recipe.colour) for (const v of r.recipe.colour.cmyk) expect(v >= 0 && v <= 1).toBe(true);
      }
    }),
    { numRuns: 500 },
  );
});

test.each<[string, string | RegExp]>([
  ['Dusk 100 72 8', /four ink percentages/],
  ['Dusk 100 72 8 20 5', /four ink percentages|C|name/],
  ['Dusk 100 72 8 120', '120 is more than 100 %.'],
  ['Dusk 150%', '150 % is more than 100 %.'],
  ['Night 50%', 'There is no swatch called “Night” to take a part of.'],
  ['#12345', '“#12345” is not a screen colour. Write three or six digits after #.'],
])('“%s”', (line, message) => {
  const [r] = read(line);
  if (r.ok) expect(r.recipe.name).toMatch(/Dusk/);
  else if (typeof message === 'string') expect(r.message).toBe(message);
  else expect(r.message).toMatch(message);
});

test('lines are counted as the person sees them, empty ones too; semicolons part as well', () => {
  expect(read('a 1 2 3 4; b 5 6 7 8').map((r) => r.ok && r.recipe.name)).toEqual(['a', 'b']);
  expect(read('a 1 2 3 4\n\n\nnonsense').map((r) => (r.ok ? r.recipe.name : r.line))).toEqual(['a', 4]);
  expect(read('\n  \n')).toEqual([]);
});

test('a part of a swatch: by its whole name, else by its start; spots stay spots', () => {
  expect(read('dusk 50%')).toEqual([
    { ok: true, recipe: { name: 'Dusk 50 %', colour: { cmyk: [0.5, 0.36, 0.04, 0.1] } } },
  ]);
  expect(read('Emb 25 %')).toEqual([
    { ok: true, recipe: { name: 'Ember 66-43 25 %', colour: { ink: 'i', tint: 0.25 } } },
  ]);
});

test('part strength goes towards the paper in every kind of colour', () => {
  const full: OwnColour[] = [
    { cmyk: [0.2, 0.4, 0.6, 0.8] },
    { gray: 0.2 },
    { rgb: [0.2, 0.4, 0.6] },
    { ink: 'i', tint: 0.8 },
    { lab: [40, 20, -30] },
  ];
  expect(full.map((c) => tinted(c, 1))).toEqual(full);
  expect(tinted(full[0], 0.5)).toEqual({ cmyk: [0.1, 0.2, 0.3, 0.4] });
  expect(tinted(full[1], 0)).toEqual({ gray: 1 });
  expect(tinted(full[2], 0)).toEqual({ rgb: [1, 1, 1] });
  expect(tinted(full[3], 0.5)).toEqual({ ink: 'i', tint: 0.4 });
  expect(tinted(full[4], 0)).toEqual({ lab: [100, 0, -0] });
});

test.each<[string, string, OwnColour]>([
  ['--dusk: #0b3a5e', 'dusk', { rgb: [11 / 255, 58 / 255, 94 / 255] }],
  ['Tide rgb(11 58 94)', 'Tide', { rgb: [11 / 255, 58 / 255, 94 / 255] }],
  ['hsl(0 100% 50%)', '#ff0000', { rgb: [1, 0, 0] }],
  ['tomato', 'tomato', { rgb: [1, 99 / 255, 71 / 255] }],
  ['Press device-cmyk(1 0.72 8% 20%)', 'Press', { cmyk: [1, 0.72, 0.08, 0.2] }],
  ['Rope Lab 62 4 -18.5', 'Rope', { lab: [62, 4, -18.5] }],
  ['--paper = lab(90 -2 46)', 'paper', { lab: [90, -2, 46] }],
])('CSS and Lab: “%s”', (line, name, colour) => {
  const [r] = read(line);
  if (!r.ok) throw new Error(r.message);
  expect(r.recipe.name).toBe(name);
  const [key, values] = Object.entries(colour)[0] as [string, number[]];
  const got = (r.recipe.colour as unknown as Record<string, number[]>)[key];
  got.forEach((v, i) => expect(v).toBeCloseTo(values[i], 6));
});

test('a vivid colour that no screen holds stays what it is; broken CSS and Lab are refused', () => {
  const [vivid] = read('color(display-p3 1 0.2 0)');
  expect(vivid.ok && 'lab' in vivid.recipe.colour).toBe(true);
  expect(read('rgb(1 2)')[0]).toMatchObject({ ok: false, message: '“rgb(1 2)” is not a colour of CSS.' });
  expect(read('Rope Lab 120 0 0')[0]).toMatchObject({
    ok: false,
    message: expect.stringMatching(/^Lab is a lightness/),
  });
  expect(read('device-cmyk(1 2 3 4)')[0]).toMatchObject({ ok: false });
});
