import type { Design } from '@/core/model/schema';
import { guildMark } from './guildMark';
import { guildLetterhead } from './letterhead';
import { lanternWalkPoster } from './poster';
import { walkProgramme } from './programme';
import { routeMarkers } from './routeMarkers';
import { stallCard } from './stallCard';
import { lanternStickers } from './stickers';
import { workshopCertificate } from './certificate';
import { supperTicket } from './ticket';

/** The designs that ship. Ids and dates are fixed, so that the demo is the same bytes everywhere. */
export function demoDesigns(): { readonly file: string; readonly design: Design }[] {
  // Each an hour before the last: the shelf shows the poster first.
  let hour = 18;
  const counter = (prefix: string) => {
    let n = 0;
    const at = `2026-11-02T${hour--}:00:00.000Z`;
    return { newId: () => `${prefix}${(n++).toString(36)}`, now: () => at };
  };
  return [
    { file: 'lantern-walk-poster', design: lanternWalkPoster(counter('lw')) },
    { file: 'walk-programme', design: walkProgramme(counter('wp')) },
    { file: 'guild-letterhead', design: guildLetterhead(counter('gl')) },
    { file: 'supper-ticket', design: supperTicket(counter('st')) },
    { file: 'guild-mark', design: guildMark(counter('gm')) },
    { file: 'lantern-stickers', design: lanternStickers(counter('ls')) },
    { file: 'route-markers', design: routeMarkers(counter('rm')) },
    { file: 'workshop-certificate', design: workshopCertificate(counter('wc')) },
    { file: 'stall-card', design: stallCard(counter('sc')) },
  ];
}
