import { Resvg } from '@resvg/resvg-js';
import { QUIET } from '@/core/output/job';
import { writePdf } from '@/core/output/pdf/write';
import { writeSvg } from '@/core/output/svg/write';
import { makeGroup, NO_FINDINGS, type Group, type Scene } from '@/core/scene/scene';
import { withContent } from '@/core/scene/walk';
import { prepare, type Engines } from '@/core/engines';
import { faults } from '../support/faults';
import { separate } from '../support/ghostscript';
import { platesOf } from '../support/press';
import { unpacked } from '../support/qpdf';
import { sampleDesign } from '../support/sample';
import { testEngines } from '../support/engines';

let engines: Engines;
beforeAll(async () => {
  engines = await testEngines();
});

// Oracle: Ghostscript tiffsep; qpdf unpacks the file.
test('a page that is met again is one form in the PDF, and both its pages have its plates', async () => {
  const design = sampleDesign();
  const [page] = design.pages;
  const palette = await prepare(engines, design);
  const write = (pages: typeof design.pages) =>
    writePdf(design, pages, engines.builder, palette, engines.env, { marks: false }, QUIET);
  const [once, thrice] = [await write([page]), await write([page, page, page])];
  // Thrice the pages, hardly more to read.
  expect(thrice.length).toBeLessThan(once.length * 1.05 + 4000);
  const drawn = unpacked(thrice).match(/^\/X\d+ Do$/gm)!;
  expect(drawn.filter((op) => op === drawn.at(-1)).length).toBe(3);
  const ours = await platesOf(engines, design, 100);
  for (const theirs of separate(thrice, 100)) expect(faults(ours, theirs)).toEqual([]);
});

// Oracle: resvg draws both drawings.
test('a group that is met again on a page is used again in SVG, and looks as if it were drawn twice', async () => {
  const design = sampleDesign();
  const palette = await prepare(engines, design);
  const scene = engines.builder.build(design, design.pages[0]);
  const half = (): Group =>
    makeGroup({
      node: 'half',
      content: scene.root.content.slice(0, 3),
      opacity: 0.5,
      blend: null,
      clips: [],
      masks: [],
      effects: [],
      findings: NO_FINDINGS,
    });
  const one = half();
  const [shared, apart] = [
    withContent(scene, [one, ...scene.root.content.slice(3, 6), one]),
    withContent(scene, [half(), ...scene.root.content.slice(3, 6), half()]),
  ];
  const svg = async (s: Scene) => (await writeSvg(s, palette, 'Twice', (f) => engines.env.asset(f))).svg;
  const [a, b] = [await svg(shared), await svg(apart)];
  expect([a.match(/<use /g)?.length, b.match(/<use /g)]).toEqual([1, null]);
  expect(a.length).toBeLessThan(b.length);
  const pixels = (text: string) => new Resvg(text, { fitTo: { mode: 'width', value: 300 } }).render().pixels;
  expect(Buffer.compare(pixels(a), pixels(b))).toBe(0);
});
