import type { Point } from '@/core/geometry/matrix';
import type { Rect } from '@/core/geometry/rect';
import type { Page } from '@/core/model/schema';
import { setupOn } from '@/core/model/setupOn';
import { spreadOf } from '@/core/model/tree';
import { bleedRect, trimRect } from '@/core/scene/scene';
import type { Session } from '../session/session';

/** The page that faces the one at work: both are shown, and pressed on it takes the work over. */

export interface Facing {
  readonly page: Page;
  /** Where its left edge lies, in points of the page at work. */
  readonly x: number;
}

/** The page that faces the one at work; null where none does. */
export function facingOf(s: Session): Facing | null {
  const spread = spreadOf(s.design, s.page);
  if (!spread?.other) return null;
  const { other, side } = spread;
  return { page: other, x: side === 'left' ? s.setup.width : -setupOn(s.design, other).width };
}

/** What is seen of the sheet at work: at the fold it ends where the other begins. */
export function sheetSeen(s: Session): Rect {
  const { setup } = s;
  const sheet = s.state.view === 'clean' ? trimRect(setup) : bleedRect(setup);
  const facing = facingOf(s);
  if (!facing) return sheet;
  return facing.x > 0 ? { ...sheet, x1: setup.width } : { ...sheet, x0: 0 };
}

/** What is seen of the page that faces it, in points of the page at work. */
export function facingSeen(s: Session, { x, page }: Facing): Rect {
  const setup = setupOn(s.design, page);
  const { x0, y0, y1, x1 } = s.state.view === 'clean' ? trimRect(setup) : bleedRect(setup);
  return x > 0 ? { x0: x, x1: x + x1, y0, y1 } : { x0: x + x0, x1: 0, y0, y1 };
}

/** Does a place of the page at work lie on the page that faces it? */
export function onFacing(s: Session, p: Point): Facing | null {
  const facing = facingOf(s);
  if (!facing) return null;
  const { x0, y0, x1, y1 } = facingSeen(s, facing);
  return p.x >= x0 && p.x <= x1 && p.y >= y0 && p.y <= y1 ? facing : null;
}
