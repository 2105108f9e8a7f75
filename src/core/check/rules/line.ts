import { formatNumber } from '../../units/length';
import { isMark } from '../marks';
import { isFree } from '../../scene/overprints';
import { inkBelow, seenOn, type Seen } from '../seen';
import type { Found, Rule, Subject } from '../types';

const SLACK = 0.005;
const pt = (v: number): string => `${formatNumber(v, 2)} pt`;

/** The thinnest line of each object for which something holds. */
function* thinnest(
  { scene, palette, design }: Subject,
  least: number,
  holds: (all: readonly Seen[], at: number) => boolean,
): Iterable<{ node: string; width: number }> {
  if (palette.screen) return;
  const all = seenOn(scene, palette);
  const found = new Map<string, number>();
  all.forEach((seen, at) => {
    const { leaf } = seen;
    if (leaf.type === 'fill' || !leaf.stroke || isMark(leaf, palette)) return;
    const { width } = leaf.stroke;
    if (!(width > 0) || width >= least - SLACK || isTrap(design, all, at) || !holds(all, at)) return;
    found.set(leaf.node, Math.min(width, found.get(leaf.node) ?? Infinity));
  });
  for (const [node, width] of found) yield { node, width };
}

/** A line round an area in the area's own colour is no line that anyone sees. */
function isTrap(design: Subject['design'], all: readonly Seen[], at: number): boolean {
  const { leaf, mix } = all[at];
  if (design.nodes[leaf.node]?.kind === 'group') return true;
  return [all[at - 1], all[at + 1]].some(
    (o) => o && o.leaf.node === leaf.node && o.leaf.type === 'fill' && mix !== null && o.mix?.join() === mix.join(),
  );
}

export const thinLineRule: Rule<'line.thin'> = {
  code: 'line.thin',
  severity: 'look',
  *find(s): Iterable<Found<'line.thin'>> {
    const least = s.limits.line;
    const inked = (all: readonly Seen[], at: number) => !all[at].mix || !isFree(all[at].mix);
    for (const { node, width } of thinnest(s, least, inked)) yield { node, facts: { width, least } };
  },
  say: ({ width, least }, name) => ({
    message: `${name} has a line of ${pt(width)}.`,
    why: `A line under ${pt(least)} may print broken or not at all, though the screen shows it. Make it heavier.`,
  }),
};

export const freeLineRule: Rule<'line.free'> = {
  code: 'line.free',
  severity: 'look',
  *find(s): Iterable<Found<'line.free'>> {
    const least = s.limits.freeLine;
    const free = (all: readonly Seen[], at: number) => all[at].mix !== null && isFree(all[at].mix) && inkBelow(all, at);
    for (const { node, width } of thinnest(s, least, free)) yield { node, facts: { width, least } };
  },
  say: ({ width, least }, name) => ({
    message: `${name} has a line of ${pt(width)} left free of ink.`,
    why: `Ink spreads, and closes gaps under ${pt(least)}. Make it heavier.`,
  }),
};
