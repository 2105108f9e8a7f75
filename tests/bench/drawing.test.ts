import { changeCombination, combineSelection } from '@/bench/commands/combining';
import { plainSelection } from '@/bench/tools/plain';
import { repeatSelection } from '@/bench/commands/copying';
import { alignNodes, joinNodes, kindOfNodes, simplifyPaths } from '@/bench/commands/nodes';
import { toPage, zoomAt } from '@/bench/view/camera';
import { placedGrips, selectionFrame } from '@/bench/view/frame';
import { lineThrough } from '@/core/edit/handLine';
import { freehandTool } from '@/bench/tools/freehand';
import { nodesTool } from '@/bench/tools/nodes';
import { spotsOf } from '@/bench/tools/nodeSpots';
import { finishPen, penTool } from '@/bench/tools/pen';
import { choose } from '@/bench/tools/pick';
import { enterHolder, selectTool } from '@/bench/tools/select';
import { areaOf } from '@/core/derive/area';
import { piecesOf } from '@/core/geometry/boolean/pieces';
import { nodesOf } from '@/core/geometry/nodes';
import { colourPaint } from '@/core/model/defaults';
import type { NodeOf } from '@/core/model/schema';
import type { DesignBuilder } from '@/demo/builder';
import { box, disc, INK, named } from '../support/drawing';
import { b, boxOf, design, id, only, open, run, said, take } from '../support/opened';
import { leavesOf } from '../support/scenes';

const path = (name: string) => named(design(), name) as NodeOf<'path'>;

describe('combining', () => {
  test('a union that stays apart says how far, and both repairs close it; undo takes each back', async () => {
    await open((d) => [box(d, 'Left', 20, 20, 100, 60), disc(d, 'Right', 162, 50, 40)]);
    take('Left', 'Right');
    combineSelection(b.session, 'union');
    expect(said()).toMatch(/^United 2 objects; they are still 0\.71 mm apart$/);
    expect(b.session.state.message?.tone).toBe('warn');
    const [move, bridge] = b.session.state.message!.actions!;
    expect([move.label, bridge.label]).toEqual(['Move together', 'Bridge']);
    const pieces = () => piecesOf(areaOf(design(), id('Union'), b.engines.fonts).region).length;
    move.run();
    expect([pieces(), said()]).toEqual([1, 'Closed 1 gap by moving.']);
    b.session.undo();
    expect(pieces()).toBe(2);
    bridge.run();
    expect([pieces(), named(design(), 'Bridge').kind]).toEqual([1, 'path']);
  });
  test('nothing left is said, and nothing changes; so is a combination of things far apart', async () => {
    await open((d) => [box(d, 'Left', 20, 20, 40, 40), box(d, 'Right', 200, 20, 40, 40)]);
    take('Left', 'Right');
    const before = b.session.state.design;
    combineSelection(b.session, 'intersect');
    expect(said()).toContain('share no area');
    expect(b.session.state.design).toBe(before);
    combineSelection(b.session, 'union');
    expect(said()).toBe('United 2 objects. Each can still be changed: double-click it.');
  });
  test('what could not be combined rightly is said, and nothing changes', async () => {
    // A path that no engine can count with, as a broken hand might leave it.
    await open((d) => [box(d, 'Left', 20, 20, 100, 60), d.path('Right', [0, 80, 20, 1, NaN, 50, 1, 180, 80, 3], {})]);
    take('Left', 'Right');
    const before = b.session.state.design;
    combineSelection(b.session, 'union');
    expect([b.session.state.design === before, b.session.state.message?.tone]).toEqual([true, 'warn']);
    expect(said()).toContain('could not be combined rightly, so nothing was changed');
  });
  test('inside a combination its operands are picked by their own areas; Esc and a click beside come out', async () => {
    await open((d) => [
      box(d, 'Plate', 20, 20, 200, 100),
      disc(d, 'Hole', 120, 70, 30),
      box(d, 'Beside', 300, 20, 50, 50),
    ]);
    take('Plate', 'Hole');
    run('combine.subtract');
    const made = only().id;
    selectTool.double!(b.at(40, 40), b.context);
    expect([b.session.state.entered, only().name]).toEqual([made, 'Plate']);
    b.drag(selectTool, [120, 70], [150, 70], { mod: true });
    expect(only().name).toBe('Hole');
    expect(boxOf('Hole').x0).toBeCloseTo(120, 6);
    // A click beside it chooses what lies there and comes out.
    b.click(selectTool, 320, 40);
    expect([b.session.state.entered, only().name]).toEqual([null, 'Beside']);
    b.session.select([made]);
    plainSelection(b.session);
    expect(design().nodes[made].kind).toBe('path');
  });
  test('a copy of what is combined is combined as well; a copy in a group stays in it', async () => {
    await open((d) => [
      box(d, 'Plate', 20, 20, 200, 100),
      disc(d, 'Hole', 70, 70, 20),
      d.group('Group', [box(d, 'One', 300, 20, 20, 20)], [2, 0, 0, 2, -300, 0]),
    ]);
    take('Plate', 'Hole');
    run('combine.subtract');
    const made = only().id;
    enterHolder(b.session, made, null);
    expect(only().name).toBe('Hole');
    b.drag(selectTool, [70, 70], [130, 70], { alt: true, mod: true });
    expect((design().nodes[made] as NodeOf<'combination'>).children).toHaveLength(3);
    expect(
      piecesOf(areaOf(design(), made, b.engines.fonts).region)[0].path.filter(
        (v, i, all) => v === 0 && (i === 0 || all[i - 1] === 3),
      ),
    ).toHaveLength(3);
    run('edit.again');
    expect((design().nodes[made] as NodeOf<'combination'>).children).toHaveLength(4);
    b.session.enter(id('Group'));
    take('One');
    run('edit.duplicate');
    const group = named(design(), 'Group') as NodeOf<'group'>;
    expect(group.children).toHaveLength(2);
    const [p, q] = group.children.map((c) => b.session.boxOf([c]));
    expect([q.x0 - p.x0, q.y0 - p.y0]).toEqual([
      expect.closeTo((5 * 72) / 25.4, 6),
      expect.closeTo((5 * 72) / 25.4, 6),
    ]);
  });
  test('turned round it keeps what lies in front; changed to another kind it is that; taken apart both are free', async () => {
    await open((d) => [box(d, 'Plate', 20, 20, 200, 100), disc(d, 'Hole', 220, 70, 30)]);
    take('Plate', 'Hole');
    run('combine.subtractBack');
    expect(b.session.boxOf(b.session.state.selection).x0).toBeCloseTo(220, 1);
    changeCombination(b.session, b.session.state.selection, { reversed: false });
    expect(b.session.boxOf(b.session.state.selection).x0).toBeCloseTo(20, 6);
    changeCombination(b.session, b.session.state.selection, { op: 'intersect' });
    expect(b.session.boxOf(b.session.state.selection)).toMatchObject({
      x0: expect.closeTo(190, 1),
      x1: expect.closeTo(220, 1),
    });
    run('object.ungroup');
    expect(design().pages[0].children.map((c) => design().nodes[c].name)).toEqual(['Plate', 'Hole']);
  });
});

