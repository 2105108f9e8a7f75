import { layDepth } from '@/core/derive/depth';
import type { LaidLine } from '@/core/derive/lines';
import { combineAll, simplified } from '@/core/geometry/boolean/combine';
import { pathContains } from '@/core/geometry/contains';
import { depthSides, type Push } from '@/core/geometry/depth';
import { IDENTITY, scaling, translation, type Point } from '@/core/geometry/matrix';
import { orientedContours } from '@/core/geometry/orient';
import { flatten, rectPath, transformPath, type PathData } from '@/core/geometry/path';
import { rect } from '@/core/geometry/rect';
import type { Colour, Depth } from '@/core/model/schema';
import { areaOf } from '../support/area';
import { FULL } from '../support/measured';
import { random } from '../support/random';
import { cmyk } from '../support/sample';
import { testEngines } from '../support/engines';
import { flat } from '@/demo/builder';

beforeAll(async () => {
  await testEngines();
});
const sidesOf = (path: PathData, push: Push) => depthSides(orientedContours(path), push);

// Closed forms of plane geometry: what a flat area sweeps over.
test('the area that a square, and a square frame, sweep over', () => {
  const push: Push = { by: { x: 30, y: 20 } };
  const square = rectPath(rect(0, 0, 100, 100));
  const swept = (path: PathData, rule: 'nonZero' | 'evenOdd', p: Push) =>
    areaOf(
      combineAll(
        [{ path, rule }, ...sidesOf(path, p).map((side) => ({ path: side.path, rule: 'nonZero' as const }))],
        'union',
      ).region,
      20_000,
    );
  expect(swept(square, 'nonZero', push) / (100 * 100 + 100 * 30 + 100 * 20)).toBeCloseTo(1, 5);
  // Its hole of 60 is narrowed by the sides within it to 30 by 40.
  const frame = [...square, ...rectPath(rect(20, 20, 60, 60))];
  expect(swept(frame, 'evenOdd', push) / (15_000 - 30 * 40)).toBeCloseTo(1, 4);
  // Towards a point, a share of the way: a smaller square behind; what it sweeps over is the hull of both.
  const to: Push = { to: { x: 300, y: 50 }, share: 0.5 };
  expect(swept(square, 'nonZero', to) / (10_000 + ((100 + 50) / 2) * 100)).toBeCloseTo(1, 4);
});

// Oracle: the wireframe, each edge and where its ends are projected to.
test.each([
  ['by one way', { by: { x: 24, y: -13 } }],
  ['to a point', { to: { x: 190, y: 260 }, share: 0.4 }],
] as readonly (readonly [string, Push])[])(
  'sides are the edges and their projections, those that look the way they are pushed: %s',
  (_, push) => {
    const points = [
      [0, 0],
      [80, 10],
      [60, 45],
      [110, 90],
      [30, 100],
      [40, 50],
    ];
    const path = [0, ...points[0], ...points.slice(1).flatMap((p) => [1, ...p]), 3];
    const project = (p: readonly number[]) =>
      'by' in push
        ? [p[0] + push.by.x, p[1] + push.by.y]
        : [p[0] + (push.to.x - p[0]) * push.share, p[1] + (push.to.y - p[1]) * push.share];
    const expected = points.flatMap((a, i) => {
      const b = points[(i + 1) % points.length];
      const way = 'by' in push ? push.by : { x: push.to.x - (a[0] + b[0]) / 2, y: push.to.y - (a[1] + b[1]) / 2 };
      // The outline runs clockwise as seen: outwards is to the left.
      const looks = (b[1] - a[1]) * way.x - (b[0] - a[0]) * way.y;
      return looks > 0 ? [[a, b, project(b), project(a)]] : [];
    });
    const drawn = sidesOf(path, push).map(({ path: p }) => flatten(p, 0.1)[0].points);
    const key = (quad: readonly (readonly number[])[]) =>
      quad.map((p) => p.map((v) => Math.round(v * 1e6) / 1e6).join()).join(' ');
    expect(new Set(drawn.map((p) => key([0, 2, 4, 6].map((i) => [p[i], p[i + 1]]))))).toEqual(
      new Set(expected.map(key)),
    );
  },
);

