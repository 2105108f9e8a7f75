import type { Page } from '../model/schema';
import { pageById, topmost, type NodeId } from '../model/tree';
import { before, type DesignDraft } from './history';
import { leaveStory } from './thread';

/** The list that holds a node: its page's or its group's. */
export function siblings(d: DesignDraft, pageId: string, parent: NodeId | null): string[] {
  if (parent === null) {
    const page = pageById(d, pageId);
    if (!page) throw new Error(`unknown page: ${pageId}`);
    return page.children;
  }
  const node = d.nodes[parent];
  if (!('children' in node)) throw new Error(`${parent} holds no objects`);
  return node.children;
}

/** Puts another list in its place. */
export function setSiblings(d: DesignDraft, pageId: string, parent: NodeId | null, list: string[]): void {
  if (parent === null) pageById(d, pageId)!.children = list;
  else (d.nodes[parent] as Extract<DesignDraft['nodes'][string], { children: unknown }>).children = list;
}

/** Who holds each node of a page: null for the page itself. One walk answers for any number of nodes. */
export function holdersOn(d: DesignDraft, pageId: string): Map<NodeId, NodeId | null> {
  const holders = new Map<NodeId, NodeId | null>();
  const visit = (ids: readonly NodeId[], by: NodeId | null) => {
    for (const id of ids) {
      holders.set(id, by);
      const node = d.nodes[id];
      if ('children' in node) visit(node.children, id);
    }
  };
  visit(siblings(d, pageId, null), null);
  return holders;
}

/** Takes nodes out of the lists that hold them. Answers the holders that were emptied of something. */
export function takeOut(
  d: DesignDraft,
  pageId: string,
  ids: readonly NodeId[],
  holders: ReadonlyMap<NodeId, NodeId | null>,
): Set<NodeId> {
  const gone = new Set(ids);
  const from = new Set(ids.map((id) => holders.get(id) ?? null));
  for (const holder of from)
    setSiblings(
      d,
      pageId,
      holder,
      siblings(d, pageId, holder).filter((id) => !gone.has(id)),
    );
  from.delete(null);
  return from as Set<NodeId>;
}

/** Removes nodes with all they hold, and groups that this leaves empty. */
export function deleteNodes(d: DesignDraft, page: Page, ids: readonly NodeId[]): void {
  const top = topmost(
    before(d),
    page,
    ids.filter((id) => d.nodes[id]),
  );
  const holders = holdersOn(d, page.id);
  const from = takeOut(d, page.id, top, holders);
  for (const id of top) dropSubtree(d, id);
  removeEmptied(d, page.id, from, holders);
}

/** Removes a node from the design with all it holds, its words too; the list that named it is not touched. */
export function dropSubtree(d: DesignDraft, id: NodeId): void {
  const node = d.nodes[id];
  if ('children' in node) node.children.forEach((c) => dropSubtree(d, c));
  if ('story' in node) leaveStory(d, node.story, id);
  delete d.nodes[id];
}

/** Removes the given groups where nothing is left in them, and what that leaves empty above them. */
export function removeEmptied(
  d: DesignDraft,
  pageId: string,
  groups: ReadonlySet<NodeId>,
  holders: ReadonlyMap<NodeId, NodeId | null>,
): void {
  for (const group of groups)
    for (let at: NodeId | null = group; at;) {
      const node: DesignDraft['nodes'][string] | undefined = d.nodes[at];
      // An empty layer is there to be filled.
      if (!node || !('children' in node) || node.children.length > 0 || (node.kind === 'group' && node.layer)) break;
      const above: NodeId | null = holders.get(at) ?? null;
      const list = siblings(d, pageId, above);
      list.splice(list.indexOf(at), 1);
      delete d.nodes[at];
      at = above;
    }
}
