import { intersect, isEmpty, type Rect } from '../geometry/rect';
import type { Design, Page } from '../model/schema';
import { topmost, withDescendants, type NodeId } from '../model/tree';
import { bleedRect, type Scene } from '../scene/scene';
import { partsOf, withContent } from '../scene/walk';

/** Some objects of a page, alone, and what of the page they take. */
export interface Cut {
  /** What they are called, as a file may be, each otherwise. */
  readonly name: string;
  readonly scene: Scene;
  readonly box: Rect;
}

/**
 * Chosen objects as they lie on their page, without all else: together, or `each` by itself under its own name. Shadows
 * and the like are part of them; what lies off the sheet is not. What shows nothing is left out.
 */
export function cutsOf(design: Design, page: Page, scene: Scene, ids: readonly NodeId[], each: boolean): Cut[] {
  const roots = topmost(design, page, ids);
  const sets = each ? roots.map((id) => [id]) : roots.length ? [roots] : [];
  const taken = new Map<string, number>();
  return sets.flatMap((set) => {
    const alone = withContent(scene, partsOf(scene, new Set(set.flatMap((id) => withDescendants(design, id)))));
    const box = intersect(alone.root.paintBounds, bleedRect(scene));
    if (isEmpty(box) || !(box.x1 > box.x0) || !(box.y1 > box.y0)) return [];
    const wanted = (each ? design.nodes[set[0]].name : '') || (each ? 'Object' : design.name);
    const times = (taken.get(wanted.toLowerCase()) ?? 0) + 1;
    taken.set(wanted.toLowerCase(), times);
    return [{ name: times > 1 ? `${wanted} ${times}` : wanted, scene: { ...alone, round: false }, box }];
  });
}
