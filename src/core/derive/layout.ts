import { scaling, type Matrix } from '../geometry/matrix';
import type { Design, DesignNode, NodeOf, Window } from '../model/schema';
import { spansIn } from './frame';
import type { FontBook } from '../text/fonts';
import { layoutStory, type Layout } from '../text/layout';

export type TextNode = NodeOf<'displayText'> | NodeOf<'textFrame'>;
/** Is it a text of either kind? */
export const isText = (n: DesignNode): n is TextNode => n.kind === 'displayText' || n.kind === 'textFrame';

interface Known {
  readonly epoch: number;
  readonly width: number | null;
  readonly height: number | null;
  readonly window: Window | undefined;
  readonly layout: Layout;
}
const layouts = new WeakMap<object, Known>();

/** The layout of a text node, remembered by its story, its measure and the faces at hand. */
export function layoutOf(d: Design, node: TextNode, fonts: FontBook): Layout {
  const story = d.stories[node.story];
  const width = node.kind === 'textFrame' ? Math.max(0.1, node.width - 2 * node.inset) : null;
  const height = node.kind === 'textFrame' ? node.height - 2 * node.inset : null;
  const window = node.kind === 'textFrame' ? node.window : undefined;
  const known = layouts.get(story);
  if (
    known &&
    known.epoch === fonts.epoch &&
    known.width === width &&
    known.height === height &&
    known.window === window
  )
    return known.layout;
  const span = node.kind === 'textFrame' ? spansIn(node) : undefined;
  const layout = layoutStory(story, fonts, { width, height, ...(span && { span }) });
  layouts.set(story, { epoch: fonts.epoch, width, height, window, layout });
  return layout;
}

/** Maps layout space to the node's own space. */
export function layoutMatrix(node: TextNode): Matrix {
  return node.kind === 'displayText' ? scaling(node.stretch, 1) : [1, 0, 0, 1, node.inset, node.inset];
}
