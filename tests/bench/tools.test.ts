import { localBox } from '@/core/derive/box';
import { gradientLine } from '@/core/edit/gradient';
import { angleOf } from '@/core/geometry/matrix';
import { width, height } from '@/core/geometry/rect';
import { newDesign, setupOf } from '@/core/model/defaults';
import type { GradientPaint } from '@/core/model/schema';
import { SHAPES } from '@/core/shapes/catalogue';
import { plainText } from '@/core/text/layout';
import { mm } from '@/core/units/length';
import { changedArea } from '@/core/scene/walk';
import { fitRect, toPage, toScreen, zoomAt } from '@/bench/view/camera';
import { placedGrips, selectionFrame } from '@/bench/view/frame';
import { caretLine, offsetAt } from '@/bench/view/caret';
import { difference } from '@/bench/canvas/TextInput';
import { beginEditing, endEditing } from '@/bench/tools/editing';
import { gradientTool } from '@/bench/tools/gradient';
import { choose } from '@/bench/tools/pick';
import { selectTool } from '@/bench/tools/select';
import { shapeTool } from '@/bench/tools/shape';
import { choosing, textTool } from '@/bench/tools/text';
import { demoDesigns } from '@/demo/demos';
import { openBench, type TestBench } from '../support/bench';
import { making } from '../support/sample';

let b: TestBench;
const open = async (
  design = newDesign(
    'Tools',
    setupOf(600, 400, { bleed: 9, margins: { top: 20, right: 20, bottom: 20, left: 20 } }),
    making,
  ),
) => {
  b = await openBench(design);
  return b;
};
afterEach(async () => {
  await b.session.settled();
  b.session.dispose();
});
const only = () => b.session.design.nodes[b.session.state.selection[0]];
const box = () => b.session.boxOf(b.session.state.selection);
const grip = (want: (g: ReturnType<typeof placedGrips>[number]) => boolean) => {
  const g = placedGrips(b.session, selectionFrame(b.session)!).find(want)!;
  const p = toPage(b.session.state.camera, g.at);
  return [p.x, p.y] as const;
};
const sizeGrip = (hx: number, hy: number) =>
  grip((g) => g.grip.kind === 'size' && g.grip.hx === hx && g.grip.hy === hy);

/** Draws one shape and goes back to Select. */
function drawn(shape: string, x: number, y: number, w: number, h: number) {
  b.session.set({ shape });
  b.drag(shapeTool, [x, y], [x + w, y + h], { mod: true });
}

describe('drawing', () => {
  test.each(SHAPES.map((s) => s.id))(
    '%s: by a drag it fills the box, by a click it has a size of its own',
    async (shape) => {
      await open();
      drawn(shape, 100, 100, 80, 60);
      expect(box()).toEqual({
        x0: expect.closeTo(100, 6),
        y0: expect.closeTo(100, 6),
        x1: expect.closeTo(180, 6),
        y1: expect.closeTo(160, 6),
      });
      expect(b.session.state.tool).toBe('select');
      expect(b.said.some((t) => t.includes('×'))).toBe(true);
      b.session.set({ shape });
      b.click(shapeTool, 400, 200);
      expect(Math.max(width(box()), height(box()))).toBeCloseTo(mm(40), 6);
      expect(b.session.design.pages[0].children).toHaveLength(2);
    },
  );
  test('Shift keeps proportion, Alt draws from the centre, any direction will do', async () => {
    await open();
    b.session.set({ shape: 'rectangle' });
    b.drag(shapeTool, [200, 200], [130, 170], { mod: true, shift: true });
    expect(box()).toMatchObject({ x0: expect.closeTo(130, 6), y0: expect.closeTo(130, 6), x1: 200, y1: 200 });
    b.drag(shapeTool, [300, 200], [340, 220], { mod: true, alt: true });
    expect(box()).toMatchObject({
      x0: expect.closeTo(260, 6),
      y0: expect.closeTo(180, 6),
      x1: expect.closeTo(340, 6),
      y1: expect.closeTo(220, 6),
    });
  });
  test('a corner near a margin snaps to it and says so; Escape halfway draws nothing', async () => {
    await open();
    b.drag(shapeTool, [22, 22], [150, 120]);
    expect(box().x0).toBeCloseTo(20, 6);
    const g = shapeTool.press(b.at(300, 300), b.context)!;
    g.move(b.at(350, 350));
    g.cancel();
    expect(b.session.state.preview).toBeNull();
    expect(b.session.design.pages[0].children).toHaveLength(1);
  });
});

