import { luminance, contrastRatio } from '../../colour/models';
import { wordsOf } from '../../derive/fields';
import { spreadOf, withDescendants } from '../../model/tree';
import { formatLength, formatNumber } from '../../units/length';
import { inksIn, isFree, letterSize } from '../../scene/overprints';
import { inkBelow, isMixedBlack, seenOn, type Seen } from '../seen';
import type { Found, Rule, Subject } from '../types';

const pt = (size: number): string => `${formatNumber(size, 1)} pt`;
/** Rounding of sizes must not raise an alarm. */
const SLACK = 0.02;

/** The smallest letters of each text for which something holds; what is shown on a screen alone is left out. */
function* smallest(
  s: Subject,
  least: number,
  holds: (seen: Seen, all: readonly Seen[], at: number) => boolean,
): Iterable<{ node: string; size: number; seen: Seen }> {
  if (s.palette.screen) return;
  const all = seenOn(s.scene, s.palette);
  const found = new Map<string, { size: number; seen: Seen }>();
  all.forEach((seen, at) => {
    const size = letterSize(seen.leaf);
    if (size === null || size >= least - SLACK) return;
    const known = found.get(seen.leaf.node);
    if ((known && known.size <= size) || !holds(seen, all, at)) return;
    found.set(seen.leaf.node, { size, seen });
  });
  for (const [node, f] of found) yield { node, ...f };
}

export const tinyWordsRule: Rule<'words.tiny'> = {
  code: 'words.tiny',
  severity: 'look',
  *find(s): Iterable<Found<'words.tiny'>> {
    const least = s.limits.text;
    for (const { node, size } of smallest(s, least, () => true)) yield { node, facts: { size, least } };
  },
  say: ({ size, least }, name) => ({
    message: `${name} has letters of ${pt(size)}.`,
    why: `Under ${pt(least)} letters fill in or break up in print, and few can read them. Make them larger.`,
  }),
};

export const mixedWordsRule: Rule<'words.mixed'> = {
  code: 'words.mixed',
  severity: 'look',
  *find(s): Iterable<Found<'words.mixed'>> {
    const least = s.limits.mixedText;
    const mixed = ({ mix }: Seen) => mix !== null && inksIn(mix) > 1 && !isMixedBlack(mix);
    for (const { node, size, seen } of smallest(s, least, mixed))
      yield { node, facts: { size, least, inks: inksIn(seen.mix!) } };
  },
  say: ({ size, least, inks }, name) => ({
    message: `${name} has letters of ${pt(size)} in ${inks} inks.`,
    why: `Where plates lie a hair apart, small letters get coloured edges. Under ${pt(least)} use one ink.`,
  }),
};

export const richWordsRule: Rule<'words.richBlack'> = {
  code: 'words.richBlack',
  severity: 'look',
  *find(s): Iterable<Found<'words.richBlack'>> {
    const least = s.limits.richText;
    for (const { node, size } of smallest(s, least, ({ mix }) => mix !== null && isMixedBlack(mix)))
      yield { node, facts: { size, least } };
  },
  say: ({ size, least }, name) => ({
    message: `${name} has letters of ${pt(size)} in a black of several inks.`,
    why: `Small black letters stay sharp in black ink alone; from ${pt(least)} on a mixed black is safe.`,
  }),
};

export const freeWordsRule: Rule<'words.free'> = {
  code: 'words.free',
  severity: 'look',
  *find(s): Iterable<Found<'words.free'>> {
    const least = s.limits.freeText;
    const free = ({ mix }: Seen, all: readonly Seen[], at: number) =>
      mix !== null && isFree(mix) && inkBelow(all, at, 2);
    for (const { node, size } of smallest(s, least, free)) yield { node, facts: { size, least } };
  },
  say: ({ size, least }, name) => ({
    message: `${name} has letters of ${pt(size)} left free in several inks.`,
    why: `The inks around them close up such thin gaps. Make them ${pt(least)} or more, or heavier.`,
  }),
};

type Side = 'left' | 'top' | 'right' | 'foot';

