import { copyPages, pastePages, readPages } from '@/core/edit/copyPages';
import { record, tryOut, undoEntry } from '@/core/edit/history';
import { prepare, type Engines } from '@/core/engines';
import { newDesign, setupOf } from '@/core/model/defaults';
import { groundOf } from '@/core/model/tree';
import { verifyDesign } from '@/core/model/verify';
import { demoDesigns } from '@/demo/demos';
import { mm } from '@/core/units/length';
import { platesOf } from '../support/press';
import { making } from '../support/sample';
import { testEngines } from '../support/engines';

let engines: Engines;
beforeAll(async () => {
  engines = await testEngines();
});
let n = 0;
const newId = () => `c${n++}`;

test('pages go to another design as they look: ground, masters and own, inks and pictures come along; undone in one step', async () => {
  const book = demoDesigns().find((d) => d.file === 'walk-programme')!.design;
  const [cover, , , route] = book.pages;
  const text = JSON.stringify(copyPages(book, [route.id, cover.id]));
  const read = readPages(text)!;
  expect(read.pages.map((p) => p.name)).toEqual(['Cover', '']);
  const empty = newDesign('Other', { ...setupOf(mm(148), mm(210)), bleed: mm(3) }, making);
  const step = record(empty, 'Paste pages', (x) => void pastePages(x, x.pages[0].id, read, newId))!;
  const made = step.design;
  expect(verifyDesign(made)).toMatchObject({ ok: true });
  expect(undoEntry(made, step.entry)).toEqual(empty);
  expect(made.pages.map((p) => p.name)).toEqual(['', 'Cover', '']);
  expect(made.masters).toBeUndefined();
  expect(made.inks.map((i) => i.name)).toEqual(['Ember 66-43']);
  expect(groundOf(made, made.pages[1])!.paint.kind).toBe('gradient');
  // Of the route: two waves of the paper, three of its side, then all its own.
  expect(made.pages[2].children).toHaveLength(2 + 3 + route.children.length);
  // The cover’s plates are the same, channel by channel.
  await prepare(engines, book);
  const was = await platesOf(engines, book, 40, 0);
  await prepare(engines, made);
  const is = await platesOf(engines, made, 40, 1);
  for (const [ink, plate] of was) expect([ink, is.get(ink)?.data]).toEqual([ink, plate.data]);
});

test('what is no copy of pages is refused', () => {
  for (const bad of [
    '',
    '{',
    'null',
    '[]',
    '{"format":"holvet-pages/1"}',
    '{"format":"holvet-pages/1","pages":[{"name":"x","clips":[{}]}]}',
  ])
    expect(readPages(bad)).toBeNull();
  const d = tryOut(newDesign('One', setupOf(100, 100), making), () => {});
  expect(readPages(JSON.stringify(copyPages(d, [d.pages[0].id])))?.pages).toHaveLength(1);
});
