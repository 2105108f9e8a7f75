import { multiply, type Matrix } from '../geometry/matrix';
import { pathBounds, transformPath } from '../geometry/path';
import { EMPTY_RECT, rect, transformRect, unionAll, type Rect } from '../geometry/rect';
import { copyMatrices } from '../model/copies';
import type { Design, DesignNode, NodeKind, NodeOf } from '../model/schema';
import type { FontBook } from '../text/fonts';
import { outlinePath } from '../shapes/outline';
import { areaOf, dependencies } from './area';
import { layoutOf } from './layout';

const OWN: Matrix = [1, 0, 0, 1, 0, 0];

type BoxOf<N> = (d: Design, node: N, fonts: FontBook) => Rect;
const own: BoxOf<NodeOf<'shape'> | NodeOf<'textFrame'>> = (_, node) => rect(0, 0, node.width, node.height);
const held: BoxOf<NodeOf<'group'> | NodeOf<'unknown'>> = (d, node, fonts) =>
  unionAll(node.children.map((id) => boxIn(d, id, OWN, fonts)));

/** By kind. A new kind needs its row. */
const BOXES: { readonly [K in NodeKind]: BoxOf<NodeOf<K>> } = {
  shape: own,
  textFrame: own,
  path: (_, node) => pathBounds(node.path),
  displayText(d, node, fonts) {
    const l = layoutOf(d, node, fonts);
    return { x0: l.x0 * node.stretch, y0: l.top, x1: l.x1 * node.stretch, y1: l.bottom };
  },
  // Asked while something moves as well, and then of what is shown.
  combination: (d, node, fonts) => pathBounds(areaOf(d, node.id, fonts, true).region.path),
  group: held,
  unknown: held,
  repeat(d, node, fonts) {
    const deps = dependencies(d, node.id, fonts);
    const old = repeats.get(node);
    if (old && old.deps.length === deps.length && old.deps.every((x, i) => x === deps[i])) return old.box;
    const copies = copyMatrices(node.arrangement);
    const box = unionAll(copies.flatMap((m) => node.children.map((id) => boxIn(d, id, m, fonts))));
    repeats.set(node, { deps, box });
    return box;
  },
};
const repeats = new WeakMap<DesignNode, { deps: readonly unknown[]; box: Rect }>();

/** The box of a node's geometry in its own space, lines not counted. A group's box is that of its children. */
export const localBox = (d: Design, node: DesignNode, fonts: FontBook): Rect =>
  (BOXES[node.kind] as BoxOf<DesignNode>)(d, node, fonts);

/** The upright box of a node in the space `outer` maps its parent to. Groups are measured by their children. */
export function boxIn(d: Design, id: string, outer: Matrix, fonts: FontBook): Rect {
  const node = d.nodes[id];
  if (!node) return EMPTY_RECT;
  const m = multiply(outer, node.transform);
  if (node.kind === 'group') return unionAll(node.children.map((c) => boxIn(d, c, m, fonts)));
  // Of what is turned, the box of the thing itself, not of its turned frame.
  const upright = (m[1] === 0 && m[2] === 0) || (m[0] === 0 && m[3] === 0);
  if (!upright && (node.kind === 'shape' || node.kind === 'path'))
    return pathBounds(transformPath(outlinePath(node).path, m));
  if (node.kind === 'repeat' && !upright)
    return unionAll(
      copyMatrices(node.arrangement).flatMap((c) => node.children.map((id) => boxIn(d, id, multiply(m, c), fonts))),
    );
  return transformRect(m, localBox(d, node, fonts));
}
