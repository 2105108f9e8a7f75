import type { Paragraph, Story } from '../model/schema';
import { plainText } from '../text/layout';
import { paragraphAt, replaceText, storyPart } from './text';

/** Moving and choosing in a text by words and paragraphs, and taking stretches of it along. Offsets as in `text.ts`. */

interface Stretch {
  readonly from: number;
  readonly to: number;
}

const words = new Intl.Segmenter('en', { granularity: 'word' });

/** The word at an offset (of two that meet there, the one behind it), or what stands between words. */
export function wordAt(text: string, offset: number): Stretch {
  const from = text.lastIndexOf('\n', Math.max(0, offset - 1)) + 1;
  const next = text.indexOf('\n', offset);
  const to = next < 0 ? text.length : next;
  let last: Stretch = { from: offset, to: offset };
  for (const { index, segment } of words.segment(text.slice(from, to))) {
    last = { from: from + index, to: from + index + segment.length };
    if (offset < last.to) return last;
  }
  return last;
}

/** The paragraph at an offset, without its end. */
export function paragraphStretch(story: Story, offset: number): Stretch {
  const { from, to } = paragraphAt(story, offset);
  return { from, to };
}

/**
 * Does typing so begin a word (with the space before it), or something else than typing on? Then it is a step of its
 * own.
 */
export function beginsAnew(before: string, change: { from: number; to: number; insert: string }): boolean {
  const { from, to, insert } = change;
  if (insert.includes('\n') || (from < to && insert !== '')) return true;
  return /^\s/.test(insert) && from > 0 && !/\s/.test(before[from - 1]);
}

/** What a stretch of a story says, with how it is set. */
export const takeStretch = (story: Story, from: number, to: number): readonly Paragraph[] =>
  storyPart(story, from, to).paragraphs;

/** Puts paragraphs in the place of a stretch: the first and the last join what stands there. */
export function putParagraphs(story: Story, from: number, to: number, put: readonly Paragraph[]): Story {
  if (!put.length) return replaceText(story, from, to, '');
  const whole = plainText(story);
  const head = storyPart(story, 0, from).paragraphs;
  const tail = storyPart(story, to, whole.length).paragraphs;
  const join = (a: Paragraph, b: Paragraph, leads: Paragraph): Paragraph => {
    const runs = [...a.runs, ...b.runs].filter((r) => r.text !== '');
    return { ...leads, runs: runs.length ? runs : [leads.runs[0]] };
  };
  const middle = put.length === 1 ? [] : put.slice(1);
  const first = join(head[head.length - 1], put[0], head[head.length - 1]);
  const made = [...head.slice(0, -1), first, ...middle];
  const last = made[made.length - 1];
  return { ...story, paragraphs: [...made.slice(0, -1), join(last, tail[0], last), ...tail.slice(1)] };
}
