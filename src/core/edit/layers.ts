import type { Design, NodeOf } from '../model/schema';
import { sheetsOf, type NodeId } from '../model/tree';
import type { DesignDraft } from './history';

/**
 * Layers: groups at the top of a sheet that are worked on as one; those of a name on all sheets go together where that
 * is asked for.
 */

/** The layers that are called so, on all pages and masters. */
export const layersNamed = (d: Design, name: string): readonly NodeId[] =>
  sheetsOf(d).flatMap((s) =>
    s.children.filter((id) => {
      const node = d.nodes[id];
      return node.kind === 'group' && node.layer === true && node.name === name;
    }),
  );

/** What is set of layers: hidden or locked as anything can be; `proof`: shown, and never printed. */
export function setLayers(
  d: DesignDraft,
  ids: readonly NodeId[],
  change: Partial<Pick<NodeOf<'group'>, 'hidden' | 'locked' | 'proof'>>,
): void {
  for (const id of ids) {
    const node = d.nodes[id];
    if (node?.kind !== 'group') continue;
    if (change.hidden !== undefined) node.hidden = change.hidden;
    if (change.locked !== undefined) node.locked = change.locked;
    if (change.proof) node.proof = true;
    else if (change.proof === false) delete node.proof;
  }
}
