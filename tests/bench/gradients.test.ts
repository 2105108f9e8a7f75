import { gradientLine } from '@/core/edit/gradient';
import { paintAt } from '@/core/edit/aims';
import { rampOf, setPaint } from '@/core/edit/paint';
import { addSwatch } from '@/core/edit/swatches';
import { firstPools } from '@/core/edit/pools';
import { eachByItself, isSweep, matchEnds, sweepBecomes, sweepOver } from '@/core/edit/sweep';
import { apply, multiply } from '@/core/geometry/matrix';
import { newDesign, outlineOf, runOf, setupOf } from '@/core/model/defaults';
import type { Design, GradientPaint, Paint, PoolsPaint, Stop } from '@/core/model/schema';
import { pageMatrix } from '@/core/model/tree';
import { tryOut } from '@/core/edit/history';
import { toScreen } from '@/bench/view/camera';
import { applyColour } from '@/bench/tools/colouring';
import { focusOnScreen, gradientTool, sidePoint } from '@/bench/tools/gradient';
import {
  advisedMixing,
  aimedGradient,
  aimedPools,
  mixingFor,
  nearestOnTrack,
  onTrack,
  trackOf,
  withStops,
} from '@/bench/tools/gradientTarget';
import { placedPools } from '@/bench/tools/pools';
import { withBeadColour } from '@/bench/tools/beadColour';
import { DesignBuilder, flat } from '@/demo/builder';
import { openBench, type TestBench } from '../support/bench';
import { cmyk, linear, making, radial } from '../support/sample';
import { beadPlaces, beadsApart } from '@/bench/tools/beads';
import { leavesOf } from '../support/scenes';

let b: TestBench;
let ids: string[];
const stops: Stop[] = [
  { offset: 0, colour: cmyk(0, 90, 80, 0) },
  { offset: 1, colour: cmyk(90, 40, 0, 0) },
];

async function open(draw: (d: DesignBuilder) => string[]): Promise<void> {
  const d = new DesignBuilder(newDesign('Gradients', setupOf(600, 400, { bleed: 9 }), making), making);
  ids = draw(d);
  d.place(0, ids);
  b = await openBench(d.done());
  b.session.select(ids, { aim: 'fill', tool: 'gradient' });
}
afterEach(async () => {
  await b.session.settled();
  b.session.dispose();
});
const paint = (id = ids[0], aim: Parameters<typeof paintAt>[2] = 'fill') =>
  paintAt(b.session.design, id, aim) as GradientPaint;
const pools = () => paintAt(b.session.design, ids[0], 'fill') as PoolsPaint;
const onPage = (id: string, t: 0 | 1) => {
  const line = gradientLine(paint(id));
  return apply(pageMatrix(b.session.design, b.session.page, id), t ? line.to : line.from);
};
const five = (fill: Paint) => (d: DesignBuilder) =>
  Array.from({ length: 5 }, (_, i) =>
    d.shape(
      `Flag ${i + 1}`,
      'rectangle',
      { x: 20 + i * 110, y: 100 + i * 10, w: 90, h: 60, turn: i === 2 ? 15 : 0 },
      { fill },
    ),
  );
const pagePoint = (screen: { x: number; y: number }) => {
  const { camera } = b.session.state;
  return [(screen.x - camera.x) / camera.scale, (screen.y - camera.y) / camera.scale] as const;
};

