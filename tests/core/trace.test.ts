import { record, undoEntry } from '@/core/edit/history';
import { referencesOn, traceNodes, tracePage } from '@/core/edit/trace';
import { prepare, type Engines } from '@/core/engines';
import { newDesign, setupOf } from '@/core/model/defaults';
import { printedOf } from '@/core/model/printed';
import { pageMatrix } from '@/core/model/tree';
import type { Design, NodeOf } from '@/core/model/schema';
import { verifyDesign } from '@/core/model/verify';
import { walk } from '@/core/scene/walk';
import { DesignBuilder, flat } from '@/demo/builder';
import { cmyk, making } from '../support/sample';
import { testEngines } from '../support/engines';

let engines: Engines;
beforeAll(async () => {
  engines = await testEngines();
});
let n = 0;
const newId = () => `made-${++n}`;

function two(): { design: Design; inner: string; work: string } {
  const b = new DesignBuilder(newDesign('Trace', setupOf(300, 300, { bleed: 0 }), making), making);
  const fill = flat(cmyk(0, 60, 90, 0));
  const inner = b.shape('Flame', 'drop', { x: 40, y: 40, w: 60, h: 90 }, { fill });
  const group = b.group(
    'Held',
    [inner, b.shape('Other', 'ellipse', { x: 120, y: 40, w: 40, h: 40 }, { fill })],
    [1, 0, 0, 1, 15, 25],
  );
  const work = b.shape('Work', 'rectangle', { x: 10, y: 200, w: 50, h: 50 }, { fill });
  b.place(0, [group, work]);
  b.place(1, [b.shape('Elsewhere', 'star', { x: 50, y: 50, w: 90, h: 90 }, { fill })], 'Sketch');
  return { design: b.done(), inner, work };
}

test('what is traced is a layer of its own: dimmed, locked, where it was, and on nothing that is handed over', async () => {
  const { design, inner } = two();
  const page = design.pages[0];
  const before = pageMatrix(design, page, inner);
  const { design: after, entry } = record(design, 'Trace it', (d) => void traceNodes(d, page, [inner], newId))!;
  expect(verifyDesign(after)).toMatchObject({ ok: true });
  const [layer] = referencesOn(after, after.pages[0]);
  expect(layer).toMatchObject({
    layer: true,
    proof: true,
    locked: true,
    opacity: 0.4,
    name: 'Reference',
    children: [inner],
  });
  expect(after.pages[0].children).toContain(layer.id);
  pageMatrix(after, after.pages[0], inner).forEach((v, i) => expect(v).toBeCloseTo(before[i], 9));
  await prepare(engines, after);
  const drawn = (d: Design): string[] => {
    const out: string[] = [];
    walk(engines.builder.build(d, d.pages[0]).root, (leaf) => void out.push(leaf.node));
    return out;
  };
  expect(drawn(after)).toContain(inner);
  expect(drawn(printedOf(after))).not.toContain(inner);
  expect(undoEntry(after, entry)).toEqual(design);
});

test('another page lies below the work as a copy; the page itself stays as it is', () => {
  const { design, work } = two();
  const [page, other] = design.pages;
  const { design: after, entry } = record(design, 'Trace a page', (d) => void tracePage(d, page, other, newId))!;
  expect(verifyDesign(after)).toMatchObject({ ok: true });
  const [layer] = referencesOn(after, after.pages[0]);
  expect(after.pages[0].children[0]).toBe(layer.id);
  expect(after.pages[0].children).toContain(work);
  expect(layer.children.map((c) => after.nodes[c].name)).toEqual(['Elsewhere']);
  expect(after.pages[1]).toEqual(other);
  expect((after.nodes[other.children[0]] as NodeOf<'shape'>).name).toBe('Elsewhere');
  expect(undoEntry(after, entry)).toEqual(design);
  expect(record(design, 'Trace a page', (d) => void tracePage(d, other, { ...page, children: [] }, newId))).toBeNull();
});
