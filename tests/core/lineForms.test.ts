import { dashContour } from '@/core/geometry/dash';
import { markOfArea, withEnds, END_MARKS } from '@/core/geometry/lineEnds';
import { contourLength, nearestOnContours } from '@/core/geometry/measure';
import { multiply, translation } from '@/core/geometry/matrix';
import { flatten, pathBounds, rectPath, transformPath, type PathData } from '@/core/geometry/path';
import { rect } from '@/core/geometry/rect';
import { contoursOf, pathOfContours } from '@/core/geometry/segments';
import { strokeOutline } from '@/core/geometry/stroke';
import { shareAt, taperedArea, taperPieces } from '@/core/geometry/taper';
import { wobblePath } from '@/core/geometry/wobble';
import { newDesign, outlineOf, setupOf } from '@/core/model/defaults';
import type { NodeOf, Outline } from '@/core/model/schema';
import { verifyDesign } from '@/core/model/verify';
import type { Engines } from '@/core/engines';
import type { Leaf } from '@/core/scene/scene';
import { walk } from '@/core/scene/walk';
import { DesignBuilder, flat } from '@/demo/builder';
import { areaOf } from '../support/area';
import { cmyk, making } from '../support/sample';
import { testEngines } from '../support/engines';

let engines: Engines;
beforeAll(async () => {
  engines = await testEngines();
});

/** The leaves of an open line of 100 points, or of another path, with that outline. */
function leavesOf(more: Partial<Outline>, path: PathData = [0, 0, 0, 1, 100, 0], width = 2): Leaf[] {
  const b = new DesignBuilder(newDesign('Lines', setupOf(300, 300, { bleed: 0 }), making), making);
  const outline: Outline = { ...outlineOf(flat(cmyk(90, 20, 0, 0)), width), cap: 'butt', ...more };
  const id = b.path('Line', [...transformPath(path, translation(60, 60))], { outline });
  b.place(0, [id]);
  const d = b.done();
  expect(verifyDesign(d)).toMatchObject({ ok: true });
  const found: Leaf[] = [];
  walk(engines.builder.build(d, d.pages[0]).root, (leaf) => void found.push(leaf));
  return found;
}
const areaOfLeaf = (leaf: Leaf): number =>
  areaOf({ path: leaf.placed.path, rule: leaf.type === 'fill' ? leaf.rule : 'nonZero' });

describe('dashes fitted to corners and ends', () => {
  const SQUARE = contoursOf(rectPath(rect(0, 0, 100, 100)))[0];
  const onEdge = (p: { x: number; y: number }, x: number, y: number) => Math.hypot(p.x - x, p.y - y) < 1e-6;

  test('every corner of a square stands in the middle of a dash, and all dashes are alike', () => {
    const pieces = dashContour(SQUARE, { lengths: [10, 5], offset: 0, fit: true })!;
    // 100 / 15 is nearest to 7 patterns a side: 10 becomes 10 · 100 / 105.
    expect(pieces).toHaveLength(28);
    for (const p of pieces)
      expect(contourLength({ segments: p.segments, closed: false })).toBeCloseTo((10 * 100) / 105, 6);
    const corners = pieces.filter((p) => p.segments.length === 2);
    expect(corners).toHaveLength(4);
    for (const { segments } of corners) {
      const [a, b] = segments.map((s) => Math.hypot(s.x3 - s.x0, s.y3 - s.y0));
      expect(a).toBeCloseTo(b, 9);
    }
  });

  test('an open line begins and ends with a whole dash; dots stand on corners and ends', () => {
    const line = contoursOf([0, 0, 0, 1, 100, 0, 1, 100, 60])[0];
    const pieces = dashContour(line, { lengths: [10, 5], offset: 3, fit: true })!;
    const [first, last] = [pieces[0], pieces[pieces.length - 1]];
    expect([first.segments[0].x0, first.segments[0].y0]).toEqual([0, 0]);
    const end = last.segments[last.segments.length - 1];
    expect(onEdge({ x: end.x3, y: end.y3 }, 100, 60)).toBe(true);
    const dots = dashContour(line, { lengths: [0, 12], offset: 0, fit: true })!;
    expect(dots).toHaveLength(9 + 5 - 1 + 1);
    for (const at of [
      [0, 0],
      [100, 0],
      [100, 60],
    ])
      expect(dots.some(({ segments: [s] }) => onEdge({ x: s.x0, y: s.y0 }, at[0], at[1]))).toBe(true);
  });

  test('away from its edge a dashed line is dashed as any: half of its ring', () => {
    const k = 0.5522847498307936 * 30;
    const circle = [
      0,
      30,
      0,
      2,
      30,
      k,
      k,
      30,
      0,
      30,
      2,
      -k,
      30,
      -30,
      k,
      -30,
      0,
      2,
      -30,
      -k,
      -k,
      -30,
      0,
      -30,
      2,
      k,
      -30,
      30,
      -k,
      30,
      0,
      3,
    ];
    const [leaf] = leavesOf({ dashes: [6, 6], dashFit: true, away: 10, join: 'round' }, circle, 4);
    const drawn = strokeOutline(leaf.placed.path, (leaf as Extract<Leaf, { type: 'stroke' }>).stroke, 1e-3);
    expect(areaOf({ path: drawn, rule: 'nonZero' }) / (Math.PI * (42 ** 2 - 38 ** 2) * 0.5)).toBeCloseTo(1, 2);
  });

  test('the line of an object has them', () => {
    const [leaf] = leavesOf({ dashes: [10, 5], dashFit: true });
    expect(leaf).toMatchObject({ type: 'stroke', stroke: { dash: { fit: true } } });
  });
});

