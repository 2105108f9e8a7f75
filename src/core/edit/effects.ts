import { BLACK } from '../model/defaults';
import type { Design, Effect, Shadow } from '../model/schema';
import type { NodeId } from '../model/tree';
import { mm } from '../units/length';
import type { DesignDraft } from './history';

/** A new shadow's distance as a share of its object's smaller side, and its bounds: seen on a seal as on a poster. */
const DISTANCE = 0.04;
const LEAST = mm(0.4);
const MOST = mm(4);

/** A soft black shadow to the lower right, as strong as half its ink; `side` is the object's smaller side in points. */
export function newShadow(d: Pick<Design, 'setup'>, side: number): Shadow {
  const screen = d.setup.medium === 'screen';
  const far = Math.min(MOST, Math.max(LEAST, side * DISTANCE));
  // Printed over what lies below, it darkens it; knocked out, it would cover it with a tint.
  return {
    kind: 'shadow',
    paint: { kind: 'colour', colour: screen ? { rgb: [0, 0, 0] } : BLACK, overprint: !screen },
    opacity: 0.5,
    dx: far,
    dy: far,
    blur: 2 * far,
  };
}

/** The shadow of a node; undefined where it throws none. */
export const shadowOf = (n: { readonly effects?: readonly Effect[] }): Shadow | undefined =>
  n.effects?.find((e): e is Shadow => e.kind === 'shadow');

/** Gives objects a shadow, changes it, or (null) takes it away. `fresh` makes one where there is none. */
export function setShadow(
  d: DesignDraft,
  ids: readonly NodeId[],
  change: Partial<Omit<Shadow, 'kind'>> | null,
  fresh?: (id: NodeId) => Shadow,
): void {
  for (const id of ids) {
    const node = d.nodes[id];
    const others = (node.effects ?? []).filter((e) => e.kind !== 'shadow');
    const old = shadowOf(node as { effects?: readonly Effect[] }) ?? fresh?.(id);
    const next = change && old ? [...others, { ...old, ...change }] : others;
    if (next.length) node.effects = next as typeof node.effects;
    else delete node.effects;
  }
}
