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

/** What of a bend is dragged: how strong it is, which end is nearer, whether head or foot is. */
export type BendPart = 'strength' | 'tiltX' | 'tiltY';
export const BEND_PARTS: readonly BendPart[] = ['strength', 'tiltX', 'tiltY'];

/** The handles of a bend stand this share of the words' height off words that are not bent yet. */
const OFF = 0.35;

/**
 * Where a handle of a bend stands: that of its strength over the middle of the words, a height of theirs further off at
 * full strength; below the middle the one that goes to the end that is nearer; beside their end the one that goes up or
 * down.
 */
export function bendHandle(s: Session, node: Text, part: BendPart): Point {
  const { x, top, wide, height } = unbent(s, node);
  const value = node.bend?.[part] ?? 0;
  switch (part) {
    case 'strength':
      return { x, y: top - height * (OFF + value) };
    case 'tiltX':
      return { x: x + (value * wide) / 2, y: top + height * (1 + OFF) };
    case 'tiltY':
      return { x: x + wide / 2 + height * OFF, y: top + height * (0.5 - value) };
  }
}

/** What of a bend its handle stands for at a place, −1…1. */
export function bendAt(s: Session, node: Text, part: BendPart, p: Point): number {
  const { x, top, wide, height } = unbent(s, node);
  const value = {
    strength: (top - p.y) / height - OFF,
    tiltX: (2 * (p.x - x)) / wide,
    tiltY: 0.5 - (p.y - top) / height,
  }[part];
  return Math.min(1, Math.max(-1, value));
}

/** The middle, head and measures of the words without their bend, as they are stretched. */
function unbent(s: Session, node: Text) {
  const { bend: _, ...bare } = node;
  const l = layoutOf(s.design, bare, s.engines.fonts);
  const k = node.along ? 1 : node.stretch;
  return {
    x: ((l.x0 + l.x1) / 2) * k,
    top: l.top,
    wide: Math.max(1, (l.x1 - l.x0) * k),
    height: Math.max(1, l.bottom - l.top),
  };
}
