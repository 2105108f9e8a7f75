import { Resvg } from '@resvg/resvg-js';
import { SPOT_LIBRARY } from '@/core/colour/spotLibrary';
import { firstGradient } from '@/core/edit/gradient';
import { asScreen, prepare, type Engines } from '@/core/engines';
import { openAsDesign } from '@/core/input/asDesign';
import { newDesign, outlineOf, runOf, setupOf } from '@/core/model/defaults';
import type { Design, Outline, Paint } from '@/core/model/schema';
import { verifyDesign } from '@/core/model/verify';
import { writePng } from '@/core/output/png';
import { writeSvg } from '@/core/output/svg/write';
import { DesignBuilder, flat } from '@/demo/builder';
import { decode } from 'fast-png';
import { checkX4 } from '../support/checkX4';
import { faults } from '../support/faults';
import { separate } from '../support/ghostscript';
import { FULL } from '../support/measured';
import { pdfOf, platesOf } from '../support/press';
import { cmyk, making } from '../support/sample';
import { testEngines } from '../support/engines';

let engines: Engines;
beforeAll(async () => {
  engines = await testEngines();
});

/** What a line can be beside its weight, one row each. */
const FORMS: readonly (readonly [string, Partial<Outline>])[] = [
  ['plain', {}],
  ['round and cut', { cap: 'round', join: 'bevel' }],
  ['long, short points', { cap: 'square', miterLimit: 1.2 }],
  ['fitted dashes', { dashes: [9, 5], dashFit: true }],
  [
    'fitted dots with a second colour',
    { cap: 'round', dashes: [0, 8], dashFit: true, between: flat(cmyk(0, 0, 80, 0)) as Outline['between'] },
  ],
  ['by hand', { wobble: { strength: 1.5, wave: 14, passes: 1, seed: 3 }, join: 'round' }],
  ['by hand, dashed', { wobble: { strength: 1.5, wave: 14, passes: 1, seed: 4 }, dashes: [14, 6] }],
  ['by hand, twice', { wobble: { strength: 1, wave: 20, passes: 2, seed: 4 } }],
  ['arrow and dot', { start: { kind: 'dot', size: 1 }, end: { kind: 'arrow', size: 1.2 } }],
  ['ring and diamond, dashed', { start: { kind: 'ring', size: 1 }, end: { kind: 'diamond', size: 1 }, dashes: [7, 4] }],
  [
    'thin at both ends',
    {
      profile: [
        { at: 0, share: 0 },
        { at: 0.5, share: 1 },
        { at: 1, share: 0 },
      ],
    },
  ],
  [
    'swelling, dashed, with an open arrow',
    {
      profile: [
        { at: 0, share: 0.2 },
        { at: 1, share: 1 },
      ],
      dashes: [12, 7],
      end: { kind: 'open', size: 1 },
    },
  ],
  ['inside', { side: 'inside' }],
  ['away and behind', { away: 3, behind: true, join: 'round' }],
];

/** A page a paint: every form of a line in a row, on an open line and on a closed one over a tint. */
/**
 * Paints of many colours go on heavier lines without sharp corners, and on the forms that leave no gaps of about a dot:
 * the other program shifts them by a dot and closes those.
 */
const MANY_COLOURED = ['plain', 'round and cut', 'fitted dashes', 'by hand', 'arrow and dot', 'thin at both ends'];
const isFlat = (name: string): boolean => name === 'process' || name.startsWith('spot');

