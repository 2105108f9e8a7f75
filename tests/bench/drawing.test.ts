import { combineSelection, plainSelection } from '@/bench/session/combining';
import { runCommand, type CommandId } from '@/bench/session/commands';
import { repeatSelection } from '@/bench/session/copying';
import { alignNodes, joinNodes, kindOfNodes, simplifyPaths } from '@/bench/session/nodeCommands';
import { selectAlike } from '@/bench/session/selecting';
import { setSnapping } from '@/bench/session/settings';
import { alignSelection, distributeSelection } from '@/bench/session/arranging';
import { toPage, zoomAt } from '@/bench/canvas/camera';
import { placedGrips, selectionFrame } from '@/bench/canvas/frame';
import { freehandTool, lineThrough } from '@/bench/tools/freehand';
import { dragGuide, guideAt } from '@/bench/tools/guides';
import { nodesTool } from '@/bench/tools/nodes';
import { spotsOf } from '@/bench/tools/nodeSpots';
import { finishPen, penTool } from '@/bench/tools/pen';
import { choose, pickAll } from '@/bench/tools/pick';
import { enterHolder, selectTool } from '@/bench/tools/select';
import { shapeTool } from '@/bench/tools/shape';
import { textTool } from '@/bench/tools/text';
import { endEditing } from '@/bench/tools/editing';
import { snapAngle } from '@/bench/tools/snapping';
import { areaOf } from '@/core/edit/area';
import { setCorners } from '@/core/edit/corners';
import { piecesOf } from '@/core/geometry/boolean/pieces';
import { nodesOf } from '@/core/geometry/nodes';
import { colourPaint } from '@/core/model/defaults';
import type { Design, NodeOf } from '@/core/model/schema';
import type { DesignBuilder } from '@/demo/builder';
import { openBench, type TestBench } from '../support/bench';
import { box, disc, idOf, INK, named, OTHER, sheet } from '../support/drawing';

let b: TestBench;
const open = async (draw: (d: DesignBuilder) => string[]) => {
  b = await openBench(sheet(draw));
};
afterEach(async () => {
  await b.session.settled();
  b.session.dispose();
});
const design = (): Design => b.session.design;
const id = (name: string) => idOf(design(), name);
const take = (...names: string[]) => choose(b.session, names.map(id));
const run = (c: CommandId) => runCommand(b.session, c);
const said = () => b.session.state.message?.text ?? '';
const boxOf = (name: string) => b.session.boxOf([id(name)]);
const path = (name: string) => named(design(), name) as NodeOf<'path'>;
const only = () => design().nodes[b.session.state.selection[0]];

