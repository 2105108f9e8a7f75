import { changeWords, findWords, type Looking } from '@/core/edit/findWords';
import { record, undoEntry } from '@/core/edit/history';
import { newDesign, runOf, setupOf } from '@/core/model/defaults';
import { verifyDesign } from '@/core/model/verify';
import { plainText } from '@/core/text/layout';
import { DesignBuilder } from '@/demo/builder';
import { making } from '../support/sample';

function pages() {
  const b = new DesignBuilder(newDesign('Words', setupOf(300, 300), making), making);
  const one = b.displayText('One', 20, 60, [{ runs: [runOf('Quay and quay, ', 20), runOf('QUAYSIDE', 30)] }]);
  const two = b.textFrame('Two', { x: 20, y: 90, w: 200, h: 90 }, [
    { runs: [runOf('At the quay', 12)] },
    { runs: [runOf('İstanbul quays', 12)] },
  ]);
  b.place(0, [one]);
  b.place(1, [two]);
  return b.done();
}
const looking = (words: string, more: Partial<Looking> = {}): Looking => ({
  words,
  capitals: false,
  whole: false,
  ...more,
});
const texts = (d: ReturnType<typeof pages>) => Object.values(d.stories).map(plainText);

test('words are found on every page, with what is round them', () => {
  const d = pages();
  const found = findWords(d, looking('quay'));
  expect(found.map((f) => d.pages.findIndex((p) => p.id === f.page))).toEqual([0, 0, 0, 1, 1]);
  expect(found[1]).toMatchObject({ from: 9, to: 13, before: 'Quay and ', after: ', QUAYSIDE' });
  expect(findWords(d, looking('quay', { capitals: true }))).toHaveLength(3);
  expect(findWords(d, looking('quay', { whole: true })).map((f) => f.from)).toEqual([0, 9, 7]);
  // A capital whose small letter is longer moves no place.
  expect(findWords(d, looking('quays')).map((f) => f.from)).toEqual([15, 21]);
  expect(findWords(d, looking(''))).toEqual([]);
});

test('all of them are changed at once, look as they did, and come back in one step', () => {
  const d = pages();
  const done = record(d, 'Change', (x) => {
    expect(changeWords(x, findWords(d, looking('quay')), 'pier')).toBe(5);
  })!;
  expect(texts(done.design)).toEqual(['pier and pier, pierSIDE', 'At the pier\nİstanbul piers']);
  expect(verifyDesign(done.design)).toMatchObject({ ok: true });
  const [first] = Object.values(done.design.stories);
  expect(first.paragraphs[0].runs.map((r) => r.size)).toEqual([20, 30]);
  expect(undoEntry(done.design, done.entry)).toEqual(d);
  // All taken out: the text by itself goes, the frame stays.
  const out = record(d, 'Take out', (x) => void changeWords(x, findWords(d, looking('Quay and quay, QUAYSIDE')), ''))!;
  expect(verifyDesign(out.design)).toMatchObject({ ok: true });
  expect(Object.values(out.design.nodes).map((n) => n.name)).toEqual(['Two']);
  expect(undoEntry(out.design, out.entry)).toEqual(d);
});
