import { beforeAll, describe, expect, test } from '@jest/globals';
import { combineAll, combineTwo, combineUnchecked } from '@/core/geometry/boolean/combine';
import { divide } from '@/core/geometry/boolean/divide';
import { ExactEngine } from '@/core/geometry/boolean/exact';
import { gapsBetween, narrowest, piecesOf } from '@/core/geometry/boolean/pieces';
import { BELONGS, type BooleanOp, type Region } from '@/core/geometry/boolean/region';
import { wrongShare } from '@/core/geometry/boolean/scanline';
import { pathContains } from '@/core/geometry/contains';
import { PathBuilder, addEllipse, pathBounds, polygonArea, rectPath } from '@/core/geometry/path';
import { contourArea, contoursOf, segmentCount } from '@/core/geometry/segments';
import { paper } from '@/core/geometry/fetched';
import { booleansReady, pairsOf, SETS } from '../support/booleanSets';
import { FULL, measured } from '../support/measured';
import { random } from '../support/random';

const OPS: readonly BooleanOp[] = ['union', 'subtract', 'intersect', 'exclude'];
/** Pairs of each set; the whole sets run under `bin/test --full`. */
const PAIRS = FULL ? 500 : 12;
/** Lines of the oracle, more than the check that ships uses. */
const LINES = 401;

beforeAll(booleansReady);

/** Outer contours less their holes, whichever way they run. */
const area = (r: Region) =>
  piecesOf(r).reduce(
    (n, p) => n + contoursOf(p.path).reduce((m, c, i) => m + Math.abs(contourArea(c.segments)) * (i ? -1 : 1), 0),
    0,
  );
const box = (x: number, y: number, w: number, h: number): Region => ({
  path: rectPath({ x0: x, y0: y, x1: x + w, y1: y + h }),
  rule: 'nonZero',
});
const disc = (x: number, y: number, r: number): Region => {
  const sink = new PathBuilder();
  addEllipse(sink, x, y, r, r);
  return { path: sink.data, rule: 'nonZero' };
};

describe('random pairs against the scanline oracle on the inputs', () => {
  const exact = new ExactEngine(paper as never);
  test.each(SETS)(
    '%s: nothing wrong, kept as curves',
    async (set) => {
      const pairs = await pairsOf(set, PAIRS, 11);
      let [wrong, refused, worst, segments, theirs] = [0, 0, 0, 0, 0];
      const [mine, other]: [number[], number[]] = [[], []];
      for (const [a, b] of pairs)
        for (const op of OPS) {
          let t = performance.now();
          const made = combineTwo(a, b, op);
          mine.push(performance.now() - t);
          if (!made.ok) refused++;
          else {
            const share = wrongShare(a, b, op, made.region, LINES);
            worst = Math.max(worst, share);
            if (share > 1e-4) wrong++;
          }
          if (!FULL && segments > 4000) continue;
          t = performance.now();
          let second: Region | null = null;
          try {
            second = exact.combine(a, b, op);
          } catch {
            // The witness may break; its segments then count for nothing.
          }
          other.push(performance.now() - t);
          if (made.ok && second) {
            segments += segmentCount(made.region.path);
            theirs += segmentCount(second.path);
          }
        }
      const median = (l: number[]) => [...l].sort((x, y) => x - y)[l.length >> 1];
      measured(
        `booleans, ${set}: ${pairs.length} pairs × 4`,
        `${wrong} wrong, ${refused} refused, worst ${worst.toExponential(1)}; ${(segments / theirs).toFixed(2)} × the segments, ${(median(mine) / median(other)).toFixed(2)} × the median time of the second engine`,
        '0 wrong (1e-4 of the union); ≤ 2.5; ≤ 1',
        'scanline oracle on the inputs; paper as second witness',
      );
      expect([wrong, refused]).toEqual([0, 0]);
      expect(segments / theirs).toBeLessThanOrEqual(2.5);
      // The whole sets take minutes.
    },
    900_000,
  );

  test('points strewn at random lie in the result just when the inputs say so', async () => {
    // A second oracle, by flattening and ray casting: it shares no code with the scanlines.
    const r = random(3);
    for (const [a, b] of await pairsOf('smooth', 6, 5))
      for (const op of OPS) {
        const made = combineTwo(a, b, op).region;
        const all = pathBounds([...a.path, ...b.path]);
        let differs = 0;
        for (let i = 0; i < 300; i++) {
          const p = { x: all.x0 + r() * (all.x1 - all.x0), y: all.y0 + r() * (all.y1 - all.y0) };
          const truth = BELONGS[op](pathContains(a.path, a.rule, p, 0.005), pathContains(b.path, b.rule, p, 0.005));
          if (pathContains(made.path, made.rule, p, 0.005) !== truth) differs++;
        }
        expect(differs).toBeLessThanOrEqual(1);
      }
  });
});