describe('combining', () => {
  test('a union that stays apart says how far, and both repairs close it; undo takes each back', async () => {
    await open((d) => [box(d, 'Left', 20, 20, 100, 60), disc(d, 'Right', 162, 50, 40)]);
    take('Left', 'Right');
    combineSelection(b.session, 'union');
    expect(said()).toMatch(/^United 2 objects; they are still 0\.71 mm apart$/);
    expect(b.session.state.message?.tone).toBe('warn');
    const [move, bridge] = b.session.state.message!.actions!;
    expect([move.label, bridge.label]).toEqual(['Move together', 'Bridge']);
    const pieces = () => piecesOf(areaOf(design(), id('Union'), b.shop.fonts).region).length;
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
    await open((d) => [box(d, 'Plate', 20, 20, 200, 100), disc(d, 'Hole', 120, 70, 30), box(d, 'Beside', 300, 20, 50, 50)]);
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
    b.session.set({ selection: [made] });
    plainSelection(b.session);
    expect(design().nodes[made].kind).toBe('path');
  });
  test('a copy of what is combined is combined as well; a copy in a group stays in it', async () => {
    await open((d) => [box(d, 'Plate', 20, 20, 200, 100), disc(d, 'Hole', 70, 70, 20), d.group('Group', [box(d, 'One', 300, 20, 20, 20)], [2, 0, 0, 2, -300, 0])]);
    take('Plate', 'Hole');
    run('combine.subtract');
    const made = only().id;
    enterHolder(b.session, made, null);
    expect(only().name).toBe('Hole');
    b.drag(selectTool, [70, 70], [130, 70], { alt: true, mod: true });
    expect((design().nodes[made] as NodeOf<'combination'>).children).toHaveLength(3);
    expect(piecesOf(areaOf(design(), made, b.shop.fonts).region)[0].path.filter((v, i, all) => v === 0 && (i === 0 || all[i - 1] === 3))).toHaveLength(3);
    run('edit.again');
    expect((design().nodes[made] as NodeOf<'combination'>).children).toHaveLength(4);
    b.session.set({ entered: id('Group') });
    take('One');
    run('edit.duplicate');
    const group = named(design(), 'Group') as NodeOf<'group'>;
    expect(group.children).toHaveLength(2);
    const [p, q] = group.children.map((c) => b.session.boxOf([c]));
    expect([q.x0 - p.x0, q.y0 - p.y0]).toEqual([expect.closeTo((5 * 72) / 25.4, 6), expect.closeTo((5 * 72) / 25.4, 6)]);
  });
  test('turned round, and changed to another kind, by its row in Details', async () => {
    await open((d) => [box(d, 'Plate', 20, 20, 200, 100), disc(d, 'Hole', 220, 70, 30)]);
    take('Plate', 'Hole');
    run('combine.subtractBack');
    const { x0 } = b.session.boxOf(b.session.state.selection);
    expect(x0).toBeCloseTo(220, 1);
    run('object.ungroup');
    expect(design().pages[0].children).toHaveLength(2);
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
    b.drag(selectTool, [from.x, from.y], [200 + dx * Math.cos(a) - dy * Math.sin(a), 150 + dx * Math.sin(a) + dy * Math.cos(a)], { alt: true, shift: true });
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
    expect(only()).toMatchObject({ kind: 'repeat', arrangement: { centre: { x: expect.closeTo(60, 6), y: expect.closeTo(60, 6) } } });
    take('Box');
    b.session.set({ pivot: { x: 200, y: 200 } });
    selectTool.double!(b.at(200, 200), b.context);
    expect(b.session.state.pivot).toBeNull();
  });
});

