import { boxIn } from '@/core/derive/box';
import { tryOut, type Recipe } from '@/core/edit/history';
import { giveAcross } from '@/core/edit/spread';
import { centre, isEmpty } from '@/core/geometry/rect';
import { parentMatrix } from '@/core/model/tree';
import type { Session } from '../session/session';
import { facingOf } from '../view/facing';

/** A move that also gives what comes to lie on the page that faces this one to that page. `across`: what that is. */
export function movedOnSpread(
  s: Session,
  ids: readonly string[],
  move: Recipe,
): { readonly recipe: Recipe; readonly across: readonly string[] } {
  const facing = facingOf(s);
  if (!facing) return { recipe: move, across: [] };
  const moved = tryOut(s.state.design, move);
  const { width } = s.setup;
  const across = ids.filter((id) => {
    if (!s.page.children.includes(id)) return false;
    const box = boxIn(moved, id, parentMatrix(moved, s.page, id), s.engines.fonts);
    if (isEmpty(box)) return false;
    const { x } = centre(box);
    return facing.x > 0 ? x > width : x < 0;
  });
  if (!across.length) return { recipe: move, across };
  return {
    across,
    recipe: (d) => {
      move(d);
      giveAcross(d, s.page.id, across);
    },
  };
}
