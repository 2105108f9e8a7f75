import { IDENTITY, scaling, type Matrix } from '../geometry/matrix';
import { transformRect } from '../geometry/rect';
import type { Design, DesignNode, NodeOf } from '../model/schema';
import { alongLine, bentLayout } from './alongLine';
import { storyWhereItLies } from './fields';
import { insetsOf, measureOf } from './frame';
import { freeOf, obstaclesOf, type Obstacle, type Words } from './pushed';
import type { FontBook } from '../text/fonts';
import { scaledStory, setStory, type SetStory } from '../model/textLooks';
import { layoutFrames, layoutStory, type Layout } from '../text/layout';

export type TextNode = NodeOf<'displayText'> | NodeOf<'textFrame'>;
/** Is it a text of either kind? */
export const isText = (n: DesignNode): n is TextNode => n.kind === 'displayText' || n.kind === 'textFrame';

interface Known {
  readonly set: SetStory;
  readonly epoch: number;
  /** What of its nodes the layout hangs on, beside its words. */
  readonly measure: readonly unknown[];
  /** By node. */
  readonly layouts: ReadonlyMap<string, Layout>;
}
const layouts = new WeakMap<object, Known>();

/**
 * The layout of a text node, remembered by its story with all that is set of it, the measures of all frames that it
 * runs through, and the faces at hand.
 */
export function layoutOf(d: Design, node: TextNode, fonts: FontBook): Layout {
  const inFields = storyWhereItLies(d, node);
  const story = inFields?.story ?? d.stories[node.story];
  const set = setStory(d, story);
  const frames = threadOf(d, node);
  const pushed = (n: NodeOf<'textFrame'>) => obstaclesOf(d, n, (text) => linesOf(d, text, fonts));
  const facts = (n: NodeOf<'textFrame'>) => [...frameFacts(n), pushed(n)];
  const measure = frames ? frames.flatMap(facts) : node.kind === 'textFrame' ? facts(node) : displayFacts(node);
  const known = layouts.get(story);
  const old =
    known &&
    known.set === set &&
    known.epoch === fonts.epoch &&
    known.measure.length === measure.length &&
    known.measure.every((v, i) => v === measure[i]) &&
    known.layouts.get(node.id);
  if (old) return old;
  const made =
    node.kind === 'displayText'
      ? [displayLayout(node, set, fonts)]
      : frameLayouts(frames ?? [node], set, fonts, pushed);
  const back = inFields?.back;
  const laid = back ? made.map((l) => ({ ...l, lines: l.lines.map((line) => line.withOffsets(back)) })) : made;
  const byNode = new Map((frames ?? [node]).map((n, i) => [n.id, laid[i]]));
  layouts.set(story, { set, epoch: fonts.epoch, measure, layouts: byNode });
  return byNode.get(node.id)!;
}

/** The frames that a text runs through, in order; null for one that stands alone. */
export function threadOf(d: Design, node: TextNode): readonly NodeOf<'textFrame'>[] | null {
  const { frames } = d.stories[node.story];
  if (!frames?.includes(node.id)) return null;
  const nodes = frames.flatMap((id) => {
    const n = d.nodes[id];
    return n?.kind === 'textFrame' ? [n] : [];
  });
  return nodes.length > 1 ? nodes : null;
}

const frameFacts = (n: NodeOf<'textFrame'>): unknown[] => [
  n.id,
  n.width,
  n.height,
  n.inset,
  n.columns,
  n.placing,
  n.baseline,
  n.window,
  n.fit,
];
const displayFacts = (n: NodeOf<'displayText'>): unknown[] => [
  n.id,
  n.along,
  n.bend,
  n.along || n.bend ? n.stretch : 1,
];

/**
 * The layouts of the frames that a story runs through; where the last of them wants it, in letters that are small
 * enough to fit.
 */
function frameLayouts(
  frames: readonly NodeOf<'textFrame'>[],
  set: SetStory,
  fonts: FontBook,
  pushed: (n: NodeOf<'textFrame'>) => readonly Obstacle[],
): Layout[] {
  const measures = frames.map((f) => {
    const obstacles = pushed(f);
    return measureOf(f, obstacles.length ? (top, bottom, edges) => freeOf(obstacles, top, bottom, edges) : null);
  });
  const lay = (s: SetStory) => layoutFrames(s, fonts, measures);
  const whole = lay(set);
  const over = (l: readonly Layout[]) => l[l.length - 1].overset > 0;
  const { fit } = frames[frames.length - 1];
  if (!fit || !over(whole)) return whole;
  let smallest = Infinity;
  for (const p of set.paragraphs) for (const r of p.runs) smallest = Math.min(smallest, r.size);
  let [lo, hi] = [Math.min(1, fit.least / smallest), 1];
  let best = lay(scaledStory(set, lo));
  if (over(best)) return best;
  for (let i = 0; i < SHRINK_STEPS; i++) {
    const mid = (lo + hi) / 2;
    const tried = lay(scaledStory(set, mid));
    if (over(tried)) hi = mid;
    else [lo, best] = [mid, tried];
  }
  return best;
}
/** A size is found to a thousandth of what it could be. */
const SHRINK_STEPS = 10;

function displayLayout(node: NodeOf<'displayText'>, set: SetStory, fonts: FontBook): Layout {
  const straight = layoutStory(set, fonts, { width: null, height: null });
  const laid = node.along ? alongLine(node.along, node.stretch, straight, set, fonts) : straight;
  return node.bend ? bentLayout(laid, node.bend, node.along ? 1 : node.stretch) : laid;
}

const lines = new WeakMap<Layout, Words>();
/** The lines of a display text as boxes in its own space. */
function linesOf(d: Design, node: NodeOf<'displayText'>, fonts: FontBook): Words {
  const layout = layoutOf(d, node, fonts);
  let boxes = lines.get(layout);
  if (!boxes) {
    const m = layoutMatrix(node);
    boxes = layout.lines.map((l) => transformRect(m, { x0: l.x0, y0: l.top, x1: l.x1, y1: l.bottom }));
    lines.set(layout, boxes);
  }
  return boxes;
}

/** Maps layout space to the node's own space. */
export function layoutMatrix(node: TextNode): Matrix {
  if (node.kind === 'textFrame') {
    const { left, top } = insetsOf(node);
    return [1, 0, 0, 1, left, top];
  }
  // On a line, letters alone are stretched.
  return node.along ? IDENTITY : scaling(node.stretch, 1);
}
