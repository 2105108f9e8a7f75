import { beforeAll, describe, expect, test } from '@jest/globals';
import { areaOf } from '@/core/derive/area';
import { boxIn, localBox } from '@/core/derive/box';
import { copyNodes, pasteClip } from '@/core/edit/clip';
import { clipOf } from '../support/clips';
import {
  closeByBridge,
  closeByMoving,
  combineNodes,
  openGaps,
  setCombination,
  type CombineOp,
} from '@/core/edit/combine';
import { record, tryOut, tryOutOn, undoEntry, type Recipe } from '@/core/edit/history';
import { aimedNodes } from '@/core/edit/aims';
import { setColour } from '@/core/edit/paint';
import { moveNodes, scaleNodes } from '@/core/edit/place';
import { ungroupNodes } from '@/core/edit/pile';
import { canBePlain, makePlain } from '@/core/edit/plain';
import { arrangedAs, evenStep, firstArrangement, repeatNodes, setArrangement, tooManyCopies } from '@/core/edit/repeat';
import { piecesOf } from '@/core/geometry/boolean/pieces';
import type { Region } from '@/core/geometry/boolean/region';
import { wrongShare } from '@/core/geometry/boolean/scanline';
import { apply, scaling, translation } from '@/core/geometry/matrix';
import { contourArea, contoursOf } from '@/core/geometry/segments';
import { copyMatrices } from '@/core/model/copies';
import type { Arrangement, Design, NodeOf } from '@/core/model/schema';
import { newShadow } from '@/core/edit/effects';
import { asShape, asWindow } from '@/core/edit/window';
import { runOf, setupOf } from '@/core/model/defaults';
import { serializeDesign } from '@/core/model/serialize';
import { verifyDesign } from '@/core/model/verify';
import { transformPath } from '@/core/geometry/path';
import type { Engines } from '@/core/engines';
import { prepare } from '@/core/engines';
import { INK, OTHER, box, disc, idOf, named, sheet } from '../support/drawing';
import { testEngines } from '../support/engines';
import { leavesOf } from '../support/scenes';

let engines: Engines;
beforeAll(async () => {
  engines = await testEngines();
});
let n = 0;
const newId = () => `c${n++}`;
const area = (r: Region) =>
  piecesOf(r).reduce(
    (sum, p) => sum + contoursOf(p.path).reduce((m, c, i) => m + Math.abs(contourArea(c.segments)) * (i ? -1 : 1), 0),
    0,
  );

const two = () => sheet((b) => [box(b, 'Back', 0, 0, 100, 100, OTHER), disc(b, 'Front', 100, 50, 40)]);
function combined(
  d: Design,
  op: CombineOp,
  reversed = false,
  names = ['Back', 'Front'],
): { design: Design; id: string } {
  let id = '';
  const design = tryOut(d, (x) => {
    id = combineNodes(
      x,
      d.pages[0],
      names.map((m) => idOf(d, m)),
      op,
      reversed,
      newId,
      engines.fonts,
    )!;
  });
  return { design, id };
}
const regionOf = (d: Design, id: string) => areaOf(d, id, engines.fonts).region;
const half = (Math.PI * 1600) / 2;

