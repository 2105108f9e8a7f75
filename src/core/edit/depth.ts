import { areaOf } from '../derive/area';
import { layDepth } from '../derive/depth';
import { invert, multiply } from '../geometry/matrix';
import { transformPath } from '../geometry/path';
import { colourPaint, outlineOf } from '../model/defaults';
import { finishOf } from '../model/finish';
import type { Depth, Design, DesignNode, NodeOf, Page } from '../model/schema';
import { pageMatrix, topmost, type NodeId } from '../model/tree';
import { outlinePath } from '../shapes/outline';
import type { FontBook } from '../text/fonts';
import { before, type DesignDraft } from './history';
import { wrapNodes } from './pile';

/** What can be pushed back. */
export type Deep = NodeOf<'shape'> | NodeOf<'path'> | NodeOf<'combination'> | NodeOf<'displayText'>;
/** Can it be pushed back? */
export const canBeDeep = (n: DesignNode): n is Deep =>
  n.kind === 'shape' ||
  n.kind === 'path' ||
  n.kind === 'displayText' ||
  (n.kind === 'combination' && n.op !== 'divide');
/** The depth of a node; undefined where it is flat. */
export const depthOf = (n: DesignNode): Depth | undefined => (canBeDeep(n) ? n.depth : undefined);

/** A new depth is this share of its object's smaller side. */
const LENGTH = 0.25;

/**
 * Pushed to the lower right, in black of half its strength, lit from the upper left; `side` is the object's smaller
 * side in points.
 */
export function newDepth(d: Pick<Design, 'setup'>, side: number): Depth {
  const screen = d.setup.medium === 'screen';
  return {
    kind: 'solid',
    angle: 45,
    length: Math.max(1, side * LENGTH),
    side: colourPaint(screen ? { rgb: [0.35, 0.35, 0.35] } : { cmyk: [0, 0, 0, 0.75] }),
    shade: 0.6,
    light: -110,
  };
}

/**
 * Pushes objects back, changes how, or (null) makes them flat again. `fresh` makes a depth where there is none; what is
 * undefined in a change is taken away.
 */
export function setDepth(
  d: DesignDraft,
  ids: readonly NodeId[],
  change: Partial<Depth> | null,
  fresh?: (id: NodeId) => Depth,
): void {
  for (const id of ids) {
    const node = d.nodes[id];
    if (!canBeDeep(node as DesignNode)) continue;
    const deep = node as Extract<typeof node, { kind: Deep['kind'] }>;
    const old = (deep.depth as Depth | undefined) ?? fresh?.(id);
    if (!change || !old) {
      delete deep.depth;
      continue;
    }
    const next = { ...old, ...change };
    for (const key of Object.keys(next) as (keyof Depth)[]) if (next[key] === undefined) delete next[key];
    deep.depth = next as typeof deep.depth;
  }
}

/**
 * Makes the sides of pushed-back objects shapes of their own, in a group with the object, which is flat then. Answers
 * the groups.
 */
export function depthToShapes(
  d: DesignDraft,
  page: Page,
  ids: readonly NodeId[],
  newId: () => string,
  fonts: FontBook,
): NodeId[] {
  const was = before(d);
  return topmost(was, page, ids).flatMap((id) => {
    const node = was.nodes[id];
    const depth = depthOf(node);
    if (!canBeDeep(node) || !depth) return [];
    const region = node.kind === 'shape' || node.kind === 'path' ? outlinePath(node) : areaOf(was, id, fonts).region;
    const matrix = pageMatrix(was, page, id);
    const back = invert(matrix);
    if (!back) return [];
    const sides = layDepth(region, matrix, matrix, depth).map(
      ({ path, toPage, paint, stroke, rule }, i): DesignNode => ({
        id: newId(),
        name: stroke ? 'Edge' : `Side ${i + 1}`,
        kind: 'path',
        transform: node.transform,
        hidden: false,
        locked: false,
        path: transformPath(path, multiply(back, toPage)),
        fillRule: rule,
        fills: stroke ? [] : [paint],
        outlines:
          stroke && depth.edge
            ? [{ ...outlineOf(paint, depth.edge.width), cap: 'round', join: 'round', miterLimit: 4 }]
            : [],
      }),
    );
    const self = d.nodes[id];
    for (const key of [...Object.keys(finishOf(node)), 'depth']) delete (self as Record<string, unknown>)[key];
    for (const side of sides) d.nodes[side.id] = side as (typeof d.nodes)[string];
    const group = wrapNodes(d, page, [id], newId, (held) => ({
      ...finishOf(node),
      id: held,
      name: node.name,
      kind: 'group',
      transform: [1, 0, 0, 1, 0, 0],
      hidden: node.hidden,
      locked: node.locked,
      children: [...sides.map((x) => x.id), id],
    }));
    return group ? [group] : [];
  });
}
