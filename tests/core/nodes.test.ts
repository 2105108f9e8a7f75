import { describe, expect, test } from '@jest/globals';
import {
  addBetween,
  addNodeAt,
  alignedPlaces,
  breakAt,
  dragPiece,
  joinEnds,
  mergedPiece,
  moveHandle,
  piecesBetween,
  removeNodes,
  reverseContours,
  setKind,
  setPieces,
  shiftNodes,
  takeIn,
  writeContours,
  type PlacedNode,
} from '@/core/edit/nodes';
import { contoursOf } from '@/core/derive/contours';
import { joinPaths, splitPath } from '@/core/edit/compound';
import { tryOut } from '@/core/edit/history';
import { setCorners } from '@/core/edit/corners';
import { brushed, nodeCount, simplified } from '@/core/edit/smoothing';
import { fitClosed, fitPoints, throughPoints } from '@/core/geometry/fit';
import { nearestOnContours, pointOn, tangentOn } from '@/core/geometry/measure';
import { kindOf, nodesOf, nodesOfPieces, pathOfNodes, pieceAfter, type NodeContour } from '@/core/geometry/nodes';
import { CLOSE, CUBIC, LINE, MOVE, PathBuilder, addEllipse, polygonArea, type PathData } from '@/core/geometry/path';
import { contoursOf as piecesIn } from '@/core/geometry/segments';
import { taperedLine } from '@/core/geometry/taper';
import type { NodeOf } from '@/core/model/schema';
import { verifyDesign } from '@/core/model/verify';
import { random } from '../support/random';
import { INK, idOf, named, sheet } from '../support/drawing';
import { colourPaint } from '@/core/model/defaults';

const WAVE: PathData = [MOVE, 0, 0, CUBIC, 20, -40, 60, -40, 80, 0, CUBIC, 100, 40, 140, 40, 160, 0, LINE, 200, 0];
const SQUARE: PathData = [MOVE, 0, 0, LINE, 100, 0, LINE, 100, 100, LINE, 0, 100, CLOSE];
const circle = (): PathData => {
  const sink = new PathBuilder();
  addEllipse(sink, 50, 50, 50, 50);
  return sink.data;
};
const path = (c: readonly NodeContour[]): PathData => pathOfNodes(c).path;
const set = (...n: number[]) => new Set(n);
/** The largest distance of points along `a` from the line of `b`. */
function strays(a: PathData, b: PathData): number {
  const other = piecesIn(b);
  return Math.max(
    ...piecesIn(a).flatMap((c) =>
      c.segments.flatMap((s) =>
        [0, 0.2, 0.4, 0.6, 0.8, 1].map((t) => nearestOnContours(other, pointOn(s, t))!.distance),
      ),
    ),
  );
}

