import type { Point } from '../geometry/matrix';
import { intersect, type Rect } from '../geometry/rect';
import type { StrokeStyle } from '../geometry/stroke';
import type { NodeId } from '../model/tree';
import { makeGroup, type Group, type Leaf, type Part, type Scene } from './scene';

/** The groups that a leaf lies in, the innermost first; null for the page itself. */
export type Within = { readonly group: Group; readonly outer: Within | null } | null;
/** Leaves are met back to front; who answers false is asked no more. */
export type Visit = (leaf: Leaf, within: Within) => boolean | void;

/**
 * The one way through a scene, or a part of it. With `masks` those parts are met too that only mask others, before what
 * they mask.
 */
export function walk(root: Group, visit: Visit, { masks = false } = {}, within: Within = null): boolean {
  if (masks) for (const mask of root.masks) if (!walk(mask.root, visit, { masks }, within)) return false;
  for (const part of root.content) {
    if (part.type !== 'group') {
      if (visit(part, within) === false) return false;
    } else if (!walk(part, visit, { masks }, { group: part, outer: within })) return false;
  }
  return true;
}

/**
 * Counts how often each group is met, masks left out; what lies in one that was met before is not gone through again.
 */
export function meetGroups(root: Group, met: Map<Group, number> = new Map()): Map<Group, number> {
  const times = met.get(root) ?? 0;
  met.set(root, times + 1);
  if (!times) for (const part of root.content) if (part.type === 'group') meetGroups(part, met);
  return met;
}

/**
 * All paints that a scene is painted with, and whose they are: those of its leaves and of its effects. Masks are left
 * out.
 */
export function walkPaints(root: Group, visit: (paint: Leaf['paint'], node: NodeId) => void): void {
  for (const e of root.effects) visit(e.paint, root.node);
  for (const part of root.content) {
    if (part.type === 'group') walkPaints(part, visit);
    else visit(part.paint, part.node);
  }
}

/** The first leaf, masks left out, of which this holds. */
export function findLeaf(root: Group, holds: (leaf: Leaf) => boolean): Leaf | null {
  let found: Leaf | null = null;
  walk(root, (leaf) => {
    if (holds(leaf)) found = leaf;
    return found === null;
  });
  return found;
}
/** Is there a leaf for which something holds? */
export const someLeaf = (root: Group, holds: (leaf: Leaf) => boolean): boolean => findLeaf(root, holds) !== null;

/** What the groups round a leaf leave of its ink. */
export function seenBounds(leaf: Leaf, within: Within): Rect {
  let box = leaf.inkBounds;
  for (let w = within; w; w = w.outer) box = intersect(box, w.group.inkBounds);
  return box;
}

/** A scene of other content: for showing, or measuring, some of it. */
export const withContent = (scene: Scene, content: readonly Part[]): Scene => ({
  ...scene,
  root: makeGroup({ ...scene.root, content }),
});

/**
 * Parts with their leaves made others, or left out (null); groups that nothing is left in go too. `effects` are the
 * groups' then.
 */
export function mapLeaves(
  content: readonly Part[],
  map: (leaf: Leaf) => Leaf | null,
  effects: (g: Group) => Group['effects'] = (g) => g.effects,
): Part[] {
  const out: Part[] = [];
  for (const part of content) {
    if (part.type !== 'group') {
      const leaf = map(part);
      if (leaf) out.push(leaf);
      continue;
    }
    const inner = mapLeaves(part.content, map, effects);
    if (inner.length) out.push(makeGroup({ ...part, effects: effects(part), content: inner }));
  }
  return out;
}

/** What some nodes put on the page, in the groups that it lies in. */
export function partsOf(scene: Scene, nodes: ReadonlySet<NodeId>): Part[] {
  const mine = (leaf: Leaf) => (nodes.has(leaf.node) ? leaf : null);
  if (nodes.size > FEW) return mapLeaves(scene.root.content, mine);
  const places = placesOf(scene);
  const at = new Set<number>();
  for (const node of nodes) {
    const found = places.get(node);
    if (typeof found === 'number') at.add(found);
    else for (const i of found ?? []) at.add(i);
  }
  const parts = [...at].sort((a, b) => a - b).map((i) => scene.root.content[i]);
  return mapLeaves(parts, mine);
}
/** More nodes than this are looked for one by one. */
const FEW = 200;

