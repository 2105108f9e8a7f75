import { record, redoEntry, undoEntry } from '@/core/edit/history';
import { recordMoved } from '@/core/edit/moved';
import { transformNodes } from '@/core/edit/place';
import { rotation, translation } from '@/core/geometry/matrix';
import { childrenOf } from '@/core/model/tree';
import { demoDesigns } from '@/demo/demos';
import { random } from '../support/random';
import { sampleDesign } from '../support/sample';

// The quick way says what the draft says, for whatever is chosen: top-level objects, what lies in groups, a group and its own part.
test('many moved at once are what a draft makes of them, and back', () => {
  const next = random(11);
  for (const design of [sampleDesign(), ...demoDesigns().slice(0, 4).map((d) => d.design)])
    for (let round = 0; round < 12; round++) {
      const page = design.pages[Math.floor(next() * design.pages.length)];
      const below = (ids: readonly string[]): string[] => ids.flatMap((id) => [id, ...below(childrenOf(design.nodes[id]))]);
      const ids = below(page.children).filter(() => next() < 0.4);
      const map = round % 3 === 0 ? translation(next() * 20, -next() * 20) : round % 3 === 1 ? rotation(next() * 360, { x: 30, y: 40 }) : ([-1, 0, 0, 1, 200, 0] as const);
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
