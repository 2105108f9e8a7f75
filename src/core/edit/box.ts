import { multiply, scaling, type Matrix } from '../geometry/matrix';
import { pathBounds } from '../geometry/path';
import { EMPTY_RECT, rect, transformRect, unionAll, type Rect } from '../geometry/rect';
import type { Design, DesignNode, NodeOf } from '../model/schema';
import type { FontBook } from '../text/fonts';
import { layoutStory, type Layout } from '../text/layout';

export type TextNode = NodeOf<'displayText'> | NodeOf<'textFrame'>;
export const isText = (n: DesignNode): n is TextNode => n.kind === 'displayText' || n.kind === 'textFrame';

interface Known {
  readonly epoch: number;
  readonly width: number | null;
  readonly height: number | null;
  readonly layout: Layout;
}
const layouts = new WeakMap<object, Known>();

/** The layout of a text node, remembered by its story, its measure and the faces at hand. */
export function layoutOf(d: Design, node: TextNode, fonts: FontBook): Layout {
  const story = d.stories[node.story];
  const width = node.kind === 'textFrame' ? Math.max(0.1, node.width - 2 * node.inset) : null;
  const height = node.kind === 'textFrame' ? node.height - 2 * node.inset : null;
  const known = layouts.get(story);
  if (known && known.epoch === fonts.epoch && known.width === width && known.height === height) return known.layout;
  const layout = layoutStory(story, fonts, { width, height });
  layouts.set(story, { epoch: fonts.epoch, width, height, layout });
  return layout;
}

/** Maps layout space to the node's own space. */
export function layoutMatrix(node: TextNode): Matrix {
  return node.kind === 'displayText' ? scaling(node.stretch, 1) : [1, 0, 0, 1, node.inset, node.inset];
}

/** The box of a node's geometry in its own space, lines not counted. A group's box is that of its children. */
export function localBox(d: Design, node: DesignNode, fonts: FontBook): Rect {
  switch (node.kind) {
    case 'shape':
    case 'textFrame':
      return rect(0, 0, node.width, node.height);
    case 'path':
      return pathBounds(node.path);
    case 'displayText': {
      const l = layoutOf(d, node, fonts);
      return { x0: l.x0 * node.stretch, y0: l.top, x1: l.x1 * node.stretch, y1: l.bottom };
    }
    case 'group':
      return unionAll(node.children.map((id) => boxIn(d, id, [1, 0, 0, 1, 0, 0], fonts)));
  }
}

/** The upright box of a node in the space `outer` maps its parent to. Groups are measured by their children. */
export function boxIn(d: Design, id: string, outer: Matrix, fonts: FontBook): Rect {
  const node = d.nodes[id];
  if (!node) return EMPTY_RECT;
  const m = multiply(outer, node.transform);
  if (node.kind === 'group') return unionAll(node.children.map((c) => boxIn(d, c, m, fonts)));
  return transformRect(m, localBox(d, node, fonts));
}
