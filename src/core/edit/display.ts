import { layoutOf } from '../derive/layout';
import { alongContour, contourLength } from '../geometry/measure';
import { apply, invert, meanScale, multiply, translation, type Matrix } from '../geometry/matrix';
import { transformPath } from '../geometry/path';
import { contoursOf, pathOfContours, type Contour } from '../geometry/segments';
import type { Along, Bend, Design, NodeOf, Page, Story } from '../model/schema';
import { pageMatrix, parentMatrix, type NodeId } from '../model/tree';
import { outlinePath } from '../shapes/outline';
import type { FontBook } from '../text/fonts';
import { before, plain, type DesignDraft } from './history';
import { looksOf } from './textPlace';
import { changeRuns, setParagraphLook } from './text';

/** Commands for display text that stands on a line or is bent. */

type Text = NodeOf<'displayText'>;

/** Words cover this angle of a circle they are first put on, radians. */
const FIRST_ANGLE = 2;

const textOf = (d: DesignDraft, id: NodeId): Text | null => {
  const node = before(d).nodes[id];
  return node?.kind === 'displayText' ? node : null;
};

/** Puts words on a circle of their own, centred at its top, where they stand now. */
export function putOnCircle(d: DesignDraft, id: NodeId, fonts: FontBook): void {
  const node = textOf(d, id);
  if (!node) return;
  const layout = layoutOf(before(d), node, fonts);
  const width = Math.max(1, (layout.x1 - layout.x0) * node.stretch);
  const radius = width / FIRST_ANGLE;
  const middle = ((layout.x0 + layout.x1) / 2) * node.stretch;
  const draft = d.nodes[id] as { along?: unknown; bend?: unknown; transform: unknown };
  draft.transform = [...multiply(node.transform, translation(middle, radius))];
  draft.along = { line: { radius }, at: 0 };
  delete draft.bend;
  align(d, node, 'middle');
}

/** Puts words on the outline of a shape or path, where it is topmost; the shape stays. */
export function putOnOutline(d: DesignDraft, page: Page, id: NodeId, outline: NodeId): void {
  const [node, was] = [textOf(d, id), before(d)];
  const shape = was.nodes[outline];
  if (!node || !(shape?.kind === 'shape' || shape?.kind === 'path')) return;
  const back = invert(parentMatrix(was, page, id));
  const longest = contoursOf(outlinePath(shape).path).toSorted((a, b) => contourLength(b) - contourLength(a))[0];
  if (!back || !longest) return;
  const seen = multiply(back, pageMatrix(was, page, outline));
  const origin = apply(seen, { x: 0, y: 0 });
  const toOwn = multiply(translation(-origin.x, -origin.y), seen);
  const path = transformPath(pathOfContours([longest]), toOwn);
  const by = meanScale(node.transform);
  const draft = d.nodes[id] as { along?: unknown; bend?: unknown; transform: unknown };
  draft.transform = [...translation(origin.x, origin.y)];
  draft.along = { line: { path: [...path] }, ...topOf(longest, toOwn) };
  delete draft.bend;
  if (by !== 1)
    d.stories[node.story] = changeRuns(looksOf(was), plain(d.stories[node.story]) as Story, 0, 0, (r, set) => ({
      ...r,
      size: Math.min(10_000, Math.max(0.1, set.size * by)),
    })) as (typeof d.stories)[string];
  if (longest.closed) align(d, node, 'middle');
}

/** Places that are tried for the topmost of a line. */
const TRIES = 400;

/** Where on a closed line words read best: at its top, from left to right. An open one is read from its left end. */
function topOf(contour: Contour, toOwn: Matrix): Pick<Along, 'at' | 'reversed'> {
  const length = contourLength(contour);
  const place = (share: number) => apply(toOwn, alongContour(contour, share * length).point);
  if (!contour.closed) return place(0).x <= place(1).x ? { at: 0 } : { at: 0, reversed: true };
  let [at, top] = [0, Infinity];
  for (let i = 0; i < TRIES; i++) {
    const { y } = place(i / TRIES);
    if (y < top - 1e-9) [at, top] = [i / TRIES, y];
  }
  // Of a level top, its middle.
  let to = at;
  while (to + 1 / TRIES < at + 1 && Math.abs(place((to + 1 / TRIES) % 1).y - top) < 1e-6) to += 1 / TRIES;
  const middle = ((at + to) / 2) % 1;
  const step = 1e-3;
  const rightwards = place((middle + step) % 1).x > place((middle + 1 - step) % 1).x;
  return rightwards ? { at: middle } : { at: (1 - middle) % 1, reversed: true };
}

function align(d: DesignDraft, node: Text, to: 'middle'): void {
  d.stories[node.story] = setParagraphLook(
    plain(d.stories[node.story]) as Story,
    0,
    0,
    { align: to },
    true,
  ) as (typeof d.stories)[string];
}

/** Changes how words stand on their line; what is set to undefined is as it was at first. */
export function setAlong(d: DesignDraft, ids: readonly NodeId[], change: Partial<Along>): void {
  for (const id of ids) {
    const node = d.nodes[id];
    if (node.kind !== 'displayText' || !node.along) continue;
    const next = { ...node.along, ...change };
    // What is not said is left out.
    for (const key of Object.keys(next) as (keyof typeof next)[]) if (next[key] === undefined) delete next[key];
    node.along = next as typeof node.along;
  }
}

/** Bends words, or changes how they are bent; null: not at all. */
export function setBend(d: DesignDraft, ids: readonly NodeId[], change: Partial<Bend> | null): void {
  for (const id of ids) {
    const node = d.nodes[id];
    if (node.kind !== 'displayText') continue;
    if (change) node.bend = { kind: 'arch', strength: 0.3, ...node.bend, ...change };
    else delete node.bend;
  }
}

/**
 * Straight again: off their line, and not bent. Off a line they stay about where they are seen; bent, they bend back in
 * place.
 */
export function straighten(d: DesignDraft, ids: readonly NodeId[], fonts: FontBook): void {
  const was = before(d) as Design;
  for (const id of ids) {
    const [node, draft] = [textOf(d, id), d.nodes[id]];
    if (!node || draft.kind !== 'displayText' || !(node.along || node.bend)) continue;
    if (!node.along) {
      delete draft.bend;
      continue;
    }
    const old = layoutOf(was, node, fonts);
    const { along: _, bend: __, ...bare } = node;
    const next = layoutOf({ ...was, nodes: { ...was.nodes, [id]: bare } }, bare, fonts);
    delete draft.along;
    delete draft.bend;
    const [ox, nx] = [node.along ? 1 : node.stretch, node.stretch];
    const dx = ((old.x0 + old.x1) / 2) * ox - ((next.x0 + next.x1) / 2) * nx;
    const dy = (old.top + old.bottom) / 2 - (next.top + next.bottom) / 2;
    draft.transform = [...multiply(node.transform, translation(dx, dy))];
  }
}
