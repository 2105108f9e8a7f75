import { canBePlain, makePlain } from '@/core/edit/plain';
import { count, freeSelection } from '../session/commandDef';
import type { Session } from '../session/session';

export function plainSelection(s: Session): void {
  const ids = freeSelection(s).filter((id) => canBePlain(s.design.nodes[id]));
  let made: string[] = [];
  s.commit('Make plain', (d) => {
    made = makePlain(d, s.page, ids, s.newId, s.engines.fonts);
  });
  s.leave();
  s.select(
    made.filter((id) => s.design.nodes[id]),
    { stop: null },
  );
  s.say(`Made ${count(ids.length, 'object')} plain: paths that look the same. Undo brings the adjustable ones back.`);
}
