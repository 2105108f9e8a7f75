import { makePlain } from '@/core/edit/plain';
import { record, undoEntry } from '@/core/edit/history';
import { childrenOf } from '@/core/model/tree';
import { newDesign, runOf, setupOf } from '@/core/model/defaults';
import type { Design } from '@/core/model/schema';
import { verifyDesign } from '@/core/model/verify';
import { runOn } from '@/core/edit/thread';
import { tryOut } from '@/core/edit/history';
import { DesignBuilder } from '@/demo/builder';
import type { Engines } from '@/core/engines';
import { testEngines } from '../support/engines';
import { platesOf } from '../support/press';
import { making } from '../support/sample';
import { wordsPage } from '../support/wordsPage';

let engines: Engines;
beforeAll(async () => {
  engines = await testEngines();
});
let n = 0;
const newId = () => `shape${n++}`;
const texts = (d: Design) => Object.values(d.nodes).filter((x) => 'story' in x);

test('letters of every kind as shapes print as they did, and come back by undo', async () => {
  // Letters that overlap on a tight circle have each its outline over the one before, not all outlines over all
  // letters.
  const design = tryOut(wordsPage(engines).design, (d) => {
    for (const node of Object.values(d.nodes))
      if (node.kind === 'displayText' && node.along)
        for (const p of d.stories[node.story].paragraphs) for (const r of p.runs) r.outline = null;
  });
  const before = await platesOf(engines, design, 100);
  const page = design.pages[0];
  const made = record(design, 'Make plain', (d) => void makePlain(d, page, page.children, newId, engines.fonts))!;
  expect(texts(design).length).toBeGreaterThan(10);
  expect(texts(made.design)).toEqual([]);
  expect(Object.keys(made.design.stories)).toEqual([]);
  expect(verifyDesign(made.design)).toMatchObject({ ok: true });
  const after = await platesOf(engines, made.design, 100);
  expect([...after.keys()]).toEqual([...before.keys()]);
  for (const [ink, grey] of before) {
    // Where letters touch their edges meet anew: a few pixels, a few levels.
    const theirs = after.get(ink)!.data;
    let off = 0;
    for (let i = 0; i < theirs.length; i++) if (Math.abs(theirs[i] - grey.data[i]) > 24) off++;
    expect([ink, off / theirs.length < 2e-4]).toEqual([ink, true]);
  }
  expect(undoEntry(made.design, made.entry)).toEqual(design);
});

test('letters lie in groups by word, each under its name; a frame keeps its own shape below them', () => {
  const b = new DesignBuilder(newDesign('Words', setupOf(300, 200), making), making);
  const line = b.displayText('Line', 20, 60, [{ runs: [runOf('Lantern ', 20), runOf('Walk', 20)] }]);
  b.place(0, [line]);
  const d = b.done();
  const plain = tryOut(d, (x) => void makePlain(x, d.pages[0], [line], newId, engines.fonts));
  const words = childrenOf(plain.nodes[line]).map((id) => plain.nodes[id]);
  expect(words.map((w) => w.name)).toEqual(['Lantern', 'Walk']);
  expect(childrenOf(words[1]).map((id) => plain.nodes[id].name)).toEqual(['W', 'a', 'l', 'k']);
});

test('frames that share their words become shapes together', () => {
  const b = new DesignBuilder(newDesign('Thread', setupOf(300, 200), making), making);
  const said = 'Home-made paper lanterns walk the quays of Marrowick each November';
  const one = b.textFrame('One', { x: 20, y: 20, w: 80, h: 30 }, [{ runs: [runOf(said, 11)] }]);
  const two = b.textFrame('Two', { x: 120, y: 20, w: 80, h: 90 }, [{ runs: [runOf('', 11)] }]);
  b.place(0, [one, two]);
  const d = tryOut(b.done(), (x) => runOn(x, one, two));
  const plain = tryOut(d, (x) => void makePlain(x, d.pages[0], [one], newId, engines.fonts));
  expect(texts(plain)).toEqual([]);
  expect(verifyDesign(plain)).toMatchObject({ ok: true });
  const words = [one, two].flatMap((id) => childrenOf(plain.nodes[id]).map((w) => plain.nodes[w].name));
  expect(words.join(' ')).toBe(said);
});
