import { wordsOf } from '@/core/derive/fields';
import { layoutOf, type TextNode } from '@/core/derive/layout';
import { pageLabels } from '@/core/derive/pageLabels';
import { numberPages, putField, putFieldAtFoot, setVersion } from '@/core/edit/fields';
import { tryOut } from '@/core/edit/history';
import { addMaster, removeMaster, setMaster, setOnLeft } from '@/core/edit/masters';
import { addGuides, guidesToMaster } from '@/core/edit/guides';
import { addPage, movePages, setFacing, setNumbering } from '@/core/edit/pages';
import { replaceText } from '@/core/edit/text';
import { prepare, type Engines } from '@/core/engines';
import { newDesign, runOf, setupOf } from '@/core/model/defaults';
import { FIELD_MARK, type Design, type Story } from '@/core/model/schema';
import { followersOf, guidesOn, mastersOf, pageById } from '@/core/model/tree';
import { verifyDesign } from '@/core/model/verify';
import { walk } from '@/core/scene/walk';
import { plainText } from '@/core/text/layout';
import { DesignBuilder, flat } from '@/demo/builder';
import { pdfOf } from '../support/press';
import { words } from '../support/qpdf';
import { cmyk, making } from '../support/sample';
import { testEngines } from '../support/engines';

let engines: Engines;
beforeAll(async () => {
  engines = await testEngines();
});
let n = 0;
const newId = () => `f${n++}`;
const how = { newId };

/** So many pages on a master with a band, a page number below it and a line over it. */
async function numbered(pages: number): Promise<Design> {
  const b = new DesignBuilder(newDesign('Walk programme', setupOf(300, 200, { bleed: 9 }), making), making);
  const band = b.shape('Band', 'rectangle', { x: 0, y: 0, w: 300, h: 30 }, { fill: flat(cmyk(60, 0, 0, 0)) });
  const line = b.shape('Line', 'rectangle', { x: 20, y: 160, w: 260, h: 2 }, { fill: flat(cmyk(0, 0, 0, 100)) });
  let d = b.done();
  d = tryOut(d, (x) => {
    let after = x.pages[0].id;
    for (let i = 1; i < pages; i++) after = addPage(x, after, newId);
    const master = numberPages(x, x.pages[0], 'Ordinary', how);
    pageById(x, master)!.children = [band, ...pageById(x, master)!.children, line];
  });
  await prepare(engines, d);
  return d;
}
const saidOn = (d: Design, page: number): string[] => {
  const said: string[] = [];
  walk(engines.builder.build(d, d.pages[page]).root, (l) => void (l.type === 'glyphs' && said.push(l.text)));
  return said;
};

test('one number on a master says on each page its own; what has no field is the same group on all', async () => {
  const d = await numbered(12);
  expect(verifyDesign(d)).toMatchObject({ ok: true });
  expect(d.masters).toMatchObject([{ name: 'Ordinary' }]);
  expect(d.pages.map((_, i) => saidOn(d, i))).toEqual(d.pages.map((_, i) => [`${i + 1}`]));
  const parts = (i: number) => engines.builder.build(d, d.pages[i]).root.content;
  expect(parts(0)).toHaveLength(3);
  expect(parts(5)[0]).toBe(parts(0)[0]);
  expect(parts(5)[2]).toBe(parts(0)[2]);
  expect(parts(5)[1]).not.toBe(parts(0)[1]);
  // Asked in turn, each page's is kept.
  const five = engines.builder.build(d, d.pages[5]);
  engines.builder.build(d, d.pages[6]);
  expect(engines.builder.build(d, d.pages[5])).toBe(five);
  // On the master itself: what its first page says.
  const master = d.masters![0];
  const text = d.nodes[master.children[1]] as TextNode;
  expect(wordsOf(d, text)).toBe('1');
});

test('pages in another order, numbers that begin anew: the words follow', async () => {
  const d = await numbered(4);
  const roman = tryOut(d, (x) => setNumbering(x, x.pages[2].id, { start: 8, style: 'lowerRoman', section: 'Supper' }));
  expect(roman.pages.map((_, i) => saidOn(roman, i)[0])).toEqual(['1', '2', 'viii', 'ix']);
  const moved = tryOut(roman, (x) => movePages(x, [x.pages[3].id], 0));
  expect(moved.pages.map((_, i) => saidOn(moved, i)[0])).toEqual(pageLabels(moved));
  expect(saidOn(moved, 0)).toEqual(['1']);
});

test('a field in the middle of words: one place for the caret on each side of it, and writing goes on beside it', async () => {
  let d = await numbered(1);
  const id = d.masters![0].children[1];
  const node = d.nodes[id] as TextNode;
  const put = (change: (s: Story) => Story) => {
    d = tryOut(d, (x) => void (x.stories[node.story] = change(d.stories[node.story]) as never));
  };
  put((s) => replaceText(s, 0, 1, 'See page  of '));
  put((s) => putField(s, 9, 9, 'page'));
  put((s) => putField(s, 14, 14, 'design'));
  const plain = () => plainText(d.stories[node.story]);
  expect(plain()).toBe(`See page ${FIELD_MARK} of ${FIELD_MARK}`);
  d = tryOut(d, (x) => setNumbering(x, x.pages[0].id, { start: 1888, style: 'capitalRoman' }));
  expect(wordsOf(d, node)).toBe('See page MDCCCLXXXVIII of Walk programme');
  const layout = layoutOf(d, node, engines.fonts);
  const [line] = layout.lines;
  expect([line.start, line.end]).toEqual([0, 15]);
  // One for each character of the story and one behind the last, left to right.
  expect(line.carets.map((c) => c.offset)).toEqual(Array.from({ length: 16 }, (_, i) => i));
  expect(line.carets.every((c, i) => i === 0 || c.x > line.carets[i - 1].x)).toBe(true);
  const wide = (i: number) => line.carets[i + 1].x - line.carets[i].x;
  expect(wide(9)).toBeGreaterThan(5 * wide(10));
  put((s) => replaceText(s, 10, 10, ' (here)'));
  expect(wordsOf(d, node)).toBe('See page MDCCCLXXXVIII (here) of Walk programme');
  put((s) => replaceText(s, 9, 10, ''));
  expect(wordsOf(d, node)).toBe('See page  (here) of Walk programme');
});

