import { selectAlike } from '@/bench/commands/selecting';
import { setSnapping } from '@/bench/session/settings';
import { alignSelection, distributeSelection } from '@/bench/commands/arranging';
import { toPage, zoomAt } from '@/bench/view/camera';
import { placedGrips, selectionFrame } from '@/bench/view/frame';
import { guideAt } from '@/bench/tools/guideAt';
import { dragGuide } from '@/bench/tools/guides';
import { picks } from '@/bench/tools/pick';
import { enterHolder, selectTool } from '@/bench/tools/select';
import { shapeTool } from '@/bench/tools/shape';
import { textTool } from '@/bench/tools/text';
import { endEditing, writeInShape } from '@/bench/tools/editing';
import { runCommand } from '@/bench/commands/commands';
import { applyColour } from '@/bench/tools/colouring';
import { replaceText } from '@/core/edit/text';
import type { DesignDraft } from '@/core/edit/history';
import { snapAngle } from '@/bench/tools/snapping';
import { setCorners } from '@/core/edit/corners';
import { colourPaint } from '@/core/model/defaults';
import type { NodeOf } from '@/core/model/schema';
import { box, disc, INK, named, OTHER } from '../support/drawing';
import { b, boxOf, design, id, only, open, run, said, take } from '../support/opened';

