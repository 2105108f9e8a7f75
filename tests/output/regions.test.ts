import { regionsIn } from '@/core/derive/regions';
import { record, tryOut, undoEntry, redoEntry } from '@/core/edit/history';
import { moveNodes, scaleNodes } from '@/core/edit/place';
import { makeRegions, paintAreas, paintsOfAreas, regionsToShapes, setGap, settleRegions } from '@/core/edit/regions';
import { prepare, type Engines } from '@/core/engines';
import { pathContains } from '@/core/geometry/contains';
import { scaling } from '@/core/geometry/matrix';
import { newDesign, outlineOf, setupOf } from '@/core/model/defaults';
import { visitPaints } from '@/core/model/paints';
import type { Design, NodeOf, Paint } from '@/core/model/schema';
import { verifyDesign } from '@/core/model/verify';
import { walk } from '@/core/scene/walk';
import { DesignBuilder, flat } from '@/demo/builder';
import { checkX4 } from '../support/checkX4';
import { faults } from '../support/faults';
import { separate } from '../support/ghostscript';
import { pdfOf, platesOf } from '../support/press';
import { cmyk, making } from '../support/sample';
import { testEngines } from '../support/engines';

let engines: Engines;
beforeAll(async () => {
  engines = await testEngines();
});
let n = 0;
const newId = () => `made-${++n}`;
const RED = flat(cmyk(0, 90, 80, 0));
const BLUE = flat(cmyk(90, 40, 0, 0));

/** Three rings and an open wave across them, drawn in lines; areas named by a place in them. */
function page(): { design: Design; group: string; rings: string[]; wave: string } {
  const b = new DesignBuilder(newDesign('Lines', setupOf(300, 240, { bleed: 9 }), making), making);
  const outline = { ...outlineOf(flat(cmyk(0, 0, 0, 100)), 6), cap: 'round' as const };
  const rings = [
    [30, 30],
    [110, 30],
    [70, 90],
  ].map(([x, y], i) => b.shape(`Ring ${i + 1}`, 'ellipse', { x, y, w: 120, h: 120 }, { outline }));
  const wave = b.path('Wave', [0, 10, 120, 2, 100, 60, 190, 180, 290, 110], { outline });
  b.place(0, [...rings, wave]);
  const start = b.done();
  let group = '';
  const design = tryOut(start, (d) => void (group = makeRegions(d, start.pages[0], [...rings, wave], newId)!));
  return { design, group, rings, wave };
}
const groupOf = (d: Design, id: string) => d.nodes[id] as NodeOf<'group'>;
const at = (d: Design, id: string, x: number, y: number): number =>
  regionsIn(d, groupOf(d, id), engines.fonts).faces.findIndex((f) => pathContains(f.polygon, 'evenOdd', { x, y }));
const paintAt = (d: Design, id: string, x: number, y: number): Paint | null =>
  paintsOfAreas(d, groupOf(d, id), engines.fonts)[at(d, id, x, y)] ?? null;
const painted = (d: Design, id: string, places: readonly (readonly [number, number, Paint | null])[]): Design =>
  tryOut(d, (x) => {
    for (const [px, py, paint] of places) paintAreas(x, id, new Set([at(d, id, px, py)]), paint, engines.fonts);
  });
/** As the bench does: the change, then what it means for the areas. */
function changed(d: Design, recipe: Parameters<typeof tryOut>[1]) {
  let lost = 0;
  const step = record(d, 'Change', (x) => {
    recipe(x);
    lost = settleRegions(x, d, engines.fonts);
  })!;
  expect(verifyDesign(step.design)).toMatchObject({ ok: true });
  expect(undoEntry(step.design, step.entry)).toEqual(d);
  expect(redoEntry(d, step.entry)).toEqual(step.design);
  return { design: step.design, lost };
}
const RED_AT = [60, 70] as const;
const BLUE_AT = [200, 70] as const;

test('areas between lines take a paint and lie below the lines; a paint is met like any other; cleared they are gone', () => {
  const { design, group } = page();
  expect(at(design, group, 5, 5)).toBe(-1);
  const d = painted(design, group, [
    [...RED_AT, RED],
    [...BLUE_AT, BLUE],
  ]);
  expect(verifyDesign(d)).toMatchObject({ ok: true });
  expect(paintAt(d, group, ...RED_AT)).toEqual(RED);
  expect(paintAt(d, group, ...BLUE_AT)).toEqual(BLUE);
  expect(paintAt(d, group, 130, 60)).toBeNull();
  const drawn: string[] = [];
  walk(engines.builder.build(d, d.pages[0]).root, (leaf) => void drawn.push(leaf.node));
  // The edge of each in its paint, then the areas, then the lines.
  expect(drawn.slice(0, 5)).toEqual([group, group, group, group, groupOf(d, group).children[0]]);
  const met: unknown[] = [];
  visitPaints(d, (p) => void met.push(p));
  expect(met).toEqual(expect.arrayContaining([RED, BLUE]));
  const cleared = painted(d, group, [[...RED_AT, null]]);
  expect(groupOf(cleared, group).regions!.areas).toHaveLength(1);
});

