import { areaOf } from '@/core/derive/area';
import { isText } from '@/core/derive/layout';
import { baselines } from '@/core/geometry/pageLines';
import {
  crossings,
  objectSnapLines,
  pageSnapLines,
  snapBox,
  snapGaps,
  snapPoints,
  snapValues,
  type SnapLine,
  type SnapLines,
  type SnapPoint,
} from '@/core/geometry/snap';
import { nearestOnContours } from '@/core/geometry/measure';
import { COORDS, flatten, transformPath, type PathData } from '@/core/geometry/path';
import { contoursOf, type Contour } from '@/core/geometry/segments';
import { centre, isEmpty, overlaps, type Rect } from '@/core/geometry/rect';
import { childrenOf, guidesOn, isHolder, pageMatrix } from '@/core/model/tree';
import { formatLength } from '@/core/units/length';
import type { Point } from '@/core/geometry/matrix';
import type { Session } from '../session/session';
import type { Snapping } from '../session/state';
import type { PointerAt, ToolContext } from './tool';
import { clearSnap } from './ending';
import { SNAP_PX } from './tool';

/** More neighbours than this would only be a thicket of lines; more nodes than this would slow a drag. */
const MOST_NEIGHBOURS = 300;
const MOST_NODES = 4000;
/** Outlines whose crossings are looked for, and how many of these. */
const CROSSING_OUTLINES = 40;
const MOST_CROSSINGS = 400;
/** Lines of a baseline grid that lie closer than this (CSS pixels) are not snapped to. */
const CLOSEST_LINES = 14;
/** A moving thing with more nodes than this snaps by its box. */
const MOST_OWN_NODES = 40;

/** All that a gesture can snap to, found once when it begins. */
export interface SnapTargets {
  readonly lines: SnapLines;
  readonly boxes: readonly Rect[];
  readonly places: readonly SnapPoint[];
  readonly outlines: readonly (readonly Contour[])[];
}

/** The page’s own lines, guides, and what the objects that stay have to offer, as far as snapping is switched on. */
export function targetsFor(c: ToolContext, moving: readonly string[]): SnapTargets {
  const { session: s } = c;
  const { design, page } = s;
  const { snapping, entered } = s.state;
  const key = `${page.id} ${entered} ${moving.join()}`;
  const known = found.get(design);
  if (known && known.key === key && known.snapping === snapping) return known.targets;
  const targets = findTargets(s, moving);
  found.set(design, { key, snapping, targets });
  return targets;
}

/** A pen asks at every move of the pointer: what was found holds as long as the design does. */
const found = new WeakMap<object, { key: string; snapping: Snapping; targets: SnapTargets }>();

function findTargets(s: Session, moving: readonly string[]): SnapTargets {
  const { page, setup } = s;
  const { snapping, camera } = s.state;
  const own = pageSnapLines(setup);
  const lines = { x: [...own.x], y: [...own.y] };
  if (snapping.guides)
    for (const { guide: g } of guidesOn(s.design, page)) lines[g.axis].push({ at: g.at, label: 'guide' });
  // Lines that lie closer would catch everything.
  if (snapping.guides && setup.baseline && setup.baseline.step * camera.scale >= CLOSEST_LINES)
    for (const at of baselines(setup)) lines.y.push({ at, label: 'baseline' });
  const boxes: Rect[] = [];
  const places: SnapPoint[] = [];
  const outlines: Contour[][] = [];
  const flats: { points: readonly number[]; closed: boolean; box: Rect }[] = [];
  for (const { id, box } of neighbours(s, moving)) {
    boxes.push(box);
    const mid = centre(box);
    if (snapping.edges) places.push({ x: mid.x, y: mid.y, label: 'centre' });
    if (!snapping.nodes || places.length > MOST_NODES) continue;
    for (const path of outlinesOf(s, id)) {
      nodesOn(path, places);
      const contours = contoursOf(path);
      outlines.push(contours);
      if (flats.length < CROSSING_OUTLINES)
        for (const f of flatten(path, 0.02)) if (f.points.length < 1000) flats.push({ ...f, box });
    }
  }
  if (snapping.nodes) places.push(...crossingPlaces(flats));
  const others = snapping.edges ? objectSnapLines(boxes) : { x: [], y: [] };
  return { lines: { x: [...lines.x, ...others.x], y: [...lines.y, ...others.y] }, boxes, places, outlines };
}

