import { hasRegions, regionsToShapes } from '@/core/edit/regions';
import { count, freeSelection, type CommandDef } from '../session/commandDef';
import type { Session } from '../session/session';

const coloured = (s: Session) => freeSelection(s).filter((id) => hasRegions(s.design.nodes[id]));

function makeShapes(s: Session): void {
  const ids = coloured(s);
  let made = 0;
  const done = s.commit('Areas to shapes', (d) => {
    made = ids.reduce((n, id) => n + regionsToShapes(d, id, s.newId, s.engines.fonts).length, 0);
  });
  if (done)
    s.say(`Made ${count(made, 'area')} shapes below the lines. Neighbours share their edges: nothing shows between.`);
}

export const REGION_COMMANDS = {
  'regions.toShapes': {
    label: 'Areas to shapes',
    keywords: ['regions', 'split', 'expand', 'colouring', 'plain'],
    keys: [],
    applies: (s) => coloured(s).length > 0,
    run: makeShapes,
  },
} as const satisfies Record<string, CommandDef>;
