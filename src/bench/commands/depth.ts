import { canBeDeep, depthOf, depthToShapes, newDepth, setDepth } from '@/core/edit/depth';
import { count, freeSelection, type CommandDef } from '../session/commandDef';
import type { Session } from '../session/session';
import { smallerSide } from './shadows';

const deepOnes = (s: Session) => freeSelection(s).filter((id) => depthOf(s.design.nodes[id]));
const flatOnes = (s: Session) =>
  freeSelection(s).filter((id) => canBeDeep(s.design.nodes[id]) && !depthOf(s.design.nodes[id]));

function pushBack(s: Session): void {
  const ids = flatOnes(s);
  if (!s.commit('Give depth', (d) => setDepth(d, ids, {}, (id) => newDepth(s.design, smallerSide(s, id))))) return;
  s.say(`Pushed ${count(ids.length, 'object')} back. Drag the ring for how far and which way; colours are in Details.`);
}

function toShapes(s: Session): void {
  const ids = deepOnes(s);
  let made: string[] = [];
  if (!s.commit('Depth to shapes', (d) => void (made = depthToShapes(d, s.page, ids, s.newId, s.engines.fonts))))
    return;
  s.select(made);
  s.say(`Made the sides of ${count(ids.length, 'object')} shapes, in a group with it.`);
}

export const DEPTH_COMMANDS = {
  'depth.give': {
    label: 'Push back',
    keywords: ['depth', 'extrude', '3d', 'solid', 'block', 'long shadow'],
    keys: [],
    applies: (s) => flatOnes(s).length > 0,
    run: pushBack,
  },
  'depth.toShapes': {
    label: 'Depth to shapes',
    keywords: ['expand', 'extrude', 'plain', 'sides'],
    keys: [],
    applies: (s) => deepOnes(s).length > 0,
    run: toShapes,
  },
} as const satisfies Record<string, CommandDef>;
