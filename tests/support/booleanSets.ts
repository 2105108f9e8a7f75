import { loadBooleans } from '@/core/geometry/engines';
import type { Region } from '@/core/geometry/boolean/region';
import { multiply, rotation, translation } from '@/core/geometry/matrix';
import {
  CLOSE,
  CUBIC,
  MOVE,
  PathBuilder,
  addEllipse,
  rectPath,
  transformPath,
  type FillRule,
  type PathData,
} from '@/core/geometry/path';
import { nodeEnv } from '@/env/node';
import { FontBook } from '@/core/text/fonts';
import { publicFolder } from './engines';
import { random } from './random';

/** Random pairs of shapes of the kinds that break boolean engines; the sets are our own, after common practice. */

type Random = () => number;
const region = (path: PathData, rule: FillRule = 'nonZero'): Region => ({ path, rule });

/** A closed smooth curve through points on a wobbling circle. */
function smooth(r: Random, n = 12): PathData {
  const [cx, cy, size] = [300 + 200 * r(), 300 + 200 * r(), 120 + 160 * r()];
  const pts = Array.from({ length: n }, (_, i) => {
    const a = (2 * Math.PI * i) / n + (r() - 0.5) * 0.3;
    const q = size * (0.5 + 0.5 * r());
    return [cx + q * Math.cos(a), cy + q * Math.sin(a)];
  });
  const out: number[] = [MOVE, ...pts[0]];
  for (let i = 0; i < n; i++) {
    const [p0, p, q, q1] = [pts[(i + n - 1) % n], pts[i], pts[(i + 1) % n], pts[(i + 2) % n]];
    out.push(
      CUBIC,
      p[0] + (q[0] - p0[0]) / 6,
      p[1] + (q[1] - p0[1]) / 6,
      q[0] - (q1[0] - p[0]) / 6,
      q[1] - (q1[1] - p[1]) / 6,
      q[0],
      q[1],
    );
  }
  return [...out, CLOSE];
}

/** Twelve random cubics in a row: crosses itself many times. */
function wild(r: Random, n = 12, size = 600): PathData {
  const pts = Array.from({ length: n }, () => [r() * size, r() * size]);
  const out: number[] = [MOVE, ...pts[0]];
  for (let i = 0; i < n; i++) {
    const [p, q] = [pts[i], pts[(i + 1) % n]];
    const near = (v: number) => v + (r() - 0.5) * size * 0.5;
    out.push(CUBIC, near(p[0]), near(p[1]), near(q[0]), near(q[1]), q[0], q[1]);
  }
  return [...out, CLOSE];
}

/** Rectangles and ellipses with their measures on a coarse grid: edges and tangents coincide. */
function onGrid(r: Random): PathData {
  const g = (n: number) => 40 * Math.floor(r() * n);
  const [x, y, w, h] = [g(8), g(8), 40 + g(6), 40 + g(6)];
  if (r() < 0.5) return rectPath({ x0: x, y0: y, x1: x + w, y1: y + h });
  const sink = new PathBuilder();
  addEllipse(sink, x + w / 2, y + h / 2, w / 2, r() < 0.5 ? w / 2 : h / 2, r() < 0.3);
  return sink.data;
}

/** A shape and its own copy, shifted and turned by next to nothing. */
function near(r: Random): [PathData, PathData] {
  const a = r() < 0.5 ? smooth(r) : onGrid(r);
  const by = 10 ** -(1 + Math.floor(r() * 6));
  return [
    a,
    transformPath(
      a,
      multiply(
        translation(by * (r() - 0.5) * 2, by * (r() - 0.5) * 2),
        rotation(r() < 0.5 ? by * 20 : 0, { x: 300, y: 300 }),
      ),
    ),
  ];
}

/** A shape that runs along half of the other's curves. */
function shared(r: Random): [PathData, PathData] {
  const a = smooth(r);
  const half = a.slice(0, 3 + 7 * 6);
  const [x, y] = [half[half.length - 2], half[half.length - 1]];
  const far = () => 300 + (r() - 0.5) * 700;
  return [a, [...half, CUBIC, x, y, far(), far(), far(), far(), CUBIC, far(), far(), a[1], a[2], a[1], a[2], CLOSE]];
}

export const SETS = ['smooth', 'even-odd', 'non-zero', 'grid', 'near copies', 'shared edges', 'glyphs'] as const;
export type SetName = (typeof SETS)[number];

let glyphs: PathData[] | null = null;
async function glyphList(): Promise<PathData[]> {
  if (glyphs) return glyphs;
  const fonts = new FontBook(nodeEnv(publicFolder));
  const faces = ['eb-garamond-600', 'archivo-800', 'great-vibes-400', 'grenze-gotisch-500', 'alfa-slab-400'];
  await fonts.load(new Set(faces));
  glyphs = faces.flatMap((id) => {
    const face = fonts.get(id)!;
    return Array.from({ length: 60 }, (_, i) =>
      transformPath(face.outline(20 + i), [500 / face.upem, 0, 0, 500 / face.upem, 0, 0]),
    ).filter((p) => p.length > 10);
  });
  return glyphs;
}

/** `count` pairs of a set, the same for the same seed. */
export async function pairsOf(set: SetName, count: number, seed = 7): Promise<[Region, Region][]> {
  const r = random(seed);
  const letters = set === 'glyphs' ? await glyphList() : [];
  return Array.from({ length: count }, (): [Region, Region] => {
    switch (set) {
      case 'smooth':
        return [region(smooth(r)), region(smooth(r))];
      case 'even-odd':
        return [region(wild(r), 'evenOdd'), region(wild(r), 'evenOdd')];
      case 'non-zero':
        return [region(wild(r)), region(wild(r))];
      case 'grid':
        return [region(onGrid(r)), region(onGrid(r))];
      case 'near copies': {
        const [a, b] = near(r);
        return [region(a), region(b)];
      }
      case 'shared edges': {
        const [a, b] = shared(r);
        return [region(a), region(b)];
      }
      case 'glyphs': {
        const pick = () => letters[Math.floor(r() * letters.length)];
        return [region(pick()), region(transformPath(pick(), translation((r() - 0.5) * 200, (r() - 0.5) * 200)))];
      }
    }
  });
}

export const booleansReady = (): Promise<void> => loadBooleans(nodeEnv(publicFolder));