function page(name: string, paint: (b: DesignBuilder) => Paint, bleed = 9): Design {
  const b = new DesignBuilder(newDesign(name, setupOf(430, 80 * FORMS.length + 30, { bleed }), making), making);
  const p = paint(b);
  const forms = isFlat(name) ? FORMS : FORMS.filter(([label]) => MANY_COLOURED.includes(label));
  const ids = forms.flatMap(([label, more], i) => {
    const y = 24 + i * 80;
    const outline: Outline = { ...outlineOf(p, isFlat(name) ? 10 : 16), cap: 'butt', miterLimit: 4, ...more };
    // Bolder lines leave less of what lies under them.
    const fill = isFlat(name) ? { fill: flat(cmyk(0, 0, 30, 0)) } : {};
    const under = isFlat(name)
      ? [b.shape(`${label} under`, 'rectangle', { x: 0, y: y + 20, w: 430, h: 14 }, { fill: flat(cmyk(8, 0, 30, 0)) })]
      : [];
    const open = b.path(
      `${label} open`,
      [0, 24, y + 34, 2, 60, y - 20, 110, y + 70, 150, y + 8, 2, 165, y - 15, 185, y + 14, 190, y + 36],
      {
        outline,
      },
    );
    const closed = b.shape(
      `${label} star`,
      isFlat(name) ? 'star' : 'capsule',
      { x: 230, y: y - 6, w: 56, h: 52 },
      { ...fill, outline },
    );
    const round = b.shape(`${label} disc`, 'ellipse', { x: 330, y: y - 4, w: 80, h: 46 }, { ...fill, outline });
    return [...under, open, closed, round];
  });
  b.place(0, ids);
  return b.done();
}
const sweep = (more: Partial<Extract<Paint, { kind: 'gradient' }>> = {}): Paint => ({
  ...(firstGradient(
    'linear',
    { x0: 0, y0: 0, x1: 160, y1: 40 },
    [
      { offset: 0, colour: cmyk(90, 40, 0, 0) },
      { offset: 1, colour: cmyk(0, 50, 90, 0) },
    ],
    false,
  ) as Extract<Paint, { kind: 'gradient' }>),
  ...more,
});
const PAINTS: readonly (readonly [string, (b: DesignBuilder) => Paint])[] = [
  ['process', () => flat(cmyk(80, 0, 40, 0))],
  ['spot', (b) => flat(b.spot(SPOT_LIBRARY[0]))],
  ['spot overprinting', (b) => flat(b.spot(SPOT_LIBRARY[1]), true)],
  ['gradient over', () => sweep()],
  ['gradient along', () => sweep({ strokeMapping: 'along' })],
  ['gradient across', () => sweep({ strokeMapping: 'across' })],
  [
    'pools',
    () => ({
      kind: 'pools',
      pools: [
        { x: 0.1, y: 0.1, colour: cmyk(90, 0, 0, 0), reach: 0.6 },
        { x: 0.9, y: 0.9, colour: cmyk(0, 80, 0, 0), reach: 0.6 },
      ],
      geometry: [160, 0, 0, 50, 0, 0],
      overprint: false,
    }),
  ],
];
const shown = FULL ? PAINTS : PAINTS.filter(([n]) => n === 'spot overprinting');

// Oracle: Ghostscript tiffsep of our PDF, the rule as tests/support/agree.ts states it. A gradient on a line is painted
// by it on every dot that it touches, and a thin line bolder: at more dots both weigh less.
test.each(shown)(
  'every form of a line painted with %s: plates agree, and the file keeps the rules',
  async (name, paint) => {
    const design = page(name, paint);
    expect(verifyDesign(design)).toMatchObject({ ok: true });
    await prepare(engines, design);
    const pdf = await pdfOf(engines, design);
    const dpi = isFlat(name) ? 300 : name === 'gradient across' ? 600 : 450;
    expect(faults(await platesOf(engines, design, dpi), separate(pdf, dpi)[0], `lines, ${name}`)).toEqual([]);
    expect(await checkX4(pdf)).toEqual([]);
  },
);

const svgOf = async (design: Design) => {
  const palette = await prepare(engines, design);
  return writeSvg(engines.builder.build(design, design.pages[0]), palette, design.name, (f) => engines.env.asset(f));
};

// Oracle: resvg.
test('the SVG looks as the page does', async () => {
  const light = asScreen(page('process', PAINTS[0][1]));
  const palette = await prepare(engines, light);
  const ours = decode(writePng(engines.builder.build(light, light.pages[0]), palette, 144));
  const theirs = new Resvg((await svgOf(light)).svg, {
    fitTo: { mode: 'width', value: ours.width },
    background: 'white',
  }).render();
  expect([theirs.width, theirs.height]).toEqual([ours.width, ours.height]);
  const { pixels } = theirs;
  let sum = 0;
  for (let i = 0; i < ours.width * ours.height; i++)
    for (let c = 0; c < 3; c++) sum += Math.abs(Number(ours.data[i * ours.channels + c]) - pixels[i * 4 + c]);
  expect(sum / (ours.width * ours.height * 3)).toBeLessThan(0.3);
});

test('an SVG of ours read again has the same plates', async () => {
  // What lies in the bleed is not in a drawing of the page.
  const design = page('spot', PAINTS[1][1], 0);
  const { svg } = await svgOf(design);
  const read = await openAsDesign(new TextEncoder().encode(svg), 'again.svg', { ...engines.env, fonts: engines.fonts });
  if (!read.ok) throw new Error(read.why);
  const again = read.design;
  await prepare(engines, again);
  const [a, b] = [await platesOf(engines, design, 150), await platesOf(engines, again, 150)];
  expect(faults(a, b)).toEqual([]);
});

test('letters by hand: their line strays, and they are text still', async () => {
  const b = new DesignBuilder(newDesign('Letters', setupOf(300, 120, { bleed: 0 }), making), making);
  const outline: Outline = {
    ...outlineOf(flat(cmyk(80, 0, 40, 0)), 2),
    wobble: { strength: 1, wave: 9, passes: 1, seed: 1 },
  };
  b.place(0, [
    b.displayText('Words', 20, 90, [
      { runs: [{ ...runOf('WALK', 70, flat(cmyk(0, 0, 60, 0)), 'archivo-800'), outline }] },
    ]),
  ]);
  const design = b.done();
  await prepare(engines, design);
  const pdf = await pdfOf(engines, design);
  expect(faults(await platesOf(engines, design, 600), separate(pdf, 600)[0], 'letters by hand')).toEqual([]);
});