describe('nodes and paths', () => {
  test.each([
    ['a wave', WAVE],
    ['a square', SQUARE],
    ['a circle', circle()],
    ['two parts', [...SQUARE, ...WAVE]],
  ] as const)('%s goes to nodes and back', (_, p) => {
    expect(path(nodesOf(p))).toEqual(p);
  });
  test('kinds are seen by their handles, or kept as told', () => {
    expect(nodesOf(WAVE)[0].nodes.map((n) => n.kind)).toEqual(['corner', 'symmetric', 'corner', 'corner']);
    expect(nodesOf(WAVE, 'ccsy')[0].nodes.map((n) => n.kind)).toEqual(['corner', 'corner', 'smooth', 'symmetric']);
    // A count that does not fit is no help.
    expect(nodesOf(WAVE, 'cc')[0].nodes[1].kind).toBe('symmetric');
    expect(nodesOf(circle())[0].nodes.every((n) => n.kind === 'symmetric')).toBe(true);
  });
  test('several nodes move together with their handles', () => {
    const moved = shiftNodes(nodesOf(WAVE), set(1, 2), 5, 7)[0].nodes;
    expect(moved[1]).toMatchObject({ x: 85, y: 7, before: { x: 65, y: -33 }, after: { x: 105, y: 47 } });
    expect(moved[0]).toMatchObject({ x: 0, y: 0 });
  });
  test('handles: symmetric mirror, smooth keep in line, alone break free', () => {
    const c = nodesOf(WAVE);
    expect(moveHandle(c, 1, 'after', { x: 90, y: 0 })[0].nodes[1]).toMatchObject({ before: { x: 70, y: 0 } });
    const smooth = setKind(c, set(1), 'smooth');
    const turned = moveHandle(smooth, 1, 'after', { x: 80, y: 30 })[0].nodes[1];
    expect(turned.before!.x).toBeCloseTo(80, 9);
    // Its own length: 20 across, 40 down.
    expect(turned.before!.y).toBeCloseTo(-Math.hypot(20, 40), 9);
    expect(moveHandle(c, 1, 'after', { x: 90, y: 0 }, true)[0].nodes[1]).toMatchObject({
      before: { x: 60, y: -40 },
      kind: 'corner',
    });
  });
  test('corners made smooth get handles in line, a third of the way to their neighbours', () => {
    const n = setKind(nodesOf(SQUARE), set(1), 'smooth')[0].nodes[1];
    expect(kindOf(n)).not.toBe('corner');
    expect(Math.hypot(n.after!.x - n.x, n.after!.y - n.y)).toBeCloseTo(100 / 3, 9);
    expect(n.after!.x - n.x).toBeCloseTo(n.after!.y - n.y, 9);
  });
  test('pieces between nodes: to a line, to a curve that begins as straight', () => {
    expect(piecesBetween(nodesOf(WAVE), set(1))).toHaveLength(2);
    expect(piecesBetween(nodesOf(WAVE), set(0, 1, 3))).toEqual([{ contour: 0, index: 0 }]);
    expect(path(setPieces(nodesOf(WAVE), set(0, 1), 'line')).slice(0, 6)).toEqual([MOVE, 0, 0, LINE, 80, 0]);
    const curved = setPieces(nodesOf(SQUARE), set(0, 1), 'curve');
    expect(path(curved).slice(3, 10)).toEqual([
      CUBIC,
      expect.closeTo(100 / 3, 9),
      0,
      expect.closeTo(200 / 3, 9),
      0,
      100,
      0,
    ]);
  });
  test('added nodes keep the shape; their numbers come back', () => {
    const made = addNodeAt(nodesOf(WAVE), 0, 1, 0.3);
    expect(made.flat).toBe(2);
    expect(strays(path(made.contours), WAVE)).toBeLessThan(1e-6);
    const all = addBetween(nodesOf(circle()), set(0, 1, 2, 3));
    expect(nodeCount(all.contours)).toBe(8);
    expect([...all.chosen].sort((a, b) => a - b)).toEqual([0, 1, 2, 3, 4, 5, 6, 7]);
    expect(strays(path(all.contours), circle())).toBeLessThan(1e-6);
    expect([...addBetween(nodesOf(SQUARE), set(1, 2)).chosen]).toEqual([1, 3, 2]);
  });
  test('deleted nodes leave the shape as near as one curve can: an added node out again is exact', () => {
    const added = addNodeAt(nodesOf(WAVE), 0, 0, 0.4);
    const back = removeNodes(added.contours, set(added.flat));
    expect(strays(path(back), WAVE)).toBeLessThan(0.2);
    // A quarter of a circle less is still round.
    const bent = path(removeNodes(nodesOf(circle()), set(1)));
    expect(strays(bent, circle())).toBeLessThan(3);
    // Straight stays straight; too few nodes are nothing.
    expect(path(removeNodes(nodesOf([MOVE, 0, 0, LINE, 50, 0, LINE, 100, 0]), set(1)))).toEqual([
      MOVE,
      0,
      0,
      LINE,
      100,
      0,
    ]);
    expect(removeNodes(nodesOf([MOVE, 0, 0, LINE, 50, 0]), set(1))).toEqual([]);
    expect(mergedPiece(piecesIn(WAVE)[0].segments.slice(0, 2)).x3).toBe(160);
  });
  test('a piece dragged at a place goes through where it was dragged to', () => {
    for (const t of [0.2, 0.5, 0.7]) {
      const c = nodesOf([MOVE, 0, 0, CUBIC, 30, -30, 70, -30, 100, 0]);
      const was = pointOn(pieceAfter(c[0], 0)!, t);
      const now = pointOn(pieceAfter(dragPiece(c, 0, 0, t, 6, -9)[0], 0)!, t);
      expect(now).toEqual({ x: expect.closeTo(was.x + 6, 9), y: expect.closeTo(was.y - 9, 9) });
    }
  });
  test('break: a closed line opens where it is cut, an open one falls in two', () => {
    const opened = breakAt(nodesOf(SQUARE), set(2));
    expect(opened).toHaveLength(1);
    expect(opened[0].closed).toBe(false);
    expect([opened[0].nodes[0], opened[0].nodes[4]].map((n) => [n.x, n.y])).toEqual([
      [100, 100],
      [100, 100],
    ]);
    expect(breakAt(nodesOf(WAVE), set(1, 2)).map((c) => c.nodes.length)).toEqual([2, 2, 2]);
    expect(breakAt(nodesOf(circle()), set(0, 2)).map((c) => c.nodes.length)).toEqual([3, 3]);
    expect(breakAt(nodesOf(WAVE), set(0))).toEqual(nodesOf(WAVE));
  });
  test('join: the gap is told, closed in the middle or by a line; any ends will do', () => {
    const open: PathData = [MOVE, 0, 0, LINE, 10, 0, MOVE, 13, 4, LINE, 30, 4];
    const met = joinEnds(nodesOf(open), set(1, 2), 'meet')!;
    expect(met.gap).toBe(5);
    expect(path(met.contours)).toEqual([MOVE, 0, 0, LINE, 11.5, 2, LINE, 30, 4]);
    expect(path(joinEnds(nodesOf(open), set(1, 2), 'line')!.contours)).toEqual([
      MOVE,
      0,
      0,
      LINE,
      10,
      0,
      LINE,
      13,
      4,
      LINE,
      30,
      4,
    ]);
    // Start to start: the first runs the other way.
    expect(path(joinEnds(nodesOf(open), set(0, 2), 'line')!.contours)).toEqual([
      MOVE,
      10,
      0,
      LINE,
      0,
      0,
      LINE,
      13,
      4,
      LINE,
      30,
      4,
    ]);
    const closed = joinEnds(nodesOf([MOVE, 0, 0, LINE, 10, 0, LINE, 10, 10, LINE, 0, 0.004]), set(0, 3), 'line')!;
    expect(closed.contours[0].closed).toBe(true);
    expect(closed.contours[0].nodes).toHaveLength(3);
    expect(joinEnds(nodesOf(open), set(0, 1, 2), 'meet')).toBeNull();
    expect(joinEnds(nodesOf(SQUARE), set(0, 1), 'meet')).toBeNull();
  });
  test('reversed twice it is as it was', () => {
    for (const p of [WAVE, SQUARE, circle()]) {
      const once = reverseContours(nodesOf(p), set());
      expect(Math.sign(polygonArea(path(once)))).toBe(-Math.sign(polygonArea(p)));
      expect(path(reverseContours(once, set()))).toEqual(p);
    }
  });
  test('nodes in line, and evenly apart', () => {
    const nodes: PlacedNode[] = [
      [0, 5],
      [30, 9],
      [100, 1],
    ].map(([x, y], flat) => ({ object: 'o', flat, at: { x, y } }));
    expect(alignedPlaces(nodes, 'top').map((p) => p.y)).toEqual([1, 1, 1]);
    expect(alignedPlaces(nodes, 'middle').map((p) => p.x)).toEqual([50, 50, 50]);
    expect(alignedPlaces(nodes, 'across').map((p) => p.x)).toEqual([0, 50, 100]);
    expect(alignedPlaces(nodes, 'down').map((p) => p.y)).toEqual([5, 9, 1]);
  });
});

