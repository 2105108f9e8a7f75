import { pathContains } from '../geometry/contains';
import { pathOfNodes, type NodeContour } from '../geometry/nodes';
import type { DesignNode, Page } from '../model/schema';
import { topmost, type NodeId } from '../model/tree';
import { before, type DesignDraft } from './history';
import { takeIn } from './nodes';
import { contoursOf } from '../derive/contours';
import { replaceNode } from './pile';

/** Makes one path of several, in the front one's paint; where they overlap is a hole. Answers its id. */
export function joinPaths(d: DesignDraft, page: Page, ids: readonly NodeId[]): NodeId | null {
  const was = before(d);
  const paths = topmost(was, page, ids).filter((id) => was.nodes[id].kind === 'path');
  const front = paths[paths.length - 1];
  if (!front) return null;
  for (const id of paths.slice(0, -1)) takeIn(d, page, front, id);
  const node = d.nodes[front];
  if (node.kind === 'path' && paths.length > 1) node.fillRule = 'evenOdd';
  return front;
}

/**
 * Splits a path into its parts: each contour that lies in no other, with those that lie in it. Answers the ids; one for
 * a path of one part.
 */
export function splitPath(d: DesignDraft, page: Page, id: NodeId, newId: () => string): NodeId[] {
  const node = before(d).nodes[id];
  if (node?.kind !== 'path') return [];
  const contours = contoursOf(node);
  const alone = (c: NodeContour) => pathOfNodes([c]).path;
  const shapes = contours.map(alone);
  // Most of its nodes: one may lie on the other's line.
  const inside = (i: number, j: number) =>
    i !== j &&
    contours[j].closed &&
    contours[i].nodes.filter((n) => pathContains(shapes[j], 'evenOdd', n)).length * 2 > contours[i].nodes.length;
  const outer = contours.map((_, i) => contours.findIndex((_, j) => inside(i, j)));
  const heads = contours.flatMap((_, i) => (outer[i] < 0 ? [i] : []));
  if (heads.length < 2) return [id];
  const root = (i: number): number => (outer[i] < 0 ? i : root(outer[i]));
  const parts: DesignNode[] = heads.map((head, k) => {
    const { path, kinds } = pathOfNodes(contours.filter((_, i) => root(i) === head));
    const { corners: _c, widths: _w, ...rest } = node;
    return { ...rest, id: k === 0 ? id : newId(), name: k === 0 ? node.name : `${node.name} ${k + 1}`, path, kinds };
  });
  replaceNode(d, page, id, parts);
  return parts.map((p) => p.id);
}
