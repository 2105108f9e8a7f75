import { IDENTITY } from '../geometry/matrix';
import type { Design, NodeOf, Page } from '../model/schema';
import { parentOf, topHoldersOf, type NodeId } from '../model/tree';
import { copyNodes, pasteClip } from './clip';
import { before, type DesignDraft } from './history';
import { groupNodes, orderNodes, reparentNode } from './pile';

/** How much of a reference is seen at first. */
const DIMMED = 0.4;

/**
 * The references of a page: layers that are shown and never printed, those that are put away among them; the front one
 * last.
 */
export const referencesOn = (d: Design, page: Page): readonly NodeOf<'group'>[] =>
  topHoldersOf(d, page).flatMap((id) => {
    const node = d.nodes[id];
    return node?.kind === 'group' && node.proof ? [node] : [];
  });

/**
 * Makes objects the reference that others are traced over: a layer of their own that is dimmed, locked and never
 * printed. Answers its id.
 */
export function traceNodes(d: DesignDraft, page: Page, ids: readonly NodeId[], newId: () => string): NodeId | null {
  const id = groupNodes(d, page, ids, newId, 'Reference');
  if (!id) return null;
  // Nothing about it changes its place: it only stands at the top level now.
  if (parentOf(before(d), page, ids[0]) !== null) {
    const sheet = [...d.pages, ...(d.masters ?? [])].find((p) => p.id === page.id)!;
    if (!sheet.children.includes(id)) reparentNode(d, page, id, null, sheet.children.length);
  }
  const layer = d.nodes[id] as Extract<DesignDraft['nodes'][string], { kind: 'group' }>;
  layer.layer = true;
  layer.proof = true;
  layer.locked = true;
  layer.opacity = DIMMED;
  return id;
}

/** The same of all that lies on another page: a copy of it, below what is on this one. */
export function tracePage(d: DesignDraft, page: Page, other: Page, newId: () => string): NodeId | null {
  const clip = copyNodes(before(d), other, other.children);
  if (!clip) return null;
  const ids = pasteClip(d, page.id, clip, newId, IDENTITY);
  // Layers of the other page are groups within this one.
  for (const id of ids) {
    const node = d.nodes[id];
    if (node.kind === 'group') {
      delete node.layer;
      delete node.proof;
    }
  }
  const now = { ...page, children: [...page.children, ...ids] };
  const made = traceNodes(d, now, ids, newId);
  if (made) orderNodes(d, now, [made], 'back');
  return made;
}