describe('combinations', () => {
  test.each([
    ['union', false, 1e4 + half],
    ['subtract', false, 1e4 - half],
    ['subtract', true, half],
    ['intersect', false, half],
    ['exclude', false, 1e4],
  ] as const)('%s (reversed: %s) has the area that sets have', (op, reversed, expected) => {
    const { design, id } = combined(two(), op, reversed);
    expect(Math.abs(area(regionOf(design, id)) / expected - 1)).toBeLessThan(1e-3);
    expect(verifyDesign(design)).toMatchObject({ ok: true });
    // The one that stays gives its paint: of a subtraction what is taken from, else the front one.
    expect(named(design, design.nodes[id].name)).toMatchObject({
      fills: [{ colour: op === 'subtract' && !reversed ? OTHER : INK }],
    });
  });

  test('operands are moved, re-dialled, hidden and the result follows; the same in the scene', () => {
    const { design, id } = combined(two(), 'subtract');
    const moved = tryOut(design, (d) => moveNodes(d, design.pages[0], [idOf(design, 'Front')], -50, 0));
    expect(Math.abs(area(regionOf(moved, id)) / (1e4 - Math.PI * 1600) - 1)).toBeLessThan(1e-3);
    const items = leavesOf(engines.builder.build(moved, moved.pages[0]));
    expect(items).toHaveLength(1);
    expect(items[0]).toMatchObject({ node: id, type: 'fill' });
    expect(area({ path: items[0].placed.path, rule: 'evenOdd' })).toBeCloseTo(area(regionOf(moved, id)), 6);
    const hidden = tryOut(design, (d) => void (d.nodes[idOf(design, 'Front')].hidden = true));
    expect(area(regionOf(hidden, id))).toBeCloseTo(1e4, 6);
    const other = tryOut(design, (d) => setCombination(d, id, { op: 'intersect' }));
    expect(Math.abs(area(regionOf(other, id)) / half - 1)).toBeLessThan(1e-3);
    expect(other.nodes[id].name).toBe('Intersection');
  });

  test('text, groups and combinations are combined like shapes', async () => {
    const d = sheet((b) => [
      box(b, 'Plate', 0, 0, 200, 80),
      b.displayText('Word', 20, 60, [
        {
          align: 'left',
          leading: 1,
          runs: [runOf('QUAY', 50, { kind: 'colour', colour: OTHER, overprint: false }, 'alfa-slab-400')],
        },
      ]),
      b.group('Pair', [disc(b, 'One', 20, 90, 10), disc(b, 'Two', 180, 90, 10)]),
    ]);
    await prepare(engines, d);
    const cut = combined(d, 'subtract', false, ['Plate', 'Word']);
    const letters = areaOf(d, idOf(d, 'Word'), engines.fonts).region;
    const whole: Region = { path: transformPath(letters.path, named(d, 'Word').transform), rule: letters.rule };
    expect(
      wrongShare(
        { path: areaOf(d, idOf(d, 'Plate'), engines.fonts).region.path, rule: 'nonZero' },
        whole,
        'subtract',
        regionOf(cut.design, cut.id),
        501,
      ),
    ).toBeLessThan(1e-4);
    // And that with a group: a combination in a combination.
    let id = '';
    const nested = tryOut(cut.design, (x) => {
      id = combineNodes(x, cut.design.pages[0], [cut.id, idOf(d, 'Pair')], 'union', false, newId, engines.fonts)!;
    });
    expect(area(regionOf(nested, id))).toBeGreaterThan(area(regionOf(cut.design, cut.id)) + 300);
    expect(verifyDesign(nested)).toMatchObject({ ok: true });
  });

  test('a division paints every piece as the frontmost over it; plain, each is a path of its own', () => {
    const { design, id } = combined(two(), 'divide');
    const items = leavesOf(engines.builder.build(design, design.pages[0]));
    expect(items.map((i) => (i.paint.kind === 'colour' ? i.paint.colour : null))).toEqual(
      expect.arrayContaining([INK, OTHER]),
    );
    expect(items.reduce((sum, i) => sum + area({ path: i.placed.path, rule: 'evenOdd' }), 0)).toBeCloseTo(
      1e4 + half,
      -1,
    );
    const plain = tryOut(design, (d) => void makePlain(d, design.pages[0], [id], newId, engines.fonts));
    const group = plain.nodes[id];
    expect(group.kind === 'group' && group.children.map((c) => plain.nodes[c].kind)).toEqual(['path', 'path', 'path']);
    expect(verifyDesign(plain)).toMatchObject({ ok: true });
  });

  test('colour given to an operand goes to the combination, of a division to the operand', () => {
    const union = combined(two(), 'union');
    expect(aimedNodes(union.design, [idOf(union.design, 'Front')], 'fill')).toEqual([union.id]);
    const coloured = tryOut(union.design, (d) => setColour(d, [idOf(union.design, 'Back')], 'fill', { gray: 0.5 }));
    expect(named(coloured, 'Union')).toMatchObject({ fills: [{ colour: { gray: 0.5 } }] });
    const divided = combined(two(), 'divide');
    expect(aimedNodes(divided.design, [divided.id], 'fill')).toEqual([
      idOf(divided.design, 'Back'),
      idOf(divided.design, 'Front'),
    ]);
  });

  test('made plain it is one path that looks the same; taken apart the operands are as they were; undo brings all back', () => {
    const { design, id } = combined(two(), 'union');
    const plain = record(design, 'Make plain', (d) => void makePlain(d, design.pages[0], [id], newId, engines.fonts))!;
    expect(plain.design.nodes[id]).toMatchObject({ kind: 'path', name: 'Union', fills: [{ colour: INK }] });
    expect(Object.keys(plain.design.nodes)).toEqual([id]);
    expect(area(areaOf(plain.design, id, engines.fonts).region)).toBeCloseTo(area(regionOf(design, id)), 6);
    expect(serializeDesign(undoEntry(plain.design, plain.entry))).toEqual(serializeDesign(design));
    const before = two();
    const there = combined(before, 'union');
    const apart = tryOut(there.design, (d) => void ungroupNodes(d, there.design.pages[0], [there.id]));
    expect(apart.pages[0].children.map((c) => apart.nodes[c].name)).toEqual(['Back', 'Front']);
    expect(named(apart, 'Back').transform).toEqual(named(before, 'Back').transform);
  });

  test('sizing a combination sizes its operands and keeps gradients in place', () => {
    const d = sheet((b) => [
      box(b, 'Back', 0, 0, 100, 100),
      b.shape(
        'Front',
        'ellipse',
        { x: 60, y: 10, w: 80, h: 80 },
        {
          fill: {
            kind: 'gradient',
            gradient: 'linear',
            ramp: {
              stops: [
                { offset: 0, colour: INK },
                { offset: 1, colour: OTHER },
              ],
            },
            geometry: [80, 0, 0, 80, 0, 0],
            overprint: false,
          },
        },
      ),
    ]);
    const { design, id } = combined(d, 'union');
    // From the front one's own space to the combination's: where it was on the page.
    expect(design.nodes[id]).toMatchObject({ fills: [{ geometry: [80, 0, 0, 80, 60, 10] }] });
    const large = tryOut(design, (x) => scaleNodes(x, design.pages[0], [id], scaling(2, 3)));
    expect(localBox(large, large.nodes[id], engines.fonts)).toMatchObject({
      x0: expect.closeTo(0, 6),
      x1: expect.closeTo(280, 4),
      y1: expect.closeTo(300, 4),
    });
    expect(large.nodes[id]).toMatchObject({ fills: [{ geometry: [160, 0, 0, 240, 120, 30] }] });
  });

  test('while an operand moves the result is laid on what rests, and is the same as the checked one', () => {
    const d = sheet((b) => [
      box(b, 'Back', 0, 0, 100, 100),
      disc(b, 'Front', 100, 50, 40),
      ...Array.from({ length: 6 }, (_, i) => disc(b, `Dot ${i}`, 10 + i * 15, 10, 8)),
    ]);
    const all = ['Back', 'Front', ...Array.from({ length: 6 }, (_, i) => `Dot ${i}`)];
    for (const [op, mover] of [
      ['union', 'Front'],
      ['subtract', 'Front'],
      ['subtract', 'Back'],
      ['exclude', 'Dot 2'],
      ['intersect', 'Back'],
    ] as const) {
      const { design, id } = combined(d, op, false, op === 'intersect' ? ['Back', 'Front'] : all);
      areaOf(design, id, engines.fonts);
      const only = [idOf(design, mover)];
      const shown = tryOutOn(design, only, (x) => moveNodes(x, design.pages[0], only, 7.3, 4.1));
      const quick = areaOf(shown, id, engines.fonts, true).region;
      const kept = tryOut(design, (x) => moveNodes(x, design.pages[0], only, 7.3, 4.1));
      expect(area(quick)).toBeCloseTo(area(areaOf(kept, id, engines.fonts).region), 1);
      // The scene that is patched for showing has the same.
      const patched = engines.builder.patch(
        engines.builder.build(design, design.pages[0]),
        shown,
        design.pages[0],
        only,
      )!;
      expect(area({ path: leavesOf(patched)[0].placed.path, rule: 'evenOdd' })).toBeCloseTo(area(quick), 6);
    }
  });

  test('copied to another design, operands go along', () => {
    const { design, id } = combined(two(), 'exclude');
    const clip = clipOf(copyNodes(design, design.pages[0], [id]));
    const target = sheet(() => []);
    const pasted = tryOut(target, (d) => void pasteClip(d, target.pages[0].id, clip, newId, translation(10, 10)));
    expect(verifyDesign(pasted)).toMatchObject({ ok: true });
    expect(area(regionOf(pasted, pasted.pages[0].children[0]))).toBeCloseTo(1e4, -1);
  });
});