describe('corners', () => {
  test('the handle of a corner gives all of them its radius, with Alt its own; typed kinds keep radii', async () => {
    await open((d) => [
      d.shape('Hexagon', 'polygon', { x: 60, y: 40, w: 200, h: 200 }, { fill: colourPaint(INK), knobs: { sides: 4 } }),
    ]);
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
    const at = (keys: object) => ({
      page: { x: 0, y: 0 },
      screen: { x: 0, y: 0 },
      shift: false,
      alt: false,
      mod: false,
      ...keys,
    });
    expect([
      snapAngle(44, 45, at({})),
      snapAngle(40, 45, at({})),
      snapAngle(40, 15, at({ shift: true })),
      snapAngle(44, 45, at({ mod: true })),
    ]).toEqual([45, 40, 45, 44]);
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
    const grip = toPage(
      b.session.state.camera,
      placedGrips(b.session, selectionFrame(b.session)!).find(
        (g) => g.grip.kind === 'size' && g.grip.hx === 0 && g.grip.hy === 1,
      )!.at,
    );
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
    expect(b.session.state.pileHere!.ids.map((x) => design().nodes[x].name)).toEqual([
      'Disc 6',
      'Disc 5',
      'Disc 4',
      'Disc 3',
      'Disc 2',
      'Disc 1',
    ]);
    expect([...picks(b.session, b.at(95, 150))].map((f) => design().nodes[f.id].name)).toEqual(['Disc 2', 'Disc 1']);
    b.session.pointer = { page: { x: 5, y: 5 }, screen: { x: 0, y: 0 } };
    run('select.pileHere');
    expect(said()).toContain('Nothing lies here');
  });
  test('alike within a tolerance; the others instead', async () => {
    await open((d) => [
      box(d, 'A', 20, 20, 40, 40),
      box(d, 'B', 80, 20, 40, 40, { cmyk: [0, 0.52, 1, 0] }),
      box(d, 'C', 140, 20, 40, 40, OTHER),
    ]);
    take('A');
    selectAlike(b.session, ['fill'], 0.1);
    expect(said()).toBe('Selected 1 object alike by fill, within ΔE 0.1.');
    selectAlike(b.session, ['fill'], 5);
    expect(b.session.state.selection).toHaveLength(2);
    run('select.inverse');
    expect(only().name).toBe('C');
  });
  test('isolated, nothing outside of a group is chosen or moved', async () => {
    await open((d) => [
      box(d, 'Outside', 200, 20, 60, 60),
      d.group('Group', [box(d, 'One', 20, 20, 40, 40), box(d, 'Two', 80, 20, 40, 40)]),
    ]);
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
    b.session.leave();
    b.session.select([]);
    b.click(selectTool, 130, 130);
    expect(only().name).toBe('Star');
    take('Ground');
    run('layer.make');
    expect(Object.values(design().nodes).filter((n) => n.kind === 'group' && n.layer)).toHaveLength(2);
  });
  test('a marquee with Alt takes only what lies wholly inside', async () => {
    await open((d) => [
      box(d, 'In', 40, 40, 40, 40),
      box(d, 'Half', 90, 40, 60, 40),
      d.group('Group', [box(d, 'One', 50, 90, 20, 20), box(d, 'Far', 300, 90, 20, 20)]),
    ]);
    b.drag(selectTool, [30, 30], [120, 120]);
    expect(b.session.state.selection).toHaveLength(3);
    b.drag(selectTool, [30, 30], [120, 120], { alt: true });
    expect(only().name).toBe('In');
    expect(b.session.state.selection).toHaveLength(1);
  });
  test('a copy pulled off with Alt lines up with its original; duplicating keeps the pivot', async () => {
    await open((d) => [box(d, 'Lamp', 100, 60, 40, 40)]);
    take('Lamp');
    const lamp = id('Lamp');
    // A little off the vertical: the copy's edges find those of the original.
    b.drag(selectTool, [120, 80], [122, 150], { alt: true });
    const copy = b.session.state.selection[0];
    expect(copy).not.toBe(lamp);
    expect(b.session.boxOf([copy])).toMatchObject({ x0: 100, x1: 140 });
    b.session.set({ pivot: { x: 200, y: 100 } });
    runCommand(b.session, 'edit.duplicate');
    expect(b.session.state.selection[0]).not.toBe(copy);
    expect(b.session.state.pivot).toEqual({ x: 200, y: 100 });
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
  test('a double-click writes in a shape; left empty it is the shape again', async () => {
    await open((d) => [d.shape('Heart', 'heart', { x: 60, y: 40, w: 200, h: 180 }, { fill: colourPaint(INK) })]);
    take('Heart');
    selectTool.double!(b.at(160, 120), b.context);
    expect(named(design(), 'Heart')).toMatchObject({
      kind: 'textFrame',
      window: { shape: 'heart' },
      fills: [{ colour: INK }],
    });
    expect(b.session.state.editing?.node).toBe(id('Heart'));
    // Its knobs are still there.
    b.session.set({ tool: 'select' });
    expect(placedGrips(b.session, selectionFrame(b.session)!).some((g) => g.grip.kind === 'knob')).toBe(true);
    endEditing(b.session);
    expect(named(design(), 'Heart')).toMatchObject({ kind: 'shape', shape: 'heart' });
  });

  test('the text tool: a click makes display text and a drag a frame of its own, whatever lies below and is chosen', async () => {
    await open((d) => [d.shape('Heart', 'heart', { x: 60, y: 40, w: 200, h: 180 }, { fill: colourPaint(INK) })]);
    take('Heart');
    b.session.set({ tool: 'text' });
    b.click(textTool, 160, 120);
    expect(only().kind).toBe('displayText');
    endEditing(b.session);
    take('Heart');
    b.session.set({ tool: 'text' });
    b.drag(textTool, [100, 80], [200, 160]);
    expect(only()).toMatchObject({ kind: 'textFrame', width: 100, height: 80 });
    expect(named(design(), 'Heart')).toMatchObject({ kind: 'shape' });
    endEditing(b.session);
    // The pointer tells before the press.
    textTool.hover!(b.at(110, 90), b.context);
    expect(b.said.at(-1)).toBe('click: display text · drag: text frame');
  });

  test('the frame of a shape with text has a fill and an outline of its own; chosen letters are coloured alone', async () => {
    await open((d) => [d.shape('Heart', 'heart', { x: 60, y: 40, w: 200, h: 180 }, { fill: colourPaint(INK) })]);
    take('Heart');
    writeInShape(b.session, id('Heart'));
    const heart = () => named(design(), 'Heart') as NodeOf<'textFrame'>;
    const runs = () => design().stories[heart().story].paragraphs[0].runs;
    b.session.commit(
      'Type',
      (d) =>
        void (d.stories[heart().story] = replaceText(
          design().stories[heart().story],
          0,
          0,
          'lantern',
        ) as DesignDraft['stories'][string]),
    );
    b.session.set({ aim: 'frameOutline' });
    const red = { cmyk: [0, 1, 1, 0] as const };
    applyColour(b.session, red, 'Red');
    expect(heart().outlines).toMatchObject([{ paint: { kind: 'colour', colour: red } }]);
    expect(heart().fills).toMatchObject([{ colour: INK }]);
    b.session.set({ aim: 'letters', editing: { node: id('Heart'), anchor: 2, focus: 5 } });
    applyColour(b.session, red, 'Red');
    expect(
      runs().map((r) => [r.text, r.fill?.kind === 'colour' && 'cmyk' in r.fill.colour && r.fill.colour.cmyk[1] === 1]),
    ).toEqual([
      ['la', false],
      ['nte', true],
      ['rn', false],
    ]);
    expect(said()).toBe('Letters, the chosen ones: Red.');
  });
});

test('entering says what can be done there', async () => {
  await open((d) => [d.group('Group', [box(d, 'One', 20, 20, 40, 40)])]);
  enterHolder(b.session, id('Group'), null);
  expect(said()).toContain('Inside Group');
  expect(only().name).toBe('One');
});
