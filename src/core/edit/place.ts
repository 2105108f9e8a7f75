import { isPlaced } from '../model/paints';
import {
  apply,
  applyVector,
  invert,
  multiply,
  rotation,
  scaling,
  translation,
  type Matrix,
  type Point,
} from '../geometry/matrix';
import { transformPath } from '../geometry/path';
import type { Arrangement, Design, NodeKind, Page, Paint, Story } from '../model/schema';
import { parentMatrix, topmost, type NodeId } from '../model/tree';
import { before, plain, type DesignDraft } from './history';
import { changeRuns, looksOf } from './text';
import { taken } from './taken';

/** Commands that say where things are. Points and matrices are in page space, points, y down. */

/** Takes nodes through a map of the page that keeps sizes (a move, a turn, a mirror): only transforms change. */
export function transformNodes(d: DesignDraft, page: Page, ids: readonly NodeId[], map: Matrix): void {
  const was = before(d);
  for (const id of topmost(was, page, ids)) {
    const next = taken(d.nodes[id].transform as Matrix, parentMatrix(was, page, id), map);
    if (next) d.nodes[id].transform = [...next];
  }
}

/** Moves nodes by so many points of the page. */
export const moveNodes = (d: DesignDraft, page: Page, ids: readonly NodeId[], dx: number, dy: number): void =>
  transformNodes(d, page, ids, translation(dx, dy));
/** Turns nodes about a point of the page. */
export const turnNodes = (d: DesignDraft, page: Page, ids: readonly NodeId[], degrees: number, about: Point): void =>
  transformNodes(d, page, ids, rotation(degrees, about));

/**
 * Takes nodes through a scaling of the page: widths, heights, letter sizes and gradient geometry change, transforms only
 * as far as they must. Outlines and corner radii keep their measures.
 */
export function scaleNodes(d: DesignDraft, page: Page, ids: readonly NodeId[], map: Matrix): void {
  const was = before(d);
  for (const id of topmost(was, page, ids)) {
    const outer = parentMatrix(was, page, id);
    const back = invert(outer);
    if (back) scaleInParent(d, id, multiply(back, multiply(map, outer)));
  }
}

/** Takes nodes through a scaling of the space they lie in. */
export function scaleIn(d: DesignDraft, ids: readonly NodeId[], map: Matrix): void {
  for (const id of ids) scaleInParent(d, id, map);
}

function scaleInParent(d: DesignDraft, id: NodeId, map: Matrix): void {
  const node = d.nodes[id];
  const m = node.transform as Matrix;
  if ('children' in node) {
    // A group has no size of its own: its children take the map, seen from inside the group.
    const back = invert(m);
    if (!back) return;
    const inside = multiply(back, multiply(map, m));
    if (node.kind === 'repeat') {
      const lengths = [Math.hypot(inside[0], inside[1]), Math.hypot(inside[2], inside[3])];
      // Copies that turn cannot be squashed one by one to squash them all: then the whole is.
      if (Math.abs(lengths[0] - lengths[1]) > 1e-9 * lengths[0]) {
        node.transform = [...multiply(map, m)];
        return;
      }
      node.arrangement = mapArrangement(node.arrangement as Arrangement, inside) as typeof node.arrangement;
    }
    for (const child of node.children) scaleInParent(d, child, inside);
    if (node.kind === 'combination') mapPaints(node, (p) => placedPaint(p, inside));
    return;
  }
  const full = multiply(map, m);
  const growth = (axis: Point) => {
    const before = applyVector(m, axis);
    const after = applyVector(full, axis);
    return Math.hypot(after.x, after.y) / (Math.hypot(before.x, before.y) || 1);
  };
  const sx = Math.max(growth({ x: 1, y: 0 }), 1e-6);
  const sy = Math.max(growth({ x: 0, y: 1 }), 1e-6);
  resizeContent(d, node, sx, sy);
  node.transform = [...multiply(full, scaling(1 / sx, 1 / sy))];
}