describe('on the object', () => {
  test('a midpoint is dragged between its stops; a click where it lies adds a stop', async () => {
    await open((d) => [
      d.shape(
        'Flag',
        'rectangle',
        { x: 100, y: 100, w: 300, h: 100 },
        { fill: linear(stops, [200, 0, 0, 200, 50, 50]) },
      ),
    ]);
    b.drag(gradientTool, [250, 150], [290, 150]);
    expect(rampOf(b.session.design, paint()).stops[0].midpoint).toBeCloseTo(0.7, 2);
    expect(b.said.some((t) => t.startsWith('half way at'))).toBe(true);
    b.click(gradientTool, 290, 150);
    expect(rampOf(b.session.design, paint()).stops.map((s) => Math.round(s.offset * 100))).toEqual([0, 70, 100]);
  });
  test('a drag that begins on the line draws anew and leaves no stray stop behind', async () => {
    await open((d) => [
      d.shape(
        'Flag',
        'rectangle',
        { x: 100, y: 100, w: 300, h: 100 },
        { fill: linear(stops, [200, 0, 0, 200, 50, 50]) },
      ),
    ]);
    b.drag(gradientTool, [200, 150], [200, 190]);
    expect(rampOf(b.session.design, paint()).stops).toHaveLength(2);
    expect(gradientLine(paint())).toEqual({
      from: { x: expect.closeTo(100, 6), y: expect.closeTo(50, 6) },
      to: { x: expect.closeTo(100, 6), y: expect.closeTo(90, 6) },
    });
  });
  test('a radial one is squashed by its side handle, and its focus is pulled out of the middle and back', async () => {
    await open((d) => [
      d.shape(
        'Moon',
        'ellipse',
        { x: 100, y: 100, w: 200, h: 200 },
        { fill: radial(stops, [100, 0, 0, 100, 100, 100]) },
      ),
    ]);
    const side = pagePoint(sidePoint(b.session, aimedGradient(b.session)!)!);
    b.drag(gradientTool, side, [200, 250]);
    expect(Math.hypot(paint().geometry[2], paint().geometry[3])).toBeCloseTo(50, 4);
    expect(Math.hypot(paint().geometry[0], paint().geometry[1])).toBeCloseTo(100, 4);
    const focus = focusOnScreen(b.session, aimedGradient(b.session)!)!;
    const grab = pagePoint({ x: focus.x - 12, y: focus.y });
    b.drag(gradientTool, grab, [150, 200]);
    expect(paint().focus).toEqual([expect.closeTo(-0.5, 2), expect.closeTo(0, 2)]);
    // Beyond the circle it stays within.
    const out = focusOnScreen(b.session, aimedGradient(b.session)!)!;
    b.drag(gradientTool, pagePoint({ x: out.x - 12, y: out.y }), [-300, 200]);
    expect(Math.hypot(...paint().focus!)).toBeCloseTo(0.95, 3);
  });
  test('following a line, the beads lie on it; across, on its width', async () => {
    await open((d) => [
      d.shape(
        'Ring',
        'ellipse',
        { x: 100, y: 100, w: 200, h: 200 },
        { outline: outlineOf({ ...(linear(stops, [1, 0, 0, 1, 0, 0]) as GradientPaint), strokeMapping: 'along' }, 30) },
      ),
    ]);
    b.session.set({ aim: 'outline' });
    const track = trackOf(b.session, aimedGradient(b.session)!);
    const half = onTrack(track, 0.5);
    expect(half.x).toBeCloseTo(toScreen(b.session.state.camera, { x: 100, y: 200 }).x, 0);
    expect(nearestOnTrack(track, half).t).toBeCloseTo(0.5, 3);
    // The second bead is dragged a quarter of the way back along the ring.
    const quarter = pagePoint(onTrack(track, 0.25));
    b.drag(gradientTool, pagePoint(onTrack(track, 0.75)), quarter);
    expect(paintAt(b.session.design, ids[0], 'outline')).toMatchObject({ kind: 'gradient' });
    b.session.commit('Across', (d) =>
      setPaint(d, ids, 'outline', (old) => ({ ...(old as GradientPaint), strokeMapping: 'across' })),
    );
    const across = trackOf(b.session, aimedGradient(b.session)!);
    expect(across.points).toHaveLength(2);
    expect(across.length).toBeGreaterThanOrEqual(60);
  });
  test('a double click on a bead opens its recipe there', async () => {
    await open((d) => [
      d.shape(
        'Flag',
        'rectangle',
        { x: 100, y: 100, w: 300, h: 100 },
        { fill: linear(stops, [200, 0, 0, 200, 50, 50]) },
      ),
    ]);
    gradientTool.double!(b.at(350, 150), b.context);
    expect(b.session.state).toMatchObject({ stop: 1, stopSlip: { x: expect.any(Number), y: expect.any(Number) } });
    gradientTool.double!(b.at(250, 300), b.context);
    expect(b.session.state.stop).toBe(1);
  });
  test('letters each for themselves: the line is drawn in the first letter’s own box', async () => {
    await open((d) => [
      d.displayText('Words', 100, 200, [
        {
          align: 'left',
          leading: 1,
          runs: [
            runOf(
              'Glow',
              80,
              { ...(linear(stops, [0, 1, -1, 0, 0, 0]) as GradientPaint), eachLetter: true },
              'archivo-800',
            ),
          ],
        },
      ]),
    ]);
    b.session.set({ aim: 'letters' });
    const items = leavesOf(b.session.scene()).filter((i) => i.node === ids[0]);
    expect(items).toHaveLength(4);
    const target = aimedGradient(b.session)!;
    expect(target.matrix).toEqual(items[0].matrix);
    const box = items[0].inkBounds;
    const [a, z] = [apply(target.matrix, { x: 0, y: 0 }), apply(target.matrix, { x: 1, y: 1 })];
    expect([a.x, a.y, z.x, z.y]).toEqual([box.x0, box.y0, box.x1, box.y1].map((v) => expect.closeTo(v, 4)));
  });
});

