import { multiply, translation } from '../geometry/matrix';
import { setupOn } from '../model/setupOn';
import { pageById, spreadOf, type NodeId } from '../model/tree';
import type { Design, Page } from '../model/schema';
import { plain, type DesignDraft } from './history';

/**
 * Gives objects that lie on a page itself to the page that faces it: they stay where they are on the spread, above all
 * else there. Answers that page's id; null where none faces it.
 */
export function giveAcross(d: DesignDraft, pageId: string, ids: readonly NodeId[]): string | null {
  const design = plain(d) as Design;
  const page = pageById(design, pageId) as Page;
  const spread = spreadOf(design, page);
  if (!spread?.other) return null;
  const left = spread.side === 'left' ? page : spread.other;
  const { width } = setupOn(design, left);
  const by = spread.side === 'left' ? -width : width;
  const [from, to] = [pageById(d, pageId)!, pageById(d, spread.other.id)!];
  const going = from.children.filter((id) => ids.includes(id));
  from.children = from.children.filter((id) => !ids.includes(id));
  to.children = [...to.children, ...going];
  for (const id of going) d.nodes[id].transform = [...multiply(translation(by, 0), design.nodes[id].transform)];
  return spread.other.id;
}
