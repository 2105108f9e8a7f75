import { depthOf, setDepth } from '@/core/edit/depth';
import { meanScale } from '@/core/geometry/matrix';
import { formatLength } from '@/core/units/length';
import type { Frame } from '../view/frame';
import { middleOf } from '../view/lineKnobs';
import { shown } from './shown';
import type { Gesture, PointerAt, ToolContext } from './tool';

/** Directions that Shift keeps to, degrees. */
const STEP = 15;

/** Drags where an object is pushed to: how far and which way, or its vanishing point. */
export function dragDepth(c: ToolContext, frame: Frame): Gesture | null {
  const { session: s } = c;
  const id = frame.single;
  const depth = id ? depthOf(s.design.nodes[id]) : undefined;
  if (!id || !depth) return null;
  const middle = middleOf(frame);
  const scale = meanScale(frame.matrix) || 1;
  const { unit } = s.design.setup;
  return shown(
    c,
    () => (depth.vanish ? 'Vanishing point' : 'Depth'),
    ({ page: p, shift }: PointerAt) => {
      if (depth.vanish) {
        const vanish = { ...depth.vanish, x: p.x, y: p.y };
        return {
          recipe: (d) => setDepth(d, [id], { vanish }),
          says: `towards ${formatLength(p.x, unit)}, ${formatLength(p.y, unit)}`,
        };
      }
      const [dx, dy] = [p.x - middle.x, p.y - middle.y];
      const turn = (Math.atan2(dy, dx) * 180) / Math.PI;
      const angle = shift ? Math.round(turn / STEP) * STEP : Math.round(turn * 10) / 10;
      const far = Math.hypot(dx, dy);
      return {
        recipe: (d) => setDepth(d, [id], { angle, length: far / scale }),
        says: `${formatLength(far, unit)} deep, ${angle}°`,
      };
    },
    undefined,
    [id],
  );
}
