import { PDFDict, PDFDocument, PDFName, PDFNumber, PDFRawStream } from '@cantoo/pdf-lib';
import { newDesign, setupOf } from '@/core/model/defaults';
import type { Design } from '@/core/model/schema';
import { prepare, type Engines } from '@/core/engines';
import { inOneInk } from '@/core/output/pdf/oneInk';
import { readingOrder } from '@/core/output/pdf/readingOrder';
import { sheetsOf } from '@/core/output/pdf/sheets';
import { resampled } from '@/core/pictures/resample';
import { rasterPlates } from '@/core/render/plates';
import { regionOf } from '@/core/render/region';
import { bleedRect } from '@/core/scene/scene';
import { DesignBuilder, flat } from '@/demo/builder';
import { demoDesigns } from '@/demo/demos';
import { checkX4 } from '../support/checkX4';
import { faults } from '../support/faults';
import { separate } from '../support/ghostscript';
import { pdfOf, platesOf } from '../support/press';
import { tool, unpacked } from '../support/qpdf';
import { cmyk, making, sampleDesign } from '../support/sample';
import { testEngines } from '../support/engines';
import { fullTest } from '../support/measured';

let engines: Engines;
beforeAll(async () => {
  engines = await testEngines();
});
const opened = (pdf: Uint8Array) => PDFDocument.load(pdf, { updateMetadata: false });
const programme = (): Design => demoDesigns().find((d) => d.file.includes('programme'))!.design;

describe('marks, each by itself', () => {
  const none = { crop: false, registration: false, bar: false, words: false };
  const size = async (pdf: Uint8Array) => (await opened(pdf)).getPage(0).getMediaBox();
  test('the sheet has room for marks only where there are any, and each is drawn alone', async () => {
    const d = sampleDesign();
    const bare = await pdfOf(engines, d, { marks: none });
    expect(await size(bare)).toEqual(await size(await pdfOf(engines, d, { marks: false })));
    const drawn: Record<string, number> = {};
    for (const mark of ['crop', 'registration', 'bar', 'words'] as const) {
      const pdf = await pdfOf(engines, d, { marks: { ...none, [mark]: true } });
      expect((await size(pdf)).width).toBeGreaterThan((await size(bare)).width);
      expect(await checkX4(pdf)).toEqual([]);
      // What is in every plate: lines and targets; the bar is not.
      drawn[mark] = (unpacked(pdf).match(/\/All (cs|CS)/g) ?? []).length;
      const [plates] = separate(pdf, 72, ['-dUseCropBox']);
      expect(plates.size).toBeGreaterThan(0);
    }
    expect(drawn.bar).toBe(0);
    for (const mark of ['crop', 'registration', 'words']) expect(drawn[mark]).toBeGreaterThan(0);
  });
});

fullTest('without bleed the file ends at the cut, and its plates are the same within', async () => {
  const d = sampleDesign();
  const pdf = await pdfOf(engines, d, { bleed: false });
  const page = (await opened(pdf)).getPage(0);
  expect(page.getBleedBox()).toEqual(page.getTrimBox());
  expect(page.getMediaBox()).toEqual(page.getTrimBox());
  const cut = { ...d, setup: { ...d.setup, bleed: 0 } };
  expect(faults(await platesOf(engines, cut, 100), separate(pdf, 100)[0])).toEqual([]);
});

test('a plain PDF says 1.7, claims to be no PDF/X, and tells programs what its inks look like', async () => {
  const d = { ...sampleDesign(), about: { author: 'Ebba Kell', subject: 'Lanterns', keywords: 'walk, dusk' } };
  const pdf = await pdfOf(engines, d, { standard: 'plain' });
  expect(Buffer.from(pdf.subarray(0, 8)).toString('latin1')).toBe('%PDF-1.7');
  const text = unpacked(pdf);
  expect(text).not.toContain('GTS_PDFX');
  expect(text).toMatch(/\/DefaultCMYK/);
  const told = tool('pdfinfo', pdf);
  expect(told).toMatch(/Author:\s+Ebba Kell/);
  expect(told).toMatch(/Subject:\s+Lanterns/);
  expect(told).toMatch(/Keywords:\s+walk, dusk/);
});

fullTest('letters as outlines: no face in the file, no words to find, the same plates', async () => {
  const d = sampleDesign();
  const pdf = await pdfOf(engines, d, { outlines: true });
  expect(tool('pdffonts', pdf).trim().split('\n')).toHaveLength(2);
  expect(tool('pdftotext', pdf, 'FILE', '-').trim()).toBe('');
  // Ghostscript paints every part of a pixel that an outline touches: finer, that weighs less.
  expect(faults(await platesOf(engines, d, 300), separate(pdf, 300)[0])).toEqual([]);
});

