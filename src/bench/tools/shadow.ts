import { setShadow, shadowOf } from '@/core/edit/effects';
import { meanScale } from '@/core/geometry/matrix';
import { formatLength } from '@/core/units/length';
import type { Frame } from '../view/frame';
import { shown } from './shown';
import type { Gesture, PointerAt, ToolContext } from './tool';

/** Moves the shadow of the one chosen object; with Shift along the level, the upright or the diagonals. */
export function dragShadow(c: ToolContext, start: PointerAt, frame: Frame): Gesture | null {
  const { session: s } = c;
  const id = frame.single;
  const shadow = id ? shadowOf(s.design.nodes[id]) : undefined;
  if (!id || !shadow) return null;
  const by = Math.max(meanScale(frame.matrix), 1e-6);
  const { unit } = s.design.setup;
  return shown(
    c,
    () => 'Move the shadow',
    (p) => {
      let [dx, dy] = [shadow.dx + (p.page.x - start.page.x) / by, shadow.dy + (p.page.y - start.page.y) / by];
      if (p.shift) {
        const step = Math.PI / 4;
        const angle = Math.round(Math.atan2(dy, dx) / step) * step;
        const far = Math.hypot(dx, dy);
        [dx, dy] = [far * Math.cos(angle), far * Math.sin(angle)];
      }
      return {
        recipe: (d) => setShadow(d, [id], { dx, dy }),
        says: `shadow ${formatLength(dx, unit)} right, ${formatLength(dy, unit)} down`,
      };
    },
    undefined,
    [id],
  );
}
