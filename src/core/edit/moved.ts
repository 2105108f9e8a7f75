import type { Patches } from 'mutative';
import type { Matrix } from '../geometry/matrix';
import type { Design, Page } from '../model/schema';
import { parentMatrix, placedAnew, topmost, type NodeId } from '../model/tree';
import type { HistoryEntry } from './history';
import { packedMoves, unpacked, type Packed } from './packed';
import { taken } from './taken';

/** A move of many: its step, and which objects have another place. */
export interface Moved {
  readonly design: Design;
  readonly entry: HistoryEntry;
  readonly placed: readonly NodeId[];
}

/**
 * What `record` answers for `transformNodes`, made without a draft: moving very many at once is the most frequent
 * change of very many, and a draft of each costs ten times as much as the change. Null where nothing moves. `map` is in
 * page space, points; `modified` is the time to note.
 */
export function recordMoved(
  design: Design,
  label: string,
  page: Page,
  ids: readonly NodeId[],
  map: Matrix,
  modified: string,
): Moved | null {
  const nodes = { ...design.nodes };
  const top = topmost(design, page, ids);
  const placed: NodeId[] = [];
  const [to, from] = [new Float64Array(6 * top.length), new Float64Array(6 * top.length)];
  for (const id of top) {
    const node = nodes[id];
    const next = taken(node.transform, parentMatrix(design, page, id), map);
    if (!next) continue;
    nodes[id] = { ...node, transform: next };
    to.set(next, 6 * placed.length);
    from.set(node.transform, 6 * placed.length);
    placed.push(id);
  }
  if (!placed.length) return null;
  placedAnew(nodes, design);
  const dated = (value: string): Patches => [{ op: 'replace', path: ['modified'], value }];
  const list = JSON.stringify(placed);
  const there = packedMoves(list, to.subarray(0, 6 * placed.length), dated(modified));
  const back = packedMoves(list, from.subarray(0, 6 * placed.length), dated(design.modified));
  return { design: { ...design, nodes, modified }, entry: new MovedEntry(label, there, back), placed };
}

/**
 * A step that is kept as it was made, packed; its patches are written out when it is first taken back or done again.
 */
class MovedEntry implements HistoryEntry {
  readonly packed: { readonly patches: Packed; readonly inverse: Packed };
  private written: { patches?: Patches; inverse?: Patches } = {};
  constructor(
    readonly label: string,
    patches: Packed,
    inverse: Packed,
  ) {
    this.packed = { patches, inverse };
  }
  get patches(): Patches {
    return (this.written.patches ??= unpacked<Patches>(this.packed.patches));
  }
  get inverse(): Patches {
    return (this.written.inverse ??= unpacked<Patches>(this.packed.inverse));
  }
}