describe('ends', () => {
  // Closed forms of plane geometry: a line of 100 by 2, which ends within its mark.
  test.each([
    ['arrow', 100 * 2 - 2 * (2.5 * 2) + (8 * 8) / 2 - 2 * 3],
    // The line ends in the middle of the bar.
    ['bar', (100 - 1) * 2 + 2 * 8 - 1 * 2],
    // A box about the end: half of it beyond, the other over the line.
    ['box', 100 * 2 + 6.4 * 6.4 - 3.2 * 2],
    ['diamond', 100 * 2 + (8.8 * 8.8) / 2 - (4.4 - 1) * 2 - 1],
  ] as const)('%s: the area is that of its closed form', (kind, expected) => {
    const leaves = leavesOf({ end: { kind, size: 1 } });
    expect(leaves).toHaveLength(1);
    expect(Math.abs(areaOfLeaf(leaves[0]) / expected - 1)).toBeLessThan(1e-4);
  });

  test('a dot and a ring are as round as four curves are', () => {
    const disc = Math.PI * 3.5 ** 2;
    const [dot] = leavesOf({ end: { kind: 'dot', size: 1 } });
    // The half disc beyond, and that over the line without what the line covers of it.
    const covered = 3.5 * 3.5 * Math.asin(1 / 3.5) + Math.sqrt(3.5 ** 2 - 1);
    expect(areaOfLeaf(dot) / (200 + disc - covered)).toBeCloseTo(1, 3);
    const [ring] = leavesOf({ end: { kind: 'ring', size: 1 } });
    const hole = Math.PI * 2.2 ** 2;
    expect(areaOf({ path: ring.placed.path, rule: 'nonZero' })).toBeGreaterThan(190);
    const centre = { x: ring.placed.bounds.x1 - 4.2, y: (ring.placed.bounds.y0 + ring.placed.bounds.y1) / 2 };
    const d = nearestOnContours(contoursOf(ring.placed.path), centre)!.distance;
    expect(d).toBeCloseTo(2.2, 2);
    expect(hole).toBeGreaterThan(0);
  });

  test('both ends point outwards, along the line’s own way, whatever their size', () => {
    const quarter = [0, 0, 0, 2, 55.23, 0, 100, 44.77, 100, 100];
    for (const size of [0.5, 1, 3]) {
      const { marks } = withEnds(quarter, 2, { mark: END_MARKS.arrow, size }, { mark: END_MARKS.arrow, size });
      const [a, b] = marks.map((m) => [m.path[1], m.path[2]]);
      expect(a).toEqual([0, 0]);
      expect(b).toEqual([100, 100]);
      // The middle of the base lies on the line, near enough for a mark that is small beside the bend.
      const base = [(marks[1].path[4] + marks[1].path[7]) / 2, (marks[1].path[5] + marks[1].path[8]) / 2];
      const off = nearestOnContours(contoursOf(quarter), { x: base[0], y: base[1] })!.distance;
      expect(off).toBeLessThan(0.35 * size * size);
    }
  });

  test('closed lines have none; one shorter than its marks is only marks', () => {
    expect(withEnds(rectPath(rect(0, 0, 9, 9)), 2, null, { mark: END_MARKS.arrow, size: 1 }).marks).toEqual([]);
    const short = withEnds(
      [0, 0, 0, 1, 3, 0],
      2,
      { mark: END_MARKS.arrow, size: 2 },
      { mark: END_MARKS.arrow, size: 2 },
    );
    expect(short.line).toEqual([]);
    expect(short.marks).toHaveLength(2);
  });

  test('a shape of one’s own keeps its hole, and stands with its right edge on the tip', () => {
    const ring = [...rectPath(rect(0, 0, 30, 30)), ...rectPath(rect(10, 10, 10, 10))];
    const mark = markOfArea(ring, pathBounds(ring));
    expect(areaOf({ path: mark, rule: 'nonZero' })).toBeCloseTo(9 - 1, 6);
    expect(pathBounds(mark)).toEqual({ x0: -3, y0: -1.5, x1: 0, y1: 1.5 });
    const [leaf] = leavesOf({ end: { kind: 'own', path: [...mark], size: 1 } });
    expect(leaf.placed.bounds.x1).toBeCloseTo(160, 6);
  });

  test('a gradient that follows the line goes on in its ends: the colour that it has there', () => {
    const stops = [
      { offset: 0, colour: cmyk(100, 0, 0, 0) },
      { offset: 1, colour: cmyk(0, 100, 0, 0) },
    ];
    const leaves = leavesOf({
      end: { kind: 'arrow', size: 1 },
      start: { kind: 'dot', size: 1 },
      paint: {
        kind: 'gradient',
        gradient: 'linear',
        ramp: { stops },
        geometry: [100, 0, 0, 100, 0, 0],
        overprint: false,
        strokeMapping: 'along',
      },
    });
    expect(leaves.map((l) => l.type)).toEqual(['stroke', 'fill', 'fill']);
    const atEnds = leaves.slice(1).map((l) => {
      const p = l.paint as Extract<Leaf['paint'], { kind: 'gradient' }>;
      const { x0, x1 } = l.placed.bounds;
      // Unit space of the ramp over the mark: all of it before 0, or after 1.
      const toPage = multiply(l.matrix, p.geometry);
      const unit = (x: number) => (x - toPage[4]) / toPage[0];
      return [unit(x0), unit(x1)];
    });
    expect(Math.max(...atEnds[0])).toBeLessThanOrEqual(0);
    expect(Math.min(...atEnds[1])).toBeGreaterThanOrEqual(1);
  });
});

