import { insetsOf } from '../derive/frame';
import { layoutOf } from '../derive/layout';
import type { Design, NodeOf, Story } from '../model/schema';
import type { NodeId } from '../model/tree';
import type { FontBook } from '../text/fonts';
import { before, plain, type DesignDraft } from './history';
import { looksOf } from './textPlace';
import { changeRuns } from './text';

/** Commands that make words as long, as high or as large as they are wanted. Lengths are the text's own, points. */

type Display = NodeOf<'displayText'>;

/** How long the longest line of a display text is. */
export function lengthOf(d: Design, node: Display, fonts: FontBook): number {
  const straight = withoutLine(node);
  const l = layoutOf(straight === node ? d : { ...d, nodes: { ...d.nodes, [node.id]: straight } }, straight, fonts);
  return (l.x1 - l.x0) * node.stretch;
}

/** The text as if it stood straight. */
function withoutLine(node: Display): Display {
  if (!node.along && !node.bend) return node;
  const { along: _, bend: __, ...rest } = node;
  return rest;
}

const LEAST = 0.1;
const MOST = 10_000;

/**
 * Makes the longest line of a display text so long, by the size of its letters or by the room between them. Answers
 * whether it could.
 */
export function matchLength(
  d: DesignDraft,
  id: NodeId,
  length: number,
  by: 'size' | 'tracking',
  fonts: FontBook,
): boolean {
  const was = before(d);
  const node = was.nodes[id];
  if (node?.kind !== 'displayText' || !(length > 0)) return false;
  const now = lengthOf(was, node, fonts);
  if (!(now > 0)) return false;
  const story = plain(d.stories[node.story]) as Story;
  const put = (next: Story) => void (d.stories[node.story] = next as DesignDraft['stories'][string]);
  if (by === 'size') {
    const share = length / now;
    let whole = true;
    put(
      changeRuns(looksOf(was), story, 0, 0, (r, set) => {
        const size = set.size * share;
        if (size < LEAST || size > MOST) whole = false;
        return { ...r, size: Math.min(MOST, Math.max(LEAST, size)) };
      }),
    );
    return whole;
  }
  // Every letter of the longest line but its last takes a share of what is missing, by its size.
  const straight = withoutLine(node);
  const { lines } = layoutOf({ ...was, nodes: { ...was.nodes, [id]: straight } }, straight, fonts);
  const longest = lines.reduce((a, b) => (b.width > a.width ? b : a), lines[0]);
  const words = longest.runs.flatMap((r) =>
    r.glyphs.filter((g) => g.text !== '').map((g) => ({ g, size: r.run.size })),
  );
  while (words.length && words[words.length - 1].g.text === ' ') words.pop();
  const room = words.slice(0, -1).reduce((n, w) => n + w.size, 0) / 1000;
  if (!(room > 0)) return false;
  const more = (length / node.stretch - longest.width) / room;
  let whole = true;
  put(
    changeRuns(looksOf(was), story, 0, 0, (r, set) => {
      const tracking = set.tracking + more;
      if (tracking < -500 || tracking > 5000) whole = false;
      return { ...r, tracking: Math.min(5000, Math.max(-500, tracking)) };
    }),
  );
  return whole;
}

/** Makes the capitals, or the small letters, of a text so high. */
export function matchHeight(
  d: DesignDraft,
  id: NodeId,
  height: number,
  of: 'capitals' | 'small',
  fonts: FontBook,
): void {
  const was = before(d);
  const node = was.nodes[id];
  if (!('story' in node) || !(height > 0)) return;
  d.stories[node.story] = changeRuns(looksOf(was), plain(d.stories[node.story]) as Story, 0, 0, (r, set) => {
    const face = fonts.instance(set.face, set.axes);
    const share = face ? (of === 'capitals' ? face.capHeight : face.xHeight) : 0;
    return share > 0 ? { ...r, size: Math.min(MOST, Math.max(LEAST, height / share)) } : r;
  }) as DesignDraft['stories'][string];
}

/** Makes frames as high as their words need, each in its own width. */
export function fitFrames(d: DesignDraft, ids: readonly NodeId[], fonts: FontBook): void {
  const was = before(d);
  for (const id of ids) {
    const node = was.nodes[id];
    const draft = d.nodes[id];
    if (node?.kind !== 'textFrame' || draft.kind !== 'textFrame' || node.window) continue;
    const { top, bottom } = insetsOf(node);
    const { fit: _, placing: __, ...bare } = node;
    const at = (height: number) => {
      const tried = { ...bare, height };
      return layoutOf({ ...was, nodes: { ...was.nodes, [id]: tried } }, tried, fonts);
    };
    if ((node.columns?.count ?? 1) < 2) {
      const l = at(TALLEST);
      draft.height = Math.max(1, l.bottom + top + bottom);
      continue;
    }
    // Through several columns: the least height that leaves nothing over.
    let [lo, hi] = [0, TALLEST];
    for (let i = 0; i < 40 && hi - lo > 0.05; i++) {
      const mid = (lo + hi) / 2;
      if (at(mid).overset > 0 || at(mid).bottom + top + bottom > mid + 0.05) lo = mid;
      else hi = mid;
    }
    draft.height = Math.max(1, hi);
  }
}
/** No frame is higher: two metres. */
const TALLEST = 5700;

/** Words of frames become smaller until they fit, but no letter smaller than `least` points; null: as they are. */
export function setShrink(d: DesignDraft, ids: readonly NodeId[], least: number | null): void {
  for (const id of ids) {
    const node = d.nodes[id];
    if (node.kind !== 'textFrame') continue;
    if (least === null) delete node.fit;
    else node.fit = { least };
  }
}
