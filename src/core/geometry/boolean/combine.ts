import { invert, scaling, translation, multiply, type Matrix } from '../matrix';
import { CLOSE, COORDS, CUBIC, LINE, MOVE, transformPath, type PathData } from '../path';
import { contoursOf, pathOfContours, withoutMidpoints } from '../segments';
import { loaded } from '../engines';
import { boundsOf, NOTHING, type BooleanOp, type Region } from './region';
import { wrongShare } from './scanline';

/** Lines of the check of every result, and the share of the area that may differ. */
const CHECK_LINES = 64;
const MAY_DIFFER = 2e-5;
/**
 * Regions are laid round zero and this large before they are combined: one engine counts singly, the other by absolute
 * steps.
 */
const SIZE = 1000;

/**
 * Last resort where edges run along each other: the second region shifted by this much of SIZE, and the result still
 * held against the unshifted.
 */
const NUDGES = [1e-4, -1.3e-4, 7e-4];

/** `share`: how much of the area the best result still gets wrong; that result is for showing, not for keeping. */
export type Combined =
  | { readonly ok: true; readonly region: Region }
  | { readonly ok: false; readonly region: Region; readonly share: number };

/**
 * Two regions combined, kept as curves. The fast engine's result is held against the inputs line by line; if it is
 * wrong, that of the arrangement of their lines is, then the exact engine's, the last times with one region a hair
 * aside; if all are wrong, the answer says by what share of the area.
 */
export function combineTwo(a: Region, b: Region, op: BooleanOp): Combined {
  const easy = trivial(a, b, op);
  if (easy) return { ok: true, region: easy };
  const { fast, exact, combineArranged } = loaded();
  // Numbers that are none cannot be held against anything.
  if (!isCountable(a) || !isCountable(b)) return { ok: false, region: NOTHING, share: 1 };
  const [na, nb, back] = normalised(a, b);
  let [least, best] = [1, NOTHING];
  const tries = [
    () => fast.combine(na, nb, op),
    () => combineArranged(na, nb, op),
    () => exact.combine(na, nb, op),
    ...NUDGES.map((by) => () => exact.combine(na, nudged(nb, by), op)),
  ];
  for (const attempt of tries) {
    let result: Region | null = null;
    try {
      result = attempt();
    } catch {
      // An engine that breaks on an input is one that gives no result: the other is asked.
    }
    if (!result || !isCountable(result)) continue;
    const share = wrongShare(na, nb, op, result, CHECK_LINES);
    const region = denormalised(result, [a, b], back);
    if (share <= MAY_DIFFER) return { ok: true, region };
    if (share < least) [least, best] = [share, region];
  }
  return { ok: false, region: best, share: least };
}

/**
 * The fast engine's word, held against the inputs line by line; null where it is wrong or gives none: for what may be
 * left undone.
 */
export function combineFast(a: Region, b: Region, op: BooleanOp): Region | null {
  const easy = trivial(a, b, op);
  if (easy) return easy;
  if (!isCountable(a) || !isCountable(b)) return null;
  const [na, nb, back] = normalised(a, b);
  const result = loaded().fast.combine(na, nb, op);
  if (!result || !isCountable(result) || wrongShare(na, nb, op, result, CHECK_LINES) > MAY_DIFFER) return null;
  return denormalised(result, [a, b], back);
}

/** The same area with no contour that crosses itself or another: what is covered, by the rule of the region. */
export function simplified(a: Region): Combined {
  if (!a.path.length) return { ok: true, region: NOTHING };
  const { x1, y0, y1 } = boundsOf(a);
  // The engines combine two: the other one is a mere speck beside it, and taken away again.
  const size = Math.max(boundsOf(a).x1 - boundsOf(a).x0, y1 - y0, 1e-6) / 100;
  const [x, y] = [x1 + size, (y0 + y1) / 2];
  const speck = [MOVE, x, y, LINE, x + size, y, LINE, x + size, y + size, LINE, x, y + size, CLOSE];
  const made = combineTwo(a, { path: speck, rule: 'nonZero' }, 'union');
  const kept = contoursOf(made.region.path).filter((c) => c.segments[0].x0 < x1 + size / 2);
  return {
    ...made,
    region: { ...made.region, path: withoutMidpoints(pathOfContours(kept.map((c) => ({ ...c, closed: true })))) },
  };
}

/** The fast engine's word alone, for something that still moves. Null where it gives none. */
export function combineUnchecked(a: Region, b: Region, op: BooleanOp): Region | null {
  const easy = trivial(a, b, op);
  if (easy) return easy;
  const [na, nb, back] = normalised(a, b);
  const result = loaded().fast.combine(na, nb, op);
  return result && { path: transformPath(result.path, back), rule: result.rule };
}

