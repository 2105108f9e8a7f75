import { wrongShare } from '@/core/geometry/boolean/scanline';
import type { Region } from '@/core/geometry/boolean/region';
import { distanceToPath, pathContains } from '@/core/geometry/contains';
import { offsetRegion } from '@/core/geometry/offset';
import { flatten, rectPath } from '@/core/geometry/path';
import { rect } from '@/core/geometry/rect';
import { outlinePath } from '@/core/shapes/outline';
import type { NodeOf } from '@/core/model/schema';
import { DesignBuilder } from '@/demo/builder';
import { newDesign, setupOf } from '@/core/model/defaults';
import { making } from '../support/sample';
import { testEngines } from '../support/engines';

beforeAll(async () => {
  await testEngines();
});

/** The shoelace formula over the pieces of a region. */
const area = ({ path }: Region): number =>
  Math.abs(
    flatten(path, 1e-4).reduce((sum, { points: p }) => {
      for (let i = 0; i < p.length; i += 2) {
        const [x, y] = [p[(i + 2) % p.length], p[(i + 3) % p.length]];
        sum += (p[i] * y - x * p[i + 1]) / 2;
      }
      return sum;
    }, 0),
  );
const edgeOf = ({ path }: Region): number =>
  flatten(path, 1e-5).reduce((sum, { points: p }) => {
    for (let i = 0; i < p.length; i += 2)
      sum += Math.hypot(p[(i + 2) % p.length] - p[i], p[(i + 3) % p.length] - p[i + 1]);
    return sum;
  }, 0);
const square: Region = { path: rectPath(rect(10, 20, 80, 80)), rule: 'nonZero' };
function shape(kind: string): Region {
  const b = new DesignBuilder(newDesign('One', setupOf(200, 200), making), making);
  const id = b.shape('One', kind, { x: 0, y: 0, w: 80, h: 80 }, {});
  b.place(0, [id]);
  return outlinePath(b.done().nodes[id] as NodeOf<'shape'>);
}

// Closed forms.
test('a square grown with pointed, round and cut corners, and shrunk; a circle is a larger circle', () => {
  const d = 6;
  const by = (join: 'miter' | 'round' | 'bevel', away: number) =>
    area(offsetRegion(square, away, { join, miterLimit: 4 }, 1e-3));
  expect(by('miter', d)).toBeCloseTo(92 ** 2, 3);
  expect(by('round', d) / (80 ** 2 + 4 * 80 * d + Math.PI * d * d)).toBeCloseTo(1, 5);
  expect(by('bevel', d)).toBeCloseTo(80 ** 2 + 4 * 80 * d + 2 * d * d, 3);
  expect(by('miter', -d)).toBeCloseTo(68 ** 2, 3);
  expect(offsetRegion(square, -40.5, { join: 'round', miterLimit: 4 }, 1e-3).path).toEqual([]);
  expect(offsetRegion(square, 0, { join: 'round', miterLimit: 4 }, 1e-3)).toBe(square);
  // Of what bulges everywhere (Steiner): its area, its edge times the distance, a disc of the distance.
  const disc = shape('ellipse');
  const grown = area(offsetRegion(disc, d, { join: 'round', miterLimit: 4 }, 1e-3));
  expect(grown / (area(disc) + edgeOf(disc) * d + Math.PI * d * d)).toBeCloseTo(1, 4);
});

// Oracle: the distance of places to the edge itself.
test('the grown edge of a star lies everywhere as far from it as was asked, and crosses itself nowhere', () => {
  const star = shape('star');
  for (const by of [4, -2]) {
    const grown = offsetRegion(star, by, { join: 'round', miterLimit: 4 }, 1e-3);
    const points = flatten(grown.path, 0.5).flatMap(({ points: p }) =>
      Array.from({ length: p.length / 2 }, (_, i) => ({ x: p[2 * i], y: p[2 * i + 1] })),
    );
    expect(points.length).toBeGreaterThan(9);
    for (const p of points) {
      expect(Math.abs(distanceToPath(star.path, p) - Math.abs(by))).toBeLessThan(5e-3);
      expect(pathContains(star.path, star.rule, p)).toBe(by < 0);
    }
    // Filled by either rule it is the same: no piece of it is wound twice.
    expect(
      wrongShare(
        { ...grown, rule: 'nonZero' },
        { path: [], rule: 'nonZero' },
        'union',
        { ...grown, rule: 'evenOdd' },
        200,
      ),
    ).toBeLessThan(1e-6);
  }
});
