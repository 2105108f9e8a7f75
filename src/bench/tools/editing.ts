import { deleteNodes } from '@/core/edit/place';
import { isText } from '@/core/edit/layout';
import { isLocked } from '@/core/model/tree';
import { plainText } from '@/core/text/layout';
import type { Point } from '@/core/geometry/matrix';
import { offsetAt } from '../canvas/caret';
import { backToBench } from '../session/focus';
import type { Session } from '../session/session';

/** Starts writing in a text, with the caret where it was clicked (or all of it chosen when no place is given). */
export function beginEditing(s: Session, id: string, at: Point | null): void {
  const node = s.design.nodes[id];
  if (!isText(node) || s.state.readOnly) return;
  if (isLocked(s.design, s.page, id)) {
    s.say(`${node.name || 'This text'} is locked. Unlock it in the pile to write in it.`);
    return;
  }
  const end = plainText(s.design.stories[node.story]).length;
  const offset = at ? offsetAt(s, id, at) : end;
  s.set({ selection: [id], stop: null, aim: s.state.aim === 'letterOutline' || s.state.aim === 'frame' ? s.state.aim : 'letters', editing: { node: id, anchor: at ? offset : 0, focus: offset } });
}

/** Stops writing. A text left empty is taken away: nothing invisible stays behind. */
export function endEditing(s: Session): void {
  const { editing } = s.state;
  if (!editing) return;
  s.set({ editing: null });
  // The hidden field goes; keys belong to the bench top again.
  backToBench();
  const node = s.design.nodes[editing.node];
  if (node && isText(node) && node.kind === 'displayText' && plainText(s.design.stories[node.story]).trim() === '') {
    s.commit('Remove empty text', (d) => deleteNodes(d, s.page, [editing.node]), { select: [] });
  }
}