test('areas follow when lines move, step by step; a line across one colours both halves; what is no longer enclosed is told', () => {
  const { design, group, rings, wave } = page();
  let d = painted(design, group, [
    [...RED_AT, RED],
    [...BLUE_AT, BLUE],
  ]);
  const sheet = design.pages[0];
  // The left ring walks far to the left, a little at a time: its area goes with it.
  for (let i = 0; i < 12; i++) {
    const step = changed(d, (x) => moveNodes(x, sheet, [rings[0]], -10, 0));
    expect(step.lost).toBe(0);
    d = step.design;
  }
  expect(paintAt(d, group, -60, 50)).toEqual(RED);
  expect(paintAt(d, group, ...BLUE_AT)).toEqual(BLUE);
  // The wave is dragged through the right one.
  const cut = changed(d, (x) => moveNodes(x, sheet, [wave], 20, -45));
  expect(cut.lost).toBe(0);
  expect(
    paintsOfAreas(cut.design, groupOf(cut.design, group), engines.fonts).filter((p) => p === null || p.kind !== 'none')
      .length,
  ).toBeGreaterThan(2);
  // The ring of the red area is taken away.
  const gone = changed(d, (x) => {
    x.nodes[rings[0]].hidden = true;
  });
  expect(gone.lost).toBeGreaterThan(0);
  expect(groupOf(gone.design, group).regions!.areas.every((a) => a.paint !== RED)).toBe(true);
});

test('areas are sized with their group, and keep their paints', () => {
  const { design, group } = page();
  const d = painted(design, group, [
    [...RED_AT, RED],
    [...BLUE_AT, BLUE],
  ]);
  const { design: twice, lost } = changed(d, (x) => scaleNodes(x, d.pages[0], [group], scaling(0.5, 1.5)));
  expect(lost).toBe(0);
  expect(paintAt(twice, group, RED_AT[0] * 0.5, RED_AT[1] * 1.5)).toEqual(RED);
  expect(paintAt(twice, group, BLUE_AT[0] * 0.5, BLUE_AT[1] * 1.5)).toEqual(BLUE);
});

test('gaps up to a distance count as closed', () => {
  const b = new DesignBuilder(newDesign('Gap', setupOf(200, 200, { bleed: 0 }), making), making);
  const outline = outlineOf(flat(cmyk(0, 0, 0, 100)), 2);
  const id = b.path('Nearly a square', [0, 20, 24, 1, 20, 120, 1, 120, 120, 1, 120, 20, 1, 23, 20], { outline });
  b.place(0, [id]);
  const start = b.done();
  let group = '';
  const d = tryOut(start, (x) => void (group = makeRegions(x, start.pages[0], [id], newId)!));
  expect(at(d, group, 70, 70)).toBe(-1);
  const closed = tryOut(d, (x) => setGap(x, group, 8));
  expect(at(closed, group, 70, 70)).toBe(0);
  expect(regionsIn(closed, groupOf(closed, group), engines.fonts).bridges).toHaveLength(1);
});

// Oracle: Ghostscript tiffsep of our PDF, the rule as tests/support/agree.ts states it.
test('plates agree; as shapes they print the same; parts in one colour print as the whole: nothing overlaps, nothing shows between', async () => {
  const { design, group, rings } = page();
  const all = regionsIn(design, groupOf(design, group), engines.fonts).faces.map((_, i) => i);
  const d = tryOut(design, (x) =>
    all.forEach((i) => paintAreas(x, group, new Set([i]), i % 2 ? RED : BLUE, engines.fonts)),
  );
  await prepare(engines, d);
  const pdf = await pdfOf(engines, d);
  const ours = await platesOf(engines, d, 300);
  expect(faults(ours, separate(pdf, 300)[0], 'regions')).toEqual([]);
  expect(await checkX4(pdf)).toEqual([]);
  const { design: shapes, entry } = record(
    d,
    'Areas to shapes',
    (x) => void regionsToShapes(x, group, newId, engines.fonts),
  )!;
  expect(verifyDesign(shapes)).toMatchObject({ ok: true });
  expect(undoEntry(shapes, entry)).toEqual(d);
  expect(groupOf(shapes, group).regions).toBeUndefined();
  await prepare(engines, shapes);
  expect(faults(ours, await platesOf(engines, shapes, 300))).toEqual([]);
  // One ink for all, without lines: against the rings filled as they are.
  const ink = flat(cmyk(0, 100, 0, 0));
  const one = tryOut(design, (x) => {
    paintAreas(x, group, new Set(all), ink, engines.fonts);
    for (const id of groupOf(design, group).children) (x.nodes[id] as { outlines: unknown[] }).outlines = [];
  });
  const whole = tryOut(design, (x) => {
    for (const id of groupOf(design, group).children) (x.nodes[id] as { outlines: unknown[] }).outlines = [];
    for (const id of rings) (x.nodes[id] as { fills: unknown[] }).fills = [ink];
  });
  const middle = regionsIn(design, groupOf(design, group), engines.fonts);
  expect(middle.faces.length).toBe(all.length);
  const [p, q] = [await platesOf(engines, one, 300), await platesOf(engines, whole, 300)];
  const [a, w] = [p.get('Magenta')!, q.get('Magenta')!];
  // What the wave encloses beside the rings is in the parts only.
  let missing = 0;
  for (let i = 0; i < w.data.length; i++) if (w.data[i] === 0 && a.data[i] > 25) missing++;
  expect(missing).toBe(0);
});
