import { execFileSync } from 'node:child_process';
import { checkDesign } from '@/core/check/check';
import { boxIn } from '@/core/derive/box';
import { record, tryOut, undoEntry } from '@/core/edit/history';
import { prepare, type Engines } from '@/core/engines';
import { IDENTITY } from '@/core/geometry/matrix';
import { newDesign, setupOf } from '@/core/model/defaults';
import type { Design, NodeOf } from '@/core/model/schema';
import { withDescendants } from '@/core/model/tree';
import { verifyDesign } from '@/core/model/verify';
import { findReady, READY_MADES, readyById } from '@/core/ready/catalogue';
import { monthGrid } from '@/core/ready/dates';
import { putReady, remakeReady } from '@/core/ready/put';
import { READY_FAMILIES } from '@/core/ready/types';
import { numeral } from '@/core/text/marks';
import { plainText } from '@/core/text/layout';
import { mm } from '@/core/units/length';
import { DesignBuilder, flat } from '@/demo/builder';
import { making } from '../support/sample';
import { testEngines } from '../support/engines';

let engines: Engines;
beforeAll(async () => {
  engines = await testEngines();
});
let n = 0;
const newId = () => `r${n++}`;

/** An A4 sheet with five swatches and two looks. */
function sheet(): Design {
  const m = mm(18);
  const b = new DesignBuilder(
    newDesign('Sheet', setupOf(mm(210), mm(297), { margins: { top: m, right: m, bottom: m, left: m } }), making),
    making,
  );
  const night = b.recipe('Night', 100, 80, 30, 40);
  b.recipe('Tide', 80, 40, 20, 0);
  b.recipe('Glow', 2, 8, 34, 0);
  b.recipe('Wick', 0, 36, 92, 0);
  b.look('Title', {}, { face: 'bitter-700', size: 40, fill: flat(night) });
  b.look('Body', {}, { face: 'source-serif-400', size: 11, fill: flat(night) });
  return b.done();
}
const makingFor = async (d: Design) => {
  const palette = await prepare(engines, d);
  return { newId, lab: palette.labOf.bind(palette) };
};
const words = (d: Design, id: string): string[] =>
  withDescendants(d, id).flatMap((x) => {
    const node = d.nodes[x];
    return 'story' in node ? [plainText(d.stories[node.story])] : [];
  });

test('sixty ready-mades in nine families, each found by its name', () => {
  expect(READY_MADES.length).toBeGreaterThanOrEqual(60);
  expect(new Set(READY_MADES.map((r) => r.id)).size).toBe(READY_MADES.length);
  for (const f of READY_FAMILIES) expect(READY_MADES.filter((r) => r.family === f).length).toBeGreaterThanOrEqual(5);
  for (const r of READY_MADES) expect(findReady(r.name)).toContain(r);
  expect(findReady('calendar').map((r) => r.family)).toEqual(Array.from({ length: 5 }, () => 'Dates'));
  expect(findReady('phone').map((r) => r.id)).toEqual(['tear-strips']);
  expect(findReady('no such thing')).toEqual([]);
});

test('each is sound on a sheet, in the design’s colours and looks, nothing beyond the bleed, and Checks find nothing', async () => {
  const d = sheet();
  const make = await makingFor(d);
  for (const r of READY_MADES) {
    let id = '';
    const put = tryOut(d, (x) => void (id = putReady(x, d, d.pages[0].id, r, make)));
    expect([r.id, verifyDesign(put)]).toMatchObject([r.id, { ok: true }]);
    const palette = await prepare(engines, put);
    const box = boxIn(put, id, IDENTITY, engines.fonts);
    const { width, height, bleed } = put.setup;
    const inside =
      box.x0 > -bleed - 1 && box.y0 > -bleed - 1 && box.x1 < width + bleed + 1 && box.y1 < height + bleed + 1;
    expect([r.id, inside]).toEqual([r.id, true]);
    expect([r.id, checkDesign(put, engines.builder, palette).map((f) => f.message)]).toEqual([r.id, []]);
    const looks = new Set(put.textLooks!.map((l) => l.id));
    for (const x of withDescendants(put, id)) {
      const node = put.nodes[x];
      if ('story' in node) expect(looks.has(put.stories[node.story].paragraphs[0].look!)).toBe(true);
      if ('fills' in node)
        for (const p of node.fills)
          if (p.kind === 'colour')
            expect(put.swatches.some((s) => 'swatch' in p.colour && s.id === p.colour.swatch)).toBe(true);
    }
  }
});