describe('width along the line', () => {
  test('between knots it changes evenly, and is a step where two stand in one place', () => {
    const profile = [
      { at: 0.2, share: 0 },
      { at: 0.6, share: 1 },
      { at: 0.6, share: 0.5 },
    ];
    expect([0, 0.2, 0.4, 0.59999, 0.7, 1].map((t) => Math.round(shareAt(profile, t) * 1e3) / 1e3)).toEqual([
      0, 0, 0.5, 1, 0.5, 0.5,
    ]);
  });

  test('of one width it is the band with round ends; a wedge lies between its two straight sides and the hull of its discs', () => {
    const even = [
      { at: 0, share: 1 },
      { at: 1, share: 1 },
    ];
    // Discs of four curves stray by 2.7e-4 of their radius.
    expect(areaOfLeaf(leavesOf({ profile: even })[0]) / (200 + Math.PI)).toBeCloseTo(1, 4);
    const wedge = [
      { at: 0, share: 0 },
      { at: 1, share: 1 },
    ];
    const r = 5;
    const drawn = areaOfLeaf(leavesOf({ profile: wedge }, [0, 0, 0, 1, 100, 0], 2 * r)[0]);
    const beta = Math.asin(r / 100);
    const hull = Math.sqrt(100 ** 2 - r * r) * r + r * r * (Math.PI / 2 + beta);
    expect(drawn).toBeGreaterThan(100 * r + (Math.PI * r * r) / 2 - 0.05);
    expect(drawn).toBeLessThan(hull + 0.05);
  });

  test('dashes have the width of the place they stand at', () => {
    const line = contoursOf([0, 0, 0, 1, 100, 0])[0];
    const profile = [
      { at: 0, share: 0 },
      { at: 1, share: 1 },
    ];
    const dashes = dashContour(line, { lengths: [10, 10], offset: 0 })!;
    const pieces = dashes.map((p) => taperPieces(p.segments, profile, p.from, 100));
    expect(pieces.map((p) => [p[0].from, p[p.length - 1].to].map((v) => Math.round(v * 100)))).toEqual([
      [0, 10],
      [20, 30],
      [40, 50],
      [60, 70],
      [80, 90],
    ]);
    expect(pathBounds(taperedArea(pieces, 10, () => 1)).y1).toBeCloseTo(4.5, 6);
  });
});