describe('copies', () => {
  test('a ray turned about its tip with Alt, and again by A: twenty-four close the circle', async () => {
    await open((d) => [d.shape('Ray', 'triangle', { x: 195, y: 40, w: 10, h: 100 }, { fill: colourPaint(INK) })]);
    take('Ray');
    b.session.set({ pivot: { x: 200, y: 150 } });
    const grip = placedGrips(b.session, selectionFrame(b.session)!).find((g) => g.grip.kind === 'turn')!;
    const from = toPage(b.session.state.camera, grip.at);
    const a = (15 * Math.PI) / 180;
    const [dx, dy] = [from.x - 200, from.y - 150];
    b.drag(
      selectTool,
      [from.x, from.y],
      [200 + dx * Math.cos(a) - dy * Math.sin(a), 150 + dx * Math.sin(a) + dy * Math.cos(a)],
      { alt: true, shift: true },
    );
    expect(b.said.some((t) => t === 'copy 15° about the pivot')).toBe(true);
    for (let i = 0; i < 22; i++) run('edit.again');
    const rays = design().pages[0].children;
    expect(rays).toHaveLength(24);
    const [first, last] = [rays[0], rays[23]].map((r) => design().nodes[r].transform);
    // The last turned once more lies on the first.
    run('edit.again');
    const closed = design().nodes[design().pages[0].children[24]].transform;
    closed.forEach((v, i) => expect(Math.abs(v - first[i])).toBeLessThan(1e-9));
    expect(last).not.toEqual(first);
  });
  test('a move is done again, a flip goes about the pivot, a paste in place stays', async () => {
    await open((d) => [box(d, 'Box', 20, 20, 40, 40)]);
    take('Box');
    b.drag(selectTool, [40, 40], [50, 45], { mod: true });
    run('edit.again');
    expect(boxOf('Box')).toMatchObject({ x0: expect.closeTo(40, 6), y0: expect.closeTo(30, 6) });
    b.session.set({ pivot: { x: 100, y: 0 } });
    run('object.flipAcross');
    expect(boxOf('Box').x1).toBeCloseTo(160, 6);
    expect(said()).toBe('Flipped 1 object left to right, about the pivot.');
    run('edit.copy');
    run('edit.pasteInPlace');
    const [p, q] = design().pages[0].children.map((c) => b.session.boxOf([c]));
    expect(p).toEqual(q);
  });
  test('a ring about the pivot; dragged, the pivot snaps; a double click takes it back', async () => {
    await open((d) => [box(d, 'Box', 20, 20, 40, 40)]);
    take('Box');
    const ring = placedGrips(b.session, selectionFrame(b.session)!).find((g) => g.grip.kind === 'pivot')!;
    const from = toPage(b.session.state.camera, ring.at);
    b.drag(selectTool, [from.x, from.y], [61, 59]);
    expect(b.session.state.pivot).toEqual({ x: expect.closeTo(60, 6), y: expect.closeTo(60, 6) });
    repeatSelection(b.session, 'ring');
    expect(only()).toMatchObject({
      kind: 'repeat',
      arrangement: { centre: { x: expect.closeTo(60, 6), y: expect.closeTo(60, 6) } },
    });
    take('Box');
    b.session.set({ pivot: { x: 200, y: 200 } });
    selectTool.double!(b.at(200, 200), b.context);
    expect(b.session.state.pivot).toBeNull();
  });
});

