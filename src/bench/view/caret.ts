import { caretEnds, lineAt, offsetAt as nearest, stopAt } from '@/core/text/caret';
import { apply, invert, multiply, type Point } from '@/core/geometry/matrix';
import type { Session } from '../session/session';
import { screenMatrix, textFrameOf } from './frame';

/** The upper and the lower end of the caret on the screen. */
export function caretLine(s: Session): [Point, Point] | null {
  const e = s.state.editing;
  const t = e && textFrameOf(s, e.node);
  const line = t && lineAt(t.layout, e!.focus);
  if (!e || !t || !line) return null;
  const m = multiply(screenMatrix(s.state.camera), t.matrix);
  const [a, b] = caretEnds(t.layout, line, stopAt(line, e.focus));
  return [apply(m, a), apply(m, b)];
}

/** The text offset nearest to a page point. */
export function offsetAt(s: Session, node: string, p: Point): number {
  const t = textFrameOf(s, node);
  const back = t && invert(t.matrix);
  return t && back ? nearest(t.layout, apply(back, p)) : 0;
}
