import { PDFDict, PDFDocument, PDFName, PDFRawStream, PDFRef, type PDFObject } from '@cantoo/pdf-lib';
import { execFileSync, spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { addPage } from '@/core/edit/pages';
import { tryOut } from '@/core/edit/history';
import type { Design } from '@/core/model/schema';
import { QUIET } from '@/core/output/job';
import { parsePages } from '@/core/output/pages';
import { writePdf } from '@/core/output/pdf/write';
import { asPrint, prepare, type Engines } from '@/core/engines';
import { demoDesigns } from '@/demo/demos';
import { checkX4 } from '../support/checkX4';
import { coloursDesign, sampleDesign } from '../support/sample';
import { testEngines } from '../support/engines';

let engines: Engines;
let dir: string;
beforeAll(async () => {
  engines = await testEngines();
  dir = mkdtempSync(path.join(tmpdir(), 'holvet-pdf-'));
});
afterAll(() => rmSync(dir, { recursive: true, force: true }));

async function make(design: Design, marks = true, pages = design.pages, keepRgb = false): Promise<Uint8Array> {
  return writePdf(
    design,
    pages,
    engines.builder,
    await prepare(engines, design),
    engines.env,
    { marks, keepRgb },
    QUIET,
  );
}
const save = (bytes: Uint8Array, name: string): string => {
  const file = path.join(dir, name);
  writeFileSync(file, bytes);
  return file;
};

describe.each([
  ['the demo poster', () => demoDesigns()[0].design],
  ['the sample page', sampleDesign],
])('the PDF of %s', (title, design) => {
  let bytes: Uint8Array;
  let file: string;
  beforeAll(async () => {
    bytes = await make(design());
    file = save(bytes, `${title}.pdf`);
  });

  test('qpdf --check finds nothing', () => {
    const { status, stdout, stderr } = spawnSync('qpdf', ['--check', file], { encoding: 'utf8' });
    expect([status, stderr]).toEqual([0, '']);
    expect(stdout).toContain('No syntax or stream encoding errors found');
    expect(stdout).not.toContain('WARNING');
  });
  test('pdffonts: every font embedded, subset, with Unicode', () => {
    const rows = execFileSync('pdffonts', [file], { encoding: 'utf8' }).trim().split('\n').slice(2);
    expect(rows.length).toBeGreaterThan(1);
    for (const row of rows) expect(row).toMatch(/^[A-Z]{6}\+\S+\s+CID TrueType\s+Identity-H\s+yes yes yes/);
  });
  test('pdftotext finds the words', () => {
    const words = execFileSync('pdftotext', [file, '-'], { encoding: 'utf8' });
    for (const w of title === 'the demo poster'
      ? ['Lantern Walk', 'Marrowick quays', 'Saturday 21 November']
      : ['AVATAR', 'office', 'Quay', 'Marrowick', 'lanterns'])
      expect(words).toContain(w);
  });
  test('it keeps the rules of PDF/X-4', async () => expect(await checkX4(bytes)).toEqual([]));
  test('gradients are shadings; the only picture is the one placed', async () => {
    const doc = await PDFDocument.load(bytes, { updateMetadata: false });
    const kinds = doc.context.enumerateIndirectObjects().flatMap(([, o]: [PDFRef, PDFObject]) => {
      const dict = o instanceof PDFRawStream ? o.dict : o instanceof PDFDict ? o : null;
      // The grain of the sky is a tile of noise, one bit a square: no picture of a gradient.
      const grain =
        dict?.get(PDFName.of('Subtype')) === PDFName.of('Image') &&
        String(dict.get(PDFName.of('BitsPerComponent'))) === '1';
      return dict && !grain
        ? [String(dict.get(PDFName.of('PatternType')) ?? ''), String(dict.get(PDFName.of('Subtype')) ?? '')]
        : [];
    });
    expect(kinds.filter((k) => k === '2').length).toBeGreaterThanOrEqual(5);
    // The poster holds one photo, the water of the harbour; the second page none.
    expect(kinds.filter((k) => k === '/Image')).toHaveLength(title === 'the demo poster' ? 1 : 0);
  });
  test('boxes: trim in bleed in sheet, to a thousandth of a point', () => {
    const info = execFileSync('pdfinfo', ['-box', file], { encoding: 'utf8' });
    const box = (name: string) =>
      /([\d.-]+)\s+([\d.-]+)\s+([\d.-]+)\s+([\d.-]+)/
        .exec(info.split(`${name}:`)[1])!
        .slice(1, 5)
        .map(Number);
    const { width, height, bleed } = design().setup;
    const [trim, bleedBox] = [box('TrimBox'), box('BleedBox')];
    expect(trim[2] - trim[0]).toBeCloseTo(width, 1);
    expect(trim[3] - trim[1]).toBeCloseTo(height, 1);
    expect(trim[0] - bleedBox[0]).toBeCloseTo(bleed, 1);
  });
});

test('page ranges: which pages, in which order', async () => {
  let design = sampleDesign();
  for (let i = 0; i < 3; i++)
    design = tryOut(design, (d) => void addPage(d, d.pages[d.pages.length - 1].id, engines.env.newId));
  const bytes = await make(
    design,
    false,
    parsePagesOf('4, 1-2', design).map((n) => design.pages[n - 1]),
  );
  const file = save(bytes, 'range.pdf');
  expect(execFileSync('pdfinfo', [file], { encoding: 'utf8' })).toMatch(/Pages:\s+3/);
  expect(execFileSync('pdftotext', ['-f', '1', '-l', '1', file, '-'], { encoding: 'utf8' }).trim()).toBe('');
  expect(execFileSync('pdftotext', ['-f', '2', '-l', '2', file, '-'], { encoding: 'utf8' })).toContain('AVATAR');
});
const parsePagesOf = (text: string, d: Design): number[] => {
  const r = parsePages(text, d.pages.length);
  if (!r.ok) throw new Error(r.message);
  return r.pages;
};

test.each([
  ['', 4, [1, 2, 3, 4]],
  ['2', 4, [2]],
  ['1-3', 4, [1, 2, 3]],
  ['3-1', 4, [3, 2, 1]],
  ['1, 3 – 4, 1', 4, [1, 3, 4]],
])('the range “%s” of %d pages', (text, count, pages) => expect(parsePages(text, count)).toEqual({ ok: true, pages }));
test.each([
  ['5', 'There is no page 5: the design has pages 1 to 4.'],
  ['x', '“x” is not a page or a range. Write it like 1-3, 5.'],
  ['0-2', 'There is no page 0: the design has pages 1 to 4.'],
])('the range “%s” is refused', (text, message) => expect(parsePages(text, 4)).toEqual({ ok: false, message }));

test('a screen design goes to the press in inks, by its profile', async () => {
  const screen: Design = { ...sampleDesign(), setup: { ...sampleDesign().setup, medium: 'screen', bleed: 0 } };
  await expect(make(screen)).rejects.toThrow('needs a palette of inks');
  const bytes = await writePdf(
    screen,
    screen.pages,
    engines.builder,
    await prepare(engines, asPrint(screen)),
    engines.env,
    { marks: false },
    QUIET,
  );
  expect(await checkX4(bytes)).toEqual([]);
  expect(spawnSync('qpdf', ['--check', save(bytes, 'screen.pdf')]).status).toBe(0);
});

test('names that only other scripts can write reach the file', async () => {
  const design = { ...sampleDesign(), name: 'Lampionų ėjimas (2) \\ „vakaras“' };
  const file = save(await make(design), 'title.pdf');
  expect(execFileSync('pdfinfo', [file], { encoding: 'utf8' })).toContain('Lampionų ėjimas (2) \\ „vakaras“');
  expect(spawnSync('qpdf', ['--check', file]).status).toBe(0);
});

test('screen colours that are kept: tagged sRGB, in a file that still keeps the rules', async () => {
  const bytes = await make(coloursDesign(), true, undefined, true);
  expect(await checkX4(bytes)).toEqual([]);
  const doc = await PDFDocument.load(bytes);
  const profiles = doc.context
    .enumerateIndirectObjects()
    .flatMap(([, o]) =>
      o instanceof PDFRawStream && String(o.dict.get(PDFName.of('N')) ?? '')
        ? [String(o.dict.get(PDFName.of('N')))]
        : [],
    );
  expect(profiles.filter((n) => n === '3')).toHaveLength(1);
  expect(profiles).toContain('4');
  // Opaque inks say so to programs that ask (ISO 32000-1, table 75); the plates do not depend on it.
  execFileSync('qpdf', ['--check', save(bytes, 'kept.pdf')], { stdio: 'pipe' });
});
