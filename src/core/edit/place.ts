import { isPlaced } from '../model/paints';
import {
  apply,
  applyVector,
  determinant,
  invert,
  multiply,
  rotation,
  scaling,
  translation,
  type Matrix,
  type Point,
} from '../geometry/matrix';
import { transformPath } from '../geometry/path';
import { scaledEffect } from '../model/effects';
import { own } from '../model/own';
import type { Arrangement, Design, NodeKind, Outline, Page, Paint, Story } from '../model/schema';
import { shapeById } from '../shapes/catalogue';
import { parentMatrix, topmost, type NodeId } from '../model/tree';
import { before, plain, type DesignDraft } from './history';
import { looksOf } from './textPlace';
import { changeRuns } from './text';
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

/** What grows with an object that is sized; what does not keeps its measure. */
export interface Growing {
  /** Weights of outlines, their dashes and all else of them. */
  readonly lines: boolean;
  /** Radii of treated corners. */
  readonly corners: boolean;
  /** Gradients, pools, pictures and patterns of fills and outlines. */
  readonly paints: boolean;
  /** Lengths of shadows and depths. */
  readonly effects: boolean;
}
export const GROWING: Growing = { lines: false, corners: false, paints: true, effects: false };

/**
 * Takes nodes through a scaling of the page: widths, heights and letter sizes change, transforms only as far as they
 * must, and what else is told to grow.
 */
export function scaleNodes(
  d: DesignDraft,
  page: Page,
  ids: readonly NodeId[],
  map: Matrix,
  growing: Growing = GROWING,
): void {
  const was = before(d);
  for (const id of topmost(was, page, ids)) {
    const outer = parentMatrix(was, page, id);
    const back = invert(outer);
    if (back) scaleInParent(d, id, multiply(back, multiply(map, outer)), growing);
  }
}

/** Takes nodes through a scaling of the space they lie in. */
export function scaleIn(d: DesignDraft, ids: readonly NodeId[], map: Matrix, growing: Growing = GROWING): void {
  for (const id of ids) scaleInParent(d, id, map, growing);
}

function scaleInParent(d: DesignDraft, id: NodeId, map: Matrix, growing: Growing): void {
  const node = d.nodes[id];
  const m = node.transform as Matrix;
  if (growing.effects && node.effects) {
    const by = Math.sqrt(Math.abs(determinant(map)));
    node.effects = node.effects.map((e) => scaledEffect(e, by)) as typeof node.effects;
  }
  if (growing.effects && 'depth' in node && node.depth) node.depth.length *= Math.sqrt(Math.abs(determinant(map)));
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
    for (const child of node.children) scaleInParent(d, child, inside, growing);
    if (node.kind === 'group' && node.regions)
      node.regions.areas = node.regions.areas.map((a) => ({
        paint: growing.paints ? (placedPaint(a.paint as Paint, inside) as typeof a.paint) : a.paint,
        path: [...transformPath(a.path, inside)],
      }));
    if (node.kind === 'combination') {
      if (growing.paints) mapPaints(node, (p) => placedPaint(p, inside));
      if (growing.lines) scaleLines(node, Math.sqrt(Math.abs(determinant(inside))));
    }
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
  resizeContent(d, node, sx, sy, growing);
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

function resizeContent(
  d: DesignDraft,
  node: DesignDraft['nodes'][string],
  sx: number,
  sy: number,
  growing: Growing,
): void {
  (RESIZES[node.kind] as Resize<typeof node>)(node, sx, sy, d);
  if (growing.paints) mapPaints(node, (p) => placedPaint(p, scaling(sx, sy)));
  const by = Math.sqrt(sx * sy);
  if (growing.lines) {
    scaleLines(node, by);
    // Letters of a frame keep their size, and so their lines.
    if (node.kind === 'displayText') changeLetterLines(d, node.story, by);
  }
  if (growing.corners) scaleCorners(node, by);
}

/** Lines so many times as heavy, and all lengths of theirs with them. */
function scaleLines(node: DesignDraft['nodes'][string], by: number): void {
  if ('outlines' in node) node.outlines = node.outlines.map((o) => grownLine(o as Outline, by)) as typeof node.outlines;
  if ('letterOutlines' in node && node.letterOutlines)
    node.letterOutlines = node.letterOutlines.map((o) => grownLine(o as Outline, by)) as typeof node.letterOutlines;
}

function changeLetterLines(d: DesignDraft, story: string, by: number): void {
  d.stories[story] = changeRuns(looksOf(d as Design), plain(d.stories[story]) as Story, 0, 0, (r, set) => ({
    ...r,
    ...(set.outline && { outline: grownLine(set.outline, by) }),
  })) as (typeof d.stories)[string];
}

function grownLine(o: Outline, by: number): Outline {
  const { dashes, dashOffset, away, wobble } = o;
  return {
    ...o,
    width: o.width * by,
    ...(dashes && { dashes: dashes.map((v) => v * by) }),
    ...(dashOffset !== undefined && { dashOffset: dashOffset * by }),
    ...(away !== undefined && { away: away * by }),
    ...(wobble && { wobble: { ...wobble, strength: wobble.strength * by, wave: Math.max(0.5, wobble.wave * by) } }),
  };
}

function scaleCorners(node: DesignDraft['nodes'][string], by: number): void {
  if ('corners' in node && node.corners) {
    const { all, each } = node.corners;
    if (all) all.radius *= by;
    for (const c of Object.values(each ?? {})) c.radius *= by;
  }
  // Radii that a dialled shape has among its measures.
  if (node.kind === 'shape')
    for (const p of shapeById(node.shape)?.params ?? [])
      if (p.letter === 'r' && p.unit === 'length' && own(node.knobs, p.id) !== undefined)
        node.knobs[p.id] = Math.min(p.max, node.knobs[p.id] * by);
}

/** A scaling about a point, along axes turned by `angle` degrees. */
export function scalingAbout(sx: number, sy: number, about: Point, angle = 0): Matrix {
  const inner = multiply(translation(about.x, about.y), multiply(scaling(sx, sy), translation(-about.x, -about.y)));
  return angle ? multiply(rotation(angle, about), multiply(inner, rotation(-angle, about))) : inner;
}
