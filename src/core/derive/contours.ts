import { nodesOf, type NodeContour } from '../geometry/nodes';
import type { NodeOf } from '../model/schema';

/** The nodes of a path with all that belongs to them. */
export function contoursOf(node: NodeOf<'path'>): NodeContour[] {
  let i = 0;
  return nodesOf(node.path, node.kinds).map((c) => ({
    ...c,
    nodes: c.nodes.map((n) => {
      const [corner, width] = [node.corners?.each?.[i], node.widths?.[i]];
      i++;
      return { ...n, ...(corner && { corner }), ...(width !== undefined && { width }) };
    }),
  }));
}