/** Words nearer to the cut, or to the fold, than a knife may stray. */
export const nearTrimRule: Rule<'words.nearTrim'> = {
  code: 'words.nearTrim',
  severity: 'look',
  *find({ design, page, scene, palette, limits }): Iterable<Found<'words.nearTrim'>> {
    const { safe } = limits;
    if (palette.screen || !(safe > 0)) return;
    const { width, height, round } = scene;
    const spread = spreadOf(design, page);
    const fold = spread?.other ? (spread.side === 'left' ? 'right' : 'left') : '';
    const near = new Map<string, { off: number; sides: Set<string>; ways: Record<Side, number> }>();
    const note = (node: string, side: string, off: number, way: Side | null) => {
      // What reaches across the cut is art, or meant to be cut.
      if (off >= safe - SLACK || off < 0) return;
      let known = near.get(node);
      if (!known) near.set(node, (known = { off, sides: new Set(), ways: { left: 0, top: 0, right: 0, foot: 0 } }));
      known.off = Math.min(known.off, off);
      known.sides.add(side);
      if (way) known.ways[way] = Math.max(known.ways[way], safe - off);
    };
    for (const { leaf, bounds: b } of seenOn(scene, palette)) {
      if (letterSize(leaf) === null) continue;
      if (round) {
        const { path } = leaf.placed;
        let far = 0;
        for (let i = 0; i < path.length; i += [3, 3, 7, 1][path[i]]) {
          const end = [0, 0, 4, -2][path[i]];
          if (end < 0) continue;
          far = Math.max(far, Math.hypot(path[i + 1 + end] - width / 2, path[i + 2 + end] - height / 2));
        }
        note(leaf.node, 'edge', Math.min(width, height) / 2 - far, null);
        continue;
      }
      const named = (side: string) => (side === fold ? 'fold' : side);
      note(leaf.node, named('left'), b.x0, 'left');
      note(leaf.node, 'top', b.y0, 'top');
      note(leaf.node, named('right'), width - b.x1, 'right');
      note(leaf.node, 'foot', height - b.y1, 'foot');
    }
    for (const [node, { off, sides, ways: w }] of near) {
      // Where it is as wide as the page there is no way.
      const [dx, dy] = [w.left && w.right ? 0 : w.left - w.right, w.top && w.foot ? 0 : w.top - w.foot];
      yield { node, facts: { off, safe, dx, dy, sides: [...sides], unit: design.setup.unit } };
    }
  },
  say: ({ off, safe, sides, unit }, name) => ({
    message: `${name} lies ${formatLength(off, unit, 1)} from the ${sides.join(' and the ')}.`,
    why: `Cut and fold stray by a little, and then words look crooked or are cut into. Keep them ${formatLength(safe, unit, 1)} away.`,
  }),
};

/** Words that stand for others in drafts of every kind. */
const STAND_INS =
  /\b(lorem ipsum|dolor sit amet|your (?:name|title|text|headline|company|logo)(?: here)?|(?:text|title|name|headline|date|logo) (?:goes )?here|insert (?:text|title|name) ?(?:here)?|to be (?:announced|confirmed|done)|sample text|dummy text|placeholder|x{4,}|t\.?b\.?[acd]\.?|tk tk)\b/i;

export const placeholderRule: Rule<'words.placeholder'> = {
  code: 'words.placeholder',
  severity: 'look',
  *find({ design, page }): Iterable<Found<'words.placeholder'>> {
    for (const node of page.children.flatMap((c) => withDescendants(design, c))) {
      const n = design.nodes[node];
      if (!('story' in n) || n.hidden) continue;
      const words = STAND_INS.exec(wordsOf(design, n))?.[0];
      if (words) yield { node, facts: { words } };
    }
  },
  say: ({ words }, name) => ({
    message: `${name} says “${words}”.`,
    why: 'That reads like words that stand for others. Write what is meant, or waive this where it is meant.',
  }),
};

/** Contrast ratios (WCAG 2.2) below which words are hard to make out on paper: of small letters, and of large ones. */
const FAINT = { small: 2.5, large: 1.6 };
const LARGE = 18;

export const faintWordsRule: Rule<'words.faint'> = {
  code: 'words.faint',
  severity: 'look',
  *find({ scene, palette }): Iterable<Found<'words.faint'>> {
    const all = seenOn(scene, palette);
    const least = new Map<string, number>();
    all.forEach(({ leaf, mix, bounds, within }, at) => {
      const size = letterSize(leaf);
      // What is faded or blended is looked at by other means.
      if (size === null || !mix || within) return;
      const ground = flatBelow(all, at);
      if (ground === null) return;
      const light = (m: Seen['mix']) => luminance(palette.lookOfMix(m ?? palette.channels.map(() => 0)));
      const paper = palette.screen ? 1 : light(null);
      const ratio = contrastRatio(light(mix), ground === 'paper' ? paper : light(ground));
      if (ratio < (size < LARGE ? FAINT.small : FAINT.large) && bounds.x1 > bounds.x0)
        least.set(leaf.node, Math.min(ratio, least.get(leaf.node) ?? Infinity));
    });
    for (const [node, ratio] of least) yield { node, facts: { ratio } };
  },
  say: ({ ratio }, name) => ({
    message: `${name} hardly stands out against what lies below it (contrast ${formatNumber(ratio, 1)}).`,
    why: 'People with weak sight, and everyone in poor light, will not read it. Make it darker or lighter than its ground.',
  }),
};

/** The flat colour below a leaf's middle; null where it is no flat one. */
function flatBelow(all: readonly Seen[], at: number): NonNullable<Seen['mix']> | 'paper' | null {
  const { bounds, leaf } = all[at];
  for (let i = at - 1; i >= 0; i--) {
    const below = all[i];
    const b = below.bounds;
    if (below.leaf.node === leaf.node || b.x1 < bounds.x0 || b.x0 > bounds.x1 || b.y1 < bounds.y0 || b.y0 > bounds.y1)
      continue;
    // Only what lies below all of it is told for certain.
    const whole = b.x0 <= bounds.x0 && b.y0 <= bounds.y0 && b.x1 >= bounds.x1 && b.y1 >= bounds.y1;
    const plain = below.leaf.type === 'fill' && !below.within && isBox(below.leaf.placed.own);
    if (!whole || !plain) return null;
    return below.mix && below.leaf.paint.kind === 'colour' && !below.leaf.paint.overprint ? below.mix : null;
  }
  return 'paper';
}
/** Four straight sides: its box is what it covers. */
const isBox = (path: readonly number[]): boolean => path.length <= 16 && !path.includes(2);
