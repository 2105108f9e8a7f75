import type { Mix } from '../colour/mixing';
import { PROCESS, type Palette } from '../colour/palette';
import { pathContains } from '../geometry/contains';
import { isEmpty, overlaps, type Rect } from '../geometry/rect';
import { inksIn } from '../scene/overprints';
import type { Leaf, Scene } from '../scene/scene';
import { seenBounds, walk, type Within } from '../scene/walk';

/** What a page is painted with, back to front: what is said of it by several rules. */
export interface Seen {
  readonly leaf: Leaf;
  readonly within: Within;
  /** What the groups round it leave of it. */
  readonly bounds: Rect;
  /** Its inks; null of what has more than one colour. */
  readonly mix: Mix | null;
}

const known = new WeakMap<Scene, { readonly palette: Palette; readonly seen: readonly Seen[] }>();

/** All leaves of a page that can be seen at all. */
export function seenOn(scene: Scene, palette: Palette): readonly Seen[] {
  const last = known.get(scene);
  if (last?.palette === palette) return last.seen;
  const seen: Seen[] = [];
  walk(scene.root, (leaf, within) => {
    const bounds = seenBounds(leaf, within);
    if (isEmpty(bounds)) return;
    seen.push({ leaf, within, bounds, mix: leaf.paint.kind === 'colour' ? palette.mix(leaf.paint.colour) : null });
  });
  known.set(scene, { palette, seen });
  return seen;
}

/** Black, and not of black ink alone. */
export const isMixedBlack = (mix: Mix): boolean =>
  mix[3] >= 0.85 && mix.slice(0, 3).some((v) => v >= 0.1) && inksIn(mix.slice(PROCESS.length)) === 0;
/** Does anything with ink lie below a leaf, where its middle is? */
export function inkBelow(all: readonly Seen[], at: number, least = 1): boolean {
  const { bounds } = all[at];
  const middle = { x: (bounds.x0 + bounds.x1) / 2, y: (bounds.y0 + bounds.y1) / 2 };
  for (let i = at - 1; i >= 0; i--) {
    const { leaf, bounds: box, mix } = all[i];
    if (leaf.type === 'stroke' || leaf.node === all[at].leaf.node || !overlaps(box, bounds)) continue;
    if (middle.x < box.x0 || middle.x > box.x1 || middle.y < box.y0 || middle.y > box.y1) continue;
    if (!pathContains(leaf.placed.path, leaf.type === 'fill' ? leaf.rule : 'nonZero', middle)) continue;
    if (!mix) return true;
    if (inksIn(mix) >= least) return true;
    // What is free of ink and does not overprint takes away all below it.
    if (leaf.paint.kind === 'colour' && !leaf.paint.overprint) return false;
  }
  return false;
}
