import { QuickPainter } from '@/core/render/quick';
import { afterPaint } from './afterPaint';
import type { Session } from './session';

/** Pools, box gradients and those that follow a line; they are flat till its script is there. */
const bitmaps = afterPaint(() => import('@/core/render/bitmaps'));

/** A painter that knows the pictures of a session. */
export function newPainter(session: Session): QuickPainter {
  if (!bitmaps.now)
    void bitmaps.get().then(
      () => session.set({ picturesEpoch: session.state.picturesEpoch + 1 }),
      () => {
        // Without it they stay flat; what rests is drawn by the press worker.
      },
    );
  return new QuickPainter({
    picture: (paint, palette) => session.pictures.get(paint, palette),
    bitmaps: () => bitmaps.now?.BITMAPS ?? null,
  });
}

const painters = new WeakMap<Session, QuickPainter>();
/** The painter of a session's small pictures. */
export function painterOf(session: Session): QuickPainter {
  let painter = painters.get(session);
  if (!painter) painters.set(session, (painter = newPainter(session)));
  return painter;
}
