import { isText, layoutOf } from '../derive/layout';
import type { Matrix } from '../geometry/matrix';
import type { Design, Story } from '../model/schema';
import { setStory } from '../model/textLooks';
import { pageById, pageMatrix, type NodeId } from '../model/tree';
import { setupOn } from '../model/setupOn';
import type { FontBook } from '../text/fonts';
import { before, plain, type DesignDraft } from './history';
import { moveNodes } from './place';

/** Lines further from the grid than this (points) do not stand on it. */
const OFF = 0.05;
/** Leading so little over a number of steps (a share of one) is that number. */
const HARDLY = 0.1;

const straight = ([a, b, c, d]: Matrix): boolean => Math.abs(b) < 1e-9 && Math.abs(c) < 1e-9 && a > 0 && d > 0;

/**
 * Sets texts of a page on its baseline grid: leading and the room between paragraphs become whole steps of it; display
 * text is moved up or down to the nearest line, in a frame each line goes down to one. Answers those of which some
 * lines do not stand on it all the same: turned ones.
 */
export function ontoGrid(d: DesignDraft, pageId: string, ids: readonly NodeId[], fonts: FontBook): NodeId[] {
  const was = before(d);
  const page = pageById(was, pageId);
  const grid = page && setupOn(was, page).baseline;
  if (!page || !grid) return [...ids];
  const texts = ids.filter((id) => isText(was.nodes[id]));
  const upright = texts.filter((id) => straight(pageMatrix(was, page, id)));
  for (const id of upright) {
    const node = was.nodes[id];
    if (!('story' in node)) continue;
    const m = pageMatrix(was, page, id);
    const step = grid.step / m[3];
    d.stories[node.story] = stepped(was, was.stories[node.story], step);
    const draft = d.nodes[id];
    const start = (grid.start - m[5]) / m[3];
    if (draft.kind === 'textFrame') draft.baseline = { start: start - Math.floor(start / step) * step, step };
  }
  const set = plain(d) as Design;
  for (const id of upright) {
    if (set.nodes[id].kind === 'textFrame') continue;
    const first = baselinesOf(set, pageId, id, fonts)[0];
    if (first === undefined) continue;
    const to = grid.start + Math.round((first - grid.start) / grid.step) * grid.step;
    if (Math.abs(to - first) > 1e-6) moveNodes(d, page, [id], 0, to - first);
  }
  const done = plain(d) as Design;
  return texts.filter((id) => {
    if (!upright.includes(id)) return true;
    return baselinesOf(done, pageId, id, fonts).some((y) => {
      const steps = (y - grid.start) / grid.step;
      return Math.abs(steps - Math.round(steps)) * grid.step > OFF;
    });
  });
}

/** Lets lines of frames stand where their leading puts them. */
export function offGrid(d: DesignDraft, ids: readonly NodeId[]): void {
  for (const id of ids) {
    const node = d.nodes[id];
    if (node?.kind === 'textFrame') delete node.baseline;
  }
}

/** Where the lines of a text that is not turned stand on its page, points from its head. */
export function baselinesOf(d: Design, pageId: string, id: NodeId, fonts: FontBook): number[] {
  const node = d.nodes[id];
  const page = pageById(d, pageId);
  if (!page || !isText(node)) return [];
  const m = pageMatrix(d, page, id);
  return layoutOf(d, node, fonts).lines.map((l) => m[3] * l.baseline + m[5]);
}

/** A story whose lines and paragraphs are whole steps apart, `step` in its own points. */
function stepped(d: Design, story: Story, step: number): DesignDraft['stories'][string] {
  const set = setStory(d, story).paragraphs;
  const whole = (length: number) => Math.round(length / step) * step;
  return {
    ...story,
    paragraphs: story.paragraphs.map((p, i) => {
      const { leading, spaceBefore, spaceAfter, runs } = set[i];
      const now = typeof leading === 'number' ? leading * Math.max(...runs.map((r) => r.size)) : leading.points;
      const steps = Math.max(1, Math.ceil(now / step - HARDLY));
      return {
        ...p,
        leading: { points: steps * step },
        spaceBefore: whole(spaceBefore),
        spaceAfter: whole(spaceAfter),
      };
    }),
  } as DesignDraft['stories'][string];
}