type Places = Map<NodeId, number | number[]>;
const known = new WeakMap<Scene, Places>();
/** Where in the page's own list a node's leaves lie, mostly at one place; made when a scene is first asked. */
function placesOf(scene: Scene): Places {
  let places = known.get(scene);
  if (places) return places;
  places = new Map();
  const put = (node: NodeId, i: number) => {
    const at = places!.get(node);
    if (at === undefined) places!.set(node, i);
    else if (typeof at !== 'number') at.push(i);
    else if (at !== i) places!.set(node, [at, i]);
  };
  for (const [i, part] of scene.root.content.entries()) {
    if (part.type !== 'group') put(part.node, i);
    else walk(part, (leaf) => put(leaf.node, i));
  }
  known.set(scene, places);
  return places;
}

/** Where two pictures of a page differ: the bounds of parts that came, went or changed place in the pile. */
export function changedArea(before: readonly Part[], after: readonly Part[]): Rect {
  const area = { x0: Infinity, y0: Infinity, x1: -Infinity, y1: -Infinity };
  const add = ({ x0, y0, x1, y1 }: Rect) => {
    if (x0 < area.x0) area.x0 = x0;
    if (y0 < area.y0) area.y0 = y0;
    if (x1 > area.x1) area.x1 = x1;
    if (y1 > area.y1) area.y1 = y1;
  };
  if (before.length === after.length) {
    for (let i = 0; i < after.length; i++) {
      if (before[i] === after[i]) continue;
      const [was, now] = [before[i], after[i]];
      if (was.type === 'group' && now.type === 'group' && sameShell(was, now))
        add(changedArea(was.content, now.content));
      else {
        add(was.paintBounds);
        add(now.paintBounds);
      }
    }
    return area;
  }
  const old = new Set(before);
  const now = new Set(after);
  for (const part of after) if (!old.has(part)) add(part.paintBounds);
  for (const part of before) if (!now.has(part)) add(part.paintBounds);
  return area;
}

/**
 * By how much all that lies on a page was moved, if it is what it was and nothing was left behind; null for any other
 * change. Of what is cut, masked or has an effect nothing is said.
 */
export function movedBy(before: readonly Part[], after: readonly Part[]): Point | null {
  if (!after.length || before.length !== after.length) return null;
  let by: Point | null = null;
  for (let i = 0; i < after.length; i++) {
    const [was, now] = [before[i], after[i]];
    if (was.type === 'group' || now.type === 'group' || was.paint !== now.paint || !sameForm(was, now)) return null;
    const [a, b] = [was.placed.toPage, now.placed.toPage];
    if (a[0] !== b[0] || a[1] !== b[1] || a[2] !== b[2] || a[3] !== b[3]) return null;
    by ??= { x: b[4] - a[4], y: b[5] - a[5] };
    if (Math.abs(b[4] - a[4] - by.x) > 1e-6 || Math.abs(b[5] - a[5] - by.y) > 1e-6) return null;
  }
  return by;
}

function sameForm(a: Leaf, b: Leaf): boolean {
  if (a.placed.own !== b.placed.own) return false;
  if (a.type === 'fill') return b.type === 'fill' && a.rule === b.rule;
  return a.type === 'stroke' && b.type === 'stroke' && sameStroke(a.stroke, b.stroke);
}
const sameStroke = (a: StrokeStyle, b: StrokeStyle): boolean =>
  a.width === b.width &&
  a.cap === b.cap &&
  a.join === b.join &&
  a.miterLimit === b.miterLimit &&
  sameDash(a.dash, b.dash);
const sameDash = (a: StrokeStyle['dash'], b: StrokeStyle['dash']): boolean =>
  a === b || (a !== undefined && b !== undefined && a.offset === b.offset && sameList(a.lengths, b.lengths));

const sameList = (a: readonly unknown[], b: readonly unknown[]): boolean =>
  a.length === b.length && a.every((x, i) => x === b[i]);
/** Do they treat what they hold alike? */
const sameShell = (a: Group, b: Group): boolean =>
  a.opacity === b.opacity &&
  a.blend === b.blend &&
  !a.effects.length &&
  !b.effects.length &&
  sameList(a.clips, b.clips) &&
  sameList(a.masks, b.masks);
