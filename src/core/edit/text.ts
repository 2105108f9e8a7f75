import type { Paragraph, Run, Story } from '../model/schema';
import { graphemes, plainText } from '../text/layout';

/** Offsets count UTF-16 units of the story's plain text, where paragraphs are joined by one line feed. */

interface At {
  readonly paragraph: number;
  readonly offset: number;
}

function locate(story: Story, offset: number): At {
  let rest = offset;
  for (const [i, p] of story.paragraphs.entries()) {
    const length = p.runs.reduce((n, r) => n + r.text.length, 0);
    if (rest <= length) return { paragraph: i, offset: rest };
    rest -= length + 1;
  }
  const last = story.paragraphs.length - 1;
  return { paragraph: last, offset: story.paragraphs[last].runs.reduce((n, r) => n + r.text.length, 0) };
}

/** The nearest place that does not lie inside a grapheme: back for a start, on for an end. */
function wholeGrapheme(text: string, offset: number, towards: 'back' | 'on'): number {
  if (offset <= 0) return 0;
  if (offset >= text.length) return text.length;
  for (const { index, segment } of graphemes(text)) {
    if (index === offset) return offset;
    if (index < offset && offset < index + segment.length) return towards === 'back' ? index : index + segment.length;
  }
  return offset;
}

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

function sameLook(a: Run, b: Run): boolean {
  return (
    a.face === b.face &&
    a.size === b.size &&
    a.tracking === b.tracking &&
    JSON.stringify(a.fill) === JSON.stringify(b.fill) &&
    JSON.stringify(a.outline) === JSON.stringify(b.outline)
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

/** Where the paragraph that holds an offset begins and ends. */
export function paragraphAt(
  story: Story,
  offset: number,
): { readonly from: number; readonly to: number; readonly index: number } {
  const { paragraph } = locate(story, offset);
  const from = story.paragraphs.slice(0, paragraph).reduce((n, p) => n + lengthOf(p) + 1, 0);
  return { from, to: from + lengthOf(story.paragraphs[paragraph]), index: paragraph };
}

/** The run whose look typing at an offset takes. */
export function runAt(story: Story, offset: number): Run {
  const { paragraph, offset: within } = locate(story, offset);
  let at = 0;
  const { runs } = story.paragraphs[paragraph];
  for (const r of runs) {
    if (within <= at + r.text.length && (within > at || at === 0)) return r;
    at += r.text.length;
  }
  return runs[runs.length - 1];
}

export type RunLook = Partial<Omit<Run, 'text'>>;

/** Changes how a stretch looks; an empty stretch means the whole story. */
export const setRunLook = (story: Story, from: number, to: number, look: RunLook): Story =>
  changeRuns(story, from, to, (r) => ({ ...r, ...look }));

/** Changes the runs of a stretch one by one; an empty stretch means the whole story. */
export function changeRuns(story: Story, from: number, to: number, change: (run: Run) => Run): Story {
  const whole = from === to;
  let base = 0;
  const paragraphs = story.paragraphs.map((p) => {
    const length = lengthOf(p);
    const a = whole ? 0 : Math.max(0, from - base);
    const b = whole ? length : Math.min(length, to - base);
    const touches = whole || (b >= 0 && a <= length && (b > a || length === 0));
    base += length + 1;
    if (!touches) return p;
    if (length === 0) return { ...p, runs: [change(p.runs[0])] };
    const middle = slice(p.runs, a, b).map(change);
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

/** Changes alignment or leading of the paragraphs a stretch touches; an empty stretch in a text being edited touches one. */
export function setParagraphLook(
  story: Story,
  from: number,
  to: number,
  look: Partial<Omit<Paragraph, 'runs'>>,
  wholeStory = false,
): Story {
  const a = locate(story, Math.min(from, to)).paragraph;
  const b = locate(story, Math.max(from, to)).paragraph;
  return {
    ...story,
    paragraphs: story.paragraphs.map((p, i) => (wholeStory || (i >= a && i <= b) ? { ...p, ...look } : p)),
  };
}
