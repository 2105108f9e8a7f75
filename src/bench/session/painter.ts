import { QuickPainter } from '@/core/render/quick';
import type { Session } from './session';

const painters = new WeakMap<Session, QuickPainter>();

/** The painter of a session's small pictures. */
export function painterOf(session: Session): QuickPainter {
  let painter = painters.get(session);
  if (!painter) {
    painter = new QuickPainter({ picture: (paint, palette) => session.pictures.get(paint, palette) });
    painters.set(session, painter);
  }
  return painter;
}
