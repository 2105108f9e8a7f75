import { Resvg } from '@resvg/resvg-js';
import { SPOT_LIBRARY } from '@/core/colour/spotLibrary';
import { firstGradient } from '@/core/edit/gradient';
import { record, tryOut, undoEntry } from '@/core/edit/history';
import { setOutlineStyle } from '@/core/edit/paint';
import { asScreen, prepare, type Engines } from '@/core/engines';
import { readSvg } from '@/core/input/svg/read';
import { newDesign, outlineOf, runOf, setupOf } from '@/core/model/defaults';
import { visitPaints } from '@/core/model/paints';
import type { Design, NodeOf, Outline } from '@/core/model/schema';
import { verifyDesign } from '@/core/model/verify';
import { writePng } from '@/core/output/png';
import { writeSvg } from '@/core/output/svg/write';
import type { Leaf } from '@/core/scene/scene';
import { walk } from '@/core/scene/walk';
import { DesignBuilder, flat } from '@/demo/builder';
import { decode } from 'fast-png';
import { checkX4 } from '../support/checkX4';
import { faults } from '../support/faults';
import { separate } from '../support/ghostscript';
import { pdfOf, platesOf } from '../support/press';
import { words as wordsIn } from '../support/qpdf';
import { cmyk, making } from '../support/sample';
import { testEngines } from '../support/engines';

let engines: Engines;
beforeAll(async () => {
  engines = await testEngines();
});

/** A gradient on a line is painted by Ghostscript on every dot that it touches: at more dots it weighs less. */
const DPI = 450;

/**
 * Lines in dashes: caps, joins, offsets, a second colour, over a gradient and along it, overprinting, of letters,
 * behind.
 */
function page(letters = true): Design {
  const b = new DesignBuilder(newDesign('Dashes', setupOf(420, 300, { bleed: 9 }), making), making);
  const ember = b.spot(SPOT_LIBRARY[0]);
  const teal = cmyk(80, 0, 40, 0);
  const sweep = firstGradient(
    'linear',
    { x0: 0, y0: 0, x1: 100, y1: 60 },
    [
      { offset: 0, colour: cmyk(90, 40, 0, 0) },
      { offset: 1, colour: cmyk(0, 50, 90, 0) },
    ],
    false,
  );
  const line = (paint: Outline['paint'], width: number, more: Partial<Outline>): Outline => ({
    ...outlineOf(paint, width),
    ...more,
  });
  const box = (name: string, shape: string, x: number, y: number, outline: Outline) =>
    b.shape(name, shape, { x, y, w: 100, h: 60 }, { fill: flat(cmyk(5, 0, 20, 0)), outline });
  const words = b.displayText('Words', 24, 280, [
    {
      runs: [
        {
          ...runOf('WALK', 60, flat(cmyk(0, 0, 60, 0)), 'archivo-800'),
          outline: line(flat(teal), 2, { dashes: [9, 6] }),
        },
      ],
    },
  ]);
  b.place(0, [
    box('Butt', 'rectangle', 20, 20, line(flat(teal), 4, { dashes: [12, 6] })),
    box('Pills', 'rectangle', 150, 20, line(flat(ember), 5, { cap: 'round', dashes: [12, 12, 0, 12] })),
    box('Joined', 'star', 290, 16, line(flat(teal), 4, { cap: 'square', dashes: [20, 9], dashOffset: 7 })),
    box(
      'Two colours',
      'ellipse',
      20,
      110,
      line(flat(ember, true), 6, { dashes: [14, 10], between: flat(teal) as Outline['between'] }),
    ),
    box('Gradient', 'rectangle', 150, 110, line(sweep, 12, { join: 'round', dashes: [30, 14] })),
    box(
      'Along',
      'ellipse',
      290,
      110,
      line({ ...sweep, strokeMapping: 'along' } as Outline['paint'], 12, { dashes: [30, 14] }),
    ),
    box('Behind', 'rectangle', 290, 200, line(flat(teal), 9, { behind: true, dashes: [9, 9], dashOffset: -4 })),
    ...(letters ? [words] : []),
  ]);
  return b.done();
}

const svgOf = async (design: Design) => {
  const palette = await prepare(engines, design);
  return writeSvg(engines.builder.build(design, design.pages[0]), palette, design.name, (f) => engines.env.asset(f));
};

// Oracle: Ghostscript tiffsep of our PDF, the rule as tests/support/agree.ts states it.
test('dashed lines of every kind: plates agree, and the file keeps the rules', async () => {
  // Not of letters: where a dash ends just behind a corner, that program cuts a notch into it.
  const design = page(false);
  await prepare(engines, design);
  expect(verifyDesign(page())).toMatchObject({ ok: true });
  const ours = await platesOf(engines, design, DPI);
  const pdf = await pdfOf(engines, design);
  expect(faults(ours, separate(pdf, DPI)[0], 'dashes')).toEqual([]);
  expect(await checkX4(pdf)).toEqual([]);
});

