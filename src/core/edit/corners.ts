import { bisector, cornersOf, type CornerStyle, type PathCorner } from '../geometry/corners';
import type { Point } from '../geometry/matrix';
import type { Corner, Corners, Design, DesignNode, NodeOf } from '../model/schema';
import type { NodeId } from '../model/tree';
import { shapeById, shapePath } from '../shapes/catalogue';
import { cornerStyles } from '../shapes/outline';
import type { DesignDraft } from './history';

/** Nodes whose corners can be treated. */
export type CornerNode = NodeOf<'shape'> | NodeOf<'path'>;
/** Is it a shape or path with corners that can be treated? */
export const hasCorners = (n: DesignNode): n is CornerNode =>
  (n.kind === 'shape' || n.kind === 'path') && cornersOf(sharpPath(n)).length > 0;

/** The line before any corner is treated; a shape with radii of its own keeps those. */
const sharpPath = (n: CornerNode) => (n.kind === 'path' ? n.path : shapePath(n.shape, n.knobs, n.width, n.height));

/** Does the shape round its own corners by its knobs? Then only what is made of them is told by `corners`. */
export const roundsItself = (n: CornerNode): boolean =>
  n.kind === 'shape' && (shapeById(n.shape)?.params.some((p) => p.letter === 'r') ?? false);

export interface TreatedCorner extends PathCorner {
  readonly style: CornerStyle;
}

/** The corners of a node and what is made of each; a radius of 0 (points) where nothing is. */
export function treatedCorners(n: CornerNode): TreatedCorner[] {
  const style = cornerStyles(n.corners);
  return cornersOf(sharpPath(n)).map((c) => ({
    ...c,
    style: style(c.node) ?? { radius: 0, kind: n.corners?.all?.kind ?? 'round' },
  }));
}

/** How far from the corner its treatment comes nearest to it, as a multiple of the radius. */
function depth(c: PathCorner, kind: Corner['kind']): number {
  const half = ((180 - c.turns) * Math.PI) / 360;
  if (kind === 'scoop') return 1;
  if (kind === 'cut') return Math.cos(half);
  return Math.max(1 / Math.sin(half) - 1, 0.02);
}

/** Where the handle of a corner stands: on what is made of it, inwards. */
export function cornerHandle(c: TreatedCorner): Point {
  const way = bisector(c);
  const far = depth(c, c.style.kind) * c.style.radius;
  return { x: c.at.x + way.x * far, y: c.at.y + way.y * far };
}

/** The radius that puts a corner's handle nearest to a point. */
export function radiusAt(c: TreatedCorner, p: Point): number {
  const way = bisector(c);
  const along = (p.x - c.at.x) * way.x + (p.y - c.at.y) * way.y;
  return Math.max(0, along / depth(c, c.style.kind));
}

/** Gives all corners, or one by its node, a radius or a kind; what is not given stays. */
export function setCorners(
  d: DesignDraft,
  ids: readonly NodeId[],
  which: number | 'all',
  change: Partial<Corner>,
): void {
  for (const id of ids) {
    const node = d.nodes[id] as Design['nodes'][string];
    if (node.kind !== 'shape' && node.kind !== 'path') continue;
    const next = changed(node.corners, which, change);
    const target = d.nodes[id] as { corners?: Corners };
    if (next) target.corners = next;
    else delete target.corners;
  }
}

function changed(old: Corners | undefined, which: number | 'all', change: Partial<Corner>): Corners | undefined {
  const all: Corner = { radius: 0, kind: 'round', ...old?.all };
  if (which === 'all') {
    // What one corner was told by itself goes with the rest, except for a kind given to all that keeps their radii.
    const each =
      change.radius === undefined && old?.each
        ? Object.fromEntries(Object.entries(old.each).map(([k, c]) => [k, { ...c, ...change }]))
        : undefined;
    const next = { ...all, ...change };
    return next.radius === 0 && next.kind === 'round' && !each ? undefined : { all: next, ...(each && { each }) };
  }
  const own: Corner = { ...all, ...old?.each?.[which], ...change };
  return { ...(old?.all && { all: old.all }), each: { ...old?.each, [which]: own } };
}
