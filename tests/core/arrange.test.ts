import { insetsOf } from '@/core/derive/frame';
import { beforeAll, describe, expect, test } from '@jest/globals';
import { alignNodes, distributeNodes, guidesRound, type AlignTo } from '@/core/edit/align';
import { alikeNodes, inverseOf } from '@/core/edit/alike';
import { boxIn } from '@/core/derive/box';
import { addGuides, changeGuide, lockGuides, removeGuides } from '@/core/edit/guides';
import { tryOut } from '@/core/edit/history';
import { asShape, asWindow, canHoldText } from '@/core/edit/window';
import { framePath } from '@/core/derive/frame';
import { layoutOf } from '@/core/derive/layout';
import { deltaE00 } from '@/core/colour/compare';
import { pathContains } from '@/core/geometry/contains';
import { crossings, snapGaps, snapPoints } from '@/core/geometry/snap';
import { colourPaint, outlineOf, runOf } from '@/core/model/defaults';
import type { Colour, Design, DesignNode, NodeOf } from '@/core/model/schema';
import { verifyDesign } from '@/core/model/verify';
import { prepare, type Engines } from '@/core/engines';
import { box, disc, idOf, INK, named, OTHER, sheet } from '../support/drawing';
import { testEngines } from '../support/engines';

let engines: Engines;
beforeAll(async () => {
  engines = await testEngines();
});

const three = () =>
  sheet((b) => [box(b, 'A', 10, 10, 20, 20), box(b, 'B', 50, 40, 40, 10), box(b, 'C', 150, 20, 30, 60)]);
const places = (d: Design) => ['A', 'B', 'C'].map((n) => boxIn(d, idOf(d, n), [1, 0, 0, 1, 0, 0], engines.fonts));
const ids = (d: Design) => ['A', 'B', 'C'].map((n) => idOf(d, n));

describe('lining up', () => {
  const aligned = (edge: Parameters<typeof alignNodes>[3], to: AlignTo = 'selection', key: string | null = null) => {
    const d = three();
    return places(tryOut(d, (x) => alignNodes(x, d.pages[0], ids(d), edge, to, key && idOf(d, key), engines.fonts)));
  };
  test('with each other', () => {
    expect(aligned('left').map((b) => b.x0)).toEqual([10, 10, 10]);
    expect(aligned('right').map((b) => b.x1)).toEqual([180, 180, 180]);
    expect(aligned('middle').map((b) => (b.x0 + b.x1) / 2)).toEqual([95, 95, 95]);
    expect(aligned('top').map((b) => b.y0)).toEqual([10, 10, 10]);
    expect(aligned('foot').map((b) => b.y1)).toEqual([80, 80, 80]);
    expect(aligned('centre').map((b) => (b.y0 + b.y1) / 2)).toEqual([45, 45, 45]);
    // The other direction is left alone.
    expect(aligned('left').map((b) => b.y0)).toEqual([10, 40, 20]);
  });
  test('with one that stays, the page, the margins', () => {
    expect(aligned('left', 'key', 'B').map((b) => b.x0)).toEqual([50, 50, 50]);
    expect(aligned('right', 'page').map((b) => b.x1)).toEqual([400, 400, 400]);
    expect(aligned('top', 'margins').map((b) => b.y0)).toEqual([20, 20, 20]);
  });
  test('what is turned lines up by what is seen of it', () => {
    const d = sheet((b) => [
      box(b, 'A', 0, 0, 10, 10),
      b.shape('B', 'ellipse', { x: 100, y: 100, w: 40, h: 40, turn: 45 }, { fill: colourPaint(INK) }),
      box(b, 'C', 50, 50, 10, 10),
    ]);
    const made = places(tryOut(d, (x) => alignNodes(x, d.pages[0], ids(d), 'foot', 'selection', null, engines.fonts)));
    // A turned circle is a circle: its foot is where it was, not that of its turned box.
    expect(made[1].y1).toBeCloseTo(140, 1);
    expect(made[0].y1).toBeCloseTo(140, 1);
  });
});

