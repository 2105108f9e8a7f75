import type { Session } from '../session/session';
import type { PointerAt } from './tool';

/** How near to a guide a press takes it (pixels). */
const GUIDE_PX = 3;

/** The guide under the pointer that may be moved, by its number. */
export function guideAt(s: Session, at: PointerAt): { index: number; axis: 'x' | 'y' } | null {
  const reach = GUIDE_PX / s.state.camera.scale;
  const index = (s.page.guides ?? []).findIndex((g) => !g.locked && Math.abs(at.page[g.axis] - g.at) <= reach);
  return index < 0 ? null : { index, axis: s.page.guides![index].axis };
}
