import { tryOut } from '@/core/edit/history';
import { checkDesign } from '@/core/check/check';
import { unsureRule } from '@/core/check/rules/combination';
import type { Finding, Subject } from '@/core/check/types';
import { SPOT_LIBRARY } from '@/core/colour/spotLibrary';
import { newDesign, runOf, setupOf } from '@/core/model/defaults';
import type { Design, Setup } from '@/core/model/schema';
import { pageInk } from '@/core/render/pageInk';
import { usedChannels } from '@/core/scene/used';
import { prepare, type Engines } from '@/core/engines';
import { DesignBuilder, flat } from '@/demo/builder';
import { demoDesigns } from '@/demo/demos';
import { cmyk, making } from '../support/sample';
import { testEngines } from '../support/engines';

let engines: Engines;
beforeAll(async () => {
  engines = await testEngines();
});
const find = async (d: Design): Promise<Finding[]> => checkDesign(d, engines.builder, await prepare(engines, d));
const page = (draw: (b: DesignBuilder) => string[], setup: Partial<Setup> = {}): Design => {
  const b = new DesignBuilder(newDesign('Checked', setupOf(200, 100, { bleed: 9, ...setup }), making), making);
  b.place(0, draw(b));
  return b.done();
};
const block = (x: number, y: number, w: number, h: number) => (b: DesignBuilder) => [
  b.shape('Block', 'rectangle', { x, y, w, h }, { fill: flat(cmyk(50, 0, 0, 0)) }),
];

test('the demo poster is in order', async () => expect(await find(demoDesigns()[0].design)).toEqual([]));

describe('bleed', () => {
  test.each<[string, [number, number, number, number], string[]]>([
    ['well inside', [10, 10, 50, 50], []],
    ['through the bleed on all sides', [-9, -9, 218, 118], []],
    ['past the bleed', [-30, -30, 300, 300], []],
    ['just at the trim', [0, 10, 50, 50], ['left']],
    ['half into the bleed', [150, 10, 54, 50], ['right']],
    ['at two sides', [0, 0, 50, 50], ['top', 'left']],
    ['across the foot, short of it', [-9, 60, 218, 42], ['bottom']],
    ['a hair inside, surely meant to reach', [0.3, 10, 50, 50], ['left']],
  ])('%s', async (_, [x, y, w, h], sides) => {
    const found = await find(page(block(x, y, w, h)));
    expect(found.map((f) => f.facts)).toEqual(sides.length ? [{ sides, bleed: 9 }] : []);
    for (const f of found) {
      expect([f.code, f.severity, f.page]).toEqual(['bleed.missing', 'look', 1]);
      expect(f.message).toBe(`Block stops short of the bleed at the ${sides.join(' and the ')}.`);
      expect(f.why).toContain('3.17 mm past the trim');
    }
  });
  test('one row an object, however many paints it has; none where nothing is cut', async () => {
    const twice = page((b) => [
      b.shape(
        'Twice',
        'rectangle',
        { x: 0, y: 20, w: 30, h: 30 },
        {
          fill: flat(cmyk(1, 0, 0, 0)),
          outline: { paint: flat(cmyk(0, 1, 0, 0)), width: 2, cap: 'butt', join: 'bevel', miterLimit: 4 },
        },
      ),
    ]);
    expect(await find(twice)).toHaveLength(1);
    expect(await find(page(block(0, 10, 50, 50), { bleed: 0 }))).toEqual([]);
    expect(await find(page(block(0, 10, 50, 50), { medium: 'screen' }))).toEqual([]);
  });
});

describe('total ink', () => {
  const dark = (mix: [number, number, number, number]) =>
    page((b) => [b.shape('Dark', 'rectangle', { x: 40, y: 40, w: 20, h: 20 }, { fill: flat(cmyk(...mix)) })]);
  test('the limit of the paper, counted over plates and spots alike', async () => {
    const inks = async (d: Design) => (await find(d)).filter((f) => f.code === 'ink.tooMuch');
    expect(await inks(dark([80, 70, 60, 90]))).toEqual([]);
    const [f] = await inks(dark([90, 80, 70, 90]));
    // Plates have 255 steps: four roundings can add up to a percent.
    expect([f.code, f.message]).toEqual([
      'ink.tooMuch',
      expect.stringMatching(/^Page 1 carries 33[01] % ink at its fullest point; the paper bears 300 %\.$/),
    ]);
    expect(f.facts).toMatchObject({ limit: 3, x: expect.any(Number), y: expect.any(Number) });
    expect(
      await inks({ ...dark([80, 70, 60, 90]), profile: { file: 'newsprint-tr002.icc', totalInkLimit: 2.4 } }),
    ).toHaveLength(1);
  });
});

