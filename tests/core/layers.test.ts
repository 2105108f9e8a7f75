import { record, tryOut, undoEntry } from '@/core/edit/history';
import { layersNamed, setLayers } from '@/core/edit/layers';
import { prepare, type Engines } from '@/core/engines';
import { newDesign, runOf, setupOf } from '@/core/model/defaults';
import { printedOf } from '@/core/model/printed';
import type { Design } from '@/core/model/schema';
import { verifyDesign } from '@/core/model/verify';
import { DesignBuilder, flat } from '@/demo/builder';
import { pdfOf } from '../support/press';
import { words } from '../support/qpdf';
import { cmyk, making } from '../support/sample';
import { testEngines } from '../support/engines';

let engines: Engines;
beforeAll(async () => {
  engines = await testEngines();
});

/** Two pages, each with words and a layer of notes over them. */
function noted(): Design {
  const b = new DesignBuilder(newDesign('Noted', setupOf(300, 200, { bleed: 0 }), making), making);
  for (const page of [0, 1]) {
    const say = (text: string, y: number) => b.displayText(text, 20, y, [{ runs: [runOf(text, 20)] }]);
    const layer = b.group('Notes', [
      say('Move this up', 120),
      b.shape('Box', 'rectangle', { x: 10, y: 90, w: 200, h: 60 }, { fill: flat(cmyk(0, 0, 80, 0)) }),
    ]);
    b.place(page, [say(`Page ${page + 1}`, 50), layer]);
    const node = b.nodes[layer];
    if (node.kind === 'group') b.nodes[layer] = { ...node, layer: true };
  }
  return b.done();
}

test('layers of a name are set on all pages in one step; for proof only they are in no PDF, and no other page changes', async () => {
  const d = noted();
  const ids = layersNamed(d, 'Notes');
  expect(ids).toHaveLength(2);
  expect(printedOf(d)).toBe(d);
  const step = record(d, 'Proof', (x) => setLayers(x, ids, { proof: true, locked: true }))!;
  const proof = step.design;
  expect(verifyDesign(proof)).toMatchObject({ ok: true });
  expect(ids.map((id) => proof.nodes[id])).toMatchObject([
    { proof: true, locked: true },
    { proof: true, locked: true },
  ]);
  expect(undoEntry(proof, step.entry)).toEqual(d);
  await prepare(engines, proof);
  // Seen while one works …
  expect(engines.builder.build(proof, proof.pages[0]).root.content).toHaveLength(3);
  // … and in nothing that is handed over; the same object again for the same design.
  const printed = printedOf(proof);
  expect(printedOf(proof).nodes).toBe(printed.nodes);
  expect(engines.builder.build(printed, printed.pages[0]).root.content).toHaveLength(1);
  expect(
    words(await pdfOf(engines, printed))
      .replace(/\s+/g, ' ')
      .trim(),
  ).toBe('Page 1 Page 2');
  expect(words(await pdfOf(engines, d))).toContain('Move this up');
  const one = tryOut(proof, (x) => setLayers(x, [ids[0]], { proof: false, hidden: true }));
  expect(one.nodes[ids[0]]).not.toHaveProperty('proof');
  expect(one.nodes[ids[1]]).toBe(proof.nodes[ids[1]]);
});
