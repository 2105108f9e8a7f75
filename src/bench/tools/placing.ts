import type { PasteInto } from '@/core/edit/clip';
import type { DesignDraft } from '@/core/edit/history';
import { addNode } from '@/core/edit/pile';
import { invert, multiply } from '@/core/geometry/matrix';
import type { DesignNode } from '@/core/model/schema';
import { ancestry, pageMatrix, parentOf } from '@/core/model/tree';
import type { Session } from '../session/session';

/** The group or layer that is worked in, into which new things go; null for the page. */
function workingIn(s: Session): string | null {
  const { design, page } = s;
  if (!s.state.entered) return null;
  return (
    ancestry(design, page, s.state.entered).findLast(
      (id) => design.nodes[id].kind === 'group' && !design.nodes[id].locked,
    ) ?? null
  );
}

/** Where copies of the selection go: beside it, in the group or combination that holds it; null for the page. */
export function besideSelection(s: Session): PasteInto | null {
  const { design, page } = s;
  const parents = new Set(s.state.selection.filter((id) => design.nodes[id]).map((id) => parentOf(design, page, id)));
  const [parent] = parents;
  if (parents.size !== 1 || !parent) return null;
  const back = invert(pageMatrix(design, page, parent));
  return back && { parent, back };
}

/** Puts a new object, given in page space, where one works. */
export function putNode(d: DesignDraft, s: Session, node: DesignNode): void {
  const parent = workingIn(s);
  const back = parent ? invert(pageMatrix(s.state.design, s.page, parent)) : null;
  addNode(
    d,
    s.page.id,
    back ? ({ ...node, transform: multiply(back, node.transform) } as DesignNode) : node,
    back ? parent : null,
  );
}
