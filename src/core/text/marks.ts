import type { ParagraphSet } from '../model/schema';
import type { SetParagraph, SetStory } from '../model/textLooks';
import type { FontBook } from './fonts';
import { setLine, type PlacedRun } from './line';
import { shapeParagraph } from './shaping';

/**
 * What stands before each paragraph of a list: its bullet, or its number with what follows it; null before all others.
 */
export function marksOf(story: SetStory): (string | null)[] {
  let number = 0;
  let before: ParagraphSet['list'] = null;
  return story.paragraphs.map((p) => {
    const { list } = p;
    if (list?.kind === 'bullets') return list.mark;
    if (list?.kind !== 'numbers') {
      // A plain paragraph ends a list; bullets in between do not.
      before = null;
      return null;
    }
    number = list.start ?? (before ? number + 1 : 1);
    before = list;
    return numeral(number, list.style) + list.after;
  });
}

type Style = Extract<ParagraphSet['list'], { kind: 'numbers' }>['style'];
const ROMAN: readonly (readonly [number, string])[] = [
  [1000, 'M'],
  [900, 'CM'],
  [500, 'D'],
  [400, 'CD'],
  [100, 'C'],
  [90, 'XC'],
  [50, 'L'],
  [40, 'XL'],
  [10, 'X'],
  [9, 'IX'],
  [5, 'V'],
  [4, 'IV'],
  [1, 'I'],
];

/** A number in a style; letters and Roman numerals begin at one. */
export function numeral(n: number, style: Style): string {
  if (style === 'decimal' || n < 1) return String(n);
  if (style === 'lowerRoman' || style === 'capitalRoman') {
    let [rest, out] = [n, ''];
    for (const [value, letters] of ROMAN) for (; rest >= value; rest -= value) out += letters;
    return style === 'lowerRoman' ? out.toLowerCase() : out;
  }
  let [rest, out] = [n, ''];
  // a … z, aa, ab …
  for (; rest > 0; rest = Math.floor((rest - 1) / 26)) out = String.fromCharCode(97 + ((rest - 1) % 26)) + out;
  return style === 'lowerLetters' ? out : out.toUpperCase();
}

/** Between a mark and words that do not hang: this share of the size. */
const GAP = 0.4;

const known = new WeakMap<SetParagraph, Map<string, readonly PlacedRun[]>>();

/**
 * A mark set in the letters that the paragraph begins with, `hang` before its words; the same runs for the same mark.
 */
export function markRuns(p: SetParagraph, mark: string, hang: number, fonts: FontBook): readonly PlacedRun[] {
  let marks = known.get(p);
  if (!marks) known.set(p, (marks = new Map()));
  const key = `${fonts.epoch} ${hang} ${mark}`;
  let runs = marks.get(key);
  if (!runs) {
    const first = p.runs[0];
    const own: SetParagraph = { ...p, list: null, runs: [{ ...first, text: mark, underline: false, strike: false }] };
    const shaped = shapeParagraph(own, fonts);
    const line = setLine(own, shaped, 0, mark.length, { stretch: 0, hyphen: false });
    // Where it would run into the words it stands before them.
    const left = -Math.max(hang, line.width + (hang ? 0 : GAP * first.size));
    runs = line.runs.map((r) => ({
      ...r,
      x0: r.x0 + left,
      x1: r.x1 + left,
      glyphs: r.glyphs.map((g) => ({ ...g, x: g.x + left })),
    }));
    marks.set(key, runs);
  }
  return runs;
}