describe('gaps of a union', () => {
  const apart = (gap: number) => sheet((b) => [box(b, 'Back', 0, 0, 100, 100), disc(b, 'Front', 140 + gap, 50, 40)]);
  test('what nearly touches is measured; moved together or bridged it is one piece', () => {
    const { design, id } = combined(apart(2), 'union');
    const [gap, ...rest] = openGaps(design, id, engines.fonts);
    expect(rest).toEqual([]);
    expect(gap.distance).toBeCloseTo(2, 3);
    expect(gap.moves).toEqual([idOf(design, 'Front')]);
    const moved = tryOut(design, (d) => closeByMoving(d, gap));
    expect(piecesOf(regionOf(moved, id))).toHaveLength(1);
    expect(openGaps(moved, id, engines.fonts)).toEqual([]);
    expect(named(moved, 'Front').transform[4]).toBeLessThan(named(design, 'Front').transform[4] - 2);
    const bridged = tryOut(design, (d) => closeByBridge(d, id, gap, newId));
    expect(piecesOf(regionOf(bridged, id))).toHaveLength(1);
    expect(named(bridged, 'Front').transform).toEqual(named(design, 'Front').transform);
    expect(verifyDesign(bridged)).toMatchObject({ ok: true });
  });
  test('what is far apart is meant to be; what touches in a point is not one piece yet', () => {
    const far = combined(apart(40), 'union');
    expect(openGaps(far.design, far.id, engines.fonts)).toEqual([]);
    const touching = combined(
      sheet((b) => [disc(b, 'Back', 60, 50, 40), disc(b, 'Front', 140, 50, 40)]),
      'union',
    );
    const [gap] = openGaps(touching.design, touching.id, engines.fonts);
    expect(gap.distance).toBeLessThan(0.02);
    expect(
      piecesOf(
        regionOf(
          tryOut(touching.design, (d) => closeByMoving(d, gap)),
          touching.id,
        ),
      ),
    ).toHaveLength(1);
  });
  test('letters of a word are no gaps, but a word near a shape is', async () => {
    const d = sheet((b) => [
      box(b, 'Plate', 0, 70, 200, 20),
      b.displayText('Word', 20, 68.5, [{ align: 'left', leading: 1, runs: [runOf('HIT', 50)] }]),
    ]);
    await prepare(engines, d);
    const { design, id } = combined(d, 'union', false, ['Plate', 'Word']);
    const gaps = openGaps(design, id, engines.fonts);
    expect(gaps.length).toBeGreaterThan(0);
    for (const g of gaps) expect(g.distance).toBeLessThan(3);
    const alone = combined(d, 'union', false, ['Word']);
    expect(openGaps(alone.design, alone.id, engines.fonts)).toEqual([]);
  });
  test('other combinations have none', () => {
    const { design, id } = combined(apart(2), 'exclude');
    expect(openGaps(design, id, engines.fonts)).toEqual([]);
  });
});

