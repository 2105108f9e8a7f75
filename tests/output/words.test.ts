import { execFileSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { Resvg } from '@resvg/resvg-js';
import { newDesign, runOf, setupOf } from '@/core/model/defaults';
import { verifyDesign } from '@/core/model/verify';
import { writeSvg } from '@/core/output/svg/write';
import { prepare, type Engines } from '@/core/engines';
import { DesignBuilder } from '@/demo/builder';
import { checkX4 } from '../support/checkX4';
import { faults } from '../support/faults';
import { separate } from '../support/ghostscript';
import { FULL, fullTest } from '../support/measured';
import { drawnBy, pictureOf, shopWith } from '../support/pictures';
import { pdfOf, platesOf } from '../support/press';
import { words as wordsIn } from '../support/qpdf';
import { making } from '../support/sample';
import { testEngines } from '../support/engines';
import { wordsPage } from '../support/wordsPage';

// Ghostscript draws thin lines bolder by a share of a pixel: small letters need small pixels.
const DPI = 300;
let engines: Engines;
beforeAll(async () => {
  engines = await testEngines();
  await engines.fonts.load([
    'archivo-800',
    'eb-garamond-600',
    'alfa-slab-400',
    'bitter-500',
    'anton-400',
    'cinzel-600',
  ]);
});

// Oracle: Ghostscript tiffsep of our PDF, the rule as tests/support/agree.ts states it; poppler for fonts and words.
test('words set every way, in frames, on lines and bent: plates agree, fonts are whole, every word is found', async () => {
  const { design, words } = wordsPage(engines);
  expect(verifyDesign(design)).toMatchObject({ ok: true });
  const ours = await platesOf(engines, design, DPI);
  const pdf = await pdfOf(engines, design);
  expect(faults(ours, separate(pdf, DPI)[0], 'words')).toEqual([]);
  expect(await checkX4(pdf)).toEqual([]);
  const file = path.join(mkdtempSync(path.join(tmpdir(), 'holvet-words-')), 'words.pdf');
  writeFileSync(file, pdf);
  const rows = execFileSync('pdffonts', [file], { encoding: 'utf8' }).trim().split('\n').slice(2);
  expect(rows).toHaveLength(6);
  for (const row of rows) expect(row).toMatch(/CID TrueType\s+Identity-H\s+yes yes yes/);
  // Case and raised letters are matters of looks: the words are what was typed, or their capitals.
  const found = wordsIn(pdf)
    .replace(/[\s­-]+/g, '')
    .toLowerCase();
  for (const word of words) expect(found).toContain(word.replace(/ /g, '').toLowerCase());
  // The control: without one text it would be missed.
  if (!FULL) return;
  const less = { ...design, pages: [{ ...design.pages[0], children: design.pages[0].children.slice(0, -1) }] };
  const without = {
    ...less,
    nodes: Object.fromEntries(Object.entries(design.nodes).filter(([id]) => id !== design.pages[0].children.at(-1))),
  };
  expect(faults(ours, separate(await pdfOf(engines, without), DPI)[0])).not.toEqual([]);
});

// The same with pictures in the letters, whose pixels are two by two of the plates'.
fullTest(
  'words with pictures in them, in a frame, on a circle and bent: plates agree, every word is found',
  async () => {
    const files = new Map<string, Uint8Array>();
    const picture = await pictureOf(
      drawnBy('tiff32nc', { space: 'cmyk', options: ['-sCompression=lzw'] }),
      'tif',
      files,
    );
    const shop = await shopWith(files);
    await shop.fonts.load(['archivo-800', 'eb-garamond-600', 'alfa-slab-400', 'bitter-500', 'anton-400', 'cinzel-600']);
    const { design, words } = wordsPage(shop, picture);
    expect(Object.keys(design.nodes).length).toBeGreaterThan(Object.keys(wordsPage(engines).design.nodes).length);
    expect(verifyDesign(design)).toMatchObject({ ok: true });
    const pdf = await pdfOf(shop, design);
    expect(faults(await platesOf(shop, design, DPI), separate(pdf, DPI)[0], 'words with pictures')).toEqual([]);
    const found = wordsIn(pdf)
      .replace(/[\s­-]+/g, '')
      .toLowerCase();
    for (const word of words) expect(found).toContain(word.replace(/ /g, '').toLowerCase());
  },
);

test('the SVG says the words of bent letters, and draws them where the plates have them', async () => {
  const { design } = wordsPage(engines);
  const palette = await prepare(engines, design);
  const { svg } = await writeSvg(engines.builder.build(design, design.pages[0]), palette, 'Words', (f) =>
    engines.env.asset(f),
  );
  expect(svg).toContain('aria-label="Bentarch"');
  expect(svg).toContain('aria-label="Roundblack"');
  expect(new Resvg(svg).render().width).toBeGreaterThan(600);
});

test('a line from right to left is found in the order in which it is read', async () => {
  const b = new DesignBuilder(newDesign('Ways', setupOf(300, 120), making), making);
  const id = b.textFrame('Both', { x: 20, y: 20, w: 260, h: 80 }, [
    { runs: [runOf('שלום עולם', 20, undefined, 'frank-ruhl-500')] },
    { runs: [runOf('Übermäßig é ñ', 20, undefined, 'eb-garamond-600')] },
  ]);
  b.place(0, [id]);
  const said = wordsIn(await pdfOf(engines, b.done()));
  expect(said).toContain('שלום עולם');
  expect(said).toContain('Übermäßig é ñ');
});
