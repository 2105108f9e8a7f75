import { siblings, setSiblings, holdersOn, takeOut, dropSubtree, removeEmptied } from './remove';
import { invert, multiply, type Matrix } from '../geometry/matrix';
import type { Design, DesignNode, Page } from '../model/schema';
import { parentMatrix, topmost, type NodeId } from '../model/tree';
import { type DesignDraft } from './history';

/** Commands that say in what order things lie, and what holds them. */

function holderOf(d: DesignDraft, pageId: string, id: NodeId): string[] {
  const top = siblings(d, pageId, null);
  if (top.includes(id)) return top;
  for (const node of Object.values(d.nodes)) if ('children' in node && node.children.includes(id)) return node.children;
  throw new Error(`${id} lies nowhere on page ${pageId}`);
}

/** Puts a node onto a page or into a group, at `index` or in front. */
export function addNode(
  d: DesignDraft,
  pageId: string,
  node: DesignNode,
  parent: NodeId | null = null,
  index?: number,
): void {
  d.nodes[node.id] = node as DesignDraft['nodes'][string];
  const list = siblings(d, pageId, parent);
  list.splice(index ?? list.length, 0, node.id);
}

/** Puts a node just in front of another, or just behind it, in whatever holds that. */
export function putBeside(d: DesignDraft, page: Page, id: NodeId, node: DesignNode, where: 'inFront' | 'behind'): void {
  d.nodes[node.id] = node as DesignDraft['nodes'][string];
  const list = holderOf(d, page.id, id);
  list.splice(list.indexOf(id) + (where === 'inFront' ? 1 : 0), 0, node.id);
}

/**
 * Gathers nodes into one that holds them, where the front one of them lay; nothing moves. `make` gets the new id and
 * the members, back to front. Answers the id, or null for none.
 */
export function wrapNodes(
  d: DesignDraft,
  page: Page,
  ids: readonly NodeId[],
  newId: () => string,
  make: (id: NodeId, members: NodeId[]) => DesignNode,
): NodeId | null {
  const members = topmost(d as Design, page, ids);
  if (members.length === 0) return null;
  const front = members[members.length - 1];
  const holders = holdersOn(d, page.id);
  const holder = holders.get(front) ?? null;
  const outers = new Map<NodeId | null, Matrix>();
  const outerOf = (id: NodeId): Matrix => {
    const by = holders.get(id) ?? null;
    let m = outers.get(by);
    if (!m) outers.set(by, (m = parentMatrix(d as Design, page, id)));
    return m;
  };
  const back = invert(outerOf(front)) ?? ([1, 0, 0, 1, 0, 0] as Matrix);
  for (const m of members) {
    const node = d.nodes[m];
    node.transform = [...multiply(back, multiply(outerOf(m), node.transform as Matrix))];
  }
  const gone = new Set(members);
  const list = siblings(d, page.id, holder);
  const at = list.slice(0, list.indexOf(front)).filter((x) => !gone.has(x)).length;
  const from = takeOut(d, page.id, members, holders);
  const holderId = newId();
  d.nodes[holderId] = make(holderId, members) as DesignDraft['nodes'][string];
  siblings(d, page.id, holder).splice(at, 0, holderId);
  if (holder !== null) from.delete(holder);
  removeEmptied(d, page.id, from, holders);
  return holderId;
}

/** Gathers nodes into one group. Answers the group's id, or null for none. */
export function groupNodes(
  d: DesignDraft,
  page: Page,
  ids: readonly NodeId[],
  newId: () => string,
  name = 'Group',
): NodeId | null {
  return wrapNodes(d, page, ids, newId, (id, children) => ({
    id,
    name,
    kind: 'group',
    transform: [1, 0, 0, 1, 0, 0],
    hidden: false,
    locked: false,
    children,
  }));
}

/** Puts other nodes in the place of one; it goes with all it holds, but for those that are put there. */
export function replaceNode(d: DesignDraft, page: Page, id: NodeId, by: readonly DesignNode[]): void {
  const list = holderOf(d, page.id, id);
  const at = list.indexOf(id);
  dropSubtree(d, id);
  for (const node of by) d.nodes[node.id] = node as DesignDraft['nodes'][string];
  list.splice(at, 1, ...by.map((n) => n.id));
}

