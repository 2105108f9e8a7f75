import { alignNodes } from '@/core/edit/align';
import { copyPages, pastePages, readPages } from '@/core/edit/copyPages';
import { record, tryOut, undoEntry } from '@/core/edit/history';
import { addMaster, masterFromPage, setMaster, setOnLeft } from '@/core/edit/masters';
import { baselinesOf, ontoGrid } from '@/core/edit/ontoGrid';
import { addPage, changeSetup, duplicatePage, setFacing } from '@/core/edit/pages';
import { fitPageTo, fitSheets } from '@/core/edit/refit';
import { ofOtherFormat, setFormat, setGrid } from '@/core/edit/sheetSetup';
import { giveAcross } from '@/core/edit/spread';
import { prepare, type Engines } from '@/core/engines';
import { newDesign, runOf, setupOf } from '@/core/model/defaults';
import { setupOn } from '@/core/model/setupOn';
import type { Design, Grid } from '@/core/model/schema';
import { pageById, spreadOf } from '@/core/model/tree';
import { verifyDesign } from '@/core/model/verify';
import { baselines } from '@/core/geometry/pageLines';
import { DesignBuilder } from '@/demo/builder';
import { mm } from '@/core/units/length';
import { testEngines } from '../support/engines';
import { making } from '../support/sample';

let engines: Engines;
beforeAll(async () => {
  engines = await testEngines();
});
let n = 0;
const newId = () => `u${n++}`;

const CARD = { width: mm(85), height: mm(55), round: false };
const wide: Grid = {
  margins: { top: 40, right: 30, bottom: 20, left: 10 },
  columns: { count: 3, gutter: 6 },
  baseline: { start: 40, step: 14 },
};

/** Three A5 pages, the first with a box in a corner; the last two on a master. */
function book(): Design {
  const b = new DesignBuilder(newDesign('Book', setupOf(mm(148), mm(210)), making), making);
  b.place(0, [b.shape('Box', 'rectangle', { x: 20, y: 20, w: 60, h: 40 }, {})]);
  return tryOut(b.done(), (d) => {
    const second = addPage(d, d.pages[0].id, newId);
    const third = addPage(d, second, newId);
    addMaster(d, { id: 'plain', name: 'Plain' });
    setMaster(d, [second, third], 'plain');
  });
}
const setups = (d: Design) => d.pages.map((p) => setupOn(d, p));
const sides = (d: Design) => setups(d).map((s) => [Math.round(s.width), Math.round(s.height)]);

test('a page has a format of its own, and no other page another one by that; given back, nothing is left of it', () => {
  const d = book();
  const one = tryOut(d, (x) => setFormat(x, d.pages[1].id, CARD));
  expect(sides(one)).toEqual([
    [420, 595],
    [241, 156],
    [420, 595],
  ]);
  expect(verifyDesign(one)).toMatchObject({ ok: true });
  expect(ofOtherFormat(one)).toEqual([d.pages[1].id]);
  // Pages without one share the design’s set-up itself; asked again, the same object is answered.
  expect(setupOn(one, one.pages[0])).toBe(one.setup);
  expect(setupOn(one, one.pages[1])).toBe(setupOn(one, one.pages[1]));
  // Fitting margins fit the small page too, chosen ones stay.
  expect(setups(one)[1].margins.top).toBeCloseTo(mm(4), 6);
  const chosen = tryOut(one, (x) => changeSetup(x, { ...x.setup, margins: wide.margins }));
  expect(setups(chosen)[1].margins).toEqual(wide.margins);
  expect(tryOut(one, (x) => setFormat(x, d.pages[1].id, null))).toEqual(d);
  expect(tryOut(one, (x) => setFormat(x, d.pages[1].id, d.setup))).toEqual(d);
  expect(() => tryOut(d, (x) => setFormat(x, 'nowhere', CARD))).toThrow('unknown page');
});

test('another format of the design passes pages by that have their own', () => {
  const one = tryOut(book(), (x) => setFormat(x, x.pages[1].id, CARD));
  const larger = { ...one.setup, width: mm(210), height: mm(297) };
  const made = tryOut(one, (x) => changeSetup(x, larger));
  expect(sides(made)).toEqual([
    [595, 842],
    [241, 156],
    [595, 842],
  ]);
  const fitted = tryOut(one, (x) => fitSheets(x, one, larger, engines.fonts));
  const box = fitted.pages[0].children[0];
  expect(fitted.nodes[box].transform[0]).toBeCloseTo(297 / 210, 6);
  expect(sides(fitted)).toEqual(sides(made));
});