describe('over several objects', () => {
  test('drawn over five shapes it is one sweep: the same line on the page in all, whatever their turn', async () => {
    await open(five(flat(cmyk(0, 90, 80, 0))));
    b.drag(gradientTool, [10, 130], [570, 170]);
    for (const id of ids) {
      expect(onPage(id, 0)).toEqual({ x: expect.closeTo(10, 6), y: expect.closeTo(130, 6) });
      expect(onPage(id, 1)).toEqual({ x: expect.closeTo(570, 6), y: expect.closeTo(170, 6) });
    }
    expect(b.session.state.entries).toHaveLength(1);
    // As one it is worked on: a stop added reaches all, an end moved moves all.
    expect(aimedGradient(b.session)!.nodes).toHaveLength(5);
    b.session.commit(
      'Stops',
      withStops(b.session, aimedGradient(b.session)!, [
        ...stops.slice(0, 1),
        { offset: 0.5, colour: cmyk(0, 0, 100, 0) },
        ...stops.slice(1),
      ]),
    );
    for (const id of ids) expect(rampOf(b.session.design, paint(id)).stops).toHaveLength(3);
    b.drag(
      gradientTool,
      pagePoint({
        x: toScreen(b.session.state.camera, { x: 570, y: 170 }).x + 12,
        y: toScreen(b.session.state.camera, { x: 570, y: 170 }).y,
      }),
      [300, 300],
    );
    for (const id of ids) expect(onPage(id, 1).x).toBeLessThan(320);
  });
  test('each by itself, and one sweep again', async () => {
    await open(five(linear(stops, [90, 0, 0, 90, 0, 30])));
    const { fonts } = b.engines;
    const page = b.session.page;
    b.session.commit('Sweep', (d) => void sweepOver(d, page, ids, 'fill', fonts));
    expect(isSweep(b.session.design, page, ids, 'fill')).toBe(true);
    b.session.commit('Each', (d) => void eachByItself(d, page, ids, 'fill', fonts));
    expect(isSweep(b.session.design, page, ids, 'fill')).toBe(false);
    for (const id of ids)
      expect(gradientLine(paint(id))).toEqual({
        from: { x: expect.closeTo(0, 4), y: expect.any(Number) },
        to: { x: expect.closeTo(90, 4), y: expect.any(Number) },
      });
  });
  test('ends are matched in the order the objects lie in; a shared swatch is left alone', async () => {
    await open((d) => {
      const ramp = d.ramp('Shared', [
        { offset: 0, colour: cmyk(0, 0, 0, 20) },
        { offset: 1, colour: cmyk(0, 0, 0, 80) },
      ]);
      const right = d.shape(
        'Right',
        'rectangle',
        { x: 300, y: 100, w: 100, h: 50 },
        { fill: { ...(linear([], [100, 0, 0, 100, 0, 0]) as GradientPaint), ramp: { swatch: ramp } } },
      );
      const left = d.shape(
        'Left',
        'rectangle',
        { x: 100, y: 100, w: 100, h: 50 },
        { fill: linear(stops, [100, 0, 0, 100, 0, 0]) },
      );
      return [right, left];
    });
    b.session.commit('Match ends', (d) => void matchEnds(d, b.session.page, ids, 'fill', b.engines.fonts));
    const right = paint(ids[0]);
    expect(rampOf(b.session.design, right).stops[0].colour).toEqual(stops[1].colour);
    expect('stops' in right.ramp).toBe(true);
    const shared = b.session.design.swatches.find((s) => s.name === 'Shared')!;
    expect(shared.kind === 'ramp' && shared.stops[0].colour).toEqual(cmyk(0, 0, 0, 20));
    expect(rampOf(b.session.design, paint(ids[1])).stops).toEqual(stops);
  });
});