/**
 * Dissolves groups, combinations and repeats; what they hold stays where it is and keeps its order. Answers the freed
 * ids.
 */
export function ungroupNodes(d: DesignDraft, page: Page, ids: readonly NodeId[]): NodeId[] {
  const freed: NodeId[] = [];
  for (const id of topmost(d as Design, page, ids)) {
    const group = d.nodes[id];
    if (!('children' in group)) continue;
    const list = holderOf(d, page.id, id);
    const m = group.transform as Matrix;
    for (const id of group.children) {
      const child = d.nodes[id];
      child.transform = [...multiply(m, child.transform as Matrix)];
      // What cut its group would cut whatever lies around it now; what showed through the group shows through each.
      delete child.maskMode;
      const opacity = (child.opacity ?? 1) * (group.opacity ?? 1);
      if (opacity < 1) child.opacity = opacity;
      if (group.blend) child.blend ??= group.blend;
    }
    freed.push(...group.children);
    list.splice(list.indexOf(id), 1, ...group.children);
    delete d.nodes[id];
  }
  return freed;
}

export type OrderMove = 'front' | 'forward' | 'backward' | 'back';

/** Moves nodes within the list that holds them. */
export function orderNodes(d: DesignDraft, page: Page, ids: readonly NodeId[], move: OrderMove): void {
  const members = topmost(d as Design, page, ids);
  const holders = holdersOn(d, page.id);
  const chosen = new Set(members);
  for (const holder of new Set(members.map((m) => holders.get(m) ?? null))) {
    const list = siblings(d, page.id, holder);
    const order = [...list];
    let next: string[];
    if (move === 'front' || move === 'back') {
      const mine = order.filter((x) => chosen.has(x));
      const rest = order.filter((x) => !chosen.has(x));
      next = move === 'front' ? [...rest, ...mine] : [...mine, ...rest];
    } else {
      next = [...order];
      const step = move === 'forward' ? 1 : -1;
      const walk = next.map((_, i) => i);
      if (step > 0) walk.reverse();
      for (const i of walk) {
        const j = i + step;
        if (chosen.has(next[i]) && j >= 0 && j < next.length && !chosen.has(next[j]))
          [next[i], next[j]] = [next[j], next[i]];
      }
    }
    if (next.some((x, i) => x !== order[i])) setSiblings(d, page.id, holder, next);
  }
}

/**
 * Puts a node before another place in the pile: into `parent` (null: the page) at `index`; it stays where it is on the
 * page.
 */
export function reparentNode(d: DesignDraft, page: Page, id: NodeId, parent: NodeId | null, index: number): void {
  const holders = holdersOn(d, page.id);
  for (let at: NodeId | null = parent; at; at = holders.get(at) ?? null) if (at === id) return; // a group cannot lie in itself
  const matrix = multiply(parentMatrix(d as Design, page, id), d.nodes[id].transform as Matrix);
  const holder = holders.get(id) ?? null;
  const from = siblings(d, page.id, holder);
  const i = from.indexOf(id);
  from.splice(i, 1);
  siblings(d, page.id, parent).splice(holder === parent && i < index ? index - 1 : index, 0, id);
  const outer =
    parent === null
      ? ([1, 0, 0, 1, 0, 0] as Matrix)
      : multiply(parentMatrix(d as Design, page, parent), d.nodes[parent].transform as Matrix);
  const back = invert(outer);
  if (back) d.nodes[id].transform = [...multiply(back, matrix)];
  if (holder !== null) removeEmptied(d, page.id, new Set([holder]), holders);
}

/** Hides, locks or names nodes. */
export function setNodeFlags(
  d: DesignDraft,
  ids: readonly NodeId[],
  flags: { hidden?: boolean; locked?: boolean; name?: string },
): void {
  for (const id of ids) Object.assign(d.nodes[id], flags);
}
