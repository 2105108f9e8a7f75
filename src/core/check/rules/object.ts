import { openGaps } from '../../edit/combine';
import { wordsOf } from '../../derive/fields';
import { contourLength } from '../../geometry/measure';
import { overlaps, union, type Rect } from '../../geometry/rect';
import { contourArea, contoursOf } from '../../geometry/segments';
import type { Design, DesignNode } from '../../model/schema';
import { spreadOf } from '../../model/tree';
import { bleedRect } from '../../scene/scene';
import { formatLength, formatNumber } from '../../units/length';
import { drawnOn, hasPaint } from '../drawn';
import { letterSize } from '../../scene/overprints';
import { seenOn } from '../seen';
import type { Found, Rule } from '../types';

export const outsideRule: Rule<'object.outside'> = {
  code: 'object.outside',
  severity: 'look',
  *find({ design, page, scene, palette }): Iterable<Found<'object.outside'>> {
    const boxes = new Map<string, Rect>();
    for (const { leaf, bounds } of seenOn(scene, palette)) {
      const known = boxes.get(leaf.node);
      boxes.set(leaf.node, known ? union(known, bounds) : bounds);
    }
    // What lies on the page that faces it is printed there.
    const spread = spreadOf(design, page);
    const own = bleedRect(scene);
    const over = spread?.other ? (spread.side === 'left' ? scene.width : -scene.width) : 0;
    const sheet = { ...own, x0: Math.min(own.x0, own.x0 + over), x1: Math.max(own.x1, own.x1 + over) };
    for (const [node, box] of boxes) if (node !== page.id && !overlaps(box, sheet)) yield { node, facts: {} };
  },
  say: (_, name) => ({
    message: `${name} lies wholly off the page.`,
    why: 'It is not printed, yet goes along in the file. Move it onto the page, or delete it.',
  }),
};

/** What makes two objects the same thing: all but their ids and names, words as they read. */
function likeness(design: Design, n: DesignNode): string {
  const { id: _id, name: _name, locked: _locked, ...rest } = n;
  if ('children' in rest) return `${n.id}`;
  const story = 'story' in rest ? design.stories[rest.story]?.paragraphs : null;
  return JSON.stringify([{ ...rest, ...('story' in rest && { story: '' }) }, story]);
}

export const twiceRule: Rule<'object.twice'> = {
  code: 'object.twice',
  severity: 'look',
  *find({ design, page }): Iterable<Found<'object.twice'>> {
    const known = new Map<readonly string[], Map<string, string>>();
    for (const { node, siblings } of drawnOn(design, page)) {
      if (node.kind === 'group' || node.kind === 'repeat' || node.kind === 'combination') continue;
      let here = known.get(siblings);
      if (!here) known.set(siblings, (here = new Map()));
      const key = likeness(design, node);
      const other = here.get(key);
      if (other === undefined) here.set(key, node.id);
      else yield { node: node.id, facts: { other } };
    }
  },
  say: (_, name) => ({
    message: `${name} lies exactly on another of the same kind.`,
    why: 'A change to the one will leave the other behind, and what shows through prints twice as strong. Delete one of them.',
  }),
};

export const unseenRule: Rule<'object.unseen'> = {
  code: 'object.unseen',
  severity: 'look',
  *find({ design, page }): Iterable<Found<'object.unseen'>> {
    for (const { node, holder } of drawnOn(design, page)) {
      // What cuts, or only encloses coloured areas, is there to be unseen.
      if (node.maskMode || (holder?.kind === 'group' && holder.regions)) continue;
      if (node.opacity === 0) yield { node: node.id, facts: {} };
      else if ((node.kind === 'shape' || node.kind === 'path' || node.kind === 'combination') && !hasPaint(node))
        if (node.pushesWords === undefined) yield { node: node.id, facts: {} };
    }
  },
  say: (_, name) => ({
    message: `${name} cannot be seen: it has neither fill nor line.`,
    why: 'It is easily caught when something else is meant. Give it a paint, or delete it.',
  }),
};