/** Many regions, back to front: union, intersect and exclude of all; subtract takes the rest from the first. */
export function combineAll(regions: readonly Region[], op: BooleanOp): Combined {
  if (!regions.length) return { ok: true, region: NOTHING };
  if (op === 'subtract') {
    let left: Combined = { ok: true, region: regions[0] };
    for (const r of regions.slice(1)) {
      left = combineTwo(left.region, r, 'subtract');
      if (!left.ok) return left;
    }
    return left;
  }
  // Halves first: results stay small for as long as they can.
  let list = [...regions];
  while (list.length > 1) {
    const next: Region[] = [];
    for (let i = 0; i < list.length; i += 2) {
      if (i + 1 === list.length) next.push(list[i]);
      else {
        const made = combineTwo(list[i], list[i + 1], op);
        if (!made.ok) return made;
        next.push(made.region);
      }
    }
    list = next;
  }
  return { ok: true, region: list[0] };
}

const nudged = (r: Region, by: number): Region => ({
  path: transformPath(r.path, [1, by * 1e-3, -by * 1e-3, 1, by * 1.7, by * -0.9]),
  rule: r.rule,
});

const isCountable = (r: Region): boolean => r.path.every(Number.isFinite);

function trivial(a: Region, b: Region, op: BooleanOp): Region | null {
  if (a.path.length && b.path.length) return null;
  if (op === 'intersect') return NOTHING;
  if (!b.path.length) return a;
  return op === 'subtract' ? NOTHING : b;
}

function normalised(a: Region, b: Region): [Region, Region, Matrix] {
  const box = boundsOf(a, b);
  const k = SIZE / Math.max(box.x1 - box.x0, box.y1 - box.y0, 1e-9);
  const to = multiply(scaling(k, k), translation(-(box.x0 + box.x1) / 2, -(box.y0 + box.y1) / 2));
  const map = (r: Region): Region => ({ path: transformPath(r.path, to), rule: r.rule });
  return [map(a), map(b), invert(to)!];
}

/** Ends of pieces this near to a node of an input are that node; of SIZE. */
const SNAP = 1e-3;

/** Back in its own place, with nodes that came from an input exactly where that has them. */
function denormalised(r: Region, inputs: readonly Region[], back: Matrix): Region {
  const reach = SNAP * back[0];
  const cell = reach * 4;
  const known = new Map<string, [number, number]>();
  const key = (x: number, y: number) => `${Math.round(x / cell)},${Math.round(y / cell)}`;
  for (const { path } of inputs)
    for (let i = 0; i < path.length; i += 1 + COORDS[path[i]]) {
      const n = COORDS[path[i]];
      if (n) known.set(key(path[i + n - 1], path[i + n]), [path[i + n - 1], path[i + n]]);
    }
  const find = (x: number, y: number): readonly [number, number] => {
    for (const dx of [0, -cell / 2, cell / 2])
      for (const dy of [0, -cell / 2, cell / 2]) {
        const at = known.get(key(x + dx, y + dy));
        if (at && Math.abs(at[0] - x) <= reach && Math.abs(at[1] - y) <= reach) return at;
      }
    return [x, y];
  };
  const out: number[] = [];
  let [mx, my] = [0, 0];
  const path = transformPath(r.path, back);
  for (let i = 0; i < path.length; i += 1 + COORDS[path[i]]) {
    const op = path[i];
    out.push(op);
    if (op === MOVE || op === LINE) {
      const [x, y] = find(path[i + 1], path[i + 2]);
      [mx, my] = [x - path[i + 1], y - path[i + 2]];
      out.push(x, y);
    } else if (op === CUBIC) {
      const [x, y] = find(path[i + 5], path[i + 6]);
      // Handles go with their nodes, so that directions stay.
      out.push(path[i + 1] + mx, path[i + 2] + my);
      [mx, my] = [x - path[i + 5], y - path[i + 6]];
      out.push(path[i + 3] + mx, path[i + 4] + my, x, y);
    }
  }
  return { path: withoutStubs(out), rule: r.rule };
}

/** Straight pieces that snapping has made into nothing go. */
function withoutStubs(path: PathData): PathData {
  const out: number[] = [];
  let [x, y] = [NaN, NaN];
  for (let i = 0; i < path.length; i += 1 + COORDS[path[i]]) {
    const op = path[i];
    const n = COORDS[op];
    if (op === LINE && path[i + 1] === x && path[i + 2] === y) continue;
    for (let k = 0; k <= n; k++) out.push(path[i + k]);
    if (n) [x, y] = [path[i + n - 1], path[i + n]];
  }
  return out;
}
