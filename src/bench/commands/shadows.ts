import { localBox } from '@/core/derive/box';
import { newShadow, setShadow, shadowOf } from '@/core/edit/effects';
import { isEmpty } from '@/core/geometry/rect';
import { mm } from '@/core/units/length';
import { freeSelection } from '../session/commandDef';
import type { Session } from '../session/session';

/** By which a new shadow is measured: an object's smaller side, in points of its own. */
export function smallerSide(s: Session, id: string): number {
  const box = localBox(s.design, s.design.nodes[id], s.engines.fonts);
  return isEmpty(box) ? mm(20) : Math.min(box.x1 - box.x0, box.y1 - box.y0);
}

/** Gives what is chosen a shadow, or points colours at the one that it has. */
export function giveShadow(s: Session): void {
  const ids = freeSelection(s);
  const bare = ids.filter((id) => !shadowOf(s.design.nodes[id]));
  if (bare.length)
    s.commit('Give a shadow', (d) => setShadow(d, bare, {}, (id) => newShadow(s.design, smallerSide(s, id))));
  s.aimAt('shadow');
  s.say(
    'Drag the ring in the middle to move the shadow; click a colour to change its ink. Blur and strength are in Details, under Finish.',
  );
}
