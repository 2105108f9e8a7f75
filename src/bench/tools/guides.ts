import { addGuides, changeGuide, removeGuides } from '@/core/edit/guides';
import type { Recipe } from '@/core/edit/history';
import { formatLength } from '@/core/units/length';
import { snapPoint, targetsFor } from './snapping';
import { clearSnap } from './ending';
import type { Gesture, PointerAt, ToolContext } from './tool';

/** Drags a guide, or a new one out of a ruler (`index` null). Let go over a ruler it is taken away. */
export function dragGuide(c: ToolContext, axis: 'x' | 'y', index: number | null): Gesture {
  const { session: s } = c;
  const page = s.page.id;
  const targets = targetsFor(c, []);
  const own = index === null ? null : s.page.guides?.[index];
  // It does not snap to itself.
  const others = {
    ...targets,
    lines: { ...targets.lines, [axis]: targets.lines[axis].filter((l) => l.label !== 'guide' || l.at !== own?.at) },
  };
  let recipe: Recipe = () => {};
  let away = true;
  const at = (p: PointerAt) => {
    away = p.screen.x < 0 || p.screen.y < 0;
    const snapped = snapPoint(c, p.page, others, p);
    c.extras[axis === 'x' ? 'snapY' : 'snapX'] = null;
    const to = snapped.point[axis];
    recipe = (d) => (index === null ? addGuides(d, page, [{ axis, at: to }]) : changeGuide(d, page, index, { at: to }));
    c.readout(
      away ? 'let go here to take the guide away' : `guide ${formatLength(to, s.design.setup.unit)}${snapped.said}`,
    );
  };
  const end = () => {
    clearSnap(c);
    c.readout(null);
  };
  return {
    move(p) {
      at(p);
      s.preview(away && index === null ? null : recipe);
    },
    release(p) {
      at(p);
      end();
      s.preview(null);
      if (!away) s.commit(index === null ? 'Add a guide' : 'Move a guide', recipe);
      else if (index !== null) s.commit('Remove a guide', (d) => removeGuides(d, page, (_, i) => i === index));
    },
    cancel() {
      s.preview(null);
      end();
    },
  };
}