describe('nodes', () => {
  const wave = (d: DesignBuilder) => [
    d.path('Wave', [0, 40, 100, 2, 60, 60, 100, 60, 120, 100, 2, 140, 140, 180, 140, 200, 100, 1, 260, 100], {
      fill: colourPaint(INK),
    }),
  ];
  const spot = (n: number) => {
    const s = spotsOf(b.session).nodes[n].at;
    const p = toPage(b.session.state.camera, s);
    return [p.x, p.y] as const;
  };
  const begin = async (draw = wave) => {
    await open(draw);
    b.session.set({ tool: 'nodes' });
    choose(b.session, [design().pages[0].children[0]]);
  };
  const nodes = () => nodesOf(path('Wave').path, path('Wave').kinds).flatMap((c) => c.nodes);

  test('one is clicked, several by a box or Shift, all are dragged together; Delete keeps the shape near', async () => {
    await begin();
    b.click(nodesTool, ...spot(1));
    expect(b.session.state.nodes).toEqual([{ object: id('Wave'), flat: 1 }]);
    b.click(nodesTool, ...spot(2), { shift: true });
    b.drag(nodesTool, spot(2), [210, 120], { mod: true });
    expect(nodes().map((n) => [Math.round(n.x), Math.round(n.y)])).toEqual([
      [40, 100],
      [130, 120],
      [210, 120],
      [260, 100],
    ]);
    b.drag(nodesTool, [10, 10], [150, 200], { mod: true });
    expect(b.session.state.nodes.map((n) => n.flat)).toEqual([0, 1]);
    run('object.delete');
    expect(nodes()).toHaveLength(2);
    expect(said()).toContain('Deleted 2 nodes');
    b.session.undo();
    expect(nodes()).toHaveLength(4);
  });
  test('a handle pulls its twin along, with Alt not; the line itself is bent; a double click adds a node', async () => {
    await begin();
    b.click(nodesTool, ...spot(1));
    const handle = spotsOf(b.session).handles.find((h) => h.flat === 1 && h.side === 'after')!;
    const at = toPage(b.session.state.camera, handle.at);
    b.drag(nodesTool, [at.x, at.y], [150, 100], { mod: true });
    expect(nodes()[1]).toMatchObject({
      after: { x: expect.closeTo(150, 6) },
      before: { x: expect.closeTo(90, 6), y: expect.closeTo(100, 6) },
    });
    b.drag(nodesTool, [150, 100], [150, 160], { mod: true, alt: true });
    expect(nodes()[1]).toMatchObject({
      before: { x: expect.closeTo(90, 6), y: expect.closeTo(100, 6) },
      kind: 'corner',
    });
    b.drag(nodesTool, [230, 100], [230, 130], { mod: true });
    expect(nodes()[2].after).not.toBeNull();
    expect(b.said.some((t) => t.startsWith('bent by'))).toBe(true);
    b.session.undo();
    nodesTool.double!(b.at(230, 100), b.context);
    expect(nodes()).toHaveLength(5);
    expect(said()).toBe('Added a node; the shape is as it was.');
  });
  test('smooth, symmetric and in line; joined with the gap told; simplified with a count', async () => {
    await begin((d) => [d.path('Wave', [0, 40, 100, 1, 100, 60, 1, 160, 140, 0, 163, 144, 1, 260, 100], {})]);
    b.click(nodesTool, ...spot(1));
    kindOfNodes(b.session, 'smooth');
    expect(nodes()[1].kind).toBe('smooth');
    b.session.set({ nodes: [2, 3].map((flat) => ({ object: id('Wave'), flat })) });
    joinNodes(b.session, 'meet');
    expect(said()).toBe('Joined: the ends were 1.76 mm apart and met in the middle.');
    expect(nodes()).toHaveLength(4);
    b.session.set({ nodes: [0, 1, 3].map((flat) => ({ object: id('Wave'), flat })) });
    alignNodes(b.session, 'top');
    expect(
      nodes()
        .filter((_, i) => i !== 2)
        .map((n) => Math.round(n.y)),
    ).toEqual([60, 60, 60]);
    const plan = simplifyPaths(b.session, 40);
    expect(plan.before).toBe(4);
    expect(plan.after).toBeLessThanOrEqual(plan.before);
  });
  test('a dialled shape says that it is adjustable and offers to be made plain', async () => {
    await open((d) => [d.shape('Star', 'star', { x: 40, y: 40, w: 100, h: 100 }, { fill: colourPaint(INK) })]);
    b.session.set({ tool: 'nodes' });
    b.click(nodesTool, 90, 90);
    expect(said()).toContain('adjustable as it is');
    b.session.state.message!.actions![0].run();
    expect(named(design(), 'Star').kind).toBe('path');
    expect(spotsOf(b.session).nodes).toHaveLength(10);
    run('nodes.next');
    run('nodes.next');
    expect(b.session.state.nodes.map((n) => n.flat)).toEqual([1]);
    run('nudge.right');
    expect(said()).not.toContain('Nothing');
  });
  test('a node snaps to a node of another path, at any zoom', async () => {
    for (const factor of [1, 0.25, 8]) {
      await open((d) => [...wave(d), d.path('Other', [0, 300, 50, 1, 350, 80, 1, 300, 200], {})]);
      const { camera } = b.session.state;
      b.session.set({ tool: 'nodes', camera: zoomAt(camera, { x: 400, y: 300 }, factor) });
      choose(b.session, [id('Wave')]);
      const reach = 4 / b.session.state.camera.scale;
      b.drag(nodesTool, spot(3), [300 + reach, 50 - reach]);
      expect([factor, nodes()[3].x, nodes()[3].y]).toEqual([factor, expect.closeTo(300, 9), expect.closeTo(50, 9)]);
      expect(b.said.join('\n')).toContain('at node');
      await b.session.settled();
      if (factor !== 8) b.session.dispose();
    }
  });
});

