import { readFacts } from '@/core/input/pdf/facts';
import { readContent, BrokenContent } from '@/core/input/pdf/tokens';
import { asPrint, prepare, type Engines } from '@/core/engines';
import { bleedRect, trimRect } from '@/core/scene/scene';
import { usedChannels } from '@/core/scene/used';
import { demoDesigns } from '@/demo/demos';
import { coloursDesign, drawnDesign, sampleDesign } from '../support/sample';
import { pdfOf } from '../support/press';
import { testEngines } from '../support/engines';

let engines: Engines;
beforeAll(async () => {
  engines = await testEngines();
});
const names = (list: Iterable<string>) => [...list].sort();

// Every demo design in the full run; a few of them else.
const DESIGNS = [
  ...demoDesigns()
    .slice(...(process.env.HOLVET_FULL ? [0] : [2, 4]))
    .map((d) => [d.file, asPrint(d.design)] as const),
  ['sample', sampleDesign()] as const,
  ['colours', coloursDesign()] as const,
  ['drawn', drawnDesign()] as const,
];

test.each(DESIGNS)('%s: boxes, inks, faces and pages as read from the file are those we made', async (_, design) => {
  const palette = await prepare(engines, design);
  const read = await readFacts(await pdfOf(engines, design, { marks: true }));
  if (!read.ok) throw new Error(read.message);
  const { facts } = read;
  expect([facts.version, facts.standard, facts.title]).toEqual(['1.6', 'PDF/X-4', design.name]);
  expect(facts.intent?.space).toBe('CMYK');
  expect(facts.pages).toHaveLength(design.pages.length);
  expect(facts.fonts.every((f) => f.embedded)).toBe(true);
  expect(facts.acts).toEqual([]);
  facts.pages.forEach((page, i) => {
    const scene = engines.builder.build(design, design.pages[i]);
    const [trim, bleed] = [trimRect(scene), bleedRect(scene)];
    expect(page.trim!.x1 - page.trim!.x0).toBeCloseTo(trim.x1, 3);
    expect(page.trim!.y1 - page.trim!.y0).toBeCloseTo(trim.y1, 3);
    expect(page.bleed!.x1 - page.bleed!.x0).toBeCloseTo(bleed.x1 - bleed.x0, 3);
    expect(page.faults).toEqual([]);
    expect(page.untaggedRgb).toBeNull();
    // What we take to ink may be more than what the file’s samples show, never less.
    const ours = names(usedChannels(scene, palette).map((c) => palette.channels[c]));
    const photo = page.pictures.length > 0;
    if (photo) expect(ours).toEqual(expect.arrayContaining(names(page.inks)));
    else expect(names(page.inks)).toEqual(ours);
  });
});

describe('content', () => {
  const read = (text: string) => {
    const met: [string, unknown][] = [];
    readContent(new TextEncoder().encode(text), (op, args) => met.push([op, args]));
    return met;
  };
  test('operators, with all kinds of operands', () => {
    expect(read('q 1 0 0 -1.5 .5 +7 cm % a word\n/A#42 gs[(a(b)\\)c) -3 <4142>]TJ')).toEqual([
      ['q', []],
      ['cm', [1, 0, 0, -1.5, 0.5, 7]],
      ['gs', [{ name: 'AB' }]],
      ['TJ', [[{ text: new TextEncoder().encode('a(b)\\)c') }, -3, { text: new TextEncoder().encode('AB') }]]],
    ]);
    expect(read('/OC <</MCID 3 /T (x)>> BDC EMC').map(([op]) => op)).toEqual(['BDC', 'EMC']);
    expect(read('BI /W 2 /H 2 ID \u0001EI\u0002 EI Q').map(([op]) => op)).toEqual(['BI', 'Q']);
  });
  test.each(['(abc', '[1 2', '<< /A 1', '}', '<41', '/A << 3', 'BI /W 2 ID xx'])(
    '%s is refused, not hung on',
    (text) => {
      expect(() => read(text)).toThrow(BrokenContent);
    },
  );
});

test('what is no PDF, and what is cut off, is refused with a sentence', async () => {
  for (const bytes of [
    new Uint8Array(),
    new TextEncoder().encode('hello'),
    new TextEncoder().encode('%PDF-1.7\nhello'),
  ]) {
    const read = await readFacts(bytes);
    expect(read.ok).toBe(false);
    expect(read.ok || read.message).toMatch(/^It .*\.$/);
  }
});
