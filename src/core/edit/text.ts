import { locate, runAt } from './textPlace';
import type { Design, Letters, Paragraph, ParagraphSet, Run, Story } from '../model/schema';
import { setStory, type SetRun } from '../model/textLooks';
import { wholeGrapheme } from '../text/graphemes';
import { plainText } from '../text/layout';

const slice = (runs: readonly Run[], from: number, to: number): Run[] => {
  const out: Run[] = [];
  let at = 0;
  for (const r of runs) {
    const a = Math.max(0, from - at);
    const b = Math.min(r.text.length, to - at);
    if (b > a) out.push({ ...r, text: r.text.slice(a, b) });
    at += r.text.length;
  }
  return out;
};

const lengthOf = (p: Paragraph) => p.runs.reduce((n, r) => n + r.text.length, 0);

/** Joins neighbours that look the same and drops empty runs; a paragraph keeps one run to remember its look. */
function tidy(runs: readonly Run[], fallback: Run): Run[] {
  const out: Run[] = [];
  for (const r of runs) {
    if (r.text === '') continue;
    const last = out[out.length - 1];
    if (last && sameLook(last, r)) out[out.length - 1] = { ...last, text: last.text + r.text };
    else out.push(r);
  }
  return out.length ? out : [{ ...fallback, text: '' }];
}

/** Do two runs say the same, but for their words? */
function sameLook(a: Run, b: Run): boolean {
  const [x, y] = [a, b] as unknown as readonly Record<string, unknown>[];
  const said = (o: Record<string, unknown>) => Object.keys(o).filter((k) => k !== 'text' && o[k] !== undefined);
  return (
    said(x).length === said(y).length &&
    said(x).every((k) => x[k] === y[k] || (y[k] !== undefined && JSON.stringify(x[k]) === JSON.stringify(y[k])))
  );
}

/** Replaces a stretch of text; what is typed looks like what stands before it. Line feeds make paragraphs. */
export function replaceText(story: Story, from: number, to: number, insert: string): Story {
  const text = plainText(story);
  const start = wholeGrapheme(text, Math.max(0, Math.min(from, to)), 'back');
  const end = wholeGrapheme(text, Math.min(text.length, Math.max(from, to)), 'on');
  const a = locate(story, start);
  const b = locate(story, end);
  const first = story.paragraphs[a.paragraph];
  const last = story.paragraphs[b.paragraph];
  const look = runAt(story, start);
  const head = slice(first.runs, 0, a.offset);
  const tail = slice(last.runs, b.offset, lengthOf(last));
  const lines = insert.replace(/\r\n?/g, '\n').split('\n');
  const made = lines.map((line, i): Paragraph => {
    const runs = [...(i === 0 ? head : []), { ...look, text: line }, ...(i === lines.length - 1 ? tail : [])];
    return { ...first, runs: tidy(runs, look) };
  });
  return {
    ...story,
    paragraphs: [...story.paragraphs.slice(0, a.paragraph), ...made, ...story.paragraphs.slice(b.paragraph + 1)],
  };
}

/** A stretch of a story as one of its own: each paragraph with how it is set, at least one. */
export function storyPart(story: Story, from: number, to: number): Story {
  const [a, b] = [locate(story, from), locate(story, to)];
  const paragraphs = story.paragraphs.slice(a.paragraph, b.paragraph + 1).map((p, i, all): Paragraph => {
    const start = i === 0 ? a.offset : 0;
    const end = i === all.length - 1 ? b.offset : lengthOf(p);
    return { ...p, runs: tidy(slice(p.runs, start, end), p.runs[0]) };
  });
  return { ...story, paragraphs };
}

/** Where the paragraph that holds an offset begins and ends. */
export function paragraphAt(
  story: Story,
  offset: number,
): { readonly from: number; readonly to: number; readonly index: number } {
  const { paragraph } = locate(story, offset);
  const from = story.paragraphs.slice(0, paragraph).reduce((n, p) => n + lengthOf(p) + 1, 0);
  return { from, to: from + lengthOf(story.paragraphs[paragraph]), index: paragraph };
}

/** What a run may say of itself. */
export type RunLook = Partial<Letters>;

/** Changes how a stretch looks; an empty stretch means the whole story. */
export const setRunLook = (story: Story, from: number, to: number, look: RunLook): Story =>
  changeRuns({}, story, from, to, (r) => ({ ...r, ...look }));

/**
 * Changes the runs of a stretch one by one, each seen with all that is set of it by the looks of `d`; an empty stretch
 * means the whole story. The story is a plain one, no draft.
 */
export function changeRuns(
  d: Pick<Design, 'textLooks'>,
  story: Story,
  from: number,
  to: number,
  change: (run: Run, set: SetRun) => Run,
): Story {
  const whole = from === to;
  let base = 0;
  const set = setStory(d, story).paragraphs;
  const paragraphs = story.paragraphs.map((p, i) => {
    const length = lengthOf(p);
    const a = whole ? 0 : Math.max(0, from - base);
    const b = whole ? length : Math.min(length, to - base);
    const touches = whole || (b >= 0 && a <= length && (b > a || length === 0));
    base += length + 1;
    if (!touches) return p;
    if (length === 0) return { ...p, runs: [change(p.runs[0], set[i].runs[0])] };
    // Cut at the same places, what is said and what is set go side by side.
    const all = slice(set[i].runs as readonly (Run & SetRun)[], a, b) as SetRun[];
    const middle = slice(p.runs, a, b).map((r, k) => change(r, all[k]));
    return { ...p, runs: tidy([...slice(p.runs, 0, a), ...middle, ...slice(p.runs, b, length)], p.runs[0]) };
  });
  return { ...story, paragraphs };
}

/** Changes how the paragraph that holds an offset looks, an empty one too. */
export function setLineLook(story: Story, offset: number, look: RunLook): Story {
  const { index } = paragraphAt(story, offset);
  return {
    ...story,
    paragraphs: story.paragraphs.map((p, i) =>
      i === index
        ? {
            ...p,
            runs: tidy(
              p.runs.map((r) => ({ ...r, ...look })),
              { ...p.runs[0], ...look },
            ),
          }
        : p,
    ),
  };
}

/**
 * Changes alignment or leading of the paragraphs a stretch touches; an empty stretch in a text being edited touches
 * one.
 */
export function setParagraphLook(
  story: Story,
  from: number,
  to: number,
  look: Partial<ParagraphSet>,
  wholeStory = false,
): Story {
  const a = locate(story, Math.min(from, to)).paragraph;
  const b = locate(story, Math.max(from, to)).paragraph;
  return {
    ...story,
    paragraphs: story.paragraphs.map((p, i) => (wholeStory || (i >= a && i <= b) ? { ...p, ...look } : p)),
  };
}
