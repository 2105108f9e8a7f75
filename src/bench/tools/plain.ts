import { canBePlain, makePlain } from '@/core/edit/plain';
import { isText } from '@/core/derive/layout';
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
  const left = made.filter((id) => isText(s.design.nodes[id])).length;
  s.say(
    left
      ? 'Words that run on to another page stay text: take their frames out of the thread first.'
      : `Made ${count(ids.length, 'object')} plain: shapes that look the same. Undo brings the adjustable ones back.`,
  );
}
