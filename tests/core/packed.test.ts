import { record, redoEntry, undoEntry, type HistoryEntry } from '@/core/edit/history';
import { recordMoved } from '@/core/edit/moved';
import { packed, unpacked } from '@/core/edit/packed';
import { translation } from '@/core/geometry/matrix';
import type { Design } from '@/core/model/schema';
import type { Patches } from 'mutative';
import { sampleDesign } from '../support/sample';

/** The sample with very many copies of its first object. */
function crowd(n: number): Design {
  const start = sampleDesign();
  const [page] = start.pages;
  const like =
    start.nodes[page.children.find((id) => !('children' in start.nodes[id]) && !('story' in start.nodes[id]))!];
  const copies = Array.from({ length: n }, (_, i) => ({
    ...like,
    id: `copy "${i}"\n`,
    transform: [1, 0, 0, 1, i / 3, 0.1 * i] as const,
  }));
  return {
    ...start,
    pages: [{ ...page, children: copies.map((c) => c.id) }],
    nodes: Object.fromEntries(copies.map((c) => [c.id, c])),
  };
}
const through = (entry: HistoryEntry): HistoryEntry => ({
  label: entry.label,
  patches: unpacked<Patches>(structuredClone(entry.packed?.patches ?? packed(entry.patches))),
  inverse: unpacked<Patches>(structuredClone(entry.packed?.inverse ?? packed(entry.inverse))),
});

test.each([1, 1000])('a step of %i moved objects comes out as it went in, to the last digit', (n) => {
  const design = crowd(n);
  const {
    entry,
    design: after,
    placed,
  } = recordMoved(design, 'Move', design.pages[0], design.pages[0].children, translation(0.1, 1 / 3), 'later')!;
  expect(placed).toHaveLength(n);
  const kept = through(entry);
  expect(kept.patches).toEqual(entry.patches);
  expect(redoEntry(design, kept)).toEqual(after);
  expect(undoEntry(after, kept)).toEqual(design);
});

test('a step that does more to objects than move them keeps its order', () => {
  const design = crowd(300);
  const { entry, design: after } = record(design, 'Move and remove', (d) => {
    for (const node of Object.values(d.nodes)) node.transform[4] += 1;
    d.pages[0].children.shift();
    delete d.nodes[design.pages[0].children[0]];
    d.name = 'Fewer';
  })!;
  expect(redoEntry(design, through(entry))).toEqual(after);
});

test('what is kept as plain patches, or as text, is read as before; a damaged one is refused', () => {
  const patches: Patches = [{ op: 'replace', path: ['name'], value: 'X' }];
  expect(unpacked(patches)).toEqual(patches);
  expect(unpacked<Patches>(JSON.stringify(patches))).toEqual(patches);
  expect(() => unpacked<Patches>({ ids: '["a","b"]', transforms: new Float64Array(6), others: '[]' })).toThrow(
    /six numbers/,
  );
});
