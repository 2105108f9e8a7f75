import { fitFrames, lengthOf, matchHeight, matchLength, setShrink } from '@/core/edit/fit';
import { record, redoEntry, tryOut, undoEntry } from '@/core/edit/history';
import { cutThread, runOn } from '@/core/edit/thread';
import { deleteNodes } from '@/core/edit/remove';
import { copyNodes } from '@/core/edit/clip';
import { layoutOf } from '@/core/derive/layout';
import { newDesign, runOf, setupOf } from '@/core/model/defaults';
import type { Design, NodeOf } from '@/core/model/schema';
import { verifyDesign } from '@/core/model/verify';
import { FACES } from '@/core/text/faces';
import { plainText } from '@/core/text/layout';
import { DesignBuilder } from '@/demo/builder';
import type { Engines } from '@/core/engines';
import { making } from '../support/sample';
import { testEngines } from '../support/engines';

let engines: Engines;
beforeAll(async () => {
  engines = await testEngines();
  await engines.fonts.load(FACES.map((f) => f.id));
});
const WORDS =
  'Home-made paper lanterns walk the quays of Marrowick each November, past boats and stalls and the old weigh house.';

function page(words = WORDS) {
  const b = new DesignBuilder(newDesign('Fit', setupOf(400, 400), making), making);
  const head = b.displayText('Head', 50, 60, [{ runs: [runOf('Lantern Walk', 20)] }]);
  const one = b.textFrame('One', { x: 20, y: 100, w: 100, h: 60 }, [
    { runs: [runOf(words, 11, undefined, 'archivo-400')] },
  ]);
  const two = b.textFrame('Two', { x: 140, y: 100, w: 100, h: 60 }, [{ runs: [runOf('', 11)] }]);
  const three = b.textFrame('Three', { x: 260, y: 100, w: 100, h: 60 }, [{ runs: [runOf('Then this.', 11)] }]);
  b.place(0, [head, one, two, three]);
  return { d: b.done(), head, one, two, three };
}
const display = (d: Design, id: string) => d.nodes[id] as NodeOf<'displayText'>;
const layout = (d: Design, id: string) => layoutOf(d, d.nodes[id] as NodeOf<'textFrame'>, engines.fonts);
const storyOf = (d: Design, id: string) => d.stories[(d.nodes[id] as NodeOf<'textFrame'>).story];

// Bar: within 0.05 pt for every face that ships.
test.each(FACES.map((f) => f.id))('words in %s become as long as they are to be, by size and by tracking', (face) => {
  const { d, head } = page();
  const set = tryOut(d, (x) => {
    (x.stories[display(d, head).story].paragraphs[0].runs[0] as { face?: string }).face = face;
  });
  for (const by of ['size', 'tracking'] as const)
    for (const length of [180.37, 311.9]) {
      const next = tryOut(set, (x) => expect(matchLength(x, head, length, by, engines.fonts)).toBe(true));
      expect(Math.abs(lengthOf(next, display(next, head), engines.fonts) - length)).toBeLessThanOrEqual(0.05);
    }
});

test('what cannot be so long is told, and left as near as it goes; capitals become so high', () => {
  const { d, head } = page();
  tryOut(d, (x) => expect(matchLength(x, head, 100_000_000, 'size', engines.fonts)).toBe(false));
  const next = tryOut(d, (x) => matchHeight(x, head, 30, 'capitals', engines.fonts));
  const { size = 0, face = '' } = storyOf(next, head).paragraphs[0].runs[0];
  expect(size * engines.fonts.get(face)!.capHeight).toBeCloseTo(30, 9);
});