describe('nodes', () => {
  const wave = (d: DesignBuilder) => [d.path('Wave', [0, 40, 100, 2, 60, 60, 100, 60, 120, 100, 2, 140, 140, 180, 140, 200, 100, 1, 260, 100], { fill: colourPaint(INK) })];
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
    expect(nodes().map((n) => [Math.round(n.x), Math.round(n.y)])).toEqual([[40, 100], [130, 120], [210, 120], [260, 100]]);
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
    expect(nodes()[1]).toMatchObject({ after: { x: expect.closeTo(150, 6) }, before: { x: expect.closeTo(90, 6), y: expect.closeTo(100, 6) } });
    b.drag(nodesTool, [150, 100], [150, 160], { mod: true, alt: true });
    expect(nodes()[1]).toMatchObject({ before: { x: expect.closeTo(90, 6), y: expect.closeTo(100, 6) }, kind: 'corner' });
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
    expect(nodes().filter((_, i) => i !== 2).map((n) => Math.round(n.y))).toEqual([60, 60, 60]);
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
  const nodes = () => nodesOf((only() as NodeOf<'path'>).path, (only() as NodeOf<'path'>).kinds).flatMap((c) => c.nodes);
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
    for (const [x, y] of [[40, 150], [100, 50], [200, 60], [260, 180]]) b.click(penTool, x, y, { mod: true });
    expect(nodes()).toHaveLength(4);
    expect(nodes()[1].kind).toBe('smooth');
    finishPen(b.session);
    b.session.set({ penMode: 'polygon', selection: [] });
    for (const [x, y] of [[300, 150], [350, 50], [380, 160]]) b.click(penTool, x, y, { mod: true });
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
    b.session.set({ selection: [] });
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
    for (let i = 0; i <= 80; i++) g.move({ ...b.at(40 + i * 4, 150 + 40 * Math.sin(i / 9)), pressure: 0.2 + 0.6 * (i / 80) });
    g.release({ ...b.at(360, 150), pressure: 0.8 });
    const node = only() as NodeOf<'path'>;
    const made = nodesOf(node.path)[0];
    expect(made.nodes.length).toBeLessThan(16);
    expect(node.widths).toHaveLength(made.nodes.length);
    expect(node.widths![0]).toBeLessThan(node.widths![node.widths!.length - 1]);
    // It is an area in the scene, thinner at its beginning.
    expect(b.session.scene().items[0]).toMatchObject({ type: 'fill', line: true });
    const ring = lineThrough(Array.from({ length: 60 }, (_, i) => ({ x: 50 * Math.cos(i / 9.5), y: 50 * Math.sin(i / 9.5) })), 1, 10);
    expect(ring.closed).toBe(true);
  });
  test('brushing over a path smooths it, as one step', async () => {
    await open((d) => [d.path('Zig', [0, 40, 100, ...Array.from({ length: 16 }, (_, i) => [1, 60 + i * 20, i % 2 ? 100 : 120]).flat()], {})]);
    b.session.set({ tool: 'freehand', freehand: { mode: 'smooth', tolerance: 2, radius: 60 } });
    take('Zig');
    const swing = () => {
      const ys = nodesOf(path('Zig').path)[0].nodes.slice(6, 10).map((n) => n.y);
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

describe('corners', () => {
  test('the handle of a corner gives all of them its radius, with Alt its own; typed kinds keep radii', async () => {
    await open((d) => [d.shape('Hexagon', 'polygon', { x: 60, y: 40, w: 200, h: 200 }, { fill: colourPaint(INK), knobs: { sides: 4 } })]);
    take('Hexagon');
    const handle = () => placedGrips(b.session, selectionFrame(b.session)!).filter((g) => g.grip.kind === 'corner');
    expect(handle()).toHaveLength(4);
    const pull = (k: number, keys: { alt?: boolean } = {}) => {
      const at = toPage(b.session.state.camera, handle()[k].at);
      const way = handle()[k].notch!;
      b.drag(selectTool, [at.x, at.y], [at.x + way.x * 12, at.y + way.y * 12], { mod: true, ...keys });
    };
    pull(0);
    const node = () => named(design(), 'Hexagon') as NodeOf<'shape'>;
    // Of a right angle the arc comes (√2 − 1) of its radius from the corner.
    expect(node().corners!.all!.radius).toBeCloseTo(12 / (Math.SQRT2 - 1), 1);
    pull(2, { alt: true });
    expect(Object.keys(node().corners!.each!)).toEqual(['2']);
    expect(node().corners!.each![2].radius).toBeGreaterThan(node().corners!.all!.radius);
    b.session.commit('Corners', (d) => setCorners(d, [id('Hexagon')], 'all', { kind: 'scoop' }));
    expect(node().corners).toMatchObject({ all: { kind: 'scoop' }, each: { 2: { kind: 'scoop' } } });
    b.session.commit('Corners', (d) => setCorners(d, [id('Hexagon')], 'all', { radius: 0, kind: 'round' }));
    expect(node().corners).toBeUndefined();
  });
  test('directions snap to eighths of a turn when near, to 15° with Shift, and not with Ctrl', () => {
    const at = (keys: object) => ({ page: { x: 0, y: 0 }, screen: { x: 0, y: 0 }, shift: false, alt: false, mod: false, ...keys });
    expect([snapAngle(44, 45, at({})), snapAngle(40, 45, at({})), snapAngle(40, 15, at({ shift: true })), snapAngle(44, 45, at({ mod: true }))]).toEqual([45, 40, 45, 44]);
  });
});

describe('snapping and guides', () => {
  test('equal gaps and sizes, crossings, the grid; Ctrl suspends all', async () => {
    await open((d) => [box(d, 'A', 20, 100, 40, 40), box(d, 'B', 96, 100, 40, 40), box(d, 'C', 200, 105, 40, 30)]);
    take('C');
    b.drag(selectTool, [220, 120], [194, 120]);
    expect(boxOf('C').x0).toBeCloseTo(172, 6);
    expect(b.said.some((t) => t.includes('equal gaps of'))).toBe(true);
    b.session.undo();
    b.drag(selectTool, [220, 120], [194, 120], { mod: true });
    expect(boxOf('C').x0).toBeCloseTo(174, 6);
    b.session.undo();
    // The lower edge comes to where it is as high as the others are.
    const grip = toPage(b.session.state.camera, placedGrips(b.session, selectionFrame(b.session)!).find((g) => g.grip.kind === 'size' && g.grip.hx === 0 && g.grip.hy === 1)!.at);
    b.said.length = 0;
    b.drag(selectTool, [grip.x, grip.y], [grip.x, grip.y + 9]);
    expect(boxOf('C').y1 - boxOf('C').y0).toBeCloseTo(40, 6);
    expect(b.said.join('\n')).toContain('same height');
    setSnapping(b.session, { grid: true, step: 25, edges: false, nodes: false, spacing: false });
    take('A');
    b.drag(selectTool, [40, 120], [48, 131]);
    expect(boxOf('A')).toMatchObject({ x0: expect.closeTo(25, 6) });
  });
  test.each([0.25, 1, 8])('a move snaps within seven pixels at a zoom of %s', async (factor) => {
    await open((d) => [box(d, 'A', 100, 100, 40, 40), box(d, 'B', 220, 180, 40, 40)]);
    b.session.set({ camera: zoomAt(b.session.state.camera, { x: 400, y: 300 }, factor) });
    take('B');
    const px = 1 / b.session.state.camera.scale;
    b.drag(selectTool, [240, 200], [240 - 80 + 2 * px, 200]);
    expect(boxOf('B').x0).toBeCloseTo(140, 6);
    b.session.undo();
    // Far beyond the reach of every edge, middle and node it goes where it is put.
    if (factor === 8) {
      b.drag(selectTool, [240, 200], [240 - 80 + 9 * px, 200 + 40 * px]);
      expect(boxOf('B').x0).toBeCloseTo(140 + 9 * px, 6);
    }
  });
  test('a guide is dragged out, snapped to, moved, and let go over the ruler it is gone', async () => {
    await open((d) => [box(d, 'A', 100, 100, 40, 40)]);
    const drag = (axis: 'x' | 'y', index: number | null, x: number, y: number) => {
      const g = dragGuide(b.context, axis, index);
      g.move(b.at(x, y, { mod: true }));
      g.release(b.at(x, y, { mod: true }));
    };
    drag('x', null, 251, 80);
    expect(design().pages[0].guides).toEqual([{ axis: 'x', at: expect.closeTo(251, 6) }]);
    take('A');
    b.drag(selectTool, [120, 120], [232, 122]);
    expect(boxOf('A').x1).toBeCloseTo(251, 6);
    expect(b.said.some((t) => t.includes('at guide'))).toBe(true);
    expect(guideAt(b.session, b.at(251, 10))).toEqual({ index: 0, axis: 'x' });
    run('guides.lock');
    expect(guideAt(b.session, b.at(251, 10))).toBeNull();
    run('guides.lock');
    const g = dragGuide(b.context, 'x', 0);
    const away = { ...b.at(0, 0), screen: { x: -8, y: 100 } };
    g.move(away);
    g.release(away);
    expect(design().pages[0].guides).toBeUndefined();
    run('guides.round');
    expect(design().pages[0].guides).toHaveLength(6);
  });
});

describe('choosing', () => {
  test('the pile here lists all that lies under the pointer, front first', async () => {
    await open((d) => Array.from({ length: 6 }, (_, i) => disc(d, `Disc ${i + 1}`, 150 + i * 4, 150, 60)));
    b.session.pointer = { page: { x: 160, y: 150 }, screen: { x: 0, y: 0 } };
    run('select.pileHere');
    expect(b.session.state.pileHere!.ids.map((x) => design().nodes[x].name)).toEqual(['Disc 6', 'Disc 5', 'Disc 4', 'Disc 3', 'Disc 2', 'Disc 1']);
    expect(pickAll(b.session, b.at(95, 150)).map((f) => design().nodes[f.id].name)).toEqual(['Disc 2', 'Disc 1']);
    b.session.pointer = { page: { x: 5, y: 5 }, screen: { x: 0, y: 0 } };
    run('select.pileHere');
    expect(said()).toContain('Nothing lies here');
  });
  test('alike within a tolerance; the others instead', async () => {
    await open((d) => [box(d, 'A', 20, 20, 40, 40), box(d, 'B', 80, 20, 40, 40, { cmyk: [0, 0.52, 1, 0] }), box(d, 'C', 140, 20, 40, 40, OTHER)]);
    take('A');
    selectAlike(b.session, ['fill'], 0.1);
    expect(said()).toBe('Selected 1 object alike by fill, within ΔE 0.1.');
    selectAlike(b.session, ['fill'], 5);
    expect(b.session.state.selection).toHaveLength(2);
    run('select.inverse');
    expect(only().name).toBe('C');
  });
  test('isolated, nothing outside of a group is chosen or moved', async () => {
    await open((d) => [box(d, 'Outside', 200, 20, 60, 60), d.group('Group', [box(d, 'One', 20, 20, 40, 40), box(d, 'Two', 80, 20, 40, 40)])]);
    take('Group');
    run('select.isolate');
    expect([b.session.state.entered, b.session.state.isolated]).toEqual([id('Group'), true]);
    b.click(selectTool, 230, 50);
    expect(b.session.state.selection).toEqual([]);
    b.drag(selectTool, [5, 5], [390, 200]);
    expect(b.session.state.selection.map((x) => design().nodes[x].name)).toEqual(['One', 'Two']);
    run('select.isolate');
    expect(b.session.state.isolated).toBe(false);
  });
  test('a layer is a place to work in: its objects are chosen one by one, and new ones go into it', async () => {
    await open((d) => [box(d, 'Ground', 20, 20, 40, 40)]);
    run('layer.add');
    const layer = b.session.state.entered!;
    b.session.set({ shape: 'star' });
    b.drag(shapeTool, [100, 100], [160, 160], { mod: true });
    expect((design().nodes[layer] as NodeOf<'group'>).children).toHaveLength(1);
    b.session.set({ entered: null, selection: [] });
    b.click(selectTool, 130, 130);
    expect(only().name).toBe('Star');
    take('Ground');
    run('layer.make');
    expect(Object.values(design().nodes).filter((n) => n.kind === 'group' && n.layer)).toHaveLength(2);
  });
  test('a marquee with Alt takes only what lies wholly inside', async () => {
    await open((d) => [box(d, 'In', 40, 40, 40, 40), box(d, 'Half', 90, 40, 60, 40), d.group('Group', [box(d, 'One', 50, 90, 20, 20), box(d, 'Far', 300, 90, 20, 20)])]);
    b.drag(selectTool, [30, 30], [120, 120]);
    expect(b.session.state.selection).toHaveLength(3);
    b.drag(selectTool, [30, 30], [120, 120], { alt: true });
    expect(only().name).toBe('In');
    expect(b.session.state.selection).toHaveLength(1);
  });
  test('lined up with one that stays; spaced by a typed distance', async () => {
    await open((d) => [box(d, 'A', 20, 20, 40, 40), box(d, 'B', 100, 60, 40, 40), box(d, 'C', 200, 90, 40, 40)]);
    take('A', 'B', 'C');
    b.session.set({ alignTo: 'key', keyObject: id('B') });
    alignSelection(b.session, 'top');
    expect(['A', 'B', 'C'].map((n) => boxOf(n).y0)).toEqual([60, 60, 60]);
    expect(said()).toBe('Lined up the top edges of 3 objects with the one that stays.');
    b.session.set({ alignTo: 'selection' });
    distributeSelection(b.session, 'x', 'gap', 7);
    expect(['A', 'B', 'C'].map((n) => boxOf(n).x0)).toEqual([20, 67, 114]);
  });
});

describe('words in a shape', () => {
  test('a press of the text tool on a chosen shape writes in it; left empty it is the shape again', async () => {
    await open((d) => [d.shape('Heart', 'heart', { x: 60, y: 40, w: 200, h: 180 }, { fill: colourPaint(INK) })]);
    take('Heart');
    b.session.set({ tool: 'text' });
    textTool.press(b.at(160, 120), b.context);
    expect(named(design(), 'Heart')).toMatchObject({ kind: 'textFrame', window: { shape: 'heart' }, fills: [{ colour: INK }] });
    expect(b.session.state.editing?.node).toBe(id('Heart'));
    // Its knobs are still there.
    b.session.set({ tool: 'select' });
    expect(placedGrips(b.session, selectionFrame(b.session)!).some((g) => g.grip.kind === 'knob')).toBe(true);
    endEditing(b.session);
    expect(named(design(), 'Heart')).toMatchObject({ kind: 'shape', shape: 'heart' });
  });
});

test('entering says what can be done there', async () => {
  await open((d) => [d.group('Group', [box(d, 'One', 20, 20, 40, 40)])]);
  enterHolder(b.session, id('Group'), null);
  expect(said()).toContain('Inside Group');
  expect(only().name).toBe('One');
});
