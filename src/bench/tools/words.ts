import { placeOn } from '@/core/derive/alongLine';
import { setAlong, setBend } from '@/core/edit/display';
import { apply, invert, meanScale } from '@/core/geometry/matrix';
import type { Along } from '@/core/model/schema';
import type { Frame } from '../view/frame';
import { bendAt, type BendPart } from '../view/wordGrips';
import { shown } from './shown';
import type { Gesture, PointerAt, ToolContext } from './tool';

/** The pointer must come so far to the other side of a line (CSS pixels) before the words do. */
const OVER = 24;

/** A tilt of less than this is none, while it is dragged. */
const STILL = 0.03;

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

const SAID: Readonly<Record<BendPart, string>> = {
  strength: 'bend',
  tiltX: 'tilt across',
  tiltY: 'tilt up',
};

/** Bends words more or less, or tilts them; a tilt stays none within a little of the middle. */
export function dragBend(c: ToolContext, start: PointerAt, frame: Frame, part: BendPart): Gesture | null {
  const { session: s } = c;
  const id = frame.single;
  const node = id ? s.design.nodes[id] : null;
  const back = invert(frame.matrix);
  if (!id || node?.kind !== 'displayText' || !node.bend || !back) return null;
  const first = bendAt(s, node, part, apply(back, start.page));
  const was = node.bend[part] ?? 0;
  return shown(
    c,
    () => (part === 'strength' ? 'Bend' : 'Tilt'),
    (p: PointerAt) => {
      const now = was + bendAt(s, node, part, apply(back, p.page)) - first;
      const near = part !== 'strength' && Math.abs(now) < STILL ? 0 : now;
      const value = Math.min(1, Math.max(-1, Math.round(near * 100) / 100));
      return {
        recipe: (d) => setBend(d, [id], { [part]: value }),
        says: `${SAID[part]} ${Math.round(value * 100)} %`,
      };
    },
    undefined,
    [id],
  );
}