describe('spacing', () => {
  const spaced = (
    axis: 'x' | 'y',
    by: 'start' | 'middle' | 'end' | 'gap',
    spacing: number | null = null,
    to: AlignTo = 'selection',
  ) => {
    const d = three();
    return places(tryOut(d, (x) => distributeNodes(x, d.pages[0], ids(d), axis, by, to, spacing, engines.fonts)));
  };
  test('equal gaps between the outer ones', () => {
    const [a, b, c] = spaced('x', 'gap');
    expect([a.x0, c.x1]).toEqual([10, 180]);
    expect(b.x0 - a.x1).toBeCloseTo(40, 9);
    expect(c.x0 - b.x1).toBeCloseTo(40, 9);
  });
  test('middles, edges, a typed spacing, over the page', () => {
    expect(spaced('x', 'middle').map((b) => (b.x0 + b.x1) / 2)).toEqual([20, expect.closeTo(92.5, 9), 165]);
    expect(spaced('x', 'start').map((b) => b.x0)).toEqual([10, expect.closeTo(80, 9), 150]);
    expect(spaced('x', 'gap', 5).map((b) => [b.x0, b.x1])).toEqual([
      [10, 30],
      [35, 75],
      [80, 110],
    ]);
    expect(spaced('x', 'start', 100).map((b) => b.x0)).toEqual([10, 110, 210]);
    const [a, , c] = spaced('x', 'gap', null, 'page');
    expect([a.x0, c.x1]).toEqual([0, 400]);
    const down = spaced('y', 'end');
    expect(down.map((b) => b.y1)).toEqual([30, expect.closeTo(55, 9), 80].map((v) => v));
  });
});

describe('guides', () => {
  test('are added once, typed, locked, taken away; those round an object lie on its edges and middles', () => {
    const d = three();
    const page = d.pages[0].id;
    const with2 = tryOut(d, (x) =>
      addGuides(x, page, [
        { axis: 'x', at: 50 },
        { axis: 'x', at: 50 },
        { axis: 'y', at: 20 },
      ]),
    );
    expect(with2.pages[0].guides).toEqual([
      { axis: 'x', at: 50 },
      { axis: 'y', at: 20 },
    ]);
    expect(tryOut(with2, (x) => addGuides(x, page, [{ axis: 'y', at: 20.0005 }]))).toBe(with2);
    const moved = tryOut(with2, (x) => changeGuide(x, page, 0, { at: 77 }));
    expect(moved.pages[0].guides![0]).toEqual({ axis: 'x', at: 77 });
    const locked = tryOut(moved, (x) => lockGuides(x, page, true));
    expect(locked.pages[0].guides!.every((g) => g.locked)).toBe(true);
    expect(verifyDesign(locked)).toMatchObject({ ok: true });
    expect(tryOut(locked, (x) => removeGuides(x, page, () => true)).pages[0].guides).toBeUndefined();
    expect(guidesRound(d, d.pages[0], [idOf(d, 'B')], engines.fonts).map((g) => `${g.axis}${g.at}`)).toEqual([
      'x50',
      'x70',
      'x90',
      'y40',
      'y45',
      'y50',
    ]);
  });
});

