import { threadOf } from '@/core/derive/layout';
import { caretEnds, lineAt, offsetAt as nearest, stopAt } from '@/core/text/caret';
import type { Layout } from '@/core/text/layout';
import { apply, invert, multiply, type Matrix, type Point } from '@/core/geometry/matrix';
import { isText } from '@/core/derive/layout';
import { pageOf } from '@/core/model/tree';
import type { Session } from '../session/session';
import { screenMatrix, textFrameOf } from './frame';

interface Shown {
  readonly id: string;
  readonly layout: Layout;
  /** From layout space to the page. */
  readonly matrix: Matrix;
}

/** A text where it is shown on the page at hand: in each of the frames that it runs through. */
export function shownIn(s: Session, id: string): Shown[] {
  const node = s.design.nodes[id];
  if (!node || !isText(node)) return [];
  const frames = threadOf(s.design, node)?.map((f) => f.id) ?? [id];
  return frames.flatMap((f) => {
    if (f !== id && pageOf(s.design, f)?.id !== s.page.id) return [];
    const t = textFrameOf(s, f);
    return t ? [{ id: f, layout: t.layout, matrix: t.matrix }] : [];
  });
}

/** Is it one text, shown in both? */
export function sameText(s: Session, a: string, b: string): boolean {
  const [x, y] = [s.design.nodes[a], s.design.nodes[b]];
  return a === b || (x && y && isText(x) && isText(y) && x.story === y.story);
}

/** The upper and the lower end of the caret on the screen. */
export function caretLine(s: Session): [Point, Point] | null {
  const e = s.state.editing;
  if (!e) return null;
  const shown = shownIn(s, e.node);
  // Where one frame ends and the next begins, the caret stands at the head of the next.
  const t =
    shown.findLast(({ layout }) => layout.lines.some((l) => l.start <= e.focus && e.focus <= l.end)) ??
    shown[shown.length - 1];
  const line = t && lineAt(t.layout, e.focus);
  if (!line) return null;
  const m = multiply(screenMatrix(s.state.camera), t.matrix);
  const [a, b] = caretEnds(t.layout, line, stopAt(line, e.focus));
  return [apply(m, a), apply(m, b)];
}

/** The text offset nearest to a page point; of a text in several frames, in the one that the point lies in. */
export function offsetAt(s: Session, node: string, p: Point): number {
  const shown = shownIn(s, node);
  const t = shown.find(({ id }) => inFrame(s, id, p)) ?? shown.find(({ id }) => id === node);
  const back = t && invert(t.matrix);
  return t && back ? nearest(t.layout, apply(back, p)) : 0;
}

function inFrame(s: Session, id: string, p: Point): boolean {
  const { x0, y0, x1, y1 } = s.boxOf([id]);
  return p.x >= x0 && p.x <= x1 && p.y >= y0 && p.y <= y1;
}
