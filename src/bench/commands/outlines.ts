import { addOutline, aimedNodes, FURTHER_AIMS, linedNodes } from '@/core/edit/paint';
import { contoursOf } from '@/core/geometry/segments';
import { shapeById } from '@/core/shapes/catalogue';
import { afterPaint } from '../session/afterPaint';
import { freeSelection } from '../session/commandDef';
import type { Session } from '../session/session';

const making = afterPaint(() => import('./newOutline'));

/** Can what is chosen have one more line? */
export const canAddOutline = (s: Session): boolean => {
  const ids = freeSelection(s);
  const last = FURTHER_AIMS[FURTHER_AIMS.length - 1];
  return linedNodes(s.design, ids).length > 0 && !aimedNodes(s.design, ids, last).length;
};

/** Has one of them an edge with an inside? */
export const haveInside = (s: Session, ids: readonly string[]): boolean =>
  ids.some((id) => {
    const node = s.design.nodes[id];
    if (node?.kind === 'shape') return !shapeById(node.shape)?.open;
    return node?.kind === 'path' ? contoursOf(node.path).every((c) => c.closed) : node !== undefined && 'fills' in node;
  });

/** Lays one more line below those that are there, wide enough to be seen, and points colours at it. */
export function addFurtherOutline(s: Session): void {
  if (making.now) add(s, making.now);
  else void making.get().then((m) => add(s, m));
}

function add(s: Session, { furtherLine }: typeof import('./newOutline')): void {
  const nodes = linedNodes(s.design, freeSelection(s));
  if (!canAddOutline(s)) return;
  const line = furtherLine(s, nodes[0]);
  s.commit('One more outline', (d) => addOutline(d, nodes, line));
  const lowest = FURTHER_AIMS.findLast((aim) => aimedNodes(s.design, nodes, aim).length > 0);
  if (lowest) s.aimAt(lowest);
  s.say('The line lies behind. Click a colour for it; its weight, and how far away it runs, are in Details.');
}