describe('known areas', () => {
  test('the lens of two circles (2r² acos(d/2r) − d/2 √(4r² − d²))', () => {
    const [r, d] = [100, 120];
    const lens = 2 * r * r * Math.acos(d / (2 * r)) - (d / 2) * Math.sqrt(4 * r * r - d * d);
    const made = combineTwo(disc(0, 0, r), disc(d, 0, r), 'intersect');
    // Four cubics make a circle that is 2.7e-4 too large in radius at most: the lens cannot be nearer than that.
    expect(Math.abs(area(made.region) / lens - 1)).toBeLessThan(1e-3);
    measured(
      'circle lens, r 100, d 120',
      `${((area(made.region) / lens - 1) * 100).toFixed(3)} % off`,
      '0.1 %',
      'closed form; circles of four cubics',
    );
    // The engine itself adds nothing: union and intersection make up both circles.
    const union = combineTwo(disc(0, 0, r), disc(d, 0, r), 'union');
    expect(Math.abs(area(union.region) + area(made.region) - 2 * area(disc(0, 0, r)))).toBeLessThan(1e-2);
  });

  test('boxes on a grid, edges in common: exact', () => {
    const [a, b] = [box(0, 0, 40, 40), box(40, 0, 40, 40)];
    expect(area(combineTwo(a, b, 'union').region)).toBeCloseTo(3200, 6);
    expect(combineTwo(a, b, 'intersect').region.path).toEqual([]);
    expect(piecesOf(combineTwo(a, b, 'union').region)).toHaveLength(1);
    // A node that an input had is where that had it, to the last digit.
    const cut = combineTwo(box(1 / 3, 1 / 7, 10, 10), box(5, 5, 20, 20), 'subtract').region;
    expect(cut.path).toContain(1 / 3);
    expect(cut.path).toContain(10 + 1 / 7);
  });

  test('nothing and something', () => {
    const none: Region = { path: [], rule: 'evenOdd' };
    expect(combineTwo(box(0, 0, 1, 1), none, 'union').region.path).toEqual(box(0, 0, 1, 1).path);
    expect(combineTwo(none, box(0, 0, 1, 1), 'subtract').region.path).toEqual([]);
    expect(combineAll([], 'union')).toMatchObject({ ok: true, region: { path: [] } });
    expect(combineUnchecked(box(0, 0, 4, 4), none, 'intersect')!.path).toEqual([]);
  });

  test('many at once: all of nine boxes, and the rest taken from the first', () => {
    const nine = Array.from({ length: 9 }, (_, i) => box(10 * (i % 3), 10 * Math.floor(i / 3), 12, 12));
    expect(area(combineAll(nine, 'union').region)).toBeCloseTo(32 * 32, 3);
    const holed = combineAll([box(-5, -5, 60, 60), ...[0, 1, 2].map((i) => box(i * 15, 0, 10, 10))], 'subtract').region;
    expect(area(holed)).toBeCloseTo(3600 - 300, 3);
    expect(piecesOf(holed)).toHaveLength(1);
    expect(contoursOf(holed.path)).toHaveLength(4);
  });
});

test('what no engine can do is said, with by how much it is wrong, and divides into nothing', () => {
  const torn: Region = { path: [0, 0, 0, 1, NaN, 5, 1, 10, 10, 3], rule: 'nonZero' };
  const made = combineTwo(torn, box(0, 0, 5, 5), 'union');
  expect(made).toMatchObject({ ok: false, share: 1 });
  expect(combineAll([box(0, 0, 1, 1), torn, box(3, 3, 1, 1)], 'union').ok).toBe(false);
  expect(divide([box(0, 0, 5, 5), torn])).toBeNull();
});

describe('pieces, gaps, division', () => {
  test('pieces keep their holes, and an island in a hole is a piece', () => {
    const ring = combineAll([box(0, 0, 100, 100), box(20, 20, 60, 60)], 'subtract').region;
    const all = combineAll([ring, box(40, 40, 20, 20), box(200, 0, 10, 10)], 'union').region;
    expect(piecesOf(all).map((p) => Math.round(polygonArea(p.path)) && contoursOf(p.path).length)).toEqual([2, 1, 1]);
  });

  test('the narrowest place between curves is found to a thousandth', () => {
    // Two circles: centre distance less both radii.
    const found = narrowest(disc(0, 0, 50), disc(130, 40, 60))!;
    expect(found.distance).toBeCloseTo(Math.hypot(130, 40) - 110, 1);
    const boxes = narrowest(box(0, 0, 10, 100), box(13, 140, 10, 10))!;
    expect(boxes.distance).toBeCloseTo(Math.hypot(3, 40), 6);
    // A narrow place in the middle of long edges.
    expect(narrowest(box(0, 0, 1000, 10), disc(517, 40, 25))!.distance).toBeCloseTo(5, 1);
  });

  test('gaps join each piece to the nearest of the others', () => {
    const gaps = gapsBetween([box(0, 0, 10, 10), box(12, 0, 10, 10), box(25, 0, 10, 10)]);
    expect(gaps.map((g) => [g.a, g.b, Math.round(g.distance * 1e6) / 1e6])).toEqual([
      [0, 1, 2],
      [1, 2, 3],
    ]);
  });

  test('a division cuts along every edge and says who lies in front', () => {
    const pieces = divide([box(0, 0, 20, 20), box(10, 0, 20, 20), disc(15, 10, 4)])!;
    const total = pieces.reduce((n, p) => n + area(p.region), 0);
    expect(total).toBeCloseTo(area(combineAll([box(0, 0, 20, 20), box(10, 0, 20, 20)], 'union').region), 2);
    expect(pieces.filter((p) => p.owner === 2).reduce((n, p) => n + area(p.region), 0)).toBeCloseTo(
      area(disc(15, 10, 4)),
      2,
    );
    // 3 circles in general position: 7 areas (common practice).
    expect(divide([disc(0, 0, 10), disc(8, 0, 10), disc(4, 7, 10)])!.flatMap((p) => piecesOf(p.region))).toHaveLength(
      7,
    );
  });
});
