import type { Matrix } from '../geometry/matrix';
import { rectPath, transformPath, type PathData } from '../geometry/path';
import { rect } from '../geometry/rect';
import type { PlacedGlyph, PlacedRun } from './line';

const STRAIGHT = [1, 0, 0, 1] as const;

/** The outline of one glyph of a run, in the space of its line; filled non-zero. */
export function glyphPath(run: PlacedRun, g: PlacedGlyph): PathData {
  const scale = run.size / run.face.upem;
  const [a, b, c, d] = g.turn ?? STRAIGHT;
  return transformPath(run.face.outline(g.gid), [a * scale, b * scale, c * scale, d * scale, g.x, g.y]);
}

/** Lines under and through the letters of a run, where it is set so: boxes in the space of its line. */
export function rulesPath(run: PlacedRun): PathData {
  const { underline, strike } = run.run;
  if (!underline && !strike) return NO_RULES;
  let path = rulesKnown.get(run);
  if (!path) rulesKnown.set(run, (path = rulesOf(run, underline, strike)));
  return path;
}
const NO_RULES: PathData = [];
const rulesKnown = new WeakMap<PlacedRun, PathData>();

function rulesOf(run: PlacedRun, underline: boolean, strike: boolean): PathData {
  const rules = [...(underline ? [run.face.underline] : []), ...(strike ? [run.face.strike] : [])];
  const out: number[] = [];
  for (const { at, width } of rules) {
    const [top, height] = [-(at + width / 2) * run.size, width * run.size];
    if (!run.glyphs.some((g) => g.turn)) {
      // Spaces that hang over the end have none.
      const x1 = run.glyphs.reduce((x, g) => (g.text === ' ' ? x : Math.max(x, g.x + g.advance)), run.x0);
      if (x1 > run.x0) out.push(...boxPath(run.x0, top - run.rise, x1 - run.x0, height, [1, 0, 0, 1, 0, 0]));
      continue;
    }
    for (const g of run.glyphs) {
      const [a, b, c, d] = g.turn ?? STRAIGHT;
      out.push(...boxPath(0, top, g.advance, height, [a, b, c, d, g.x, g.y]));
    }
  }
  return out;
}

const boxPath = (x: number, y: number, width: number, height: number, m: Matrix): PathData =>
  transformPath(rectPath(rect(x, y, width, height)), m);

const known = new WeakMap<PlacedRun, PathData>();
/** The outlines of all glyphs of a run, in the space of its line; the same list for the same run. */
export function runPath(run: PlacedRun): PathData {
  let path = known.get(run);
  if (!path) {
    const out: number[] = [];
    for (const g of run.glyphs) for (const v of glyphPath(run, g)) out.push(v);
    known.set(run, (path = out));
  }
  return path;
}