describe('the pen', () => {
  const begin = async (mode: 'handles' | 'through' | 'polygon') => {
    await open(() => []);
    b.session.set({ tool: 'pen', penMode: mode });
  };
  const nodes = () =>
    nodesOf((only() as NodeOf<'path'>).path, (only() as NodeOf<'path'>).kinds).flatMap((c) => c.nodes);
  test('clicks make lines, drags make curves, the first node closes and fills', async () => {
    await begin('handles');
    b.click(penTool, 50, 50, { mod: true });
    b.drag(penTool, [150, 50], [190, 50], { mod: true });
    b.click(penTool, 150, 150, { mod: true });
    expect(nodes().map((n) => n.kind)).toEqual(['corner', 'symmetric', 'corner']);
    expect(nodes()[1]).toMatchObject({ before: { x: expect.closeTo(110, 6) }, after: { x: expect.closeTo(190, 6) } });
    b.click(penTool, 50, 50, { mod: true });
    expect(b.session.state.pen).toBeNull();
    expect(nodesOf((only() as NodeOf<'path'>).path)[0].closed).toBe(true);
    expect(only()).toMatchObject({ fills: [{ kind: 'colour' }], outlines: [] });
    // Every click is a step of its own.
    for (let i = 0; i < 4; i++) b.session.undo();
    expect(design().pages[0].children).toEqual([]);
  });
  test('through points it runs smoothly; a polygon closes itself at the end', async () => {
    await begin('through');
    for (const [x, y] of [
      [40, 150],
      [100, 50],
      [200, 60],
      [260, 180],
    ])
      b.click(penTool, x, y, { mod: true });
    expect(nodes()).toHaveLength(4);
    expect(nodes()[1].kind).toBe('smooth');
    finishPen(b.session);
    b.session.select([], { penMode: 'polygon' });
    for (const [x, y] of [
      [300, 150],
      [350, 50],
      [380, 160],
    ])
      b.click(penTool, x, y, { mod: true });
    finishPen(b.session);
    expect(said()).toBe('A polygon of 3 corners.');
    expect(nodesOf((only() as NodeOf<'path'>).path)[0]).toMatchObject({ closed: true });
  });
  test('goes on from an end, adds and cuts on the line; a lone node goes again', async () => {
    await open((d) => [d.path('Line', [0, 50, 50, 1, 150, 50, 1, 250, 120], {})]);
    b.session.set({ tool: 'pen' });
    take('Line');
    b.click(penTool, 50, 50);
    expect(b.session.state.pen).toMatchObject({ end: 'first', fresh: false });
    b.click(penTool, 30, 120, { mod: true });
    expect(nodesOf(path('Line').path)[0].nodes).toHaveLength(4);
    finishPen(b.session);
    b.click(penTool, 100, 50, { mod: true });
    expect(nodesOf(path('Line').path)[0].nodes).toHaveLength(5);
    b.click(penTool, 125, 50, { alt: true, mod: true });
    expect(nodesOf(path('Line').path)).toHaveLength(2);
    b.session.select([]);
    b.click(penTool, 300, 250, { mod: true });
    expect(design().pages[0].children).toHaveLength(2);
    finishPen(b.session);
    expect(design().pages[0].children).toHaveLength(1);
  });
  test('the piece that a click would add is shown', async () => {
    await begin('handles');
    b.click(penTool, 50, 50, { mod: true });
    penTool.hover!(b.at(120, 90, { mod: true }), b.context);
    expect(b.context.extras.rubber).toEqual([0, 50, 50, 1, 120, 90]);
  });
});