describe('paths as objects', () => {
  const drawn = () =>
    sheet((b) => [
      b.path('Square', [...SQUARE], { fill: colourPaint(INK) }),
      b.path('Wave', [...WAVE], {}),
      b.path('Inner', [MOVE, 30, 30, LINE, 60, 30, LINE, 60, 60, LINE, 30, 60, CLOSE], { fill: colourPaint(INK) }),
    ]);
  test('corners stay with their nodes when others come and go', () => {
    const d = drawn();
    const id = idOf(d, 'Square');
    const round = tryOut(d, (x) => setCorners(x, [id], 2, { radius: 10 }));
    const page = d.pages[0];
    const more = tryOut(round, (x) =>
      writeContours(x, page, id, addNodeAt(contoursOf(round.nodes[id] as NodeOf<'path'>), 0, 0, 0.5).contours),
    );
    expect(more.nodes[id]).toMatchObject({ corners: { each: { 3: { radius: 10, kind: 'round' } } } });
    const gone = tryOut(more, (x) =>
      writeContours(x, page, id, removeNodes(contoursOf(more.nodes[id] as NodeOf<'path'>), set(3))),
    );
    expect((gone.nodes[id] as NodeOf<'path'>).corners).toBeUndefined();
    expect(verifyDesign(more)).toMatchObject({ ok: true });
  });
  test('a path without nodes is taken away', () => {
    const d = drawn();
    const without = tryOut(d, (x) => writeContours(x, d.pages[0], idOf(d, 'Wave'), []));
    expect(Object.values(without.nodes).map((n) => n.name)).toEqual(['Square', 'Inner']);
  });
  test('one path of several has a hole where they overlap, and comes apart again', () => {
    const d = drawn();
    const ids = ['Square', 'Inner'].map((x) => idOf(d, x));
    const one = tryOut(d, (x) => void joinPaths(x, d.pages[0], ids));
    expect(named(one, 'Inner')).toMatchObject({ fillRule: 'evenOdd' });
    expect(piecesIn((named(one, 'Inner') as NodeOf<'path'>).path)).toHaveLength(2);
    expect(one.pages[0].children).toHaveLength(2);
    // The hole belongs to its part: nothing to split.
    let n = 0;
    const split = (y: typeof one, name: string) =>
      tryOut(y, (x) => void splitPath(x, y.pages[0], idOf(y, name), () => `p${n++}`));
    expect(split(one, 'Inner').pages[0].children).toHaveLength(2);
    const both = tryOut(one, (x) => takeIn(x, one.pages[0], idOf(one, 'Inner'), idOf(one, 'Wave')));
    expect(split(both, 'Inner').pages[0].children).toHaveLength(2);
    expect(verifyDesign(split(both, 'Inner'))).toMatchObject({ ok: true });
  });
});