describe('choosing and moving', () => {
  test('click, Shift-click, click on nothing; a drag under three pixels is a click', async () => {
    await open();
    drawn('rectangle', 50, 50, 60, 60);
    const first = b.session.state.selection[0];
    drawn('ellipse', 200, 50, 60, 60);
    const second = b.session.state.selection[0];
    b.click(selectTool, 80, 80);
    expect(b.session.state.selection).toEqual([first]);
    b.click(selectTool, 230, 80, { shift: true });
    expect(b.session.state.selection).toEqual([first, second]);
    b.click(selectTool, 80, 80, { shift: true });
    expect(b.session.state.selection).toEqual([second]);
    b.click(selectTool, 500, 300);
    expect(b.session.state.selection).toEqual([]);
    const before = b.session.state.cursor;
    b.drag(selectTool, [80, 80], [81, 81]);
    expect(b.session.state.cursor).toBe(before);
  });
  test('moves what is chosen, along an axis with Shift, as a copy with Alt', async () => {
    await open();
    drawn('rectangle', 50, 50, 60, 60);
    b.drag(selectTool, [80, 80], [180, 110], { mod: true });
    expect(box()).toMatchObject({ x0: expect.closeTo(150, 6), y0: expect.closeTo(80, 6) });
    b.drag(selectTool, [180, 110], [260, 118], { mod: true, shift: true });
    expect(box()).toMatchObject({ x0: expect.closeTo(230, 6), y0: expect.closeTo(80, 6) });
    b.drag(selectTool, [260, 110], [260, 250], { mod: true, alt: true });
    expect(b.session.design.pages[0].children).toHaveLength(2);
    expect(box().y0).toBeCloseTo(220, 6);
    expect(b.said.some((t) => t.startsWith('copy '))).toBe(true);
    b.session.undo();
    expect(b.session.design.pages[0].children).toHaveLength(1);
  });
  test('snaps to the page centre, to margins and to the edges and middles of others, with the words', async () => {
    await open();
    drawn('rectangle', 400, 300, 80, 40);
    drawn('rectangle', 50, 50, 60, 60);
    b.drag(selectTool, [80, 80], [300 + 2, 100]);
    expect(box().x0).toBeCloseTo(270, 6);
    expect(b.said[b.said.length - 1]).toContain('at page centre');
    b.drag(selectTool, [300, 100], [300 + 129, 100]);
    expect(b.said[b.said.length - 1]).toMatch(/at edge/);
    expect(box().x0).toBeCloseTo(400, 6);
    b.drag(selectTool, [430, 100], [430.5, 52]);
    expect(box().y0).toBeCloseTo(20, 6);
    expect(b.said[b.said.length - 1]).toContain('margin');
  });
  test('the reach of snapping is the same on the screen at any zoom', async () => {
    await open();
    drawn('rectangle', 50, 50, 60, 60);
    for (const scale of [0.25, 1, 8]) {
      b.session.set({ camera: { scale, x: 0, y: 0 } });
      const start = box();
      const mid = { x: (start.x0 + start.x1) / 2, y: (start.y0 + start.y1) / 2 };
      const to = 300 + 2 / scale;
      b.drag(selectTool, [mid.x, mid.y], [to, mid.y]);
      expect((box().x0 + box().x1) / 2).toBeCloseTo(300, 6);
      b.session.undo();
      b.drag(selectTool, [mid.x, mid.y], [300 + 9 / scale, mid.y + 60]);
      expect(Math.abs((box().x0 + box().x1) / 2 - 300)).toBeGreaterThan(1 / scale);
      b.session.undo();
    }
  });
  test('a marquee takes what it touches, with Alt only what lies inside', async () => {
    await open();
    drawn('rectangle', 100, 100, 60, 60);
    drawn('rectangle', 200, 100, 60, 60);
    b.session.select([]);
    b.drag(selectTool, [90, 90], [230, 170]);
    expect(b.session.state.selection).toHaveLength(2);
    b.session.select([]);
    b.drag(selectTool, [90, 90], [230, 170], { alt: true });
    expect(b.session.state.selection).toHaveLength(1);
  });
  test('a group moves whole; a double click goes inside, Esc comes out', async () => {
    await open(demoDesigns()[0].design);
    const name = (x: number, y: number) => {
      b.click(selectTool, mm(x), mm(y));
      return only()?.name;
    };
    expect(name(210, 374)).toBe('Lanterns');
    selectTool.double!(b.at(mm(210), mm(374)), b.context);
    expect(only().name).toBe('Lantern, middle');
    selectTool.double!(b.at(mm(210), mm(374)), b.context);
    expect(only().name).toBe('Ember over paper');
    b.click(selectTool, mm(334), mm(80));
    expect(only().name).toBe('Moon');
    // Picking what lies beside a group comes out of it.
    expect(b.session.state.entered).toBeNull();
    b.click(selectTool, mm(20), mm(20));
    expect(b.session.state.entered).toBeNull();
    expect(b.session.state.selection).toEqual([]);
  });
});