test('spot inks as their stand-ins, and all in one ink', async () => {
  const d = sampleDesign();
  const standing = { ...d, inks: d.inks.map((i) => ({ ...i, asStandIn: true })) };
  const plates = [...separate(await pdfOf(engines, standing), 72)[0].keys()].sort();
  expect(plates).toEqual(['Black', 'Cyan', 'Magenta', 'Yellow']);
  const [ink] = d.inks;
  const pdf = await pdfOf(engines, d, { spots: 'one', ink: ink.id });
  const inked = [...separate(pdf, 72)[0]].filter(([, p]) => p.data.some((v) => v < 250)).map(([name]) => name);
  expect(inked).toEqual([ink.name]);
});

test('one ink: a colour is the tint that is as much lighter as the colour is; tints of that ink stay', async () => {
  const b = new DesignBuilder(newDesign('One', setupOf(100, 20, { bleed: 0 }), making), making);
  const box = (x: number, c: Parameters<typeof flat>[0]) =>
    b.shape('Box', 'rectangle', { x, y: 0, w: 20, h: 20 }, { fill: flat(c) });
  b.place(0, [
    box(0, cmyk(0, 0, 0, 35)),
    box(20, cmyk(0, 0, 0, 100)),
    box(40, cmyk(0, 0, 0, 0)),
    box(60, cmyk(0, 60, 80, 0)),
    box(80, cmyk(70, 70, 70, 90)),
  ]);
  const d = b.done();
  const palette = await prepare(engines, d);
  const scene = inOneInk(engines.builder.build(d, d.pages[0]), palette, 'black');
  const { data, region } = rasterPlates(scene, palette, regionOf(bleedRect(scene), 72))!;
  const at = (x: number) => data.map((p) => p[10 * region.width + x] / 255);
  expect(at(10)[3]).toBeCloseTo(0.35, 2);
  expect(at(30)[3]).toBe(1);
  expect(at(50)[3]).toBe(0);
  const L = (mix: number[]) => palette.labOfMix(mix)[0];
  expect(at(70)[3]).toBeCloseTo((100 - L([0, 0.6, 0.8, 0])) / (100 - L([0, 0, 0, 1])), 2);
  expect(at(90)[3]).toBe(1);
  for (const x of [10, 30, 50, 70, 90]) expect(at(x).slice(0, 3)).toEqual([0, 0, 0]);
});

describe('pages that face each other', () => {
  test('are one sheet where both are asked for', () => {
    const d = programme();
    const sheets = sheetsOf(d, d.pages, true);
    expect(sheets.flat()).toEqual(d.pages);
    expect(sheets.some((s) => s.length === 2)).toBe(true);
    expect(sheetsOf(d, [d.pages[2]], true)).toEqual([[d.pages[2]]]);
    expect(sheetsOf(d, d.pages, false)).toHaveLength(d.pages.length);
    // A page that is asked for twice comes twice.
    expect(sheetsOf(d, [d.pages[0], d.pages[0]], false)).toHaveLength(2);
  });
  test('lie side by side, their plates as those of each page', async () => {
    const d = programme();
    const pair = sheetsOf(d, d.pages, true).find((s) => s.length === 2)!;
    const pages = d.pages.map((p) => d.pages.indexOf(p)).filter((i) => pair.includes(d.pages[i] as never));
    const two = { ...d, pages: d.pages.filter((p) => (pair as readonly unknown[]).includes(p)), setup: d.setup };
    const facing = two.setup.facing!;
    // Counted from its first page a pair begins on the left.
    const design = {
      ...two,
      setup: { ...two.setup, facing: pages[0] % 2 === 0 ? facing : facing === 'left' ? 'right' : 'left' },
    } as Design;
    const pdf = await pdfOf(engines, design, { spreads: true });
    const doc = await opened(pdf);
    expect(doc.getPageCount()).toBe(1);
    expect(doc.getPage(0).getTrimBox().width).toBeCloseTo(2 * design.setup.width, 3);
    const whole = separate(pdf, 72)[0];
    const left = await platesOf(engines, design, 72, 0);
    const right = await platesOf(engines, design, 72, 1);
    for (const [ink, plate] of whole) {
      const ends = [left.get(ink), right.get(ink)];
      if (!ends[0] || !ends[1]) continue;
      const ink_ = (p: { data: ArrayLike<number> }) => Array.from(p.data).reduce((sum, v) => sum + 255 - v, 0);
      const parts = ink_(ends[0]) + ink_(ends[1]);
      // The bleeds at the fold are in both pages' plates and not on the sheet: a few of a hundred.
      expect(Math.abs(ink_(plate) - parts)).toBeLessThan(0.06 * parts + 4000);
    }
  });
});

fullTest('pictures have no more pixels than are asked for where they lie largest', async () => {
  const d = demoDesigns().find(
    (x) => (x.design.pictures ?? []).length > 0 && x.design.setup.medium === 'print',
  )!.design;
  const widths = async (pdf: Uint8Array) =>
    (await opened(pdf)).context
      .enumerateIndirectObjects()
      .flatMap(([, o]) =>
        o instanceof PDFRawStream &&
        String(o.dict.get(PDFName.of('Subtype'))) === '/Image' &&
        o.dict.has(PDFName.of('ColorSpace'))
          ? [(o.dict.get(PDFName.of('Width')) as PDFNumber).asNumber()]
          : [],
      )
      .reduce((a, b) => a + b, 0);
  const [all, few] = [await widths(await pdfOf(engines, d)), await widths(await pdfOf(engines, d, { ppi: 72 }))];
  expect(few).toBeLessThan(all * 0.7);
});