describe('by hand', () => {
  test('a drawn line is few nodes; one that comes back is closed; pressure becomes width', async () => {
    await open(() => []);
    b.session.set({ tool: 'freehand' });
    const g = freehandTool.press({ ...b.at(40, 150), pressure: 0.2 }, b.context)!;
    for (let i = 0; i <= 80; i++)
      g.move({ ...b.at(40 + i * 4, 150 + 40 * Math.sin(i / 9)), pressure: 0.2 + 0.6 * (i / 80) });
    g.release({ ...b.at(360, 150), pressure: 0.8 });
    const node = only() as NodeOf<'path'>;
    const made = nodesOf(node.path)[0];
    expect(made.nodes.length).toBeLessThan(16);
    expect(node.widths).toHaveLength(made.nodes.length);
    expect(node.widths![0]).toBeLessThan(node.widths![node.widths!.length - 1]);
    // It is an area in the scene, thinner at its beginning.
    expect(leavesOf(b.session.scene())[0]).toMatchObject({ type: 'fill', line: true });
    const ring = lineThrough(
      Array.from({ length: 60 }, (_, i) => ({ x: 50 * Math.cos(i / 9.5), y: 50 * Math.sin(i / 9.5) })),
      1,
      10,
    );
    expect(ring.closed).toBe(true);
  });
  test('brushing over a path smooths it, as one step', async () => {
    await open((d) => [
      d.path(
        'Zig',
        [0, 40, 100, ...Array.from({ length: 16 }, (_, i) => [1, 60 + i * 20, i % 2 ? 100 : 120]).flat()],
        {},
      ),
    ]);
    b.session.set({ tool: 'freehand', freehand: { mode: 'smooth', tolerance: 2, radius: 60 } });
    take('Zig');
    const swing = () => {
      const ys = nodesOf(path('Zig').path)[0]
        .nodes.slice(6, 10)
        .map((n) => n.y);
      return Math.max(...ys) - Math.min(...ys);
    };
    const before = swing();
    const steps = b.session.state.entries.length;
    for (let i = 0; i < 3; i++) b.drag(freehandTool, [120, 110], [280, 110]);
    expect(swing()).toBeLessThan(before * 0.8);
    expect(b.session.state.entries.length).toBe(steps + 3);
    expect(said()).toContain('Smoothed');
  });
});