describe('select alike', () => {
  const warm: Colour = { cmyk: [0, 0.5, 1, 0] };
  const nearWarm: Colour = { cmyk: [0, 0.52, 0.98, 0] };
  const drawn = () =>
    sheet((b) => [
      box(b, 'Warm', 0, 0, 10, 10, warm),
      disc(b, 'Nearly', 40, 5, 5, nearWarm),
      box(b, 'Cold', 60, 0, 10, 10, OTHER),
      b.group('Group', [
        b.shape(
          'Inside',
          'star',
          { x: 80, y: 0, w: 10, h: 10 },
          { fill: colourPaint(warm), outline: outlineOf(colourPaint(OTHER), 2) },
        ),
      ]),
      b.shape(
        'Lined',
        'star',
        { x: 100, y: 0, w: 10, h: 10 },
        { fill: colourPaint(OTHER), outline: outlineOf(colourPaint(OTHER), 2) },
      ),
      b.shape(
        'Fading',
        'star',
        { x: 120, y: 0, w: 10, h: 10 },
        {
          fill: {
            kind: 'gradient',
            gradient: 'linear',
            ramp: {
              stops: [
                { offset: 0, colour: warm },
                { offset: 1, colour: warm, opacity: 0.2 },
              ],
            },
            geometry: [1, 0, 0, 1, 0, 0],
            overprint: false,
          },
        },
      ),
      b.lock(box(b, 'Locked', 140, 0, 10, 10, warm)),
      b.combination('Union', 'union', [disc(b, 'Operand', 165, 5, 5, warm)], { fill: colourPaint(warm) }),
      b.displayText('Word', 10, 60, [{ align: 'left', leading: 1, runs: [runOf('Quay', 20, colourPaint(warm))] }]),
    ]);
  test('by fill with a tolerance in ΔE00, by outline, weight, kind, opacity, name; locked ones and operands are left out', async () => {
    const d = drawn();
    const palette = await prepare(engines, d);
    const apart = deltaE00(palette.labOf(warm), palette.labOf(nearWarm));
    const found = (like: string, by: Parameters<typeof alikeNodes>[3], tolerance = 0.01) =>
      alikeNodes(d, d.pages[0], [idOf(d, like)], by, palette, tolerance).map((id) => d.nodes[id].name);
    expect(found('Warm', ['fill'])).toEqual(['Warm', 'Inside', 'Union', 'Word']);
    expect(found('Warm', ['fill'], apart + 0.01)).toEqual(['Warm', 'Nearly', 'Inside', 'Union', 'Word']);
    expect(found('Warm', ['fill'], apart - 0.01)).not.toContain('Nearly');
    expect(found('Lined', ['outline'])).toEqual(['Inside', 'Lined']);
    expect(found('Lined', ['fill', 'outline'])).toEqual(['Lined']);
    expect(found('Lined', ['weight'])).toEqual(['Inside', 'Lined']);
    expect(found('Lined', ['kind'])).toEqual(['Inside', 'Lined', 'Fading']);
    expect(found('Fading', ['opacity'])).toEqual(['Fading']);
    expect(found('Warm', ['name'])).toEqual(['Warm']);
  });
  test('the others instead, on the page or in the group', () => {
    const d = drawn();
    const names = (list: string[]) => list.map((id) => d.nodes[id].name);
    expect(names(inverseOf(d, d.pages[0], [idOf(d, 'Warm'), idOf(d, 'Word')], null))).toEqual([
      'Nearly',
      'Cold',
      'Group',
      'Lined',
      'Fading',
      'Union',
    ]);
    expect(names(inverseOf(d, d.pages[0], [], idOf(d, 'Group')))).toEqual(['Inside']);
  });
});

describe('what things snap to', () => {
  test('the nearest place within reach', () => {
    const places = [
      { x: 10, y: 10, label: 'node' },
      { x: 14, y: 10, label: 'crossing' },
    ];
    expect(snapPoints([{ x: 12.5, y: 10 }], places, 3)).toMatchObject({ dx: 1.5, dy: 0, place: { label: 'crossing' } });
    expect(snapPoints([{ x: 20, y: 20 }], places, 3)).toBeNull();
    expect(
      snapPoints(
        [
          { x: 0, y: 0 },
          { x: 9, y: 9 },
        ],
        places,
        3,
      ),
    ).toMatchObject({ dx: 1, dy: 1 });
  });

  test('the nearest of very many places is the one that looking at each finds', () => {
    let seed = 11;
    const next = () => (seed = (Math.imul(seed, 1664525) + 1013904223) >>> 0) / 4294967296;
    // On a coarse grid, so that many are equally near.
    const spot = () => ({ x: Math.round(next() * 40) / 2, y: Math.round(next() * 40) / 2 });
    for (let round = 0; round < 200; round++) {
      const list = Array.from({ length: Math.floor(next() * 60) }, (_, i) => ({ ...spot(), label: `${i}` }));
      const points = Array.from({ length: 1 + Math.floor(next() * 3) }, spot);
      const reach = next() * 3;
      let best: { d: number; label: string } | null = null;
      for (const p of points)
        for (const q of list) {
          const d = Math.hypot(q.x - p.x, q.y - p.y);
          if (d <= reach && (!best || d < best.d)) best = { d, label: q.label };
        }
      expect(snapPoints(points, list, reach)?.place.label ?? null).toBe(best?.label ?? null);
    }
  });
  test('equal gaps: after two, before two, between two', () => {
    const r = (x: number, w = 10) => ({ x0: x, x1: x + w, y0: 0, y1: 10 });
    expect(snapGaps(r(51), [r(0), r(25)], 'x', 3)).toMatchObject({ shift: -1, gap: 15 });
    expect(snapGaps(r(-26), [r(0), r(25)], 'x', 3)).toMatchObject({ shift: 1, gap: 15 });
    expect(snapGaps(r(31), [r(0), r(60)], 'x', 3)).toMatchObject({ shift: -1, gap: 20 });
    expect(snapGaps({ ...r(51), y0: 100, y1: 110 }, [r(0), r(25)], 'x', 3)).toBeNull();
    expect(
      snapGaps(
        { x0: 0, x1: 10, y0: 51, y1: 61 },
        [
          { x0: 0, x1: 10, y0: 0, y1: 10 },
          { x0: 0, x1: 10, y0: 25, y1: 35 },
        ],
        'y',
        3,
      ),
    ).toMatchObject({ shift: -1 });
  });
  test('crossings of lines', () => {
    expect(crossings([0, 0, 10, 10], [0, 10, 10, 0], false, false, 9)).toEqual([{ x: 5, y: 5 }]);
    expect(crossings([0, 0, 10, 0, 10, 10, 0, 10], [5, -5, 5, 15], true, false, 9).sort((a, b) => a.y - b.y)).toEqual([
      { x: 5, y: 0 },
      { x: 5, y: 10 },
    ]);
    expect(crossings([0, 0, 1, 1], [5, 5, 9, 9], false, false, 9)).toEqual([]);
  });
});

