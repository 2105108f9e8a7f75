import { tinted } from '../colour/tints';
import { simplified } from '../geometry/boolean/combine';
import type { Region } from '../geometry/boolean/region';
import type { Push, Side } from '../geometry/depth';
import { loaded } from '../geometry/engines';
import { invert, meanScale, multiply, translation, type Matrix } from '../geometry/matrix';
import { orientedContours } from '../geometry/orient';
import { pathBounds, transformPath, type PathData } from '../geometry/path';
import type { Contour } from '../geometry/segments';
import type { Colour, Depth, Paint } from '../model/schema';
import type { LaidLine } from './lines';

/** The palest side has at least this share of the colour. */
const PALEST = 0.3;
/** Sides are shaded in so many steps: those of one step are one area. */
const STEPS = 32;

const rad = (degrees: number): number => (degrees * Math.PI) / 180;

interface Sided {
  readonly key: string;
  readonly sides: readonly Side[];
}
const contours = new WeakMap<PathData, { readonly key: string; readonly made: readonly Contour[] }>();
const known = new WeakMap<PathData, Sided[]>();
/** While a direction is dragged two are asked for in turn; a repeat has some more. */
const MOST_KEPT = 8;

/**
 * What a pushed-back object shows beside its face, bottom to top, to be laid below it. `region` is its area in a space
 * of its own that `toPage` places; `matrix` maps the space that its lengths and paints are given in.
 */
export function layDepth(region: Region, toPage: Matrix, matrix: Matrix, depth: Depth): LaidLine[] {
  const { side, edge } = depth;
  const [a, b, c, d, e, f] = toPage;
  const at = translation(e, f);
  const push = pushOf(depth, matrix, toPage);
  if (!push || side.kind === 'none') return [];
  const linear: Matrix = [a, b, c, d, 0, 0];
  const all = sidesOf(region, linear, push);
  if (!all.length) return [];
  const lie = (path: PathData, paint: LaidLine['paint']): LaidLine => ({ path, toPage: at, paint, rule: 'nonZero' });
  if (depth.kind === 'shadow' || side.kind !== 'colour') {
    const whole = all.flatMap((s) => [...s.path]);
    const paint = depth.kind === 'shadow' && depth.fades ? faded(side, whole, push, at, matrix) : side;
    return [lie(whole, paint)];
  }
  return all.flatMap((s) => [
    ...shaded(s, depth, side, lie),
    ...(edge && edge.width > 0
      ? [
          {
            ...lie(s.path, edge.paint),
            stroke: { width: edge.width * meanScale(matrix), cap: 'round', join: 'round', miterLimit: 4 } as const,
          },
        ]
      : []),
  ]);
}

/** Where it is pushed, seen from where it is put; null for nowhere. */
function pushOf({ vanish, angle, length }: Depth, matrix: Matrix, toPage: Matrix): Push | null {
  if (vanish)
    return vanish.share > 0 ? { to: { x: vanish.x - toPage[4], y: vanish.y - toPage[5] }, share: vanish.share } : null;
  const by = length * meanScale(matrix);
  return by > 0 ? { by: { x: by * Math.cos(rad(angle)), y: by * Math.sin(rad(angle)) } } : null;
}

function sidesOf({ path, rule }: Region, linear: Matrix, push: Push): readonly Side[] {
  const key = JSON.stringify([linear, push]);
  let list = known.get(path);
  if (!list) known.set(path, (list = []));
  let made = list.find((k) => k.key === key);
  if (!made) {
    const place = linear.join();
    let edge = contours.get(path);
    if (edge?.key !== place) {
      const clean = simplified({ path: transformPath(path, linear), rule }).region;
      contours.set(path, (edge = { key: place, made: orientedContours(clean.path) }));
    }
    list.push((made = { key, sides: loaded().depthSides(edge.made, push) }));
    if (list.length > MOST_KEPT) list.shift();
  }
  return made.sides;
}

/** A side in the shades of its parts, on one of them all, so that no seam shows what lies below. */
function shaded(
  { path, facets }: Side,
  { shade, light }: Depth,
  side: Extract<Paint, { kind: 'colour' }>,
  lie: (path: PathData, paint: LaidLine['paint']) => LaidLine,
): LaidLine[] {
  const steps: { step: number; path: number[] }[] = [];
  for (const f of facets) {
    const lit = (1 + Math.cos(rad(f.looks - light))) / 2;
    const step = Math.round(shade * lit * STEPS);
    const last = steps[steps.length - 1];
    if (last?.step === step) last.path.push(...f.path);
    else steps.push({ step, path: [...f.path] });
  }
  const painted = (step: number): LaidLine['paint'] =>
    step ? { ...side, colour: paler(side.colour, 1 - (1 - PALEST) * (step / STEPS)) } : side;
  if (steps.length === 1) return [lie(path, painted(steps[0].step))];
  const middle = steps[steps.length >> 1].step;
  return [
    lie(path, painted(middle)),
    ...steps.filter((s) => s.step !== middle).map((s) => lie(s.path, painted(s.step))),
  ];
}

const paler = (c: Colour, by: number): Colour => ('swatch' in c ? { ...c, tint: c.tint * by } : tinted(c, by));

/** A shadow's colour that becomes nothing towards its end. */
function faded(side: Paint, path: PathData, push: Push, at: Matrix, matrix: Matrix): LaidLine['paint'] {
  if (side.kind !== 'colour') return side as LaidLine['paint'];
  const back = invert(matrix);
  if (!back) return side;
  const { x0, y0, x1, y1 } = pathBounds(path);
  const [cx, cy] = [(x0 + x1) / 2, (y0 + y1) / 2];
  const way = 'by' in push ? push.by : { x: push.to.x - cx, y: push.to.y - cy };
  const n = Math.hypot(way.x, way.y) || 1;
  const [ux, uy] = [way.x / n, way.y / n];
  const corners = [x0, x1].flatMap((x) => [y0, y1].map((y) => x * ux + y * uy));
  const [from, to] = [Math.min(...corners), Math.max(...corners)];
  const long = Math.max(1e-3, to - from);
  const unit: Matrix = [
    ux * long,
    uy * long,
    -uy * long,
    ux * long,
    cx + ux * (from - (cx * ux + cy * uy)),
    cy + uy * (from - (cx * ux + cy * uy)),
  ];
  return {
    kind: 'gradient',
    gradient: 'linear',
    ramp: {
      stops: [
        { offset: 0, colour: side.colour },
        { offset: 1, colour: side.colour, opacity: 0 },
      ],
    },
    geometry: multiply(back, multiply(at, unit)),
    overprint: side.overprint,
  };
}