describe('step and repeat', () => {
  const one = () =>
    sheet((b) => [
      b.shape(
        'Ray',
        'triangle',
        { x: 95, y: 20, w: 10, h: 60 },
        { fill: { kind: 'colour', colour: INK, overprint: false } },
      ),
    ]);
  const repeated = (kind: 'row' | 'grid' | 'ring', pivot: { x: number; y: number } | null = null) => {
    const d = one();
    let id = '';
    const design = tryOut(d, (x) => {
      id = repeatNodes(x, d.pages[0], [idOf(d, 'Ray')], kind, pivot, newId, engines.fonts)!;
    });
    return { design, id, page: design.pages[0] };
  };
  test('18° twenty times closes the circle to 1e-9 (common practice: 360/n)', () => {
    const a: Arrangement = { kind: 'ring', count: 21, step: 18, centre: { x: 7, y: -3 }, about: { x: 50, y: 50 } };
    const m = copyMatrices(a);
    for (const p of [
      { x: 0, y: 0 },
      { x: 123.4, y: -56.7 },
    ]) {
      const [first, last] = [apply(m[0], p), apply(m[20], p)];
      expect(Math.hypot(first.x - last.x, first.y - last.y)).toBeLessThan(1e-9);
    }
    expect(evenStep(20)).toBe(18);
    expect(evenStep(24) * 24).toBe(360);
  });
  test('a ring goes about the pivot, else the middle of the lower edge', () => {
    const ring = repeated('ring');
    expect(ring.design.nodes[ring.id]).toMatchObject({
      kind: 'repeat',
      arrangement: { kind: 'ring', count: 8, step: 45, centre: { x: 100, y: 80 } },
    });
    const pivoted = repeated('ring', { x: 1, y: 2 });
    expect(pivoted.design.nodes[pivoted.id]).toMatchObject({ arrangement: { centre: { x: 1, y: 2 } } });
    const items = leavesOf(engines.builder.build(ring.design, ring.page));
    expect(items).toHaveLength(8);
    expect(new Set(items.map((i) => i.node))).toEqual(new Set([idOf(ring.design, 'Ray')]));
    // All tips lie on one circle.
    for (const i of items) {
      const far = Math.max(
        ...Array.from({ length: i.placed.path.length / 3 }, (_, k) =>
          i.placed.path[k * 3] === 3 ? 0 : Math.hypot(i.placed.path[k * 3 + 1] - 100, i.placed.path[k * 3 + 2] - 80),
        ),
      );
      expect(far).toBeCloseTo(60, 6);
    }
  });
  test('count, step, turn and size of a row; upright copies; rows and columns', () => {
    const row = copyMatrices({
      kind: 'row',
      count: 3,
      step: { x: 10, y: 5 },
      turn: 90,
      scale: 2,
      about: { x: 0, y: 0 },
    });
    expect(
      row.map((m) => apply(m, { x: 1, y: 0 })).map((p) => [p.x, p.y].map((v) => Math.round(v * 1e9) / 1e9 + 0)),
    ).toEqual([
      [1, 0],
      [10, 7],
      [16, 10],
    ]);
    const upright = copyMatrices({
      kind: 'ring',
      count: 4,
      step: 90,
      centre: { x: 0, y: 0 },
      upright: true,
      about: { x: 10, y: 0 },
    });
    expect(upright.map((m) => apply(m, { x: 11, y: 0 })).map((p) => [Math.round(p.x), Math.round(p.y)])).toEqual([
      [11, 0],
      [1, 10],
      [-9, 0],
      [1, -10],
    ]);
    expect(
      copyMatrices({
        kind: 'grid',
        columns: 3,
        rows: 2,
        across: { x: 10, y: 0 },
        down: { x: 1, y: 20 },
        about: { x: 0, y: 0 },
      }),
    ).toHaveLength(6);
    // A hundred doublings stay finite.
    expect(
      copyMatrices({ kind: 'row', count: 2000, step: { x: 0, y: 0 }, scale: 10, about: { x: 0, y: 0 } })
        .flat()
        .every(Number.isFinite),
    ).toBe(true);
  });
  test('its box holds every copy and nothing more; what is changed inside changes in all', () => {
    const { design, id, page } = repeated('ring');
    const b = boxIn(design, id, [1, 0, 0, 1, 0, 0], engines.fonts);
    expect([b.x0, b.y0, b.x1, b.y1].map((v) => Math.round(v))).toEqual([40, 20, 160, 140]);
    const wide = tryOut(design, (d) => scaleNodes(d, page, [idOf(design, 'Ray')], scaling(1, 0.5)));
    expect(boxIn(wide, id, [1, 0, 0, 1, 0, 0], engines.fonts)).not.toEqual(b);
  });
  test('made plain: so many copies in a group, each by itself, texts with their own words', () => {
    const { design, id, page } = repeated('row');
    const plain = tryOut(design, (d) => void makePlain(d, page, [id], newId, engines.fonts));
    const group = plain.nodes[id];
    expect(group.kind === 'group' && group.children).toHaveLength(3);
    expect(leavesOf(engines.builder.build(plain, page)).map((i) => i.inkBounds)).toEqual(
      leavesOf(engines.builder.build(design, page)).map((i) => i.inkBounds),
    );
    const words = sheet((b) => [
      b.displayText('Word', 20, 60, [{ align: 'left', leading: 1, runs: [runOf('Quay', 20)] }]),
    ]);
    let made = '';
    const twice = tryOut(words, (d) => {
      made = repeatNodes(d, words.pages[0], [idOf(words, 'Word')], 'row', null, newId, engines.fonts)!;
    });
    const free = tryOut(twice, (d) => void makePlain(d, twice.pages[0], [made], newId, engines.fonts));
    expect(Object.keys(free.stories)).toHaveLength(3);
    expect(verifyDesign(free)).toMatchObject({ ok: true });
  });
  test('another way to lie keeps the number; sizing keeps the ring a ring', () => {
    const { design, id, page } = repeated('ring');
    const node = design.nodes[id];
    if (node.kind !== 'repeat') throw new Error('no repeat');
    const row = arrangedAs(node.arrangement, 'row', { x0: 95, y0: 20, x1: 105, y1: 80 });
    expect(row).toMatchObject({ kind: 'row', count: 8 });
    expect(
      arrangedAs(
        { ...firstArrangement('row', { x0: 0, y0: 0, x1: 9, y1: 9 }, null), count: 12 } as Arrangement,
        'ring',
        { x0: 0, y0: 0, x1: 9, y1: 9 },
      ),
    ).toMatchObject({ kind: 'ring', count: 12, step: 30 });
    const again = tryOut(design, (d) => setArrangement(d, id, row));
    expect(again.nodes[id].name).toBe('Row');
    const large = tryOut(design, (d) => scaleNodes(d, page, [id], scaling(2, 2)));
    const b = boxIn(large, id, [1, 0, 0, 1, 0, 0], engines.fonts);
    expect([b.x0, b.y0, b.x1, b.y1].map((v) => Math.round(v))).toEqual([80, 40, 320, 280]);
  });
  test('no more copies than a page can bear, repeats of repeats counted; a file that asks for more is refused', () => {
    const { design, id, page } = repeated('ring');
    expect(tooManyCopies(design, page, [id], 251)).toBe(true);
    expect(tooManyCopies(design, page, [id], 250)).toBe(false);
    const greedy: Recipe = (d) => {
      const outer = repeatNodes(d, page, [id], 'row', null, newId, engines.fonts)!;
      const node = d.nodes[outer];
      if (node.kind === 'repeat')
        node.arrangement = { kind: 'row', count: 2000, step: { x: 1, y: 0 }, about: { x: 0, y: 0 } };
    };
    expect(verifyDesign(JSON.parse(JSON.stringify(tryOut(design, greedy))))).toMatchObject({
      ok: false,
      what: expect.stringContaining('16000 times'),
    });
  });
  test('an arrangement or combination with missing operands is refused', () => {
    const { design, id } = repeated('ring');
    const broken = JSON.parse(JSON.stringify(design)) as { nodes: Record<string, { children?: string[] }> };
    broken.nodes[id].children = ['nobody'];
    expect(verifyDesign(broken)).toMatchObject({ ok: false, what: 'the object nobody is missing' });
  });
});

