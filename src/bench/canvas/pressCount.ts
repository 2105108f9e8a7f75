import type { Point } from '@/core/geometry/matrix';

/** Presses that follow each other faster than this, and nearer, belong together. */
const SOON_MS = 450;
const NEAR_PX = 5;

/** Counts presses at one place: one, double, triple. */
export class PressCount {
  private last: { readonly at: Point; readonly when: number; readonly n: number } | null = null;

  count(at: Point, when = performance.now()): number {
    const { last } = this;
    const goesOn =
      last !== null && when - last.when < SOON_MS && Math.hypot(at.x - last.at.x, at.y - last.at.y) < NEAR_PX;
    const n = goesOn ? (last.n % 3) + 1 : 1;
    this.last = { at, when, n };
    return n;
  }
}