test('a frame becomes as high as its words, in columns too; words shrink to fit, and stop at the floor', () => {
  const { d, one } = page();
  expect(layout(d, one).overset).toBeGreaterThan(0);
  for (const columns of [undefined, { count: 2, gutter: 10 }]) {
    const set = tryOut(d, (x) => {
      if (columns) (x.nodes[one] as { columns?: unknown }).columns = columns;
    });
    const fitted = tryOut(set, (x) => fitFrames(x, [one], engines.fonts));
    expect(layout(fitted, one).overset).toBe(0);
    const { height } = fitted.nodes[one] as NodeOf<'textFrame'>;
    const lower = tryOut(fitted, (x) => void ((x.nodes[one] as { height: number }).height = height - 2));
    expect(layout(lower, one).overset).toBeGreaterThan(0);
  }
  const shrunk = tryOut(d, (x) => setShrink(x, [one], 5));
  expect(verifyDesign(shrunk).ok).toBe(true);
  expect(layout(shrunk, one).overset).toBe(0);
  const size = layout(shrunk, one).lines[0].runs[0].size;
  expect(size).toBeLessThan(11);
  expect(size).toBeGreaterThanOrEqual(5);
  // The words keep the size they are set in.
  expect(storyOf(shrunk, one).paragraphs[0].runs[0].size).toBe(11);
  const floor = tryOut(d, (x) => setShrink(x, [one], 10.5));
  expect(layout(floor, one).lines[0].runs[0].size).toBeCloseTo(10.5, 6);
  expect(layout(floor, one).overset).toBeGreaterThan(0);
});

describe('threads', () => {
  test('words run on into an empty frame, and into one with words, which follow', () => {
    const { d, one, two, three } = page();
    const a = tryOut(d, (x) => runOn(x, one, two));
    const b = tryOut(a, (x) => runOn(x, two, three));
    for (const x of [a, b]) expect(verifyDesign(x)).toMatchObject({ ok: true });
    expect(storyOf(b, three)).toBe(storyOf(b, one));
    expect(storyOf(b, one).frames).toEqual([one, two, three]);
    expect(plainText(storyOf(b, one))).toBe(`${WORDS}\nThen this.`);
    const told = [one, two, three].flatMap((id) => layout(b, id).lines.map((l) => [l.start, l.end]));
    expect(told[0][0]).toBe(0);
    for (let i = 1; i < told.length; i++) expect(told[i][0]).toBeGreaterThanOrEqual(told[i - 1][1]);
    expect([one, two].map((id) => layout(b, id).overset)).toEqual([0, 0]);
    expect(layout(b, two).lines.length).toBeGreaterThan(0);
    // All of it is one step, there and back.
    const step = record(d, 'Run on', (x) => runOn(x, one, two))!;
    expect(undoEntry(step.design, step.entry)).toEqual(d);
    expect(redoEntry(d, step.entry)).toEqual(step.design);
  });
  test('a frame that goes leaves its words to the others; one that is taken out stands empty', () => {
    const { d, one, two, three } = page();
    const b = tryOut(
      tryOut(d, (x) => runOn(x, one, two)),
      (x) => runOn(x, two, three),
    );
    const gone = tryOut(b, (x) => deleteNodes(x, b.pages[0], [two]));
    expect(verifyDesign(gone)).toMatchObject({ ok: true });
    expect(storyOf(gone, one).frames).toEqual([one, three]);
    const last = tryOut(gone, (x) => deleteNodes(x, gone.pages[0], [one]));
    expect(storyOf(last, three).frames).toBeUndefined();
    expect(plainText(storyOf(last, three))).toContain('Home-made');
    let n = 0;
    const cut = tryOut(b, (x) => cutThread(x, two, () => `new${n++}`));
    expect(verifyDesign(cut)).toMatchObject({ ok: true });
    expect(plainText(storyOf(cut, two))).toBe('');
    expect(storyOf(cut, one).frames).toEqual([one, three]);
  });
  test('a copy of one frame takes the words, not the thread', () => {
    const { d, one, two } = page();
    const b = tryOut(d, (x) => runOn(x, one, two));
    expect(Object.values(copyNodes(b, b.pages[0], [one])!.stories)[0].frames).toBeUndefined();
    expect(Object.values(copyNodes(b, b.pages[0], [one, two])!.stories)[0].frames).toEqual([one, two]);
  });
});