test('what lies on one page is fitted to its new format, all else stays', () => {
  const d = book();
  const [first] = d.pages;
  const to = { width: d.setup.width / 2, height: d.setup.height / 2, round: false };
  const step = record(d, 'Fit', (x) => fitPageTo(x, d, first.id, to, engines.fonts))!;
  const made = step.design;
  expect(made.nodes[first.children[0]].transform.slice(0, 6)).toEqual([0.5, 0, 0, 0.5, 10, 10]);
  expect(made.pages.slice(1)).toEqual(d.pages.slice(1));
  expect(undoEntry(made, step.entry)).toEqual(d);
});

test('new and copied pages have the format of the one that they come from; a master made of it as well', () => {
  const one = tryOut(book(), (x) => setFormat(x, x.pages[0].id, CARD));
  const more = tryOut(one, (x) => {
    setGrid(x, x.pages[0].id, wide);
    addPage(x, x.pages[0].id, newId);
    duplicatePage(x, x.pages[0].id, newId);
  });
  expect(sides(more).slice(0, 3)).toEqual([
    [241, 156],
    [241, 156],
    [241, 156],
  ]);
  expect(more.pages[1].grid).toEqual(wide);
  const mastered = tryOut(more, (x) => masterFromPage(x, x.pages[0].id, { id: 'card', name: 'Card' }));
  expect(setupOn(mastered, pageById(mastered, 'card')!)).toMatchObject({ ...CARD, ...wide });
  expect(setupOn(mastered, mastered.pages[0])).toMatchObject({ ...CARD, ...wide });
  // Into another design: its size comes along, where that design has another.
  const copied = readPages(JSON.stringify(copyPages(more, [more.pages[0].id])))!;
  const other = newDesign('Other', setupOf(200, 200), making);
  const pasted = tryOut(other, (x) => void pastePages(x, x.pages[0].id, copied, newId));
  expect(pasted.pages[1].format).toEqual(CARD);
  const same = newDesign('Same', setupOf(CARD.width, CARD.height), making);
  expect(tryOut(same, (x) => void pastePages(x, x.pages[0].id, copied, newId)).pages[1].format).toBeUndefined();
  const absurd = { ...copied, pages: [{ ...copied.pages[0], size: { width: -3, height: 1e9, round: false } }] };
  expect(readPages(JSON.stringify(absurd))).toBeNull();
});

test('margins, columns and baseline grid of a master hold on its pages; a page’s own, and the nearest master’s, go before', () => {
  const d = tryOut(book(), (x) => {
    setGrid(x, 'plain', wide);
    addMaster(x, { id: 'over', name: 'Over' });
    setMaster(x, ['over'], 'plain');
    setMaster(x, [x.pages[2].id], 'over');
  });
  expect(verifyDesign(d)).toMatchObject({ ok: true });
  expect(setups(d).map((s) => s.columns.count)).toEqual([1, 3, 3]);
  const nearer = tryOut(d, (x) => setGrid(x, 'over', { ...wide, columns: { count: 5, gutter: 2 } }));
  expect(setups(nearer).map((s) => s.columns.count)).toEqual([1, 3, 5]);
  const own = tryOut(nearer, (x) =>
    setGrid(x, x.pages[2].id, { margins: wide.margins, columns: { count: 2, gutter: 0 } }),
  );
  expect(setups(own).map((s) => s.columns.count)).toEqual([1, 3, 2]);
  // A page without lines of its own grid has none, though its master has.
  expect(setups(own).map((s) => s.baseline)).toEqual([undefined, wide.baseline, undefined]);
  // What is lined up with the margins goes to those of its page.
  const placed = tryOut(own, (x) => {
    x.pages[1].children = [x.pages[0].children[0]];
    x.pages[0].children = [];
  });
  const [box] = placed.pages[1].children;
  const aligned = tryOut(placed, (x) => alignNodes(x, placed.pages[1], [box], 'left', 'margins', null, engines.fonts));
  expect(aligned.nodes[box].transform[4]).toBeCloseTo(10, 6);
  // Another master on the left of the fold has its own margins there.
  const mirrored = tryOut(d, (x) => {
    setFacing(x, 'right');
    addMaster(x, { id: 'left', name: 'Left' });
    setGrid(x, 'left', { ...wide, margins: { ...wide.margins, left: 30, right: 10 } });
    setOnLeft(x, 'plain', 'left');
    setMaster(
      x,
      x.pages.map((p) => p.id),
      'plain',
    );
  });
  expect(setups(mirrored).map((s) => s.margins.left)).toEqual([10, 30, 10]);
});

