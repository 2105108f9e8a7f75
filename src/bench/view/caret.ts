import { apply, invert, multiply, type Point } from '@/core/geometry/matrix';
import type { Session } from '../session/session';
import { screenMatrix, textFrameOf } from './frame';

/** Top and bottom of the caret on the screen. */
export function caretLine(s: Session): [Point, Point] | null {
  const e = s.state.editing;
  const t = e && textFrameOf(s, e.node);
  if (!e || !t) return null;
  const m = multiply(screenMatrix(s.state.camera), t.matrix);
  // At a soft break the caret stands at the start of the next line.
  const line =
    [...t.layout.lines].reverse().find((l) => l.start <= e.focus && e.focus <= l.end) ??
    t.layout.lines[t.layout.lines.length - 1];
  const stop = line.carets.reduce(
    (best, c) => (Math.abs(c.offset - e.focus) < Math.abs(best.offset - e.focus) ? c : best),
    line.carets[0],
  );
  return [apply(m, { x: stop.x, y: line.top }), apply(m, { x: stop.x, y: line.bottom })];
}

/** The text offset nearest to a page point. */
export function offsetAt(s: Session, node: string, p: Point): number {
  const t = textFrameOf(s, node);
  const back = t && invert(t.matrix);
  if (!t || !back) return 0;
  const q = apply(back, p);
  const line = t.layout.lines.reduce(
    (best, l) => (distanceY(l, q.y) < distanceY(best, q.y) ? l : best),
    t.layout.lines[0],
  );
  return line.carets.reduce((best, c) => (Math.abs(c.x - q.x) < Math.abs(best.x - q.x) ? c : best), line.carets[0])
    .offset;
}

const distanceY = (l: { top: number; bottom: number }, y: number): number =>
  y < l.top ? l.top - y : y > l.bottom ? y - l.bottom : 0;
