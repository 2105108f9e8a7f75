import Flatbush from 'flatbush';
import { distanceToPath, pathContains } from '../geometry/contains';
import type { Point } from '../geometry/matrix';
import { contains, grow, holds, overlaps, union, type Rect } from '../geometry/rect';
import type { NodeId } from '../model/tree';
import type { Item, Layer, Scene } from './scene';

/** Which part of an object lies under the pointer. */
export type Part = 'fill' | 'outline' | 'letters' | 'frame';
export interface Hit {
  readonly node: NodeId;
  readonly part: Part;
}

const indexes = new WeakMap<Scene, Flatbush | null>();
/** The boxes of a scene's items, to be searched; made when a scene is first asked. Null for an empty one. */
function indexOf(scene: Scene): Flatbush | null {
  let index = indexes.get(scene);
  if (index === undefined) {
    index = scene.items.length ? new Flatbush(scene.items.length) : null;
    for (const { bounds: b } of scene.items) index!.add(b.x0, b.y0, b.x1, b.y1);
    index?.finish();
    indexes.set(scene, index);
  }
  return index;
}

/** Numbers of the items whose boxes a box touches, front first. */
function itemsIn(scene: Scene, b: Rect): number[] {
  return indexOf(scene)?.search(b.x0, b.y0, b.x1, b.y1).sort((x, y) => y - x) ?? [];
}

/**
 * What lies under a point, front first, one row a node, found as it is asked for; `slack` widens lines (page points).
 * With `edges` a filled shape can be caught from just outside too, where its outline would be.
 */
export function* hitsAt(scene: Scene, p: Point, slack: number, edges = false): Generator<Hit> {
  const seen = new Set<NodeId>();
  for (const i of itemsIn(scene, { x0: p.x - slack, y0: p.y - slack, x1: p.x + slack, y1: p.y + slack })) {
    const item = scene.items[i];
    if (seen.has(item.node)) continue;
    const part = partAt(item, p, slack, edges);
    if (!part || !leftOver(item, p)) continue;
    seen.add(item.node);
    yield { node: item.node, part };
  }
}

export const hitAll = (scene: Scene, p: Point, slack: number, edges = false): Hit[] => [...hitsAt(scene, p, slack, edges)];

/** Does what cuts an item leave the point? */
function leftOver(item: Item, p: Point): boolean {
  for (let l: Layer | null = item.layer ?? null; l; l = l.parent) if (!l.clips.every((c) => pathContains(c.path, c.rule, p))) return false;
  return true;
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
  const near = new Set(itemsIn(scene, box).map((i) => scene.items[i].node));
  for (const item of scene.items) {
    if (!near.has(item.node)) continue;
    const known = boxes.get(item.node);
    boxes.set(item.node, known ? union(known, item.bounds) : item.bounds);
  }
  return [...boxes].filter(([, b]) => (enclosed ? contains(box, b) : overlaps(box, b))).map(([id]) => id);
}