export const emptyFrameRule: Rule<'frame.empty'> = {
  code: 'frame.empty',
  severity: 'look',
  *find({ design, page }): Iterable<Found<'frame.empty'>> {
    for (const { node } of drawnOn(design, page)) {
      if (!('story' in node) || (node.kind === 'textFrame' && hasPaint(node))) continue;
      // A frame of a longer text waits for its share of it.
      if ((design.stories[node.story]?.frames?.length ?? 1) > 1) continue;
      if (!wordsOf(design, node).trim()) yield { node: node.id, facts: {} };
    }
  },
  say: (_, name) => ({
    message: `${name === 'An empty text' ? 'A text frame' : name} has no words in it.`,
    why: 'Something may be missing here. Write in it, or delete it.',
  }),
};

export const openFillRule: Rule<'fill.open'> = {
  code: 'fill.open',
  severity: 'look',
  *find({ design, page }): Iterable<Found<'fill.open'>> {
    for (const { node } of drawnOn(design, page)) {
      if (node.kind !== 'path' || node.fills.every((f) => f.kind === 'none')) continue;
      const open = contoursOf(node.path).some(({ segments, closed }) => {
        const [first, last] = [segments[0], segments[segments.length - 1]];
        return !closed && segments.length > 1 && Math.hypot(first.x0 - last.x3, first.y0 - last.y3) > 0.05;
      });
      // With a line round it, it shows where it is open; without one the fill closes itself.
      if (open && node.outlines.some((o) => o.paint.kind !== 'none' && o.width > 0)) yield { node: node.id, facts: {} };
    }
  },
  say: (_, name) => ({
    message: `${name} is filled, but its line is open.`,
    why: 'The fill ends in a straight edge with no line along it. Close the line, or take the fill away.',
  }),
};

/** Areas smaller than this (square points) are dust of some operation, and slivers as well. */
const DUST = 0.01;

export const sliverRule: Rule<'fill.sliver'> = {
  code: 'fill.sliver',
  severity: 'look',
  *find({ scene, palette, limits }): Iterable<Found<'fill.sliver'>> {
    if (palette.screen) return;
    const found = new Map<string, number>();
    for (const { leaf } of seenOn(scene, palette)) {
      if (leaf.type !== 'fill' || leaf.line || leaf.fixed || letterSize(leaf) !== null) continue;
      if (leaf.placed.own.length > 4000) continue;
      for (const c of contoursOf(leaf.placed.path)) {
        const [area, length] = [Math.abs(contourArea(c.segments)), contourLength(c)];
        if (!(length > 0)) continue;
        // Of a long thin area twice its area by its length round is how wide it is.
        const wide = (2 * area) / length;
        if (wide < limits.line - 0.005 && (area < DUST || length > 4 * wide))
          found.set(leaf.node, Math.min(wide, found.get(leaf.node) ?? Infinity));
      }
    }
    for (const [node, width] of found) yield { node, facts: { width } };
  },
  say: ({ width }, name) => ({
    message: `${name} has a sliver ${formatNumber(width, 2)} pt wide.`,
    why: 'So thin an area prints broken or not at all; it is often left over from cutting one shape out of another. Take it away, or draw it broader.',
  }),
};

export const gapRule: Rule<'combination.gap'> = {
  code: 'combination.gap',
  severity: 'look',
  *find({ design, page, fonts }): Iterable<Found<'combination.gap'>> {
    for (const { node } of drawnOn(design, page)) {
      if (node.kind !== 'combination' || node.op !== 'union') continue;
      const [gap] = openGaps(design, node.id, fonts);
      if (gap) yield { node: node.id, facts: { gap: gap.distance, unit: design.setup.unit } };
    }
  },
  say: ({ gap, unit }, name) => ({
    message: `${name} stays in pieces that nearly touch (${formatLength(gap, unit, 2)} apart).`,
    why: 'What is meant as one falls apart when it is cut, and a hair of ground shows in print. Close the gap: choose it and see Combine.',
  }),
};