describe('text', () => {
  const words = (text: string, h: number, face = 'archivo-400') =>
    page((b) => [
      b.textFrame('Notice', { x: 20, y: 20, w: 100, h }, [
        { align: 'left', leading: 1.2, runs: [runOf(text, 10, undefined, face)] },
      ]),
    ]);
  test('what does not fit is counted; one character is one character', async () => {
    expect(await find(words('Home-made paper lanterns', 60))).toEqual([]);
    const [f] = await find(words('Home-made paper lanterns walk the quays of Marrowick', 14));
    expect([f.code, f.severity]).toEqual(['text.overset', 'stop']);
    expect(f.message).toMatch(/^Notice has \d+ characters that do not fit its frame\.$/);
  });
  test('of a shape with words in it, the words are named', async () => {
    const shaped = tryOut(words('Home-made paper lanterns walk the quays of Marrowick', 14), (d) => {
      const frame = Object.values(d.nodes).find((n) => n.name === 'Notice') as { name: string; window?: unknown };
      frame.name = 'Ellipse';
      frame.window = { shape: 'ellipse', knobs: {} };
    });
    expect((await find(shaped))[0].message).toMatch(/^The text in Ellipse has \d+ characters/);
    const unnamed = tryOut(words('Home-made paper lanterns walk the quays of Marrowick', 14), (d) => {
      Object.values(d.nodes).find((n) => n.name === 'Notice')!.name = 'Text frame';
    });
    expect((await find(unnamed))[0].message).toMatch(/^The text “Home-made paper lanterns wal …” has \d+ characters/);
  });
  test('each missing face of each text is named once', async () => {
    const found = await find(words('lamps', 60, 'harbour-sans'));
    expect(found.map((f) => f.message)).toEqual([
      'Notice asks for the face harbour sans, which is not here; another stands in.',
    ]);
  });
});

test('findings of every page say which', async () => {
  const b = new DesignBuilder(newDesign('Pages', setupOf(200, 100, { bleed: 9 }), making), making);
  b.place(0, block(10, 10, 20, 20)(b));
  b.place(1, block(0, 10, 20, 20)(b));
  b.place(2, block(180, 10, 20, 20)(b));
  expect((await find(b.done())).map((f) => [f.page, f.facts])).toEqual([
    [2, { sides: ['left'], bleed: 9 }],
    [3, { sides: ['right'], bleed: 9 }],
  ]);
});

describe('steps that show', () => {
  const sky = (w: number, h: number, to: number, grain?: number) => (b: DesignBuilder) => [
    b.shape(
      'Sky',
      'rectangle',
      { x: -9, y: -9, w, h },
      {
        fill: {
          kind: 'gradient',
          gradient: 'linear',
          ramp: {
            stops: [
              { offset: 0, colour: cmyk(80, 40, 0, 0) },
              { offset: 1, colour: cmyk(to, 40, 0, 0) },
            ],
          },
          geometry: [0, h, -h, 0, 0, 0],
          overprint: false,
          ...(grain && { grain }),
        },
      },
    ),
  ];
  const big: Partial<Setup> = { width: 800, height: 1200 };
  // Common practice: a tone wider than 0.03 in shows. 1218 pt over 25 tones are 17 mm each; over 204 tones 2.1 mm; 218
  // pt over 204 tones 0.4 mm.
  test.each<[string, Design, number]>([
    ['few tones over a long way', page(sky(818, 1218, 70), big), 1],
    ['many tones over a short way', page(sky(218, 118, 0)), 0],
    ['grain breaks them up', page(sky(818, 1218, 70, 0.1), big), 0],
  ])('%s', async (_, design, count) => {
    const found = (await find(design)).filter((f) => f.code === 'gradient.banding');
    expect(found).toHaveLength(count);
    for (const f of found) {
      expect(f.message).toMatch(
        /^The gradient of Sky changes so slowly that its steps may show: 26 tones, each 16\.\d mm wide\.$/,
      );
      expect(f.why).toContain('Break them up with grain');
    }
  });
});

test('the ink of a page is measured once: the ticket and the check tell the same place and the same sum', async () => {
  const b = new DesignBuilder(newDesign('Wet', setupOf(300, 200), making), making);
  b.place(0, [
    b.shape('Dark', 'rectangle', { x: 100, y: 60, w: 4, h: 3 }, { fill: flat(cmyk(90, 80, 80, 95)) }),
    b.shape('Beside the sheet', 'rectangle', { x: 600, y: 60, w: 40, h: 30 }, { fill: flat(b.spot(SPOT_LIBRARY[0])) }),
  ]);
  const design = b.done();
  const palette = await prepare(engines, design);
  const scene = engines.builder.build(design, design.pages[0]);
  expect(engines.builder.build(design, design.pages[0])).toBe(scene);
  const ink = pageInk(scene, palette)!;
  expect(pageInk(scene, palette)).toBe(ink);
  const [found] = checkDesign(design, engines.builder, palette).filter((f) => f.code === 'ink.tooMuch');
  expect(found.message).toContain(`${Math.round(ink.total * 100)} %`);
  expect([ink.x > 100 && ink.x < 104, ink.y > 60 && ink.y < 63, Math.round(ink.total * 100)]).toEqual([
    true,
    true,
    345,
  ]);
  // What lies beside the sheet is on no plate, and no ink of it is listed.
  expect(usedChannels(scene, palette)).toEqual([0, 1, 2, 3]);
});

test('a combination that no engine could do rightly is a stop', () => {
  const b = new DesignBuilder(newDesign('Close', setupOf(100, 100, { bleed: 0 }), making), making);
  const [one] = block(10, 10, 20, 20)(b);
  b.place(0, [b.combination('Seam', 'union', [one], {})]);
  const design = b.done();
  const built = engines.builder.build(design, design.pages[0]);
  const scene = {
    ...built,
    root: { ...built.root, findings: { ...built.root.findings, unsure: [design.pages[0].children[0]] } },
  };
  const subject = { design, page: design.pages[0], scene } as Partial<Subject> as Subject;
  expect([...unsureRule.find(subject)]).toEqual([{ node: design.pages[0].children[0], facts: {} }]);
  expect(unsureRule.say({}, 'Seam').message).toBe(
    'Seam could not be combined rightly; what is shown is only near to it.',
  );
  expect(engines.builder.build(design, design.pages[0]).root.findings.unsure).toEqual([]);
});
