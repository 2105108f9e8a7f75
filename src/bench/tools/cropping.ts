import { isText } from '@/core/derive/layout';
import { paintAt, type Aim } from '@/core/edit/aims';
import { isLocked } from '@/core/model/tree';
import type { Session } from '../session/session';

/** Goes to work inside an object's picture, if it has one that is no tile. */
export function beginCrop(s: Session, id: string, aim?: Aim): boolean {
  const node = s.design.nodes[id];
  if (!node || s.state.readOnly || isLocked(s.design, s.page, id)) return false;
  const aims: readonly Aim[] = aim ? [aim] : isText(node) ? ['letters', 'frame'] : ['fill', 'outline'];
  const found = aims.find((a) => {
    const p = paintAt(s.design, id, a);
    return p?.kind === 'picture' && !p.tile;
  });
  if (!found) return false;
  s.select([id], { crop: { node: id, aim: found }, aim: found, tool: 'select', stop: null });
  s.say('Drag the picture in its frame, a dot to size it, a bracket to crop. Wheel: zoom. Enter: done.');
  return true;
}

export function endCrop(s: Session): void {
  if (!s.state.crop) return;
  s.set({ crop: null });
  s.say('The crop stays adjustable: double-click the picture again.');
}
