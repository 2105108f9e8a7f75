import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { asPrint, type Engines } from '@/core/engines';
import type { Design } from '@/core/model/schema';
import type { PdfOptions } from '@/core/output/pdf/options';
import { demoDesigns } from '@/demo/demos';
import { testEngines } from '../support/engines';
import { FULL } from '../support/measured';
import { pdfOf } from '../support/press';
import { coloursDesign, drawnDesign, sampleDesign } from '../support/sample';

// Witnesses: four readers of PDF that share no code with each other or with us. What they say, they say of a fault in
// the file.
let engines: Engines;
let dir: string;
beforeAll(async () => {
  engines = await testEngines();
  dir = mkdtempSync(path.join(tmpdir(), 'holvet-readers-'));
});
afterAll(() => rmSync(dir, { recursive: true, force: true }));

/** What a reader has to say of a file: nothing, of a sound one. */
const said = (command: string, ...args: string[]): string => {
  const { status, stdout, stderr } = spawnSync(command, args, { encoding: 'utf8', timeout: 50_000 });
  const lines = `${stdout}\n${stderr}`
    .split('\n')
    .filter((l) => /warn|error|fail|repair|damag/i.test(l) && !FINE.test(l));
  return [...lines, ...(status === 0 ? [] : [`ended with ${status}`])].join('\n');
};
/** That all is well; and what the one build is, which is no matter of the file. */
const FINE = /No syntax or stream encoding errors|errors that qpdf cannot detect|ICC support is not available/;

function complaints(pdf: Uint8Array): Record<string, string> {
  const file = path.join(dir, 'read.pdf');
  writeFileSync(file, pdf);
  return {
    qpdf: said('qpdf', '--check', file),
    poppler: said('pdftoppm', '-r', '20', file, path.join(dir, 'poppler')),
    mutool: said('mutool', 'draw', '-q', '-r', '20', '-o', path.join(dir, 'mutool-%d.png'), file),
    'pdf.js': said(process.execPath, path.resolve(import.meta.dirname, '../support/pdfjsReads.mjs'), file),
  };
}
const NONE = { qpdf: '', poppler: '', mutool: '', 'pdf.js': '' };

const WAYS: readonly (readonly [string, Partial<PdfOptions>])[] = [
  ['for a press', { marks: true }],
  ['plain, tagged, in layers', { standard: 'plain', tagged: true, layers: true, keepRgb: true }],
  ['as shapes, in one ink', { outlines: true, spots: 'one' }],
];
const DEMOS = demoDesigns().map(({ file, design }) => [file, asPrint(design)] as const);
const DESIGNS: readonly (readonly [string, Design])[] = [
  // One of them, and what the sample page has of every kind.
  ...(FULL ? DEMOS : DEMOS.filter(([file]) => /certificate/.test(file))),
  ['sample', sampleDesign()],
  ...(FULL
    ? ([
        ['colours', coloursDesign()],
        ['drawn', drawnDesign()],
      ] as const)
    : []),
];

test.each(DESIGNS.flatMap(([file, design]) => WAYS.map(([way, options]) => [file, way, design, options] as const)))(
  '%s, %s: qpdf, poppler, mutool and pdf.js open it and have nothing to say',
  async (_, __, design, options) => {
    expect(complaints(await pdfOf(engines, design, options))).toEqual(NONE);
  },
);

test('each of them says so where a file is cut off', async () => {
  const pdf = await pdfOf(engines, sampleDesign());
  expect(Object.entries(complaints(pdf.slice(0, pdf.length * 0.7))).filter(([, what]) => !what)).toEqual([]);
});
