import { pushersOf } from '@/core/derive/pushed';
import { layoutOf } from '@/core/derive/layout';
import { moveNodes } from '@/core/edit/place';
import { tryOut } from '@/core/edit/history';
import { setWhole } from '@/core/edit/whole';
import { newDesign, runOf, setupOf } from '@/core/model/defaults';
import type { Design, NodeOf } from '@/core/model/schema';
import { verifyDesign } from '@/core/model/verify';
import { DesignBuilder } from '@/demo/builder';
import { prepare, type Engines } from '@/core/engines';
import { making } from '../support/sample';
import { testEngines } from '../support/engines';

let engines: Engines;
beforeAll(async () => {
  engines = await testEngines();
  await engines.fonts.load(['archivo-400', 'frank-ruhl-500']);
});
const WORDS = 'Home-made paper lanterns walk the quays of Marrowick each November past boats and stalls. '.repeat(8);

function page() {
  const b = new DesignBuilder(newDesign('Pushed', setupOf(400, 400), making), making);
  const frame = b.textFrame('Frame', { x: 50, y: 50, w: 300, h: 300 }, [
    { runs: [runOf(WORDS, 10, undefined, 'archivo-400')] },
  ]);
  const disc = b.shape('Disc', 'ellipse', { x: 150, y: 80, w: 100, h: 100 }, {});
  const box = b.shape('Box', 'rectangle', { x: 50, y: 230, w: 90, h: 60 }, {});
  const far = b.shape('Far', 'rectangle', { x: 0, y: 380, w: 10, h: 10 }, {});
  b.place(0, [frame, disc, box, far]);
  return { d: b.done(), frame, disc, box, far };
}
const layout = (d: Design, id: string) => layoutOf(d, d.nodes[id] as NodeOf<'textFrame'>, engines.fonts);

test('words run round what pushes them away, and stay so far off it', () => {
  const { d, frame, disc, box, far } = page();
  const plain = layout(d, frame);
  const by = 8;
  const pushed = tryOut(d, (x) => setWhole(x, [disc, box, far], { pushesWords: by }));
  expect(verifyDesign(pushed)).toMatchObject({ ok: true });
  const lines = layout(pushed, frame).lines;
  expect(lines.length).toBeGreaterThan(plain.lines.length);
  let beside = 0;
  for (const l of lines) {
    const [top, bottom] = [l.top + 50, l.bottom + 50];
    // The disc by its equation, from its nearest height to the line; the box by its sides.
    const near = Math.min(Math.max(130, top), bottom);
    const half = Math.sqrt(Math.max(0, 50 ** 2 - (near - 130) ** 2));
    const [x0, x1] = [l.x0 + 50, l.x1 + 50];
    if (Math.abs(near - 130) < 50) {
      beside++;
      expect(x1 <= 200 - half - by + 0.6 || x0 >= 200 + half + by - 0.6).toBe(true);
    }
    if (bottom > 230 && top < 290) expect(x0).toBeGreaterThanOrEqual(140 + by - 1e-6);
    expect(x0).toBeGreaterThanOrEqual(50 - 1e-6);
    expect(x1).toBeLessThanOrEqual(350 + 1e-6);
  }
  expect(beside).toBeGreaterThan(3);
  expect(pushersOf(pushed)).toHaveLength(3);
  // Hidden, it pushes nothing.
  const hidden = tryOut(pushed, (x) => {
    for (const id of [disc, box]) x.nodes[id].hidden = true;
  });
  expect(layout(hidden, frame).lines.map((l) => l.width)).toEqual(plain.lines.map((l) => l.width));
});