test('guides of a master are seen on its pages beside their own', async () => {
  const d = await numbered(2);
  const [first, second] = d.pages;
  const with2 = tryOut(d, (x) => {
    addGuides(x, first.id, [
      { axis: 'x', at: 40 },
      { axis: 'y', at: 60 },
    ]);
    guidesToMaster(x, first.id, d.masters![0].id);
    addGuides(x, second.id, [{ axis: 'x', at: 90 }]);
  });
  expect(verifyDesign(with2)).toMatchObject({ ok: true });
  const seen = (i: number) => guidesOn(with2, with2.pages[i]).map(({ guide, own }) => [guide.axis, guide.at, own]);
  expect(seen(0)).toEqual([
    ['x', 40, false],
    ['y', 60, false],
  ]);
  expect(seen(1)).toEqual([
    ['x', 40, false],
    ['y', 60, false],
    ['x', 90, true],
  ]);
});

test('what each field says', async () => {
  const b = new DesignBuilder(newDesign('Walk: programme?', setupOf(300, 200), making), making);
  b.place(0, [b.displayText('Line', 20, 180, [{ runs: [runOf('', 9)] }])]);
  let d: Design = { ...b.done(), modified: '2026-11-29T22:15:00.000Z' };
  const [id] = d.pages[0].children;
  const said = (field: Parameters<typeof putField>[3]) => {
    const node = d.nodes[id] as TextNode;
    const e = tryOut(d, (x) => void (x.stories[node.story] = putField(d.stories[node.story], 0, 0, field) as never));
    return wordsOf(e, e.nodes[id] as TextNode);
  };
  d = tryOut(d, (x) => {
    setVersion(x, '2nd proof');
    setNumbering(x, x.pages[0].id, { start: 4, style: 'decimal', before: 'A-', section: 'The route' });
    addPage(x, x.pages[0].id, newId);
  });
  expect(said('page')).toBe('A-4');
  expect(said('pages')).toBe('2');
  expect(said('section')).toBe('The route');
  expect(said('design')).toBe('Walk: programme?');
  expect(said('file')).toBe('Walk programme.holvet');
  expect(said('date')).toBe('29 November 2026');
  expect(said('version')).toBe('2nd proof');
});

test('in the PDF each page says its number, as poppler reads it', async () => {
  const d = await numbered(3);
  const pdf = await pdfOf(engines, d);
  expect(
    words(pdf)
      .split('\f')
      .map((p) => p.trim())
      .slice(0, 3),
  ).toEqual(['1', '2', '3']);
});

test('on the left of a fold another master; it follows pages that change sides, and may lead in no ring', async () => {
  let d = await numbered(4);
  const right = d.masters![0].id;
  d = tryOut(d, (x) => {
    setFacing(x, 'right');
    addMaster(x, { id: 'left', name: 'Left' });
    addMaster(x, { id: 'base', name: 'Base' });
    setMaster(x, ['left', right], 'base');
    setOnLeft(x, right, 'left');
    putFieldAtFoot(x, 'left', 'pages', how);
  });
  expect(verifyDesign(d)).toMatchObject({ ok: true });
  const line = (i: number) => mastersOf(d, d.pages[i]).map((m) => m.id);
  expect([0, 1, 2, 3].map(line)).toEqual([
    ['base', right],
    ['base', 'left'],
    ['base', right],
    ['base', 'left'],
  ]);
  expect([0, 1].map((i) => saidOn(d, i))).toEqual([['1'], ['4']]);
  expect(followersOf(d, 'left')).toEqual([d.pages[1], d.pages[3]]);
  const moved = tryOut(d, (x) => movePages(x, [x.pages[1].id], 0));
  expect(mastersOf(moved, moved.pages[1]).map((m) => m.id)).toEqual(['base', 'left']);
  expect(mastersOf(moved, moved.pages[0]).map((m) => m.id)).toEqual(['base', right]);
  expect(() => tryOut(d, (x) => setOnLeft(x, 'base', right))).toThrow('a master would stand on itself');
  expect(() => tryOut(d, (x) => setMaster(x, ['base'], right))).toThrow('a master would stand on itself');
  const ring = structuredClone(d) as unknown as { masters: { id: string; onLeft?: string }[] };
  ring.masters.find((m) => m.id === 'base')!.onLeft = right;
  expect(verifyDesign(ring)).toMatchObject({ ok: false, what: 'it stands on itself' });
  const gone = tryOut(d, (x) => removeMaster(x, 'left'));
  expect(verifyDesign(gone)).toMatchObject({ ok: true });
  expect(mastersOf(gone, gone.pages[1]).map((m) => m.id)).toEqual(['base', right]);
});
