import Flatbush from 'flatbush';
import { distanceToPath, pathContains } from '../geometry/contains';
import { apply, invert, type Matrix, type Point } from '../geometry/matrix';
import { contains, grow, holds, isEmpty, overlaps, union, type Rect } from '../geometry/rect';
import type { NodeId } from '../model/tree';
import type { Leaf, Scene, Words } from './scene';
import { seenBounds, someLeaf, walk, type Within } from './walk';

/** Which part of an object lies under the pointer. */
export type Part = 'fill' | 'outline' | 'letters' | 'frame';
export interface Hit {
  readonly node: NodeId;
  readonly part: Part;
}

/** What of a scene can be seen, back to front, and the boxes of it, to be searched. */
interface Index {
  readonly leaves: readonly Leaf[];
  readonly within: readonly Within[];
  readonly boxes: readonly Rect[];
  /** Null where there is nothing. */
  readonly tree: Flatbush | null;
}
const indexes = new WeakMap<Scene, Index>();
/** Made when a scene is first asked. */
function indexOf(scene: Scene): Index {
  const known = indexes.get(scene);
  if (known) return known;
  const [leaves, within, boxes]: [Leaf[], Within[], Rect[]] = [[], [], []];
  walk(scene.root, (leaf, groups) => {
    if ((leaf.type === 'fill' && leaf.fixed) || isFixed(groups)) return;
    const box = seenBounds(leaf, groups);
    if (isEmpty(box)) return;
    leaves.push(leaf);
    within.push(groups);
    boxes.push(box);
  });
  const tree = leaves.length ? new Flatbush(leaves.length) : null;
  for (const b of boxes) tree!.add(b.x0, b.y0, b.x1, b.y1);
  tree?.finish();
  const index = { leaves, within, boxes, tree };
  indexes.set(scene, index);
  return index;
}

/** Does a leaf lie in what is not the page's own? */
function isFixed(within: Within): boolean {
  for (let w = within; w; w = w.outer) if (w.group.fixed) return true;
  return false;
}

/** Numbers of the leaves whose boxes a box touches, front first. */
function leavesIn({ tree }: Index, b: Rect): number[] {
  return tree?.search(b.x0, b.y0, b.x1, b.y1).sort((x, y) => y - x) ?? [];
}

/**
 * What lies under a point, front first, one row a node, found as it is asked for; `slack` widens lines (page points).
 * With `edges` a filled shape can be caught from just outside too, where its outline would be.
 */
export function* hitsAt(scene: Scene, p: Point, slack: number, edges = false): Generator<Hit> {
  const seen = new Set<NodeId>();
  const index = indexOf(scene);
  for (const i of leavesIn(index, { x0: p.x - slack, y0: p.y - slack, x1: p.x + slack, y1: p.y + slack })) {
    const leaf = index.leaves[i];
    if (seen.has(leaf.node)) continue;
    const part = partAt(leaf, p, slack, edges);
    if (!part || !leftOver(index.within[i], p)) continue;
    seen.add(leaf.node);
    yield { node: leaf.node, part };
  }
}

/** All that lies under a point of the page, front first: see `hitsAt`. */
export const hitAll = (scene: Scene, p: Point, slack: number, edges = false): Hit[] => [
  ...hitsAt(scene, p, slack, edges),
];

/** Does what cuts the groups leave the point? */
function leftOver(within: Within, p: Point): boolean {
  for (let w = within; w; w = w.outer) if (!w.group.clips.every((c) => pathContains(c.path, c.rule, p))) return false;
  return true;
}

function partAt(leaf: Leaf, p: Point, slack: number, edges: boolean): Part | null {
  switch (leaf.type) {
    case 'fill':
      if (leaf.words) return wordsAt(leaf.words, p) ? 'letters' : null;
      return pathContains(leaf.placed.path, leaf.rule, p) || (edges && distanceToPath(leaf.placed.path, p) <= slack)
        ? leaf.line
          ? 'outline'
          : 'fill'
        : null;
    case 'stroke':
      if (leaf.words) return wordsAt(leaf.words, p) ? 'letters' : null;
      return distanceToPath(leaf.placed.path, p) <= Math.max(leaf.stroke.width / 2, slack) ? 'outline' : null;
    case 'glyphs':
      // Letters are caught by their line's box: thin strokes would be hard to hit.
      return !leaf.glyphs.some((g) => g.turn) || wordsAt(leaf, p) ? 'letters' : null;
  }
}

/** Letters that stand each its own way are caught by the box of each: pen to pen, and as high as the face reaches. */
function wordsAt({ face, size, layout, glyphs }: Words, p: Point): boolean {
  const back = invert(layout);
  if (!back) return false;
  const q = apply(back, p);
  const [up, down] = [(face.ascender / face.upem) * size, (-face.descender / face.upem) * size];
  return glyphs.some(({ x, y, advance, turn = [1, 0, 0, 1] }) => {
    const own = invert([...turn, x, y] as unknown as Matrix);
    const at = own && apply(own, q);
    return at !== null && at.x >= -advance * 0.1 && at.x <= advance * 1.1 && at.y >= -up && at.y <= down;
  });
}

/** Is the point on the edge of a node's geometry? Decides between fill and outline when a card is dropped. */
export function nearEdge(scene: Scene, node: NodeId, p: Point, slack: number): boolean {
  const near = (leaf: Leaf) =>
    distanceToPath(leaf.placed.path, p) <= Math.max(slack, leaf.type === 'stroke' ? leaf.stroke.width / 2 : 0);
  return someLeaf(
    scene.root,
    (leaf) => leaf.node === node && leaf.type !== 'glyphs' && holds(grow(leaf.inkBounds, slack), p) && near(leaf),
  );
}

/** Nodes whose box touches (or lies inside) a marquee. */
export function nodesIn(scene: Scene, box: Rect, enclosed: boolean): NodeId[] {
  const boxes = new Map<NodeId, Rect>();
  const index = indexOf(scene);
  const near = new Set(leavesIn(index, box).map((i) => index.leaves[i].node));
  for (const [i, { node }] of index.leaves.entries()) {
    if (!near.has(node)) continue;
    const known = boxes.get(node);
    boxes.set(node, known ? union(known, index.boxes[i]) : index.boxes[i]);
  }
  return [...boxes].filter(([, b]) => (enclosed ? contains(box, b) : overlaps(box, b))).map(([id]) => id);
}