/** Does the way back from a place meet the edge of an area, and after which share of the push first? */
function firstEdge(lines: readonly (readonly number[])[], p: Point, push: Push): number | null {
  let best: number | null = null;
  for (const pts of lines)
    for (let i = 0; i < pts.length; i += 2) {
      const j = (i + 2) % pts.length;
      const [ax, ay, bx, by] = [pts[i], pts[i + 1], pts[j], pts[j + 1]];
      const t = meets(ax, ay, bx, by, p, push);
      if (t !== null && (best === null || t < best)) best = t;
    }
  return best;
}
/** The share of its push after which a place of an edge is seen at p; null where none is. */
function meets(ax: number, ay: number, bx: number, by: number, p: Point, push: Push): number | null {
  // The line back from p: p + r · way, r from 0.
  const way = 'by' in push ? { x: -push.by.x, y: -push.by.y } : { x: p.x - push.to.x, y: p.y - push.to.y };
  const [ex, ey] = [bx - ax, by - ay];
  const det = way.x * -ey + ex * way.y;
  if (Math.abs(det) < 1e-12) return null;
  const [dx, dy] = [ax - p.x, ay - p.y];
  const r = (dx * -ey + ex * dy) / det;
  const s = (way.x * dy - way.y * dx) / det;
  if (r < 0 || s < 0 || s > 1) return null;
  // A share k of the way to the point leaves 1 − k of the distance: the edge is 1 / (1 − k) times as far.
  const k = 'by' in push ? r : 1 - 1 / (1 + r);
  return k <= ('by' in push ? 1 : push.share) ? k : null;
}

// Oracle: of every place the edge that is met first on the way back, by brute force.
test('what is seen at a place is the side that was pushed the least to reach it: no hidden side is in sight, none is missing', () => {
  const r = random(4);
  let asked = 0;
  for (let round = 0; round < (FULL ? 60 : 12); round++) {
    // A ragged ring with a hole, and something inside the hole.
    const ring = (n: number, size: number, ragged: number): number[] =>
      Array.from({ length: n }, (_, i) => {
        const a = (2 * Math.PI * i) / n;
        const m = size * (1 - ragged * r());
        return [i ? 1 : 0, m * Math.cos(a), m * Math.sin(a)];
      })
        .flat()
        .concat(3);
    const path = [...ring(9, 100, 0.45), ...ring(7, 45, 0.3), ...ring(4, 20, 0.4)];
    const push: Push =
      round % 2
        ? { by: { x: 60 * (r() - 0.5) * 2, y: 60 * (r() - 0.5) * 2 } }
        : { to: { x: 400 * (r() - 0.5), y: 400 * (r() - 0.5) }, share: 0.2 + 0.6 * r() };
    const sides = sidesOf(path, push);
    const lines = flatten(path, 0.1).map((l) => l.points);
    for (let k = 0; k < 250; k++) {
      const p = { x: 340 * (r() - 0.5), y: 340 * (r() - 0.5) };
      if (pathContains(path, 'evenOdd', p)) continue;
      const shown = sides.findLast((s) => pathContains(s.path, 'nonZero', p));
      const nearest = firstEdge(lines, p, push);
      // Beside an edge the arithmetic decides.
      const sure = sides.every((s) =>
        [1e-3, -1e-3].every(
          (e) => pathContains(s.path, 'nonZero', p) === pathContains(s.path, 'nonZero', { x: p.x + e, y: p.y + e }),
        ),
      );
      if (!sure) continue;
      asked++;
      if (nearest === null) {
        expect(shown).toBeUndefined();
        continue;
      }
      expect(shown).toBeDefined();
      // The side that is shown holds the edge that is met first.
      const own = firstEdge([flatten(shown!.path, 0.1)[0].points.slice(0, 4)], p, push);
      const before = Math.min(
        ...shown!.facets.map((f) => {
          const q = flatten(f.path, 0.1)[0].points;
          return meets(q[0], q[1], q[2], q[3], p, push) ?? Infinity;
        }),
      );
      expect(Math.min(before, own ?? Infinity)).toBeCloseTo(nearest, 6);
    }
  }
  expect(asked).toBeGreaterThan(500);
});