test('a month’s dials: other words in the same group, undone in one step; absurd values are held to their range', async () => {
  const d = sheet();
  const make = await makingFor(d);
  let id = '';
  const put = tryOut(d, (x) => void (id = putReady(x, d, d.pages[0].id, readyById('month')!, make)));
  expect(words(put, id).slice(0, 10)).toEqual([
    'November',
    '2026',
    'Mon',
    'Tue',
    'Wed',
    'Thu',
    'Fri',
    'Sat',
    'Sun',
    '1',
  ]);
  const values = { month: 2, year: 2028, first: 0, language: 2 };
  const step = record(put, 'Month', (x) => remakeReady(x, put, id, values, make))!;
  const after = step.design;
  expect(verifyDesign(after)).toMatchObject({ ok: true });
  expect(words(after, id)).toEqual([
    'helmikuu',
    '2028',
    ...['su', 'ma', 'ti', 'ke', 'to', 'pe', 'la'],
    ...Array.from({ length: 29 }, (_, i) => `${i + 1}`),
  ]);
  expect((after.nodes[id] as NodeOf<'group'>).ready).toEqual({ id: 'month', values });
  expect(after.pages).toEqual(put.pages);
  expect(undoEntry(after, step.entry)).toEqual(put);
  const absurd = tryOut(put, (x) => remakeReady(x, put, id, { month: 99, year: -4e9, language: 77 }, make));
  expect(verifyDesign(absurd)).toMatchObject({ ok: true });
  expect((absurd.nodes[id] as NodeOf<'group'>).ready!.values).toMatchObject({ month: 12, year: 1900, language: 4 });
});

// Oracle: GNU date’s own calendar (ISO 8601 weekdays %u and week numbers %V), every day of a hundred years.
test('months of a hundred years: weekdays and ISO week numbers as GNU date has them', () => {
  const [from, to] = [1950, 2049];
  const days: string[] = [];
  for (let t = Date.UTC(from, 0, 1); t <= Date.UTC(to, 11, 31); t += 86_400_000)
    days.push(new Date(t).toISOString().slice(0, 10));
  const said = execFileSync('date', ['-u', '-f', '-', '+%F %u %V'], { input: days.join('\n'), encoding: 'utf8' })
    .trim()
    .split('\n');
  const ours: string[] = [];
  for (let year = from; year <= to; year++)
    for (let month = 1; month <= 12; month++)
      for (const { week, days: row } of monthGrid(year, month, 1))
        for (const [i, day] of row.entries())
          if (day !== null) {
            const two = (v: number) => String(v).padStart(2, '0');
            ours.push(`${year}-${two(month)}-${two(day)} ${i + 1} ${two(week)}`);
          }
  expect(ours).toHaveLength(days.length);
  expect(ours.filter((line, i) => line !== said[i])).toEqual([]);
  // Weeks from Sunday: the same days, a place to the right.
  for (const [year, month] of [
    [2026, 11],
    [2028, 2],
    [2023, 10],
  ]) {
    const column = (first: 0 | 1, day: number) =>
      monthGrid(year, month, first)
        .find((w) => w.days.includes(day))!
        .days.indexOf(day);
    for (let day = 1; day <= 28; day++) expect(column(0, day)).toBe((column(1, day) + 1) % 7);
  }
});

// Roman numerals in their usual form (common practice).
test('page numbers in roman numerals', () => {
  const table: Record<number, string> = {
    1: 'i',
    2: 'ii',
    3: 'iii',
    4: 'iv',
    5: 'v',
    6: 'vi',
    8: 'viii',
    9: 'ix',
    10: 'x',
    14: 'xiv',
    19: 'xix',
    40: 'xl',
    49: 'xlix',
    50: 'l',
    88: 'lxxxviii',
    90: 'xc',
    99: 'xcix',
    100: 'c',
    400: 'cd',
    499: 'cdxcix',
    500: 'd',
    900: 'cm',
    999: 'cmxcix',
    1000: 'm',
    1444: 'mcdxliv',
    1994: 'mcmxciv',
    2026: 'mmxxvi',
    3999: 'mmmcmxcix',
  };
  for (const [n, roman] of Object.entries(table)) {
    expect(numeral(Number(n), 'lowerRoman')).toBe(roman);
    expect(numeral(Number(n), 'capitalRoman')).toBe(roman.toUpperCase());
  }
});
