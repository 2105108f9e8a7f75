import { isEmpty, centre } from '@/core/geometry/rect';
import { isLocked } from '@/core/model/tree';
import { hitAll } from '@/core/scene/hit';
import { toScreen } from '../view/camera';
import type { Session } from '../session/session';
import { NEAR_PX } from './tool';

/** Lists what lies under the pointer, or under the middle of the selection where the pointer is elsewhere. */
export function openPileHere(s: Session): void {
  const { camera, selection } = s.state;
  const box = s.boxOf(selection);
  const at = s.pointer?.page ?? (isEmpty(box) ? null : centre(box));
  if (!at) {
    s.say('Put the pointer where objects lie on each other, then press Q.');
    return;
  }
  const ids = hitAll(s.scene(), at, NEAR_PX / camera.scale)
    .map((h) => h.node)
    .filter((id) => !isLocked(s.design, s.page, id));
  if (!ids.length) s.say('Nothing lies here that could be chosen.');
  else s.set({ pileHere: { ...toScreen(camera, at), ids } });
}