describe('pools on the object', () => {
  const open3 = () =>
    open((d) => [
      d.shape(
        'Field',
        'ellipse',
        { x: 100, y: 100, w: 200, h: 150 },
        { fill: firstPools({ x0: 0, y0: 0, x1: 200, y1: 150 }, stops, false) },
      ),
    ]);
  const place = (i: number) => pagePoint(placedPools(b.session, aimedPools(b.session)!)[i].at);
  test('a drag moves one, far out takes it out; one always stays', async () => {
    await open3();
    b.drag(gradientTool, place(0), [200, 175]);
    expect(pools().pools[0]).toMatchObject({ x: expect.closeTo(0.5, 4), y: expect.closeTo(0.5, 4) });
    expect(b.session.state.stop).toBe(0);
    for (let i = 0; i < 4; i++) b.drag(gradientTool, place(0), [500, 380]);
    expect(pools().pools).toHaveLength(1);
  });
  test('a click on the object adds one, its ring sets its reach, a colour goes to the chosen one', async () => {
    await open3();
    b.click(gradientTool, 200, 180);
    expect(pools().pools).toHaveLength(4);
    const { at, radius } = placedPools(b.session, aimedPools(b.session)!)[3];
    b.drag(gradientTool, pagePoint({ x: at.x + radius, y: at.y }), pagePoint({ x: at.x + 2 * radius, y: at.y }));
    expect(pools().pools[3].reach).toBeCloseTo(0.8, 2);
    const bead = withBeadColour(b.session, 3, cmyk(0, 0, 100, 0))!;
    b.session.commit('Pool', bead.recipe);
    expect([bead.what, bead.count, pools().pools[3].colour]).toEqual(['Pool', 4, cmyk(0, 0, 100, 0)]);
  });
  test('a resize takes them along: their places are shares of the object’s box', async () => {
    await open3();
    const before = pools();
    const moved: Design = tryOut(b.session.design, (d) =>
      setPaint(d, ids, 'fill', (old) => ({
        ...(old as PoolsPaint),
        geometry: multiply([2, 0, 0, 1, 0, 0], (old as PoolsPaint).geometry),
      })),
    );
    const after = paintAt(moved, ids[0], 'fill') as PoolsPaint;
    expect(after.pools).toEqual(before.pools);
    expect(after.geometry[0]).toBeCloseTo(2 * before.geometry[0], 9);
  });
});

describe('the way of mixing', () => {
  test('follows what is cleanest as colours change, until someone chooses another', async () => {
    await open((d) => [
      d.shape(
        'Flag',
        'rectangle',
        { x: 100, y: 100, w: 300, h: 100 },
        { fill: linear(stops, [200, 0, 0, 200, 50, 50]) },
      ),
    ]);
    const { palette } = b.session;
    const dim: Stop[] = [
      { offset: 0, colour: cmyk(0, 0, 0, 100) },
      { offset: 1, colour: cmyk(0, 0, 0, 10) },
    ];
    const bright: Stop[] = [
      { offset: 0, colour: cmyk(0, 100, 90, 0) },
      { offset: 1, colour: cmyk(100, 30, 0, 0) },
    ];
    expect(advisedMixing(palette, dim)).toBe('ink');
    const next = mixingFor(palette, { stops: dim }, bright);
    expect(next ?? 'ink').toBe(advisedMixing(palette, bright));
    // Chosen by hand, it stays.
    const other = advisedMixing(palette, dim) === 'srgb' ? 'oklab' : 'srgb';
    expect(mixingFor(palette, { stops: dim, mixing: other }, bright)).toBe(other);
    // Moving stops never changes it.
    expect(mixingFor(palette, { stops: dim }, [{ ...dim[0], offset: 0.3 }, dim[1]])).toBeUndefined();
  });
});

