import { execFileSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import type { Finding } from '@/core/check/types';
import { asPrint, prepare, type Engines } from '@/core/engines';
import { readFacts } from '@/core/input/pdf/facts';
import { QUIET } from '@/core/output/job';
import { writeReport } from '@/core/output/report/report';
import { SOLID_GRAMS, pageCoverage } from '@/core/render/pageInk';
import { demoDesigns } from '@/demo/demos';
import { testEngines } from '../support/engines';

let engines: Engines;
beforeAll(async () => {
  engines = await testEngines();
});
const design = () => asPrint(demoDesigns().find((d) => d.file.includes('ticket'))!.design);
const finding = (message: string, waived?: string) =>
  ({
    code: 'line.thin',
    severity: 'look',
    page: 1,
    node: null,
    message,
    why: '',
    facts: {},
    ...(waived && { waived }),
  }) as Finding;
async function words(pdf: Uint8Array): Promise<string> {
  const file = path.join(mkdtempSync(path.join(tmpdir(), 'report-')), 'a.pdf');
  writeFileSync(file, pdf);
  execFileSync('qpdf', ['--check', file], { stdio: 'pipe' });
  return execFileSync('pdftotext', ['-layout', file, '-'], { encoding: 'utf8' });
}
const report = async (findings: readonly Finding[], notChecked: string | null = null) =>
  writeReport(design(), engines, await prepare(engines, design()), { findings, notChecked }, QUIET);

test('the job ticket is one page with format, inks and how much they cover, checks, what is meant so, and faces', async () => {
  const d = design();
  const palette = await prepare(engines, d);
  const pdf = await report([finding('The rope is thin.'), finding('The bowl is pale.', 'It is meant to glow.')]);
  const told = await words(pdf);
  expect(told).toContain('Supper ticket');
  expect(told).toMatch(/150 × 65 mm, 3 mm bleed/);
  const shares = pageCoverage(engines.builder.build(d, d.pages[0]), palette)!;
  palette.channels.forEach((ink, i) => {
    const row = new RegExp(`${ink}\\s+([\\d.]+) % · ([\\d.]+) g/m²`).exec(told)!;
    expect(Math.abs(Number(row[1]) / 100 - shares[i])).toBeLessThan(0.006);
    expect(Math.abs(Number(row[2]) - shares[i] * SOLID_GRAMS)).toBeLessThan(0.006);
  });
  expect(told).toMatch(/Page 1: The rope is thin\./);
  expect(told.indexOf('The bowl is pale.')).toBeGreaterThan(told.indexOf('Meant to be so'));
  expect(told).toContain('“It is meant to glow.”');
  expect(told).toMatch(/Alfa Slab/);
  // Its swatches are the inks themselves, and the first page is there in small.
  const read = await readFacts(pdf);
  if (!read.ok) throw new Error(read.message);
  expect(read.facts.pages).toHaveLength(1);
  expect([...read.facts.pages[0].inks].sort()).toEqual([...palette.channels].sort());
  expect(told).toContain('Lantern');
});

test('checks that failed are not read as nothing found', async () => {
  const told = await words(await report([], 'the engine did not load.'));
  expect(told).not.toContain('Nothing found');
  expect(told).toMatch(/They could not be made: the engine did not load\./);
  expect(await words(await report([]))).toContain('Nothing found.');
});

test('long lists are counted, not cut off', async () => {
  const told = await words(await report(Array.from({ length: 40 }, (_, i) => finding(`Fault ${i}.`))));
  expect(told).toContain('Fault 11.');
  expect(told).not.toContain('Fault 12.');
  expect(told).toContain('and 28 more');
});
