import { multiply, type Matrix } from '../geometry/matrix';
import type { Design, DesignNode, NodeOf, Page } from './schema';

export type NodeId = string;

/** Nodes that hold others: groups, combinations and repeats. */
export type Holder = Extract<DesignNode, { children: readonly NodeId[] }>;
export const isHolder = (node: DesignNode): node is Holder => 'children' in node;
/** A combination whose operands are not seen themselves: it has their paint. A division's are. */
export const hidesOperands = (node: DesignNode): node is NodeOf<'combination'> => node.kind === 'combination' && node.op !== 'divide';

export function childrenOf(node: DesignNode): readonly NodeId[] {
  return 'children' in node ? node.children : [];
}

export function pageById(d: Design, id: string): Page | undefined {
  return d.pages.find((p) => p.id === id);
}

/** The ids of a node and everything below it, parents first. */
export function withDescendants(d: Design, id: NodeId): NodeId[] {
  const out: NodeId[] = [];
  const visit = (x: NodeId) => {
    out.push(x);
    childrenOf(d.nodes[x]).forEach(visit);
  };
  visit(id);
  return out;
}

/** From the top-level node down to `id` itself, on the given page; empty if it is not there. */
export function ancestry(d: Design, page: Page, id: NodeId): NodeId[] {
  const search = (ids: readonly NodeId[]): NodeId[] | null => {
    for (const x of ids) {
      if (x === id) return [x];
      const below = search(childrenOf(d.nodes[x]));
      if (below) return [x, ...below];
    }
    return null;
  };
  // Most questions are about top-level nodes; answer those without a walk.
  if (page.children.includes(id)) return [id];
  return search(page.children) ?? [];
}

export function pageOf(d: Design, id: NodeId): Page | undefined {
  return d.pages.find((p) => ancestry(d, p, id).length > 0);
}

/** The id of the group that holds a node, or null where it lies on the page itself. */
export function parentOf(d: Design, page: Page, id: NodeId): NodeId | null {
  const line = ancestry(d, page, id);
  return line.length > 1 ? line[line.length - 2] : null;
}

/** Maps the space in which a node's transform acts to the page. */
export function parentMatrix(d: Design, page: Page, id: NodeId): Matrix {
  return ancestry(d, page, id)
    .slice(0, -1)
    .reduce<Matrix>((m, x) => multiply(m, d.nodes[x].transform), [1, 0, 0, 1, 0, 0]);
}

/** Maps a node's own space to the page. */
export function pageMatrix(d: Design, page: Page, id: NodeId): Matrix {
  return multiply(parentMatrix(d, page, id), d.nodes[id].transform);
}

/** Of a selection, those that no other selected node contains, in pile order from back to front. */
export function topmost(d: Design, page: Page, ids: readonly NodeId[]): NodeId[] {
  const wanted = new Set(ids);
  // Most selections lie on the page itself; those are answered without a look at any node.
  const top = page.children.filter((id) => wanted.has(id));
  if (top.length === wanted.size) return top;
  const out: NodeId[] = [];
  const visit = (x: NodeId) => {
    if (wanted.has(x)) out.push(x);
    else childrenOf(d.nodes[x]).forEach(visit);
  };
  page.children.forEach(visit);
  return out;
}

export function isLocked(d: Design, page: Page, id: NodeId): boolean {
  return ancestry(d, page, id).some((x) => d.nodes[x].locked);
}