test('fewer pixels: each is the mean of what it stands for', () => {
  const data = new Uint8Array([10, 20, 30, 40, 50, 60, 10, 20, 30, 40, 50, 60]);
  const p = { width: 6, height: 2, space: 'gray', data, alpha: null, icc: null, ppi: null } as const;
  expect([...resampled(p, 3).data]).toEqual([15, 35, 55]);
  // Four of six: each takes one and a half.
  expect([...resampled(p, 4).data]).toEqual(
    [10 * (2 / 3) + 20 / 3, 20 / 3 + 20, 0, 0].map((_, i) => [13, 27, 43, 57][i]),
  );
  expect(resampled(p, 600)).toBe(p);
  const clear = { ...p, alpha: new Uint8Array([255, 0, 0, 0, 255, 255, 255, 0, 0, 0, 255, 255]) };
  const half = resampled(clear, 3);
  expect([...half.data].map((v, i) => (half.alpha![i] ? v : -1))).toEqual([10, -1, 55]);
  expect([...half.alpha!]).toEqual([128, 0, 255]);
});

test('layers can be shown and hidden, under their names, in a file for the press too', async () => {
  const d = demoDesigns().find((x) => Object.values(x.design.nodes).some((n) => n.kind === 'group' && n.layer))?.design;
  const design = d ?? withLayers();
  const pdf = await pdfOf(engines, design, { layers: true });
  expect(await checkX4(pdf)).toEqual([]);
  const named = Object.values(design.nodes).flatMap((n) =>
    n.kind === 'group' && n.layer && !n.hidden ? [n.name] : [],
  );
  const text = unpacked(pdf);
  for (const name of named) expect(text).toContain(`/Name (${name})`);
  expect(text.match(/\/OC \/L\d+ BDC/g)!.length).toBeGreaterThanOrEqual(named.length);
  const bmc = (text.match(/ (BDC|BMC)$/gm) ?? []).length;
  expect((text.match(/^EMC$/gm) ?? []).length).toBe(bmc);
});
function withLayers(): Design {
  const b = new DesignBuilder(newDesign('Layered', setupOf(100, 100, { bleed: 0 }), making), making);
  const layer = (name: string, x: number) => {
    const id = b.group(name, [
      b.shape('Box', 'rectangle', { x, y: 10, w: 30, h: 30 }, { fill: flat(cmyk(0, 90, 0, 0)) }),
    ]);
    return b.together(id, { layer: true } as never);
  };
  b.place(0, [layer('Below', 10), layer('Above', 30)]);
  return b.done();
}

describe('read aloud', () => {
  test('order: bands from the top, columns within them', () => {
    const box = (x: number, y: number, w: number, h: number) => ({ x0: x, y0: y, x1: x + w, y1: y + h });
    // A headline, two columns of two, a foot; given from the foot up.
    const boxes = [
      box(0, 90, 100, 8),
      box(55, 50, 45, 30),
      box(55, 20, 45, 25),
      box(0, 52, 45, 30),
      box(0, 20, 45, 30),
      box(0, 0, 100, 10),
    ];
    expect(readingOrder(boxes)).toEqual([5, 4, 3, 2, 1, 0]);
    expect(readingOrder([])).toEqual([]);
  });

  test('words are paragraphs, pictures have what is said of them, all else is ornament; nothing of the plates changes', async () => {
    const given = sampleDesign();
    const shape = Object.values(given.nodes).find((n) => n.kind === 'shape')!;
    const d: Design = { ...given, nodes: { ...given.nodes, [shape.id]: { ...shape, alt: 'A lantern over water' } } };
    const pdf = await pdfOf(engines, d, { standard: 'plain', tagged: true, marks: true });
    const told = tool('pdfinfo', pdf, '-struct-text', 'FILE');
    expect(tool('pdfinfo', pdf)).toMatch(/Tagged:\s+yes/);
    expect(told).toMatch(/Document/);
    expect(told).toMatch(/^\s+P/m);
    expect(told).toMatch(/Figure/);
    const text = unpacked(pdf);
    expect(text).toContain('A lantern over water');
    expect(text).toMatch(/\/Lang \(en\)/);
    const begun = (text.match(/ (BDC|BMC)$/gm) ?? []).length;
    expect((text.match(/^EMC$/gm) ?? []).length).toBe(begun);
    const press = await pdfOf(engines, d, { tagged: true, layers: true });
    expect(await checkX4(press)).toEqual([]);
    expect(faults(await platesOf(engines, d, 100), separate(press, 100)[0])).toEqual([]);
    // Every element says where it is, and every place says whose it is.
    const doc = await opened(pdf);
    const root = doc.catalog.lookup(PDFName.of('StructTreeRoot'), PDFDict);
    expect(root.has(PDFName.of('ParentTree'))).toBe(true);
  });
});