test('words run on both sides of what pushes them, read across it; not where a side is too narrow, nor into holes', async () => {
  const { d, frame, disc } = page();
  const pushed = tryOut(d, (x) => setWhole(x, [disc], { pushesWords: 6 }));
  const { lines } = layout(pushed, frame);
  const pairs = lines.slice(1).flatMap((l, i) => (l.baseline === lines[i].baseline ? [[lines[i], l] as const] : []));
  expect(pairs.length).toBeGreaterThan(5);
  for (const [left, right] of pairs) {
    expect(left.end).toBe(right.start);
    expect(left.x1 + 50).toBeLessThan(200);
    expect(right.x0 + 50).toBeGreaterThan(200);
  }
  // Nothing is lost on the way, and nothing said twice.
  expect(lines[0].start).toBe(0);
  for (let i = 1; i < lines.length; i++) expect(lines[i].start).toBe(lines[i - 1].end);
  // At the side of the frame there is one way round it alone.
  const aside = tryOut(pushed, (x) => moveNodes(x, x.pages[0] as never, [disc], -130, 0));
  const beside = layout(aside, frame).lines;
  expect(new Set(beside.map((l) => l.baseline)).size).toBe(beside.length);
  // From right to left the right side is read first.
  const rtl = tryOut(pushed, (x) => {
    const story = Object.values(x.stories)[0];
    story.paragraphs[0].runs[0].text = 'שלום עולם '.repeat(60);
    story.paragraphs[0].runs[0].face = 'frank-ruhl-500';
  });
  await prepare(engines, rtl);
  const back = layout(rtl, frame).lines;
  const both = back.slice(1).filter((l, i) => l.baseline === back[i].baseline);
  expect(both.length).toBeGreaterThan(3);
  for (const l of both) expect(l.x0 + 50).toBeLessThan(200);
});

test('moved, the words flow anew, on the screen too; what lies elsewhere changes nothing of them', () => {
  const { d, frame, disc, far } = page();
  const pushed = tryOut(d, (x) => setWhole(x, [disc], { pushesWords: 5 }));
  const [sheet] = pushed.pages;
  const scene = engines.builder.build(pushed, sheet);
  const before = layout(pushed, frame);
  const other = tryOut(pushed, (x) => moveNodes(x, sheet, [far], 3, 0));
  expect(layout(other, frame)).toBe(before);
  const moved = tryOut(pushed, (x) => moveNodes(x, sheet, [disc], 0, 60));
  expect(layout(moved, frame)).not.toBe(before);
  expect(engines.builder.patch(scene, moved, sheet, [disc])).toBeNull();
  // Parts of a group push as they lie in it; a group that holds the frame does not push it.
  const first = before.lines.map((l) => l.width);
  expect(
    layout(
      tryOut(pushed, (x) => moveNodes(x, sheet, [frame, disc], 7, 9)),
      frame,
    ).lines.map((l) => l.width),
  ).toEqual(first);
});

test('two columns, a drawing in a group, words themselves: each pushes as it is', () => {
  const b = new DesignBuilder(newDesign('Pushed', setupOf(400, 400), making), making);
  const frame = b.textFrame('Frame', { x: 50, y: 50, w: 300, h: 300 }, [
    { runs: [runOf(WORDS, 10, undefined, 'archivo-400')] },
  ]);
  const group = b.group('Drawing', [
    b.shape('A', 'rectangle', { x: 60, y: 60, w: 40, h: 40 }, {}),
    b.shape('B', 'rectangle', { x: 260, y: 200, w: 60, h: 40 }, {}),
  ]);
  const title = b.displayText('Title', 120, 160, [{ runs: [runOf('Lanterns', 30)] }]);
  b.place(0, [frame, group, title]);
  const d = tryOut(b.done(), (x) => {
    (x.nodes[frame] as { columns?: unknown }).columns = { count: 2, gutter: 10 };
    setWhole(x, [group, title], { pushesWords: 2 });
  });
  expect(verifyDesign(d)).toMatchObject({ ok: true });
  // In a group that is hidden it pushes nothing.
  const hidden = tryOut(d, (x) => {
    setWhole(x, [group, title], { pushesWords: null });
    const [part] = (x.nodes[group] as { children: string[] }).children;
    setWhole(x, [part], { pushesWords: 2 });
    x.nodes[group].hidden = true;
  });
  const bare = tryOut(d, (x) => setWhole(x, [group, title], { pushesWords: null }));
  expect(layout(hidden, frame).lines.map((l) => l.width)).toEqual(layout(bare, frame).lines.map((l) => l.width));
  const text = d.nodes[title] as NodeOf<'displayText'>;
  const [own] = layoutOf(d, text, engines.fonts).lines;
  const boxes = [
    [60, 60, 100, 100],
    [260, 200, 320, 240],
    [
      own.x0 + text.transform[4],
      own.top + text.transform[5],
      own.x1 + text.transform[4],
      own.bottom + text.transform[5],
    ],
  ];
  const { lines } = layout(d, frame);
  expect(lines.length).toBeGreaterThan(20);
  for (const l of lines)
    for (const [x0, y0, x1, y1] of boxes) {
      const over = l.bottom + 50 > y0 && l.top + 50 < y1 && l.x1 + 50 > x0 - 2 + 0.01 && l.x0 + 50 < x1 + 2 - 0.01;
      expect(over).toBe(false);
    }
});