// Oracle: resvg.
test('the SVG says dashes in its own words and looks as the page does', async () => {
  const design = page();
  const { svg } = await svgOf(design);
  expect(svg).toContain('stroke-dasharray="12 6"');
  expect(svg).toContain('stroke-dashoffset="7"');
  const light = asScreen(design);
  const palette = await prepare(engines, light);
  const ours = decode(writePng(engines.builder.build(light, light.pages[0]), palette, 144));
  const theirs = new Resvg((await svgOf(light)).svg, {
    fitTo: { mode: 'width', value: ours.width },
    background: 'white',
  }).render();
  expect([theirs.width, theirs.height]).toEqual([ours.width, ours.height]);
  const { pixels } = theirs;
  let sum = 0;
  const channels = ours.channels;
  for (let i = 0; i < ours.width * ours.height; i++)
    for (let c = 0; c < 3; c++) sum += Math.abs(Number(ours.data[i * channels + c]) - pixels[i * 4 + c]);
  expect(sum / (ours.width * ours.height * 3)).toBeLessThan(0.3);
});

test('dashes of a drawing stay dashes of one line; odd ones are doubled, too many become pieces', async () => {
  const svg = (dash: string) =>
    new TextEncoder().encode(
      `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 100 100"><path d="M10 10H90V90" fill="none" stroke="#246" stroke-width="4" stroke-dasharray="${dash}" stroke-dashoffset="3"/></svg>`,
    );
  const read = async (dash: string) => {
    const { clip } = await readSvg(svg(dash), 'dashes', { ...engines.env, fonts: engines.fonts });
    return Object.values(clip.nodes).filter((n): n is NodeOf<'path'> => n.kind === 'path');
  };
  const [one] = await read('8 4');
  expect(one.outlines[0]).toMatchObject({ width: 4, dashes: [8, 4], dashOffset: 3 });
  expect((await read('8'))[0].outlines[0].dashes).toEqual([8, 8]);
  const [many] = await read(Array.from({ length: 40 }, (_, i) => 1 + (i % 3)).join(' '));
  expect(many.outlines[0].dashes).toBeUndefined();
  expect((await read('none'))[0].outlines[0].dashes).toBeUndefined();
});

test('letters have dashes and a second colour as shapes have; their words are said once', async () => {
  const design = page();
  await prepare(engines, design);
  const words = Object.values(design.nodes).find((n) => n.name === 'Words')!;
  const two = tryOut(design, (d) => {
    setOutlineStyle(
      d,
      [words.id],
      'letterOutline',
      { between: flat(cmyk(0, 90, 0, 0)) as Outline['between'] },
      flat(cmyk(0, 0, 0, 100)),
    );
  });
  const found: Leaf[] = [];
  walk(engines.builder.build(two, two.pages[0]).root, (leaf) => void (leaf.node === words.id && found.push(leaf)));
  expect(found.map((l) => (l.type === 'stroke' ? (l.stroke.dash ? 'dashes' : 'whole') : l.type))).toEqual([
    'glyphs',
    'whole',
    'dashes',
  ]);
  expect(wordsIn(await pdfOf(engines, two)).split('WALK')).toHaveLength(2);
});

test('dashes are set and taken away without a trace; the second colour is met like any other', () => {
  const design = page();
  const id = Object.values(design.nodes).find((n) => n.name === 'Butt')!.id;
  const step = record(design, 'Dashes', (d) =>
    setOutlineStyle(d, [id], 'outline', { dashes: [3, 1], dashOffset: 2 }, flat(cmyk(0, 0, 0, 100))),
  )!;
  const lineOf = (d: Design) => (d.nodes[id] as NodeOf<'shape'>).outlines[0];
  expect(lineOf(step.design)).toMatchObject({ dashes: [3, 1], dashOffset: 2 });
  expect(undoEntry(step.design, step.entry)).toEqual(design);
  const whole = record(design, 'Whole', (d) =>
    setOutlineStyle(d, [id], 'outline', { dashes: undefined } as never, flat(cmyk(0, 0, 0, 100))),
  )!;
  expect('dashes' in lineOf(whole.design)).toBe(false);
  const between = (Object.values(design.nodes).find((n) => n.name === 'Two colours') as NodeOf<'shape'>).outlines[0]
    .between;
  const met: unknown[] = [];
  visitPaints(design, (p) => void met.push(p));
  expect(between).toBeDefined();
  expect(met).toContain(between);
  for (const bad of [[1], [0, 0], [1, -1], Array(34).fill(1)]) {
    const broken = structuredClone(design) as unknown as {
      nodes: Record<string, { outlines: { dashes: number[] }[] }>;
    };
    broken.nodes[id].outlines[0].dashes = bad;
    expect(verifyDesign(broken)).toMatchObject({ ok: false });
  }
});
