import { placeOn } from '@/core/derive/alongLine';
import { setAlong, setBend } from '@/core/edit/display';
import { apply, invert, meanScale } from '@/core/geometry/matrix';
import type { Along } from '@/core/model/schema';
import type { Frame } from '../view/frame';
import { strengthAt } from '../view/wordGrips';
import { shown } from './shown';
import type { Gesture, PointerAt, ToolContext } from './tool';

/** The pointer must come so far to the other side of a line (CSS pixels) before the words do. */
const OVER = 24;

/** Moves words along their line, and to its other side where the pointer goes well across it. */
export function dragAlong(c: ToolContext, frame: Frame): Gesture | null {
  const { session: s } = c;
  const id = frame.single;
  const node = id ? s.design.nodes[id] : null;
  const back = invert(frame.matrix);
  if (!id || node?.kind !== 'displayText' || !node.along || !back) return null;
  const { along } = node;
  const slack = OVER / Math.max(1e-6, meanScale(frame.matrix) * s.state.camera.scale);
  return shown(
    c,
    () => 'Move words along their line',
    (p: PointerAt) => {
      const own = apply(back, p.page);
      let line: Along = along;
      let place = placeOn(line, own);
      if (place?.across && place.distance > slack) {
        line = { ...along, reversed: !along.reversed };
        place = placeOn(line, own);
      }
      const at = place?.at ?? along.at;
      return {
        recipe: (d) => setAlong(d, [id], { at, reversed: line.reversed || undefined }),
        says: `at ${Math.round(at * 1000) / 10} % of the line${line.reversed ? ', other side' : ''}`,
      };
    },
    undefined,
    [id],
  );
}

/** Bends words more or less. */
export function dragBend(c: ToolContext, start: PointerAt, frame: Frame): Gesture | null {
  const { session: s } = c;
  const id = frame.single;
  const node = id ? s.design.nodes[id] : null;
  const back = invert(frame.matrix);
  if (!id || node?.kind !== 'displayText' || !node.bend || !back) return null;
  const first = strengthAt(s, node, apply(back, start.page).y);
  const { strength: was } = node.bend;
  return shown(
    c,
    () => 'Bend',
    (p: PointerAt) => {
      const now = was + strengthAt(s, node, apply(back, p.page).y) - first;
      const strength = Math.min(1, Math.max(-1, Math.round(now * 100) / 100));
      return { recipe: (d) => setBend(d, [id], { strength }), says: `bend ${Math.round(strength * 100)} %` };
    },
    undefined,
    [id],
  );
}