describe('wobble', () => {
  const w = { strength: 2, wave: 12, passes: 1, seed: 5 };
  const zigzag = (last: number): PathData => [0, 0, 0, 1, 60, 30, 1, 120, 0, 1, 180, last];

  test('it never strays further than it is told, and is the same each time', () => {
    const path = [0, 0, 0, 2, 40, -60, 120, 80, 200, 0, 1, 260, 90];
    const hand = wobblePath(path, w);
    expect(wobblePath(path, w)).toEqual(hand);
    expect(wobblePath(path, { ...w, seed: 6 })).not.toEqual(hand);
    const edge = contoursOf(path);
    let far = 0;
    for (const { points } of flatten(hand, 0.05))
      for (let i = 0; i < points.length; i += 2)
        far = Math.max(far, nearestOnContours(edge, { x: points[i], y: points[i + 1] })!.distance);
    // Both ways at once, and a little where the curve swings beyond its points.
    expect(far).toBeLessThan(w.strength * Math.SQRT2 * 1.15);
    expect(far).toBeGreaterThan(w.strength * 0.3);
  });

  test('what is changed in one place stays as it is in others; closed lines stay closed; passes are drawn one after the other', () => {
    const [a, b] = [wobblePath(zigzag(30), w), wobblePath(zigzag(90), w)];
    const [sa, sb] = [contoursOf(a)[0].segments, contoursOf(b)[0].segments];
    const before = sa.findIndex((s) => Math.hypot(s.x3 - 120, s.y3) < 4);
    expect(before).toBeGreaterThan(5);
    expect(sb.slice(0, before)).toEqual(sa.slice(0, before));
    const circle = pathOfContours(contoursOf(rectPath(rect(0, 0, 50, 50))));
    const three = contoursOf(wobblePath(circle, { ...w, passes: 3 }));
    expect(three).toHaveLength(3);
    expect(three.every((c) => c.closed)).toBe(true);
    expect(three[0].segments).not.toEqual(three[1].segments);
  });

  test('on one side of an edge it runs along the middle of where the line would be', () => {
    const square = rectPath(rect(0, 0, 100, 100));
    const [leaf] = leavesOf({ wobble: { ...w, strength: 0.2 }, side: 'outside' }, square, 8);
    expect(leaf.type).toBe('stroke');
    expect(leaf.placed.bounds.x0).toBeGreaterThan(60 - 4.4);
    expect(leaf.placed.bounds.x0).toBeLessThan(60 - 3.6);
  });
});

test('an outline with every one of them is kept, read again and drawn', () => {
  const leaves = leavesOf({
    dashes: [6, 3],
    dashFit: true,
    between: flat(cmyk(0, 0, 90, 0)) as Outline['between'],
    wobble: { strength: 1, wave: 20, passes: 2, seed: 1 },
    profile: [
      { at: 0, share: 0.2 },
      { at: 0.5, share: 1 },
    ],
    start: { kind: 'ring', size: 2 },
    end: { kind: 'open', size: 1.5 },
  });
  expect(leaves).toHaveLength(2);
  expect(leaves.every((l) => l.type === 'fill' && l.line)).toBe(true);
});

test.each([
  ['a broken shape at an end', { end: { kind: 'own', path: [1, 2], size: 1 } }],
  [
    'knots out of order',
    {
      profile: [
        { at: 1, share: 1 },
        { at: 0, share: 1 },
      ],
    },
  ],
  ['a wobble of no wave', { wobble: { strength: 1, wave: 0, passes: 1, seed: 0 } }],
] as const)('%s is refused', (_, more) => {
  const b = new DesignBuilder(newDesign('Lines', setupOf(300, 300, { bleed: 0 }), making), making);
  const id = b.path('Line', [0, 0, 0, 1, 9, 0], {
    outline: { ...outlineOf(flat(cmyk(90, 20, 0, 0)), 2), ...more } as Outline,
  });
  b.place(0, [id]);
  expect(verifyDesign(b.done()).ok).toBe(false);
  expect((b.done().nodes[id] as NodeOf<'path'>).outlines).toHaveLength(1);
});
