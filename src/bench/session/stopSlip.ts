import type { Point } from '@/core/geometry/matrix';
import type { Session } from './session';

/** Opens the recipe of a stop or pool beside a place of the bench top. */
export function openStop(s: Session, index: number, at: Point): void {
  s.set({ stop: index, stopSlip: { x: at.x, y: at.y } });
}