describe('fitting', () => {
  const r = random(9);
  const hand = Array.from({ length: 400 }, (_, i) => ({
    x: i * 1.5,
    y: 60 * Math.sin(i / 40) + 20 * Math.sin(i / 9) + (r() - 0.5),
  }));
  test.each([1, 2.5, 10])('a drawn line within %s of every point, in few pieces', (tolerance) => {
    const made = fitPoints(hand, tolerance);
    const c = [{ segments: made, closed: false }];
    const worst = Math.max(...hand.map((p) => nearestOnContours(c, p)!.distance));
    expect(worst).toBeLessThanOrEqual(tolerance);
    expect(made.length).toBeLessThan({ 1: 60, 2.5: 40, 10: 18 }[tolerance]!);
    // One smooth line.
    made.slice(1).forEach((s, i) => {
      const [a, b] = [tangentOn(made[i], 1), tangentOn(s, 0)];
      expect(a.x * b.x + a.y * b.y).toBeGreaterThan(0.999);
    });
    expect([made[0].x0, made[0].y0]).toEqual([hand[0].x, hand[0].y]);
  });
  test('a closed line meets itself smoothly', () => {
    const ring = Array.from({ length: 90 }, (_, i) => ({
      x: 100 * Math.cos((i * Math.PI) / 45),
      y: 60 * Math.sin((i * Math.PI) / 45),
    }));
    const made = fitClosed(ring, 0.5);
    expect(made.length).toBeLessThanOrEqual(8);
    const [a, b] = [tangentOn(made[made.length - 1], 1), tangentOn(made[0], 0)];
    expect(a.x * b.x + a.y * b.y).toBeGreaterThan(0.9999);
    expect(
      Math.abs(Math.abs(polygonArea(pathOfNodes([nodesOfPieces(made, true)]).path)) / (Math.PI * 6000) - 1),
    ).toBeLessThan(0.02);
  });
  test('few points are what they are', () => {
    expect(fitPoints([{ x: 1, y: 1 }], 1)).toEqual([]);
    expect(
      fitPoints(
        [
          { x: 0, y: 0 },
          { x: 0, y: 0 },
          { x: 9, y: 0 },
        ],
        1,
      ),
    ).toMatchObject([{ x0: 0, x3: 9, straight: true }]);
  });
  test('a curve runs through its points, smoothly, and a straight row stays straight', () => {
    const points = [
      { x: 0, y: 0 },
      { x: 30, y: 50 },
      { x: 90, y: 40 },
      { x: 100, y: -20 },
      { x: 180, y: 10 },
    ];
    for (const closed of [false, true]) {
      const made = throughPoints(points, closed);
      expect(made).toHaveLength(closed ? 5 : 4);
      made.forEach((s, i) => expect([s.x0, s.y0]).toEqual([points[i].x, points[i].y]));
      for (let i = 1; i < made.length; i++) {
        const [a, b] = [tangentOn(made[i - 1], 1), tangentOn(made[i], 0)];
        expect(a.x * b.x + a.y * b.y).toBeCloseTo(1, 9);
      }
    }
    for (const s of throughPoints(
      [0, 10, 50, 60].map((x) => ({ x, y: x / 2 })),
      false,
    ))
      expect(pointOn(s, 0.37).y).toBeCloseTo(pointOn(s, 0.37).x / 2, 9);
  });
  test('simplifying keeps within its tolerance, keeps corners, and says how many it leaves', () => {
    const dense = nodesOf(pathOfNodes([nodesOfPieces(fitPoints(hand, 0.4), false)]).path);
    for (const tolerance of [0.5, 2, 6]) {
      const made = simplified(dense, tolerance);
      expect(nodeCount(made)).toBeLessThan(nodeCount(dense));
      expect(strays(path(dense), path(made))).toBeLessThanOrEqual(tolerance * 1.05);
    }
    const star: PathData = [
      MOVE,
      0,
      0,
      ...Array.from({ length: 40 }, (_, i) => [LINE, i + 1, i % 2 ? 0 : 0.001]).flat(),
      LINE,
      40,
      30,
      LINE,
      0,
      30,
      CLOSE,
    ];
    const plain = simplified(nodesOf(star), 0.1)[0].nodes;
    expect(plain.map((n) => [n.x, Math.round(n.y)])).toEqual([
      [0, 0],
      [40, 0],
      [40, 30],
      [0, 30],
    ]);
    expect(simplified(nodesOf(SQUARE), 5)).toEqual(nodesOf(SQUARE));
  });
  test('a brush smooths what it touches and nothing else', () => {
    const zig = nodesOf([
      MOVE,
      0,
      0,
      ...Array.from({ length: 20 }, (_, i) => [LINE, (i + 1) * 10, i % 2 ? 0 : 12]).flat(),
    ]);
    let now: readonly NodeContour[] = zig;
    for (let i = 0; i < 12; i++) now = brushed(now, { x: 100, y: 6 }, 45).contours;
    const swing = (c: readonly NodeContour[], from: number, to: number) =>
      Math.max(...c[0].nodes.slice(from, to).map((n) => n.y)) - Math.min(...c[0].nodes.slice(from, to).map((n) => n.y));
    expect(swing(now, 9, 12)).toBeLessThan(swing(zig, 9, 12) * 0.5);
    expect(now[0].nodes[2]).toEqual(zig[0].nodes[2]);
    // What it made smooth is known as smooth, and bends as one.
    expect(now[0].nodes.slice(9, 12).every((n) => n.kind !== 'corner')).toBe(true);
    expect(brushed(zig, { x: 100, y: 400 }, 45).touched).toBe(0);
  });
  test('a line of changing width covers what its widths say', () => {
    const straightLine: NodeContour = {
      closed: false,
      nodes: [
        { x: 0, y: 0, before: null, after: null, kind: 'corner', width: 1 },
        { x: 100, y: 0, before: null, after: null, kind: 'corner', width: 0.5 },
      ],
    };
    const made = taperedLine([straightLine], 10);
    // Half discs of radius 5 and 2.5 at the ends, and the wedge between.
    const b = piecesIn(made).flatMap((c) => c.segments.map((s) => s.x0));
    expect([Math.min(...b), Math.max(...b)]).toEqual([expect.closeTo(-5, 6), expect.closeTo(102.5, 6)]);
    expect(Math.max(...piecesIn(made).flatMap((c) => c.segments.map((s) => s.y0)))).toBeCloseTo(5, 6);
  });
});
