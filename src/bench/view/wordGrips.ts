import { trackFor } from '@/core/derive/alongLine';
import { layoutOf } from '@/core/derive/layout';
import type { Point } from '@/core/geometry/matrix';
import type { NodeOf } from '@/core/model/schema';
import type { Session } from '../session/session';

/** Handles of words that stand on a line or are bent; places in the text's own space. */

type Text = NodeOf<'displayText'>;

/** Where words on a line stand on it; null where they stand on none. */
export function alongHandle({ along }: Text): Point | null {
  const track = along && trackFor(along);
  if (!track) return null;
  const { x, y } = track.at(along.at * track.length);
  return { x, y };
}

/** The handle of a bend stands this share of their height over words that are not bent yet. */
const OVER = 0.35;

/** Where the handle of a bend stands: over the middle of the words, a height of theirs further off at full strength. */
export function bendHandle(s: Session, node: Text): Point {
  const { x, top, height } = unbent(s, node);
  return { x: x * (node.along ? 1 : node.stretch), y: top - height * (OVER + (node.bend?.strength ?? 0)) };
}

/** The strength of a bend whose handle was dragged to a height. */
export function strengthAt(s: Session, node: Text, y: number): number {
  const { top, height } = unbent(s, node);
  return Math.min(1, Math.max(-1, (top - y) / height - OVER));
}

/** The middle, head and height of the words without their bend. */
function unbent(s: Session, node: Text): { readonly x: number; readonly top: number; readonly height: number } {
  const { bend: _, ...bare } = node;
  const l = layoutOf(s.design, bare, s.engines.fonts);
  return { x: (l.x0 + l.x1) / 2, top: l.top, height: Math.max(1, l.bottom - l.top) };
}
