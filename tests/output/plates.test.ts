import { SPOT_LIBRARY } from '@/core/colour/spotLibrary';
import { newDesign, setupOf } from '@/core/model/defaults';
import type { Colour, Design } from '@/core/model/schema';
import { pagePlates } from '@/core/output/png';
import { mostInk } from '@/core/render/pageInk';
import { asPrint, prepare, type Engines } from '@/core/engines';
import { DesignBuilder, flat } from '@/demo/builder';
import { demoDesigns } from '@/demo/demos';
import type { Grey } from '../support/agree';
import { faults } from '../support/faults';
import { withoutGrain } from '../support/grain';
import { pdfOf, platesOf } from '../support/press';
import { unpacked } from '../support/qpdf';
import { separate } from '../support/ghostscript';
import { cmyk, coloursDesign, making, drawnDesign, sampleDesign } from '../support/sample';
import { testEngines } from '../support/engines';

const DPI = 100;
/** Relative colorimetric with black-point compensation, as we separate. */
const KEPT = ['-dRenderIntent=1', '-dBlackPtComp=1'];
let engines: Engines;
beforeAll(async () => {
  engines = await testEngines();
});

async function both(design: Design, drop?: string, dpi = DPI): Promise<{ ours: Map<string, Grey>; pdf: Uint8Array }> {
  const given = drop
    ? {
        ...design,
        nodes: Object.fromEntries(
          Object.entries(design.nodes).map(([id, n]) => [id, n.name === drop ? { ...n, hidden: true } : n]),
        ),
      }
    : design;
  return { ours: await platesOf(engines, design, dpi), pdf: await pdfOf(engines, given, { marks: true }) };
}

// Oracle: Ghostscript tiffsep, the rule as tests/support/agree.ts states it.
describe('plates agree with those that Ghostscript makes of our PDF', () => {
  test('the demo poster', async () => {
    const { ours, pdf } = await both(demoDesigns()[0].design);
    expect(faults(ours, separate(pdf, DPI)[0], 'demo poster')).toEqual([]);
    expect([...ours.keys()]).toEqual(['Cyan', 'Magenta', 'Yellow', 'Black', 'Ember 66-43', 'Kelp 38-167']);
  });

  test('a page of every kind of paint, line and text', async () => {
    const { ours, pdf } = await both(sampleDesign());
    expect(faults(ours, separate(pdf, DPI)[0], 'sample page')).toEqual([]);
  });

  test('a page of every way a colour can be printed', async () => {
    const { ours, pdf } = await both(coloursDesign());
    expect(faults(ours, separate(pdf, DPI)[0], 'colours page')).toEqual([]);
    // The ink that prints from its stand-in has no plate, here or there.
    expect([...ours.keys()]).toEqual(['Cyan', 'Magenta', 'Yellow', 'Black', 'Ember 66-43', 'Chalk Dust 92-90']);
    expect([...separate(pdf, DPI)[0].keys()]).not.toContain('Kelp 38-167');
  });

  test('a page of drawn and combined shapes', async () => {
    const { ours, pdf } = await both(drawnDesign());
    expect(faults(ours, separate(pdf, DPI)[0], 'drawn page')).toEqual([]);
  });

  /**
   * Dots at which each pixel of the signs' sailcloth is one of the plates': programs make pictures smaller each in its
   * way.
   */
  const SAILCLOTH = 384;

  // Letters of 9 pt are thinner than a pixel at 100 dpi, where two programs’ smoothing says nothing: these at 200 (the
  // A4 page, the ticket and the signs in the full run).
  test.each(
    demoDesigns()
      .slice(...(process.env.HOLVET_FULL ? [1] : [3, 5]))
      .map((d) => [d.file, d.design] as const),
  )('the demo’s %s', async (file, design) => {
    // Ghostscript paints every part of a pixel that a line touches: on a small sheet thin lines need more dots to weigh
    // the same.
    const dpi = design.setup.medium === 'screen' ? SAILCLOTH : design.setup.width < 200 ? 400 : 200;
    const { ours, pdf } = await both(withoutGrain(asPrint(design)), undefined, dpi);
    // A cutter’s line is four dots wide: it lies where it should, and weighs more there by a dot’s part on either side.
    const thin = design.inks.filter((i) => i.overprints).map((i) => `${i.name}: `);
    const found = faults(ours, separate(pdf, dpi)[0], `${file}, ${dpi} dpi`);
    expect(found.filter((f) => !(f.endsWith('of ink') && thin.some((ink) => f.startsWith(ink))))).toEqual([]);
  });

  // Kept colours are separated by Ghostscript from the tagged sRGB: 4/255 (the plan's tolerance for tagged RGB).
  test('screen colours that are kept RGB', async () => {
    const design = coloursDesign();
    const pdf = await pdfOf(engines, design, { marks: true, keepRgb: true });
    const { ours, pdf: converted } = await both(design);
    const kept = separate(pdf, DPI, KEPT)[0];
    expect(faults(ours, kept, 'colours page, RGB kept', 4)).toEqual([]);
    expect(unpacked(pdf)).toMatch(/\/Screen \d+ 0 R/);
    expect(unpacked(converted)).not.toMatch(/\/Screen/);
  });

  test('self-test: one object missing from the PDF is found', async () => {
    const { ours, pdf } = await both(sampleDesign(), 'Spot overprints');
    expect(faults(ours, separate(pdf, DPI)[0]).length).toBeGreaterThan(0);
  });

  test('self-test: with overprint switched off in Ghostscript they must not agree', async () => {
    const { ours, pdf } = await both(sampleDesign());
    expect(faults(ours, separate(pdf, DPI, ['-dOverprint=/disable'])[0]).length).toBeGreaterThan(0);
  });
});