/** What lies beside the moving things and can be seen. */
function neighbours(s: Session, moving: readonly string[]): { id: string; box: Rect }[] {
  const { design, page } = s;
  const still = new Set(moving);
  const { bleed, width, height } = s.setup;
  const sheet: Rect = { x0: -bleed, y0: -bleed, x1: width + bleed, y1: height + bleed };
  const entered = s.state.entered && design.nodes[s.state.entered];
  const out: { id: string; box: Rect }[] = [];
  for (const id of entered && isHolder(entered) ? entered.children : page.children) {
    if (out.length >= MOST_NEIGHBOURS) break;
    if (still.has(id) || design.nodes[id].hidden) continue;
    const box = s.boxOf([id]);
    if (!isEmpty(box) && overlaps(box, sheet)) out.push({ id, box });
  }
  return out;
}

/** The outlines of an object on the page; those of a group are its members’. Letters are too many to snap to. */
function outlinesOf(s: Session, id: string): PathData[] {
  const { design, page } = s;
  const node = design.nodes[id];
  if (isText(node)) return [];
  if (node.kind === 'group') return childrenOf(node).flatMap((c) => (design.nodes[c].hidden ? [] : outlinesOf(s, c)));
  return [transformPath(areaOf(design, id, s.engines.fonts, true).region.path, pageMatrix(design, page, id))];
}

function nodesOn(path: PathData, out: SnapPoint[]): void {
  for (let i = 0; i < path.length && out.length < MOST_NODES; i += 1 + COORDS[path[i]]) {
    const n = COORDS[path[i]];
    if (n) out.push({ x: path[i + n - 1], y: path[i + n], label: 'node' });
  }
}

function crossingPlaces(flats: readonly { points: readonly number[]; closed: boolean; box: Rect }[]): SnapPoint[] {
  const out: SnapPoint[] = [];
  for (let i = 0; i < flats.length; i++)
    for (let j = i + 1; j < flats.length; j++) {
      if (out.length >= MOST_CROSSINGS) return out;
      const [a, b] = [flats[i], flats[j]];
      if (overlaps(a.box, b.box))
        for (const p of crossings(a.points, b.points, a.closed, b.closed, 50)) out.push({ ...p, label: 'crossing' });
    }
  return out;
}

export interface SnapResult {
  readonly dx: number;
  readonly dy: number;
  readonly said: string;
}
const FREE: SnapResult = { dx: 0, dy: 0, said: '' };

/** Few nodes of what moves, so that it can be put node on node; none where it has many. */
export function ownNodes(s: Session, ids: readonly string[]): Point[] {
  if (!s.state.snapping.nodes) return [];
  const out: SnapPoint[] = [];
  for (const id of ids) {
    for (const path of outlinesOf(s, id)) nodesOn(path, out);
    if (out.length > MOST_OWN_NODES) return [];
  }
  return out;
}

