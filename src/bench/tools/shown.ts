import type { Recipe } from '@/core/edit/history';
import { far, type Gesture, type PointerAt, type ToolContext } from './tool';

/**
 * A gesture that shows a recipe as the pointer moves and keeps it on release; a press without a move does nothing.
 * `only`: the objects that it changes, where it changes nothing else.
 */
export function shown(
  c: ToolContext,
  label: () => string,
  at: (p: PointerAt) => { recipe: Recipe; says: string },
  after?: () => void,
  only?: readonly string[],
): Gesture {
  const { session: s } = c;
  let first: PointerAt | null = null;
  let moved = false;
  return {
    move(p) {
      first ??= p;
      if (!moved && !far(p, first)) return;
      moved = true;
      const now = at(p);
      c.readout(now.says);
      s.preview(now.recipe, only);
    },
    release(p) {
      if (moved) {
        const { recipe } = at(p);
        s.commit(label(), recipe);
        after?.();
      }
      c.readout(null);
    },
    cancel() {
      s.preview(null);
      c.readout(null);
    },
  };
}
