import { onFacing } from '../view/facing';
import { gripAt } from '../view/frame';
import type { Session } from '../session/session';
import { pick } from './pick';
import type { PointerAt } from './tool';

/** A press on the page that faces this one takes the work over there, unless something of this page lies there. */
export function acrossTheFold(s: Session, p: PointerAt, again: () => PointerAt): PointerAt {
  const facing = onFacing(s, p.page);
  if (!facing || gripAt(s, p.screen) || pick(s, p)) return p;
  s.goToPage(facing.page.id);
  // The spread stays where it is; the same place has other measures now.
  return again();
}