/** Snaps a moving box, shows what it snapped to, and says it. Ctrl or Cmd suspends it. */
export function snapMoving(
  c: ToolContext,
  box: Rect,
  targets: SnapTargets,
  at: PointerAt,
  own: readonly Point[] = [],
): SnapResult {
  clearSnap(c);
  if (at.mod) return FREE;
  const { session: s } = c;
  const reach = SNAP_PX / s.state.camera.scale;
  const place = snapPoints(own, targets.places, reach);
  if (place) {
    c.extras.snapPoint = place.place;
    return { dx: place.dx, dy: place.dy, said: ` · at ${place.place.label}` };
  }
  const snapped = snapBox(box, gridded(s, targets.lines, [box.x0, box.x1], [box.y0, box.y1]), reach);
  const words: string[] = [];
  const axis = (key: 'x' | 'y', line: SnapLine | null, shift: number): number => {
    if (line) {
      c.extras[key === 'x' ? 'snapX' : 'snapY'] = line.at;
      words.push(line.label);
      return shift;
    }
    const gap = s.state.snapping.spacing ? snapGaps(box, targets.boxes, key, reach) : null;
    if (!gap) return 0;
    c.extras.gaps = [
      ...c.extras.gaps,
      ...gap.stretches.map((g) =>
        key === 'x'
          ? { x0: g.from, x1: g.to, y0: g.across, y1: g.across }
          : { x0: g.across, x1: g.across, y0: g.from, y1: g.to },
      ),
    ];
    words.push(`equal gaps of ${formatLength(gap.gap, s.design.setup.unit, 1)}`);
    return gap.shift;
  };
  const dx = axis('x', snapped.x, snapped.dx);
  const dy = axis('y', snapped.y, snapped.dy);
  return { dx, dy, said: said(words) };
}

/** Snaps a point: to a place, to lines, else to an outline. `extra`: lines of this gesture alone. */
export function snapPoint(
  c: ToolContext,
  p: Point,
  targets: SnapTargets,
  at: PointerAt,
  extra: Partial<SnapLines> = {},
): { point: Point; said: string } {
  clearSnap(c);
  if (at.mod) return { point: p, said: '' };
  const { session: s } = c;
  const reach = SNAP_PX / s.state.camera.scale;
  const place = snapPoints([p], targets.places, reach);
  if (place) {
    c.extras.snapPoint = place.place;
    return { point: { x: place.place.x, y: place.place.y }, said: ` · at ${place.place.label}` };
  }
  const lines = gridded(s, targets.lines, [p.x], [p.y]);
  const x = snapValues([p.x], [...lines.x, ...(extra.x ?? [])], reach);
  const y = snapValues([p.y], [...lines.y, ...(extra.y ?? [])], reach);
  if (!x.line && !y.line) {
    const edge = nearestOutline(targets, p, reach);
    if (edge) {
      c.extras.snapPoint = { ...edge, label: 'edge' };
      return { point: edge, said: ' · on edge' };
    }
  }
  c.extras.snapX = x.line?.at ?? null;
  c.extras.snapY = y.line?.at ?? null;
  return {
    point: { x: p.x + x.shift, y: p.y + y.shift },
    said: said([x.line?.label, y.line?.label].filter((w) => w !== undefined)),
  };
}

function nearestOutline(targets: SnapTargets, p: Point, reach: number): Point | null {
  let best: { point: Point; distance: number } | null = null;
  for (const outline of targets.outlines) {
    const n = nearestOnContours(outline, p);
    if (n && n.distance <= reach && (!best || n.distance < best.distance)) best = n;
  }
  return best && best.point;
}

/** The lines of the grid next to the values, where it is on. */
function gridded(s: Session, lines: SnapLines, xs: readonly number[], ys: readonly number[]): SnapLines {
  const { snapping } = s.state;
  if (!snapping.grid || !(snapping.step > 0)) return lines;
  const near = (v: number): SnapLine => ({ at: Math.round(v / snapping.step) * snapping.step, label: 'grid' });
  return { x: [...lines.x, ...xs.map(near)], y: [...lines.y, ...ys.map(near)] };
}

/** An angle on a multiple of `step` within two degrees of it; the same angle otherwise. */
export function snapAngle(degrees: number, step: number, at: PointerAt): number {
  if (at.mod) return degrees;
  const near = Math.round(degrees / step) * step;
  return at.shift || Math.abs(degrees - near) < 2 ? near : degrees;
}

function said(words: readonly string[]): string {
  const once = [...new Set(words)];
  return once.length ? ` · at ${once.join(' and ')}` : '';
}
