import { distanceToPath, pathContains } from '../geometry/contains';
import type { Point } from '../geometry/matrix';
import { contains, grow, holds, overlaps, union, type Rect } from '../geometry/rect';
import type { NodeId } from '../model/tree';
import type { Item, Scene } from './scene';

/** Which part of an object lies under the pointer. */
export type Part = 'fill' | 'outline' | 'letters' | 'frame';
export interface Hit {
  readonly node: NodeId;
  readonly part: Part;
}

/**
 * What lies under a point, front first, one row a node; `slack` widens lines (page points). With `edges` a filled shape
 * can be caught from just outside too, where its outline would be.
 */
export function hitAll(scene: Scene, p: Point, slack: number, edges = false): Hit[] {
  const out: Hit[] = [];
  const seen = new Set<NodeId>();
  for (let i = scene.items.length - 1; i >= 0; i--) {
    const item = scene.items[i];
    if (seen.has(item.node) || !holds(grow(item.bounds, slack), p)) continue;
    const part = partAt(item, p, slack, edges);
    if (!part) continue;
    seen.add(item.node);
    out.push({ node: item.node, part });
  }
  return out;
}

function partAt(item: Item, p: Point, slack: number, edges: boolean): Part | null {
  switch (item.type) {
    case 'fill':
      return pathContains(item.path, item.rule, p) || (edges && distanceToPath(item.path, p) <= slack) ? (item.line ? 'outline' : 'fill') : null;
    case 'stroke':
      return distanceToPath(item.path, p) <= Math.max(item.stroke.width / 2, slack) ? 'outline' : null;
    case 'glyphs':
      // Letters are caught by their line's box: thin strokes would be hard to hit.
      return 'letters';
  }
}

/** Is the point on the edge of a node's geometry? Decides between fill and outline when a card is dropped. */
export function nearEdge(scene: Scene, node: NodeId, p: Point, slack: number): boolean {
  return scene.items.some((item) => item.node === node && item.type !== 'glyphs' && holds(grow(item.bounds, slack), p) && distanceToPath(item.path, p) <= Math.max(slack, item.type === 'stroke' ? item.stroke.width / 2 : 0));
}

/** Nodes whose box touches (or lies inside) a marquee. */
export function nodesIn(scene: Scene, box: Rect, enclosed: boolean): NodeId[] {
  const boxes = new Map<NodeId, Rect>();
  for (const item of scene.items) {
    const known = boxes.get(item.node);
    boxes.set(item.node, known ? union(known, item.bounds) : item.bounds);
  }
  return [...boxes].filter(([, b]) => (enclosed ? contains(box, b) : overlaps(box, b))).map(([id]) => id);
}