/** A paint whose geometry goes through a map of its object's space; letters that have a gradient each keep theirs. */
export const placedPaint = (p: Paint, map: Matrix): Paint =>
  isPlaced(p) && !(p.kind === 'gradient' && p.eachLetter) ? { ...p, geometry: multiply(map, p.geometry) } : p;

/** The paints of an object, those of its letters' runs left out, through a map of its space. */
export function mapPaints(node: DesignDraft['nodes'][string], map: (p: Paint) => Paint): void {
  const lines = <O extends { paint: unknown }>(list: O[]): O[] =>
    list.map((o) => ({ ...o, paint: map(o.paint as Paint) }));
  if ('fills' in node) {
    node.fills = node.fills.map((p) => map(p as Paint)) as typeof node.fills;
    node.outlines = lines(node.outlines);
  }
  if ('letterOutlines' in node && node.letterOutlines) node.letterOutlines = lines(node.letterOutlines);
}

function mapArrangement(a: Arrangement, m: Matrix): Arrangement {
  const about = apply(m, a.about);
  if (a.kind === 'row') return { ...a, about, step: applyVector(m, a.step) };
  if (a.kind === 'grid') return { ...a, about, across: applyVector(m, a.across), down: applyVector(m, a.down) };
  return { ...a, about, centre: apply(m, a.centre) };
}

type Draft<K extends NodeKind> = Extract<DesignDraft['nodes'][string], { kind: K }>;
type Resize<N> = (node: N, sx: number, sy: number, d: DesignDraft) => void;
const measures: Resize<Draft<'shape'> | Draft<'textFrame'>> = (node, sx, sy) => {
  node.width *= sx;
  node.height *= sy;
};
/** What it holds is resized by itself, or its result follows. */
const asItIs = (): void => {};

/** A line that words stand on, in another size; a circle stays one. */
function scaleLine(along: NonNullable<Draft<'displayText'>['along']>, sx: number, sy: number): void {
  if ('radius' in along.line) along.line.radius = Math.max(0.1, along.line.radius * Math.sqrt(Math.abs(sx * sy)));
  else along.line.path = [...transformPath(along.line.path, scaling(sx, sy))];
  if (along.distance !== undefined) along.distance *= sy;
}

/** How a kind takes another size, its matrix left alone; a new kind needs its row. */
const RESIZES: { readonly [K in NodeKind]: Resize<Draft<K>> } = {
  shape: measures,
  textFrame: measures,
  path(node, sx, sy) {
    node.path = [...transformPath(node.path, scaling(sx, sy))];
  },
  displayText(node, sx, sy, d) {
    node.stretch = Math.min(100, Math.max(0.01, (node.stretch * sx) / sy));
    if (node.along) scaleLine(node.along, sx, sy);
    d.stories[node.story] = changeRuns(looksOf(d as Design), plain(d.stories[node.story]) as Story, 0, 0, (r, set) => ({
      ...r,
      size: Math.min(10_000, Math.max(0.1, set.size * sy)),
      ...(isPlaced(set.fill) && { fill: placedPaint(set.fill, scaling(sx, sy)) }),
    })) as (typeof d.stories)[string];
  },
  group: asItIs,
  combination: asItIs,
  repeat: asItIs,
  unknown: asItIs,
};

function resizeContent(d: DesignDraft, node: DesignDraft['nodes'][string], sx: number, sy: number): void {
  (RESIZES[node.kind] as Resize<typeof node>)(node, sx, sy, d);
  mapPaints(node, (p) => placedPaint(p, scaling(sx, sy)));
}

/** A scaling about a point, along axes turned by `angle` degrees. */
export function scalingAbout(sx: number, sy: number, about: Point, angle = 0): Matrix {
  const inner = multiply(translation(about.x, about.y), multiply(scaling(sx, sy), translation(-about.x, -about.y)));
  return angle ? multiply(rotation(angle, about), multiply(inner, rotation(-angle, about))) : inner;
}
