import { IDENTITY, scaling, type Matrix } from '../geometry/matrix';
import type { Design, DesignNode, NodeOf } from '../model/schema';
import { alongLine, bentLayout } from './alongLine';
import { spansIn } from './frame';
import type { FontBook } from '../text/fonts';
import { setStory, type SetStory } from '../model/textLooks';
import { layoutStory, type Layout } from '../text/layout';

export type TextNode = NodeOf<'displayText'> | NodeOf<'textFrame'>;
/** Is it a text of either kind? */
export const isText = (n: DesignNode): n is TextNode => n.kind === 'displayText' || n.kind === 'textFrame';

interface Known {
  readonly set: SetStory;
  readonly epoch: number;
  /** What of the node the layout hangs on, beside its words. */
  readonly measure: readonly unknown[];
  readonly layout: Layout;
}
const layouts = new WeakMap<object, Known>();

/** The layout of a text node, remembered by its story with all that is set of it, its measure and the faces at hand. */
export function layoutOf(d: Design, node: TextNode, fonts: FontBook): Layout {
  const story = d.stories[node.story];
  const set = setStory(d, story);
  const measure =
    node.kind === 'textFrame'
      ? [node.width, node.height, node.inset, node.window]
      : [node.along, node.bend, node.along || node.bend ? node.stretch : 1];
  const known = layouts.get(story);
  if (
    known &&
    known.set === set &&
    known.epoch === fonts.epoch &&
    known.measure.length === measure.length &&
    known.measure.every((v, i) => v === measure[i])
  )
    return known.layout;
  const layout = node.kind === 'textFrame' ? frameLayout(node, set, fonts) : displayLayout(node, set, fonts);
  layouts.set(story, { set, epoch: fonts.epoch, measure, layout });
  return layout;
}

function frameLayout(node: NodeOf<'textFrame'>, set: SetStory, fonts: FontBook): Layout {
  const span = spansIn(node);
  return layoutStory(set, fonts, {
    width: Math.max(0.1, node.width - 2 * node.inset),
    height: node.height - 2 * node.inset,
    ...(span && { span }),
  });
}

function displayLayout(node: NodeOf<'displayText'>, set: SetStory, fonts: FontBook): Layout {
  const straight = layoutStory(set, fonts, { width: null, height: null });
  const laid = node.along ? alongLine(node.along, node.stretch, straight, set, fonts) : straight;
  return node.bend ? bentLayout(laid, node.bend, node.along ? 1 : node.stretch) : laid;
}

/** Maps layout space to the node's own space. */
export function layoutMatrix(node: TextNode): Matrix {
  if (node.kind === 'textFrame') return [1, 0, 0, 1, node.inset, node.inset];
  // On a line, letters alone are stretched.
  return node.along ? IDENTITY : scaling(node.stretch, 1);
}
