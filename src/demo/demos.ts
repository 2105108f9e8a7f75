import type { Design } from '@/core/model/schema';
import { guildLetterhead } from './letterhead';
import { lanternWalkPoster } from './poster';
import { supperTicket } from './ticket';

/** The designs that ship. Ids and dates are fixed, so that the demo is the same bytes everywhere. */
export function demoDesigns(): { readonly file: string; readonly design: Design }[] {
  const counter = (prefix: string) => {
    let n = 0;
    return { newId: () => `${prefix}${(n++).toString(36)}`, now: () => '2026-11-02T18:00:00.000Z' };
  };
  return [
    { file: 'lantern-walk-poster', design: lanternWalkPoster(counter('lw')) },
    { file: 'guild-letterhead', design: guildLetterhead(counter('gl')) },
    { file: 'supper-ticket', design: supperTicket(counter('st')) },
  ];
}