describe('what lies below an object', () => {
  const at = (design: Design, ink: string) => async () => {
    const palette = await prepare(engines, design);
    const plates = pagePlates(engines.builder.build(design, design.pages[0]), palette, 72);
    const { width, height } = plates.region;
    return Math.round(
      (plates.data[plates.channels.indexOf(ink)][Math.floor(height / 2) * width + Math.floor(width / 2)] / 255) * 100,
    );
  };
  const page = (top: Colour | 'ember', overprint: boolean): Design => {
    const b = new DesignBuilder(newDesign('Two', setupOf(40, 40, { bleed: 0 }), making), making);
    const ember = b.spot(SPOT_LIBRARY[0]);
    b.place(0, [
      b.shape('Below', 'rectangle', { x: 0, y: 0, w: 40, h: 40 }, { fill: flat(cmyk(60, 0, 0, 0)) }),
      b.shape(
        'Above',
        'rectangle',
        { x: 10, y: 10, w: 20, h: 20 },
        { fill: flat(top === 'ember' ? ember : top, overprint) },
      ),
    ]);
    return b.done();
  };
  // PDF 32000-1 8.6.7, overprint mode 1.
  test.each<[string, Colour | 'ember', boolean, number, string, number]>([
    ['a spot that overprints leaves it', 'ember', true, 60, 'Ember 66-43', 100],
    ['a spot that does not cuts it out', 'ember', false, 0, 'Ember 66-43', 100],
    ['black that overprints leaves it', cmyk(0, 0, 0, 100), true, 60, 'Black', 100],
    ['black that does not cuts it out', cmyk(0, 0, 0, 100), false, 0, 'Black', 100],
    ['magenta that overprints leaves it', cmyk(0, 50, 0, 0), true, 60, 'Magenta', 50],
    ['bare stock that overprints vanishes', cmyk(0, 0, 0, 0), true, 60, 'Black', 0],
    ['bare stock that does not cuts it out', cmyk(0, 0, 0, 0), false, 0, 'Black', 0],
    ['cyan that overprints takes its own plate over', cmyk(20, 50, 0, 0), true, 20, 'Magenta', 50],
  ])('%s', async (_, top, overprint, cyan, ink, amount) => {
    const design = page(top, overprint);
    expect(await at(design, 'Cyan')()).toBe(cyan);
    expect(await at(design, ink)()).toBe(amount);
  });
});

test('total ink is the sum of the plates at its fullest point', async () => {
  const b = new DesignBuilder(newDesign('Ink', setupOf(40, 40, { bleed: 0 }), making), making);
  b.place(0, [b.shape('Dark', 'rectangle', { x: 5, y: 5, w: 10, h: 10 }, { fill: flat(cmyk(80, 70, 60, 90)) })]);
  const design = b.done();
  const palette = await prepare(engines, design);
  const most = mostInk(pagePlates(engines.builder.build(design, design.pages[0]), palette, 72));
  expect(most.total).toBeCloseTo(3, 1);
  expect(most.x).toBeGreaterThan(5);
  expect(most.x).toBeLessThan(15);
});

test('the same design gives the same bytes', async () => {
  const design = sampleDesign();
  const [a, b] = [await both(design), await both(design)];
  expect(Buffer.from(a.pdf).equals(Buffer.from(b.pdf))).toBe(true);
});
