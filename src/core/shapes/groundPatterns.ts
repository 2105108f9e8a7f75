import { IDENTITY, rotation, type Matrix } from '../geometry/matrix';
import { PathBuilder, transformPath, type PathData } from '../geometry/path';
import { centre, transformRect, type Rect } from '../geometry/rect';
import type { Pattern } from '../model/groundSchema';

/** Marks of one paint each, in a space that is turned by the pattern's angle; `box` is what they must cover there. */
interface Sheet {
  readonly box: Rect;
  readonly step: number;
  readonly cover: number;
  readonly seed: number;
  /** The marks of the paint whose turn a cell has. */
  readonly of: (turn: number) => PathBuilder;
}

/** No ground has more marks than this; finer ones are drawn coarser. */
const MOST_MARKS = 20_000;
/** A quarter of a circle as a cubic (common practice: largest error 0.03 % of the radius). */
const KAPPA = 0.5522847498;

/**
 * What each pattern draws; a new one is a row here and a word in PATTERNS. Shares of the ground are exact but for waves
 * and edges.
 */
const ROWS: { readonly [K in Pattern['kind']]: (s: Sheet) => void } = {
  dots(s) {
    const r = s.step * Math.sqrt(s.cover / Math.PI);
    cells(s, (x, y, i, j) => disc(s.of(i + j), x + (j % 2 ? s.step / 2 : 0), y, r));
  },
  stripes({ box, step, cover, of }) {
    let turn = 0;
    for (let y = first(box.y0, step); y < box.y1 + step; y += step, turn++)
      quad(of(turn), [box.x0, y, box.x1, y, box.x1, y + step * cover, box.x0, y + step * cover]);
  },
  checks(s) {
    const side = s.step * Math.sqrt(2 * Math.min(s.cover, 0.5));
    cells(s, (x, y, i, j) => {
      if ((i + j) % 2 === 0) square(s.of((i - j) / 2), x, y, side);
    });
  },
  waves({ box, step, cover, of }) {
    const [length, high, thick] = [step * 2, step / 2, step * cover];
    const left = first(box.x0, length) - length;
    let turn = 0;
    for (let y = first(box.y0, step) - step; y < box.y1 + step; y += step, turn++) {
      const out = of(turn);
      const crest = (x: number, up: number, back: 1 | -1, base: number) => {
        const to = x + (back * length) / 2;
        const k = (back * length) / 4;
        out.curveTo(x + k * 0.73, base - up * high * 0.66, to - k * 0.73, base - up * high * 0.66, to, base);
      };
      out.moveTo(left, y);
      let x = left;
      let up = 1;
      for (; x < box.x1 + length; x += length / 2, up = -up) crest(x, up, 1, y);
      out.lineTo(x, y + thick);
      for (; x > left + 1e-9; x -= length / 2) {
        up = -up;
        crest(x, up, -1, y + thick);
      }
      out.close();
    }
  },
  confetti(s) {
    const next = random(s.seed);
    const size = s.step * Math.sqrt(s.cover);
    cells(s, (x, y) => {
      const [cx, cy] = [x + (next() - 0.5) * s.step * 0.7, y + (next() - 0.5) * s.step * 0.7];
      const [turn, kind, out] = [next() * Math.PI, Math.floor(next() * 3), s.of(Math.floor(next() * 12))];
      const [c, d] = [Math.cos(turn), Math.sin(turn)];
      const at = (u: number, v: number) => [cx + u * c - v * d, cy + u * d + v * c];
      if (kind === 0) disc(out, cx, cy, size / Math.sqrt(Math.PI));
      else if (kind === 1) {
        // Strips, three times as long as wide.
        const [w, h] = [(size * Math.sqrt(3)) / 2, size / Math.sqrt(3) / 2];
        quad(out, [...at(-w, -h), ...at(w, -h), ...at(w, h), ...at(-w, h)]);
      } else {
        const r = size * Math.sqrt(4 / (3 * Math.sqrt(3)));
        quad(out, [...at(r, 0), ...at(-r / 2, (r * Math.sqrt(3)) / 2), ...at(-r / 2, (-r * Math.sqrt(3)) / 2)]);
      }
    });
  },
  grid({ box, step, cover, of }) {
    const thick = step * (1 - Math.sqrt(1 - cover));
    const out = of(0);
    for (let y = first(box.y0, step); y < box.y1 + step; y += step)
      quad(out, [box.x0, y, box.x1, y, box.x1, y + thick, box.x0, y + thick]);
    const up = of(1);
    for (let x = first(box.x0, step); x < box.x1 + step; x += step)
      quad(up, [x, box.y0, x + thick, box.y0, x + thick, box.y1, x, box.y1]);
  },
};

/**
 * The shapes of a pattern over a box, one path for each of its paints; points, to be filled non-zero. They reach beyond
 * the box.
 */
export function patternPaths(p: Pattern, box: Rect): PathData[] {
  const middle = centre(box);
  const turned: Matrix = p.angle ? rotation(p.angle, middle) : IDENTITY;
  const wide = transformRect(p.angle ? rotation(-p.angle, middle) : IDENTITY, box);
  const area = (wide.x1 - wide.x0) * (wide.y1 - wide.y0);
  const step = Math.max(p.size, Math.sqrt(area / MOST_MARKS));
  const builders = p.paints.map(() => new PathBuilder());
  const of = (turn: number) => builders[((turn % builders.length) + builders.length) % builders.length];
  ROWS[p.kind]({ box: wide, step, cover: p.cover, seed: p.seed ?? 0, of });
  return builders.map((b) => (p.angle ? transformPath(b.data, turned) : b.data));
}

/** Marks begin where a sheet that begins at zero would have them: a page that grows keeps them. */
const first = (from: number, step: number): number => Math.floor(from / step) * step;

/** Calls for the middle of every cell that touches the box, and those round it. */
function cells({ box, step }: Sheet, mark: (x: number, y: number, i: number, j: number) => void): void {
  const [i0, j0] = [Math.floor(box.x0 / step) - 1, Math.floor(box.y0 / step) - 1];
  for (let j = j0; j * step < box.y1 + step; j++)
    for (let i = i0; i * step < box.x1 + step; i++) mark((i + 0.5) * step, (j + 0.5) * step, i, j);
}

function quad(out: PathBuilder, points: readonly number[]): void {
  out.moveTo(points[0], points[1]);
  for (let i = 2; i < points.length; i += 2) out.lineTo(points[i], points[i + 1]);
  out.close();
}

const square = (out: PathBuilder, x: number, y: number, side: number): void => {
  const h = side / 2;
  quad(out, [x - h, y - h, x + h, y - h, x + h, y + h, x - h, y + h]);
};

function disc(out: PathBuilder, x: number, y: number, r: number): void {
  const k = r * KAPPA;
  out.moveTo(x + r, y);
  out.curveTo(x + r, y + k, x + k, y + r, x, y + r);
  out.curveTo(x - k, y + r, x - r, y + k, x - r, y);
  out.curveTo(x - r, y - k, x - k, y - r, x, y - r);
  out.curveTo(x + k, y - r, x + r, y - k, x + r, y);
  out.close();
}

/** The same numbers for the same seed (mulberry32, public domain): 0 ≤ n < 1. */
function random(seed: number): () => number {
  let a = (seed + 1) * 0x9e3779b1;
  return () => {
    a = (a + 0x6d2b79f5) | 0;
    let t = Math.imul(a ^ (a >>> 15), 1 | a);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}