describe('words in a shape', () => {
  const LONG =
    'Each November the harbour town of Marrowick walks its quays with home-made paper lanterns, and everyone who can hold a stick carries one along to the harbour wall.';
  const written = (shape: DesignNode, inset = 4): { design: Design; node: NodeOf<'textFrame'> } => {
    const d = sheet(() => []);
    const node = asWindow(shape as NodeOf<'shape'>, 'words', inset);
    const design: Design = {
      ...d,
      nodes: { [node.id]: node },
      stories: { words: { id: 'words', paragraphs: [{ align: 'full', leading: 1.2, runs: [runOf(LONG, 10)] }] } },
      pages: [{ ...d.pages[0], children: [node.id] }],
    };
    return { design, node };
  };
  const shapeOf = (shape: string, w: number, h: number): DesignNode => {
    const d = sheet((b) => [b.shape('S', shape, { x: 30, y: 20, w, h }, { fill: colourPaint(INK) })]);
    return named(d, 'S');
  };
  test.each(['ellipse', 'heart', 'triangle', 'barrel', 'star'])(
    'in a %s every letter lies inside, off the edge by the inset',
    async (shape) => {
      const { design, node } = written(shapeOf(shape, 260, 240));
      await prepare(engines, design);
      expect(verifyDesign(design)).toMatchObject({ ok: true });
      const { path, rule } = framePath(node);
      const layout = layoutOf(design, node, engines.fonts);
      expect(layout.lines.length).toBeGreaterThan(3);
      for (const line of layout.lines)
        for (const [x, y] of [
          [line.x0, line.top],
          [line.x1, line.top],
          [line.x0, line.bottom],
          [line.x1, line.bottom],
        ])
          expect(pathContains(path, rule, { x: x + insetsOf(node).left, y: y + insetsOf(node).top })).toBe(true);
      // Nothing is lost, and no word is cut.
      const shown = layout.lines.flatMap((l) => l.runs.flatMap((r) => r.glyphs.map((g) => g.text))).join('');
      expect(LONG.startsWith(shown.trimEnd().slice(0, 40))).toBe(true);
      expect(
        layout.lines.every((l) => l.end >= LONG.length || LONG[l.end - 1] === ' ' || LONG[l.end - 1] === '-'),
      ).toBe(true);
    },
  );
  test('in a path as in a shape; without words it is the shape again', async () => {
    const d = sheet((b) => [b.path('S', [0, 50, 40, 1, 250, 40, 1, 150, 200, 3], { fill: colourPaint(INK) })]);
    const shape = named(d, 'S') as NodeOf<'path'>;
    const { design, node } = written(shape);
    await prepare(engines, design);
    expect(layoutOf(design, node, engines.fonts).lines.length).toBeGreaterThan(2);
    const back = asShape(node) as NodeOf<'path'>;
    expect(back.path.map((v) => Math.round(v))).toEqual([0, 0, 0, 1, 200, 0, 1, 100, 160, 3]);
    expect(back.transform).toEqual([1, 0, 0, 1, 50, 40]);
    const dialled = shapeOf('heart', 100, 90);
    expect(asShape(asWindow(dialled as NodeOf<'shape'>, 'w', 2))).toEqual(dialled);
  });
  test('lines and open paths hold none', () => {
    expect(canHoldText(shapeOf('spiral', 50, 50))).toBe(false);
    expect(canHoldText(shapeOf('heart', 50, 50))).toBe(true);
    const d = sheet((b) => [b.path('S', [0, 0, 0, 1, 10, 10], {})]);
    expect(canHoldText(named(d, 'S'))).toBe(false);
  });
});
