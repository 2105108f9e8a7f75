import { execFileSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { pageLabels } from '@/core/derive/pageLabels';
import { tryOut } from '@/core/edit/history';
import { addPage, deletePages, movePages, setNumbering } from '@/core/edit/pages';
import { newDesign, setupOf } from '@/core/model/defaults';
import type { Design } from '@/core/model/schema';
import { verifyDesign } from '@/core/model/verify';
import type { Engines } from '@/core/engines';
import { pdfOf } from '../support/press';
import { making } from '../support/sample';
import { testEngines } from '../support/engines';

let engines: Engines;
beforeAll(async () => {
  engines = await testEngines();
});

/** Pages a, b, c … by their names. */
function pages(count: number): Design {
  let n = 0;
  return tryOut(newDesign('Order', setupOf(200, 100), making), (d) => {
    let after = d.pages[0].id;
    for (let i = 1; i < count; i++) after = addPage(d, after, () => `page${n++}`);
    d.pages.forEach((p, i) => (p.name = String.fromCharCode(97 + i)));
  });
}
const order = (d: Design) => d.pages.map((p) => p.name).join('');
const idOf = (d: Design, name: string) => d.pages.find((p) => p.name === name)!.id;

test.each([
  ['a', 3, 'bcadef'],
  ['f', 0, 'fabcde'],
  ['bd', 6, 'acefbd'],
  ['bd', 1, 'abdcef'],
  ['ef', 0, 'efabcd'],
  ['abcdef', 2, 'abcdef'],
  ['c', 2, 'abcdef'],
])('pages %s, put before place %d: %s', (names, to, expected) => {
  const d = pages(6);
  const moved = tryOut(d, (x) =>
    movePages(
      x,
      [...names].map((n) => idOf(d, n)),
      to,
    ),
  );
  expect(order(moved)).toBe(expected);
  expect(verifyDesign(moved)).toMatchObject({ ok: true });
});

test('of all pages one stays', () => {
  const d = pages(3);
  const left = tryOut(
    d,
    (x) =>
      void deletePages(
        x,
        d.pages.map((p) => p.id),
      ),
  );
  expect(left.pages).toHaveLength(1);
});

// ISO 32000-1 12.4.2, read back by qpdf; Roman numerals as everybody writes them (common practice).
test('numbers begin anew where a page says so, and the PDF says them page by page', async () => {
  const d = tryOut(pages(7), (x) => {
    setNumbering(x, x.pages[0].id, { start: 1, style: 'lowerRoman' });
    setNumbering(x, x.pages[4].id, { start: 1, style: 'decimal' });
    setNumbering(x, x.pages[6].id, { start: 27, style: 'capitals', before: 'Plan-' });
  });
  expect(verifyDesign(d)).toMatchObject({ ok: true });
  expect(pageLabels(d)).toEqual(['i', 'ii', 'iii', 'iv', '1', '2', 'Plan-AA']);
  expect(pageLabels(tryOut(d, (x) => setNumbering(x, x.pages[0].id, null)))[3]).toBe('4');
  const labelsOf = async (design: Design) => {
    const file = path.join(mkdtempSync(path.join(tmpdir(), 'holvet-labels-')), 'labels.pdf');
    writeFileSync(file, await pdfOf(engines, design));
    const said = JSON.parse(execFileSync('qpdf', ['--json', '--json-key=pagelabels', file], { encoding: 'utf8' })) as {
      pagelabels: { index: number; label: Record<string, string> }[];
    };
    return said.pagelabels.map((l) => [l.index, l.label['/P'].replace(/^u:/, '')]);
  };
  expect(await labelsOf(d)).toEqual(pageLabels(d).map((label, i) => [i, label]));
  expect(await labelsOf(pages(2))).toEqual([]);
});