test('beads of a firm edge stand side by side, each to be taken; the others where they are', () => {
  expect(beadsApart([0, 0.5, 0.5, 1], 260)).toEqual([0, -6, 6, 0]);
  expect(beadsApart([0.3, 0.31, 0.32], 260)).toEqual([-12, 0, 12]);
  expect(beadsApart([0, 0.2, 1], 260)).toEqual([0, 0, 0]);
});

test('on the sheet the two beads of a firm edge are taken one by one, and move as far as the pointer does', async () => {
  const firm: Stop[] = [stops[0], { ...stops[0], offset: 0.5 }, { ...stops[1], offset: 0.5 }, stops[1]];
  await open((d) => [
    d.shape('Flag', 'rectangle', { x: 100, y: 100, w: 300, h: 100 }, { fill: linear(firm, [300, 0, 0, 300, 0, 50]) }),
  ]);
  const now = () => rampOf(b.session.design, paint()).stops.map((x) => Math.round(x.offset * 100));
  const place = (i: number) =>
    pagePoint(beadPlaces(trackOf(b.session, aimedGradient(b.session)!), rampOf(b.session.design, paint()).stops)[i]);
  for (const [i, by, then] of [
    [1, -60, [0, 30, 50, 100]],
    [2, 60, [0, 30, 70, 100]],
  ] as const) {
    const [x, y] = place(i);
    b.drag(gradientTool, [x, y], [x + by, y]);
    expect(now()).toEqual(then);
    expect(b.session.state.stop).toBe(i);
  }
});

test('a sweep over many stays one when its kind changes; alone nothing is lost of the ramp', async () => {
  await open(five(flat(cmyk(0, 90, 80, 0))));
  b.drag(gradientTool, [10, 130], [570, 170]);
  const { design, page } = b.session;
  for (const kind of ['radial', 'box', 'linear'] as const) {
    b.session.commit(kind, (d) => sweepBecomes(d, page, ids, 'fill', kind, b.session.engines.fonts));
    expect(isSweep(b.session.design, page, ids, 'fill')).toBe(true);
    expect(paint().gradient).toBe(kind);
    expect(rampOf(b.session.design, paint()).stops).toEqual(
      rampOf(design, paintAt(design, ids[0], 'fill') as GradientPaint).stops,
    );
  }
});

test('a card on a gradient of a shared swatch: this object gets stops of its own, the swatch stays', async () => {
  await open((d) => [
    d.shape('Flag', 'rectangle', { x: 100, y: 100, w: 300, h: 100 }, { fill: linear(stops, [300, 0, 0, 300, 0, 50]) }),
  ]);
  b.session.commit('Keep', (d) => {
    addSwatch(d, { id: 'dusk', name: 'Dusk', kind: 'ramp', stops });
    addSwatch(d, { id: 'kelp', name: 'Kelp', kind: 'colour', colour: { cmyk: [0.8, 0.2, 0.7, 0.1] } });
    setPaint(d, ids, 'fill', (old) => ({ ...(old as GradientPaint), ramp: { swatch: 'dusk' } }));
  });
  b.session.set({ stop: null });
  applyColour(b.session, { swatch: 'kelp', tint: 1 }, 'Kelp');
  expect(paint().ramp).toMatchObject({ stops: [stops[0], { offset: 1, colour: { swatch: 'kelp', tint: 1 } }] });
  expect(b.session.design.swatches.find((x) => x.id === 'dusk')).toMatchObject({ stops });
});