test('curves are cut where they turn out of sight, and shaded a step every ten degrees', () => {
  const k = 0.5522847498307936;
  const circle = [
    0,
    50,
    0,
    2,
    50,
    50 * k,
    50 * k,
    50,
    0,
    50,
    2,
    -50 * k,
    50,
    -50,
    50 * k,
    -50,
    0,
    2,
    -50,
    -50 * k,
    -50 * k,
    -50,
    0,
    -50,
    2,
    50 * k,
    -50,
    50,
    -50 * k,
    50,
    0,
    3,
  ];
  const sides = sidesOf(circle, { by: { x: 0, y: 30 } });
  expect(sides).toHaveLength(1);
  const [{ facets, path }] = sides;
  expect(facets.length).toBeGreaterThanOrEqual(18);
  expect(facets.every((f) => f.looks > -1 && f.looks < 181)).toBe(true);
  expect(areaOf({ path, rule: 'nonZero' })).toBeCloseTo(100 * 30, 0);
});

const depth = (more: Partial<Depth> = {}): Depth => ({
  kind: 'solid',
  angle: 90,
  length: 20,
  side: flat(cmyk(80, 40, 0, 0)),
  shade: 0.5,
  light: -90,
  ...more,
});
const region = { path: rectPath(rect(0, 0, 60, 40)), rule: 'nonZero' as const };
const lay = (d: Depth, toPage = IDENTITY) => layDepth(region, toPage, toPage, d);
const colours = (laid: readonly LaidLine[]): Colour[] =>
  laid.flatMap((l) => (l.paint.kind === 'colour' ? [l.paint.colour] : []));

test('the side that looks to the light is paler, the one that looks away has the full colour', () => {
  const [under] = colours(lay(depth()));
  expect(under).toEqual(cmyk(80, 40, 0, 0));
  const [lit] = colours(lay(depth({ light: 90 })));
  const by = 1 - 0.7 * 0.5;
  (lit as unknown as { cmyk: number[] }).cmyk.forEach((v, i) => expect(v).toBeCloseTo([0.8, 0.4, 0, 0][i] * by, 6));
  expect(colours(lay(depth({ light: 90, shade: 0 })))[0]).toEqual(cmyk(80, 40, 0, 0));
  // A swatch stays one: a part of its strength.
  const swatch = { kind: 'colour', colour: { swatch: 'x', tint: 1 }, overprint: false } as const;
  expect(colours(lay(depth({ light: 90, side: swatch })))[0]).toMatchObject({ swatch: 'x' });
});

test('lengths grow with the object, directions are the page’s; a line goes round every side; no length is no depth', () => {
  const box = (laid: readonly LaidLine[]) => {
    const all = laid.flatMap((l) => flatten(transformPath(l.path, l.toPage), 0.1)[0].points);
    return Math.max(...all.filter((_, i) => i % 2));
  };
  expect(box(lay(depth()))).toBeCloseTo(60, 6);
  expect(box(lay(depth(), scaling(2, 2)))).toBeCloseTo(120, 6);
  expect(box(lay(depth(), [0, 1, -1, 0, 100, 0]))).toBeCloseTo(80, 6);
  const edged = lay(depth({ angle: 45, edge: { paint: flat(cmyk(0, 0, 0, 100)) as never, width: 2 } }));
  expect(edged.map((l) => l.stroke?.width ?? 0)).toEqual([0, 2, 0, 2]);
  expect(lay(depth({ length: 0 }))).toEqual([]);
  expect(lay(depth({ vanish: { x: 0, y: 0, share: 0 } }))).toEqual([]);
});

test('a long shadow is one area that fades to nothing along its way', () => {
  const [one, ...rest] = lay(depth({ kind: 'shadow', length: 100, fades: true }), translation(10, 5));
  expect(rest).toEqual([]);
  const p = one.paint as Extract<LaidLine['paint'], { kind: 'gradient' }>;
  expect('stops' in p.ramp && p.ramp.stops.map((s) => s.opacity ?? 1)).toEqual([1, 0]);
  // Unit space lies over the swept length: from the far edge of the shape's foot to the end of the shadow.
  expect(p.geometry[5] + p.geometry[1]).toBeCloseTo(140, 6);
  expect(areaOf(simplified({ path: one.path, rule: 'nonZero' }).region)).toBeCloseTo(60 * 100, 1);
});
