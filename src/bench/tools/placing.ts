import type { DesignDraft } from '@/core/edit/history';
import { addNode } from '@/core/edit/place';
import { invert, multiply } from '@/core/geometry/matrix';
import type { DesignNode } from '@/core/model/schema';
import { ancestry, pageMatrix } from '@/core/model/tree';
import type { Session } from '../session/session';

/** The group or layer that is worked in, into which new things go; null for the page. */
function workingIn(s: Session): string | null {
  const { design, page } = s;
  if (!s.state.entered) return null;
  return ancestry(design, page, s.state.entered).findLast((id) => design.nodes[id].kind === 'group' && !design.nodes[id].locked) ?? null;
}

/** Puts a new object, given in page space, where one works. */
export function putNode(d: DesignDraft, s: Session, node: DesignNode): void {
  const parent = workingIn(s);
  const back = parent ? invert(pageMatrix(s.state.design, s.page, parent)) : null;
  addNode(d, s.page.id, back ? ({ ...node, transform: multiply(back, node.transform) } as DesignNode) : node, back ? parent : null);
}