describe('sizing, turning, knobs', () => {
  test('a corner sizes freely, in proportion, from the centre; the other corner stays', async () => {
    await open();
    drawn('rectangle', 100, 100, 80, 40);
    const [x, y] = sizeGrip(1, 1);
    b.drag(selectTool, [x, y], [x + 40, y + 60], { mod: true });
    expect(box()).toMatchObject({
      x0: expect.closeTo(100, 6),
      y0: expect.closeTo(100, 6),
      x1: expect.closeTo(220, 6),
      y1: expect.closeTo(200, 6),
    });
    b.session.undo();
    b.drag(selectTool, [x, y], [x + 80, y], { mod: true, shift: true });
    expect([width(box()), height(box())]).toEqual([expect.closeTo(160, 6), expect.closeTo(80, 6)]);
    b.session.undo();
    b.drag(selectTool, [x, y], [x + 10, y + 10], { mod: true, alt: true });
    expect(box()).toMatchObject({
      x0: expect.closeTo(90, 6),
      y0: expect.closeTo(90, 6),
      x1: expect.closeTo(190, 6),
      y1: expect.closeTo(150, 6),
    });
  });
  test('a side sizes one way only; past the other side it mirrors', async () => {
    await open();
    drawn('arrow', 100, 100, 120, 120);
    const [x, y] = sizeGrip(1, 0);
    b.drag(selectTool, [x, y], [x + 60, y + 30], { mod: true });
    expect([width(box()), height(box())]).toEqual([expect.closeTo(180, 6), expect.closeTo(120, 6)]);
    b.session.undo();
    b.drag(selectTool, [x, y], [x - 200, y], { mod: true });
    expect(box().x0).toBeCloseTo(20, 4);
    expect(only().transform[0]).toBeLessThan(0);
  });
  test('turning by the arc: freely, by 15° with Shift, back to where it was', async () => {
    await open();
    drawn('rectangle', 200, 150, 100, 60);
    const [x, y] = grip((g) => g.grip.kind === 'turn');
    const mid = { x: 250, y: 180 };
    const r = Math.hypot(x - mid.x, y - mid.y);
    const a0 = Math.atan2(y - mid.y, x - mid.x);
    const to = (deg: number) =>
      [mid.x + r * Math.cos(a0 + (deg * Math.PI) / 180), mid.y + r * Math.sin(a0 + (deg * Math.PI) / 180)] as const;
    b.drag(selectTool, [x, y], to(37), { mod: true });
    expect(angleOf(only().transform)).toBeCloseTo(37, 6);
    b.session.undo();
    b.drag(selectTool, [x, y], to(37), { shift: true });
    expect(angleOf(only().transform)).toBeCloseTo(30, 6);
    // A turned shape is sized along its own axes.
    const before = localBox(b.session.design, only(), b.engines.fonts);
    const [gx, gy] = sizeGrip(1, 0);
    b.drag(selectTool, [gx, gy], [gx + 20 * Math.cos(Math.PI / 6), gy + 20 * Math.sin(Math.PI / 6)], { mod: true });
    const after = localBox(b.session.design, only(), b.engines.fonts);
    expect([width(after) - width(before), height(after) - height(before)]).toEqual([
      expect.closeTo(20, 6),
      expect.closeTo(0, 6),
    ]);
  });
  test('knobs: all four corners, one with Alt, and the readout names the measure', async () => {
    await open();
    drawn('rectangle', 100, 100, 200, 120);
    const knob = () => grip((g) => g.grip.kind === 'knob' && g.grip.index === 0);
    let [x, y] = knob();
    b.drag(selectTool, [x, y], [x + 20, y + 20]);
    const values = () => {
      const n = only();
      return n.kind === 'shape'
        ? ['topLeft', 'topRight', 'bottomRight', 'bottomLeft'].map((k) => Math.round(n.knobs[k]))
        : [];
    };
    expect(values()).toEqual([20, 20, 20, 20]);
    expect(b.said.some((t) => t.startsWith('top left') && t.includes('all corners'))).toBe(true);
    [x, y] = knob();
    b.drag(selectTool, [x, y], [x + 10, y + 10], { alt: true });
    expect(values()).toEqual([30, 20, 20, 20]);
  });
  test.each(['polygon', 'star', 'ring', 'chevron', 'heart', 'arrow'])(
    'each knob of a %s changes its own measure',
    async (shape) => {
      await open();
      drawn(shape, 100, 100, 200, 160);
      const count = placedGrips(b.session, selectionFrame(b.session)!).filter((g) => g.grip.kind === 'knob').length;
      for (let i = 0; i < count; i++) {
        const before = only();
        const [x, y] = grip((g) => g.grip.kind === 'knob' && g.grip.index === i);
        b.drag(selectTool, [x, y], [x - 25, y + 18]);
        const after = only();
        if (before.kind !== 'shape' || after.kind !== 'shape') throw new Error('not a shape');
        expect(Object.keys(after.knobs).filter((k) => after.knobs[k] !== before.knobs[k]).length).toBe(1);
      }
    },
  );
});

