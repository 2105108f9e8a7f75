import { record, redoEntry, undoEntry } from '@/core/edit/history';
import { recordMoved } from '@/core/edit/moved';
import { transformNodes } from '@/core/edit/place';
import { rotation, translation } from '@/core/geometry/matrix';
import { aimedNodes, aimedPaints } from '@/core/edit/aims';
import { setColour } from '@/core/edit/paint';
import { childrenOf, pageMatrix, pageOf } from '@/core/model/tree';
import { demoDesigns } from '@/demo/demos';
import { random } from '../support/random';
import { sampleDesign } from '../support/sample';

// The quick way says what the draft says, for whatever is chosen: top-level objects, what lies in groups, a group and
// its own part.
test('many moved at once are what a draft makes of them, and back', () => {
  const next = random(11);
  for (const design of [
    sampleDesign(),
    ...demoDesigns()
      .slice(0, 4)
      .map((d) => d.design),
  ])
    for (let round = 0; round < 12; round++) {
      const page = design.pages[Math.floor(next() * design.pages.length)];
      const below = (ids: readonly string[]): string[] =>
        ids.flatMap((id) => [id, ...below(childrenOf(design.nodes[id]))]);
      const ids = below(page.children).filter(() => next() < 0.4);
      const map =
        round % 3 === 0
          ? translation(next() * 20, -next() * 20)
          : round % 3 === 1
            ? rotation(next() * 360, { x: 30, y: 40 })
            : ([-1, 0, 0, 1, 200, 0] as const);
      const modified = '2026-11-02T18:00:00.000Z';
      const quick = recordMoved(design, 'Move', page, ids, map, modified);
      const slow = record(design, 'Move', (d) => {
        transformNodes(d, page, ids, map);
        if (ids.length) d.modified = modified;
      });
      if (!ids.length) {
        expect(quick).toBeNull();
        continue;
      }
      expect(quick!.design).toEqual(slow!.design);
      expect(redoEntry(design, quick!.entry)).toEqual(slow!.design);
      expect(undoEntry(quick!.design, quick!.entry)).toEqual(design);
    }
});

test('what moves by nothing is no step', () => {
  const design = sampleDesign();
  expect(recordMoved(design, 'Move', design.pages[0], design.pages[0].children, translation(0, 0), 'x')).toBeNull();
});

test('what is known of many holds while they move, and no longer: their parts, paints and index', () => {
  const start = sampleDesign();
  const [page] = start.pages;
  const like = start.nodes[page.children.find((id) => 'fills' in start.nodes[id])!];
  const copies = Array.from({ length: 300 }, (_, i) => ({
    ...like,
    id: `copy ${i}`,
    transform: [1, 0, 0, 1, i, 2 * i] as const,
  }));
  const design = {
    ...start,
    pages: [{ ...page, children: copies.map((c) => c.id) }],
    nodes: Object.fromEntries(copies.map((c) => [c.id, c])),
  };
  const ids = design.pages[0].children;
  const [nodes, paints] = [aimedNodes(design, ids, 'fill'), aimedPaints(design, ids, 'fill')];
  const moved = recordMoved(design, 'Move', design.pages[0], ids, translation(3, 4), 'x')!.design;
  expect(aimedNodes(moved, ids, 'fill')).toBe(nodes);
  expect(aimedPaints(moved, ids, 'fill')).toBe(paints);
  expect(pageMatrix(moved, moved.pages[0], 'copy 7')).toEqual([1, 0, 0, 1, 10, 18]);
  const blue = record(moved, 'Blue', (d) => setColour(d, ids, 'fill', { cmyk: [1, 0.5, 0, 0] }))!.design;
  expect(aimedPaints(blue, ids, 'fill')).toEqual(
    ids.map(() => ({ kind: 'colour', colour: { cmyk: [1, 0.5, 0, 0] }, overprint: false })),
  );
  const fewer = record(moved, 'Fewer', (d) => {
    d.pages[0].children.shift();
    delete d.nodes['copy 0'];
  })!.design;
  expect(aimedNodes(fewer, ids, 'fill')).toHaveLength(299);
  expect(pageOf(fewer, 'copy 0')).toBeUndefined();
});
