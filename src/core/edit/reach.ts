import type { Patches } from 'mutative';
import { FAR, type Design, type DesignNode } from '../model/schema';

/** The first node that a change would put beyond the reach of a page (20 m) or make larger than that; null if none. */
export function outOfReach(design: Design, patches: Patches): DesignNode | null {
  const seen = new Set<string>();
  for (const { path } of patches) {
    if (path[0] !== 'nodes' || path.length < 2) continue;
    const id = String(path[1]);
    if (seen.has(id)) continue;
    seen.add(id);
    const node = design.nodes[id];
    if (node && !within(node)) return node;
  }
  return null;
}

/** Whether a node's place and measures are ones the document may hold. */
function within(node: DesignNode): boolean {
  const measures = node.kind === 'shape' || node.kind === 'textFrame' ? [node.width, node.height] : [];
  const all = [...node.transform, ...measures];
  return all.every((v) => Math.abs(v) <= FAR) && (node.kind !== 'path' || node.path.every((v) => Math.abs(v) <= FAR));
}