describe('gradients on the object', () => {
  const paint = (): GradientPaint => {
    const n = only();
    const p = n.kind === 'shape' ? n.fills[0] : null;
    if (p?.kind !== 'gradient') throw new Error('no gradient');
    return p;
  };
  const offsets = () => {
    const { ramp } = paint();
    return 'stops' in ramp ? ramp.stops.map((s) => Math.round(s.offset * 100)) : [];
  };
  test('press is the start, release the end, outside allowed; Shift holds to 45°', async () => {
    await open();
    drawn('rectangle', 100, 100, 200, 100);
    b.drag(gradientTool, [120, 150], [360, 150]);
    expect(gradientLine(paint())).toEqual({
      from: { x: expect.closeTo(20, 6), y: expect.closeTo(50, 6) },
      to: { x: expect.closeTo(260, 6), y: expect.closeTo(50, 6) },
    });
    b.session.undo();
    b.drag(gradientTool, [120, 120], [220, 207], { shift: true });
    const { from, to } = gradientLine(paint());
    expect(to.x - from.x).toBeCloseTo(to.y - from.y, 6);
    expect(b.said.some((t) => t.startsWith('45°'))).toBe(true);
  });
  test('stops: a click adds, a drag moves, a pull takes out, an end moves the line', async () => {
    await open();
    drawn('rectangle', 100, 100, 300, 150);
    b.drag(gradientTool, [120, 175], [380, 175]);
    b.click(gradientTool, 250, 175);
    expect(offsets()).toEqual([0, 50, 100]);
    expect(b.session.state.stop).toBe(1);
    b.drag(gradientTool, [250, 175], [315, 176]);
    expect(offsets()).toEqual([0, 75, 100]);
    b.drag(gradientTool, [315, 175], [315, 230]);
    expect(offsets()).toEqual([0, 100]);
    const end = gradientLine(paint()).to;
    b.drag(gradientTool, [end.x + 100 + 12 / b.session.state.camera.scale, end.y + 100], [300, 240]);
    expect(Math.round(gradientLine(paint()).to.y)).toBeGreaterThan(120);
    expect(b.session.state.entries.map((e) => e.label)).toEqual(
      expect.arrayContaining(['Draw a gradient', 'Add a stop', 'Move a stop', 'Take out a stop', 'Move the gradient']),
    );
  });
  test('with nothing chosen it takes what lies under the pointer; over nothing it does nothing', async () => {
    await open();
    drawn('ellipse', 100, 100, 100, 100);
    b.session.select([]);
    b.drag(gradientTool, [110, 150], [190, 150]);
    expect(paint().gradient).toBe('linear');
    b.session.select([]);
    const steps = b.session.state.cursor;
    b.drag(gradientTool, [500, 350], [550, 350]);
    expect(b.session.state.cursor).toBe(steps);
  });
});

