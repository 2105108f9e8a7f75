import { overlaps } from '../../geometry/rect';
import { SMALL_BLACK } from '../../model/platesSchema';
import { isOwn } from '../../scene/scene';
import type { Within } from '../../scene/walk';
import { isBlackAlone, isFree, letterSize, overprints as laidOver } from '../../scene/overprints';
import { inkBelow, seenOn, type Seen } from '../seen';
import type { Rule, Subject } from '../types';

/** What the design sets to overprint; small black does so unasked. */
const overprints = ({ leaf }: Seen): boolean => leaf.paint.kind === 'colour' && leaf.paint.overprint;

/** Each object with a leaf for which something holds, once; on a screen nothing overprints. */
function* each(
  s: Subject,
  holds: (all: readonly Seen[], at: number) => boolean,
): Iterable<{ readonly node: string; readonly facts: Record<string, never> }> {
  if (s.palette.screen) return;
  const all = seenOn(s.scene, s.palette);
  const found = new Set<string>();
  all.forEach((seen, at) => {
    if (!found.has(seen.leaf.node) && holds(all, at)) found.add(seen.leaf.node);
  });
  for (const node of found) yield { node, facts: {} };
}

export const whiteOverprintsRule: Rule<'overprint.white'> = {
  code: 'overprint.white',
  severity: 'stop',
  find: (s) => each(s, (all, at) => overprints(all[at]) && all[at].mix!.every((v) => v < 0.005)),
  say: (_, name) => ({
    message: `${name} is free of ink and overprints: it will not be seen.`,
    why: 'What overprints leaves what is below as it is, and this adds nothing. Let it cut out what lies below.',
  }),
};

const ownGroup = (w: Within): boolean => {
  for (let at = w; at; at = at.outer) if (isOwn(at.group)) return true;
  return false;
};

export const lostOverprintRule: Rule<'overprint.lost'> = {
  code: 'overprint.lost',
  severity: 'look',
  find: (s) => each(s, (all, at) => overprints(all[at]) && !isFree(all[at].mix!) && ownGroup(all[at].within)),
  say: (_, name) => ({
    message: `${name} overprints only within its group, which is faded, blended or masked.`,
    why: 'Such a group is made by itself and then laid down as one. Take the object out of it, or do without the overprint.',
  }),
};

export const unsureOverprintRule: Rule<'overprint.unsure'> = {
  code: 'overprint.unsure',
  severity: 'look',
  find: (s) =>
    each(s, (all, at) => {
      if (!overprints(all[at]) || isFree(all[at].mix!)) return false;
      for (let i = at - 1; i >= 0; i--) {
        const below = all[i];
        if (!overlaps(below.bounds, all[at].bounds) || below.leaf.node === all[at].leaf.node) continue;
        if (!ownGroup(below.within)) return false;
        // Something see-through: is there something whole below it?
        const whole = all.slice(0, i).some((o) => overlaps(o.bounds, all[at].bounds) && !ownGroup(o.within));
        return !whole;
      }
      return false;
    }),
  say: (_, name) => ({
    message: `${name} overprints something see-through with nothing whole below.`,
    why: 'Presses mix such places in different ways. Lay a filled area below them, or let the object cut out.',
  }),
};

export const blackKnocksOutRule: Rule<'black.knocksOut'> = {
  code: 'black.knocksOut',
  severity: 'look',
  find: (s) =>
    each(s, (all, at) => {
      const { leaf, mix, within } = all[at];
      const size = letterSize(leaf);
      if (
        size === null ||
        size >= SMALL_BLACK ||
        !mix ||
        !isBlackAlone(mix) ||
        laidOver(leaf, s.palette) ||
        ownGroup(within)
      )
        return false;
      return inkBelow(all, at);
    }),
  say: (_, name) => ({
    message: `${name}: small black letters cut out what lies below.`,
    why: 'If plates lie a hair apart, paper shows round each letter. Let black letters overprint.',
  }),
};
