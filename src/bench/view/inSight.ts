import type { Point } from '@/core/geometry/matrix';
import { union, type Rect } from '@/core/geometry/rect';
import { bleedRect } from '@/core/scene/scene';
import { BENCH_TOP } from '../session/focus';
import type { Session } from '../session/session';
import { fitRect, toScreen } from './camera';
import { facingOf, facingSeen } from './facing';

/** The whole sheet with its bleed, and the one that faces it. */
export function wholeSpread(session: Session): Rect {
  const sheet = bleedRect(session.setup);
  const facing = facingOf(session);
  return facing ? union(sheet, facingSeen(session, facing)) : sheet;
}

/** Shows the whole sheet; where pages face each other, both. */
export function fitPage(session: Session): void {
  const el = document.getElementById(BENCH_TOP);
  if (!el) return;
  session.set({ camera: fitRect(wholeSpread(session), el.clientWidth, el.clientHeight) });
}

/** Moves the sheet so that a place of it is in sight; or, if asked, in the middle. */
export function bringIntoSight(session: Session, at: Point, middle = false): void {
  const el = document.getElementById(BENCH_TOP);
  if (!el) return;
  const { camera } = session.state;
  const p = toScreen(camera, at);
  const room = 40;
  if (!middle && p.x > room && p.y > room && p.x < el.clientWidth - room && p.y < el.clientHeight - room) return;
  session.set({
    camera: { ...camera, x: camera.x + el.clientWidth / 2 - p.x, y: camera.y + el.clientHeight / 2 - p.y },
  });
}