describe('words', () => {
  test('a click places display text, a drag a frame; both are written in at once', async () => {
    await open();
    b.click(textTool, 100, 100);
    expect([only().kind, b.session.state.editing?.focus, b.session.state.aim]).toEqual(['displayText', 0, 'letters']);
    endEditing(b.session);
    expect(b.session.design.pages[0].children).toHaveLength(0); // left empty, it is taken away
    b.drag(textTool, [100, 150], [300, 220]);
    const frame = only();
    expect(frame.kind === 'textFrame' && [frame.width, frame.height]).toEqual([
      expect.closeTo(200, 6),
      expect.closeTo(70, 6),
    ]);
    endEditing(b.session);
    expect(b.session.design.pages[0].children).toHaveLength(1); // an empty frame may be meant
  });
  test('the caret goes where it is clicked, and a drag chooses letters', async () => {
    await open(demoDesigns()[0].design);
    const headline = Object.values(b.session.design.nodes).find((n) => n.name === 'Headline')!;
    choose(b.session, [headline.id]);
    expect(b.session.state.aim).toBe('letters');
    const r = b.session.boxOf([headline.id]);
    const y = (r.y0 + r.y1) / 2;
    expect([
      offsetAt(b.session, headline.id, { x: r.x0 - 50, y }),
      offsetAt(b.session, headline.id, { x: r.x1 + 50, y }),
    ]).toEqual([0, 12]);
    beginEditing(b.session, headline.id, { x: r.x0 + 1, y });
    expect(b.session.state.editing).toMatchObject({ anchor: 0, focus: 0 });
    const [top, foot] = caretLine(b.session)!;
    expect(foot.y).toBeGreaterThan(top.y);
    const g = choosing(b.session, headline.id, b.at(r.x0, y));
    g.move(b.at((r.x0 + r.x1) / 2, y));
    expect(b.session.state.editing!.focus).toBeGreaterThan(3);
    expect(b.session.state.editing!.anchor).toBe(0);
    endEditing(b.session);
    expect(plainText(b.session.design.stories[headline.kind === 'displayText' ? headline.story : ''])).toBe(
      'Lantern Walk',
    );
  });
  test('a locked text is not written in, and it is said', async () => {
    const poster = demoDesigns()[0].design;
    const headline = Object.values(poster.nodes).find((n) => n.name === 'Headline')!;
    await open({ ...poster, nodes: { ...poster.nodes, [headline.id]: { ...headline, locked: true } } });
    beginEditing(b.session, headline.id, null);
    expect(b.session.state.editing).toBeNull();
    expect(b.session.state.message?.text).toBe('Headline is locked. Unlock it in the pile to write in it.');
  });
  test('the one stretch in which two texts differ', () => {
    expect(difference('Quay Walk', 'Quay Night Walk')).toEqual({ from: 5, to: 5, insert: 'Night ' });
    expect(difference('aaa', 'aa')).toEqual({ from: 2, to: 3, insert: '' });
    expect(difference('same', 'same')).toEqual({ from: 4, to: 4, insert: '' });
    expect(difference('', 'new')).toEqual({ from: 0, to: 0, insert: 'new' });
  });
});

describe('standing nearer and further', () => {
  test('zooming leaves what lies under the pointer where it is, within its limits', () => {
    let c = fitRect({ x0: 0, y0: 0, x1: 600, y1: 400 }, 800, 600);
    const at = { x: 300, y: 211 };
    const page = toPage(c, at);
    for (const f of [1.3, 4, 0.1, 1e9, 1e-9]) {
      c = zoomAt(c, at, f);
      const back = toScreen(c, page);
      expect([back.x, back.y]).toEqual([expect.closeTo(at.x, 5), expect.closeTo(at.y, 5)]);
      expect(c.scale).toBeGreaterThanOrEqual(0.01);
      expect(c.scale).toBeLessThanOrEqual(400);
    }
  });
  test('fitting shows the whole of it in the middle', () => {
    const c = fitRect({ x0: -9, y0: -9, x1: 609, y1: 409 }, 800, 600, 28);
    const [a, z] = [toScreen(c, { x: -9, y: -9 }), toScreen(c, { x: 609, y: 409 })];
    expect(a.x).toBeGreaterThanOrEqual(27.9);
    expect(z.x).toBeLessThanOrEqual(772.1);
    expect((a.y + z.y) / 2).toBeCloseTo(300, 6);
  });
  test('only what changed is painted again', async () => {
    await open(demoDesigns()[0].design);
    const before = b.session.scene().root.content;
    b.session.select([Object.values(b.session.design.nodes).find((n) => n.name === 'Moon')!.id]);
    const was = box();
    b.drag(
      selectTool,
      [(was.x0 + was.x1) / 2, (was.y0 + was.y1) / 2],
      [(was.x0 + was.x1) / 2 + 30, (was.y0 + was.y1) / 2],
      { mod: true },
    );
    const area = changedArea(before, b.session.scene().root.content);
    expect(area.x0).toBeCloseTo(was.x0, 3);
    expect(area.x1).toBeCloseTo(was.x1 + 30, 3);
    expect(changedArea(before, before.slice(1))).toEqual(before[0].paintBounds);
  });
});