test('what can be made plain', () => {
  const d = sheet((b) => [
    box(b, 'Box', 0, 0, 10, 10),
    b.path('Line', [0, 0, 0, 1, 10, 10], {}),
    b.group('Pair', [disc(b, 'One', 5, 5, 5)]),
  ]);
  expect(['Box', 'Line', 'Pair'].map((x) => canBePlain(named(d, x)))).toEqual([true, false, false]);
});

describe('what an object has as a whole stays when it becomes another kind', () => {
  const finish = { opacity: 0.5, blend: 'multiply', effects: [newShadow({ setup: setupOf(10, 10) }, 40)] } as const;
  const whole = (d: Design, id: string) => {
    const { opacity, blend, effects } = d.nodes[id];
    return { opacity, blend, effects };
  };
  test('made plain: a shape, a combination, a repeat', () => {
    const design = sheet((b) => [box(b, 'A', 0, 0, 40, 40), disc(b, 'B', 60, 20, 20), box(b, 'C', 100, 0, 20, 20)]);
    const page = design.pages[0];
    const [a, b, c] = ['A', 'B', 'C'].map((name) => idOf(design, name));
    let [union, row]: (string | null)[] = [null, null];
    const made = tryOut(design, (d) => {
      union = combineNodes(d, page, [b], 'union', false, newId, engines.fonts);
      row = repeatNodes(d, page, [c], 'row', null, newId, engines.fonts);
      for (const id of [a, union ?? b, row!]) Object.assign(d.nodes[id], finish);
    });
    const ids = [a, union ?? b, row!];
    const plain = tryOut(made, (d) => void makePlain(d, made.pages[0], ids, newId, engines.fonts));
    for (const id of ids) expect(whole(plain, id)).toEqual(finish);
  });
  test('written in: a shape becomes a frame and a shape again', () => {
    const design = sheet((b) => [box(b, 'A', 0, 0, 40, 40)]);
    const node = { ...design.nodes[idOf(design, 'A')], ...finish } as NodeOf<'shape'>;
    const frame = asWindow(node, 'story', 4);
    expect(whole({ ...design, nodes: { A: frame } }, 'A')).toEqual(finish);
    expect(asShape(frame)).toEqual(node);
  });
});
