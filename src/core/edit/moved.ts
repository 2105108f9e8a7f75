import type { Patches } from 'mutative';
import type { Matrix } from '../geometry/matrix';
import type { Design, Page } from '../model/schema';
import { parentMatrix, topmost, type NodeId } from '../model/tree';
import type { HistoryEntry } from './history';
import { taken } from './place';

/**
 * What `record` answers for `transformNodes`, made without a draft: moving very many at once is the most frequent change
 * of very many, and a draft of each costs ten times as much as the change. Null where nothing moves. `map` is in page
 * space, points; `modified` is the time to note.
 */
export function recordMoved(design: Design, label: string, page: Page, ids: readonly NodeId[], map: Matrix, modified: string): { readonly design: Design; readonly entry: HistoryEntry } | null {
  const nodes = { ...design.nodes };
  const patches: Patches = [];
  const inverse: Patches = [];
  for (const id of topmost(design, page, ids)) {
    const node = nodes[id];
    const next = taken(node.transform, parentMatrix(design, page, id), map);
    if (!next) continue;
    nodes[id] = { ...node, transform: next };
    const path = ['nodes', id, 'transform'];
    patches.push({ op: 'replace', path, value: next });
    inverse.push({ op: 'replace', path, value: node.transform });
  }
  if (!patches.length) return null;
  const path = ['modified'];
  patches.push({ op: 'replace', path, value: modified });
  inverse.push({ op: 'replace', path, value: design.modified });
  return { design: { ...design, nodes, modified }, entry: { label, patches, inverse } };
}