test('pages of unlike height, and round ones, face no other; those of unlike width meet at the fold', () => {
  const d = tryOut(book(), (x) => setFacing(x, 'left'));
  const faces = (design: Design) => {
    const s = spreadOf(design, design.pages[0]);
    return s?.other ? design.pages.indexOf(s.other) : null;
  };
  expect(faces(d)).toBe(1);
  expect(faces(tryOut(d, (x) => setFormat(x, x.pages[1].id, CARD)))).toBeNull();
  expect(faces(tryOut(d, (x) => setFormat(x, x.pages[1].id, { ...x.setup, round: true })))).toBeNull();
  const narrow = tryOut(d, (x) => setFormat(x, x.pages[0].id, { ...x.setup, width: 150, round: false }));
  expect(faces(narrow)).toBe(1);
  const [box] = narrow.pages[0].children;
  const over = tryOut(narrow, (x) => void giveAcross(x, x.pages[0].id, [box]));
  expect(over.nodes[box].transform[4]).toBe(20 - 150);
  const back = tryOut(over, (x) => void giveAcross(x, x.pages[1].id, [box]));
  expect(back.nodes[box].transform[4]).toBe(20);
});

test('words set on the baseline grid: every line of every column on one of its lines; what cannot is named', async () => {
  const b = new DesignBuilder(newDesign('Words', setupOf(mm(148), mm(210)), making), making);
  const long =
    'Lanterns hang along the harbour wall from the mole to the old net loft, and everyone brings one. '.repeat(4);
  const frame = b.textFrame('Frame', { x: 33, y: 47, w: 220, h: 300 }, [
    { spaceAfter: 5, runs: [runOf('The walk', 17)] },
    { runs: [runOf(long, 9.5)] },
    { spaceBefore: 3, runs: [runOf(long, 9.5)] },
  ]);
  const line = b.displayText('Line', 50, 400, [
    { runs: [runOf('At dusk', 30)] },
    { runs: [runOf('bring a light', 11)] },
  ]);
  const turned = b.displayText('Turned', 60, 500, [{ runs: [runOf('Askew', 20)] }]);
  b.place(0, [frame, line, turned]);
  const d = tryOut(b.done(), (x) => {
    setGrid(x, x.pages[0].id, wide);
    const t = x.nodes[turned];
    t.transform = [0.9, 0.3, -0.3, 0.9, 60, 500];
    const f = x.nodes[frame];
    if (f.kind === 'textFrame') f.columns = { count: 2, gutter: 12 };
  });
  await prepare(engines, d);
  const page = d.pages[0].id;
  const grid = baselines(setupOn(d, d.pages[0]));
  expect(grid[0]).toBe(40);
  expect(grid.at(-1)).toBeLessThanOrEqual(d.setup.height);
  const onGrid = (design: Design, id: string) =>
    baselinesOf(design, page, id, engines.fonts).every((y) => grid.some((g) => Math.abs(g - y) < 0.05));
  expect([frame, line].map((id) => onGrid(d, id))).toEqual([false, false]);
  let off: string[] = [];
  const made = tryOut(d, (x) => void (off = ontoGrid(x, page, [frame, line, turned], engines.fonts)));
  expect(off).toEqual([turned]);
  expect([frame, line].map((id) => onGrid(made, id))).toEqual([true, true]);
  expect(baselinesOf(made, page, frame, engines.fonts).length).toBeGreaterThan(8);
  // Moved by half a step at most, and no line nearer to the next than it was asked for.
  expect(Math.abs(made.nodes[line].transform[5] - 400)).toBeLessThanOrEqual(7);
  expect(made.nodes[turned]).toEqual(d.nodes[turned]);
  // Once there, it stays.
  const again = tryOut(made, (x) => void ontoGrid(x, page, [frame, line], engines.fonts));
  expect(again.nodes[frame].transform[5]).toBeCloseTo(made.nodes[frame].transform[5], 6);
  // Without a grid nothing is touched.
  const bare = tryOut(d, (x) => setGrid(x, page, null));
  expect(tryOut(bare, (x) => void (off = ontoGrid(x, page, [line], engines.fonts)))).toEqual(bare);
  expect(off).toEqual([line]);
});
