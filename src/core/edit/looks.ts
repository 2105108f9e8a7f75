import type { Design, Letters, Paragraph, ParagraphSet, Run, Story, TextLook } from '../model/schema';
import { baseOf, chainOf, setStory } from '../model/textLooks';
import { plain, type DesignDraft } from './history';
import { looksOf } from './textPlace';
import { changeRuns, paragraphAt } from './text';

/** Commands for looks of texts: made from words, given to words, changed once for all that follow them. */

const same = (a: unknown, b: unknown): boolean => a === b || JSON.stringify(a) === JSON.stringify(b);
const LETTER_KEYS = Object.keys(baseOf(undefined, undefined).letters) as (keyof Letters)[];
const PARAGRAPH_KEYS = Object.keys(baseOf(undefined, undefined).paragraph) as (keyof ParagraphSet)[];

/** What of a thing is not as its base has it. */
function different<T extends object>(keys: readonly (keyof T)[], thing: T, base: T): Partial<T> {
  return Object.fromEntries(keys.filter((k) => !same(thing[k], base[k])).map((k) => [k, thing[k]])) as Partial<T>;
}

/** A look of the paragraph at an offset, or of the letters there; it says all that its base does not. */
export function lookFrom(
  d: Design,
  story: Story,
  offset: number,
  { kind, name, id, basedOn }: Pick<TextLook, 'kind' | 'name' | 'id' | 'basedOn'>,
): TextLook {
  const { index, from } = paragraphAt(story, offset);
  const p = setStory(d, story).paragraphs[index];
  let at = from;
  const run = p.runs.find((r) => (at += r.text.length) >= offset) ?? p.runs[0];
  const base = baseOf(d.textLooks, kind === 'paragraph' ? basedOn : undefined);
  const said = { id, name, ...(basedOn !== undefined && { basedOn }) };
  if (kind === 'paragraph')
    return {
      ...said,
      kind,
      paragraph: different(PARAGRAPH_KEYS, p, base.paragraph),
      letters: different(LETTER_KEYS, commonOf(p.runs), base.letters),
    };
  const under = Object.assign(
    {},
    baseOf(d.textLooks, story.paragraphs[index].look).letters,
    ...chainOf(d.textLooks, basedOn).map((l) => l.letters),
  ) as Letters;
  return { ...said, kind, letters: different(LETTER_KEYS, run, under) };
}

/** What most of the letters of a paragraph are. */
function commonOf(runs: readonly (Letters & { readonly text: string })[]): Letters {
  return runs.reduce((a, b) => (b.text.length > a.text.length ? b : a), runs[0]);
}

/**
 * Lets the paragraphs that a stretch touches follow a look (null: none). What they say themselves goes, and what all
 * their letters say alike; what single words say otherwise stays.
 */
export function followParagraphLook(story: Story, from: number, to: number, look: string | null): Story {
  const [a, b] = [paragraphAt(story, from).index, paragraphAt(story, to).index];
  return {
    ...story,
    paragraphs: story.paragraphs.map((p, i) => (i < a || i > b ? p : follow(p, look))),
  };
}

function follow(p: Paragraph, look: string | null): Paragraph {
  const alike = LETTER_KEYS.filter((k) => p.runs.every((r) => same(r[k], p.runs[0][k])));
  const runs = p.runs.map((r) => without(r, alike));
  return { ...(look !== null && { look }), runs };
}

function without(r: Run, keys: readonly (keyof Letters)[]): Run {
  const next = { ...r } as Record<string, unknown>;
  for (const k of keys) delete next[k];
  return next as Run;
}

/**
 * Lets the letters of a stretch follow a look (null: none); what they say themselves goes. An empty stretch: all of the
 * story.
 */
export const followLettersLook = (story: Story, from: number, to: number, look: string | null): Story =>
  changeRuns({}, story, from, to, (r) => ({ ...without(r, LETTER_KEYS), look: look ?? undefined }));

/** Does a paragraph, or do its letters, say anything that their looks do not? */
export const saysOwn = (p: Paragraph): boolean =>
  PARAGRAPH_KEYS.some((k) => p[k] !== undefined) || p.runs.some((r) => LETTER_KEYS.some((k) => r[k] !== undefined));

/** Paragraphs that a stretch touches, with nothing said but their looks. */
export function clearOwn(story: Story, from: number, to: number): Story {
  const [a, b] = [paragraphAt(story, from).index, paragraphAt(story, to).index];
  return {
    ...story,
    paragraphs: story.paragraphs.map((p, i): Paragraph => {
      if (i < a || i > b) return p;
      return {
        ...(p.look !== undefined && { look: p.look }),
        runs: p.runs.map((r): Run => ({ text: r.text, ...(r.look !== undefined && { look: r.look }) })),
      };
    }),
  };
}

/** Adds a look to a design. */
export function addLook(d: DesignDraft, look: TextLook): void {
  (d.textLooks ??= []).push(look as NonNullable<DesignDraft['textLooks']>[number]);
}

/** Changes a look: all that follow it follow. */
export function changeLook(d: DesignDraft, id: string, change: (look: TextLook) => TextLook): void {
  const at = d.textLooks?.findIndex((l) => l.id === id) ?? -1;
  if (at < 0) return;
  d.textLooks![at] = change(plain(d.textLooks![at]) as TextLook) as NonNullable<DesignDraft['textLooks']>[number];
}

/** Takes a look away: what followed it says itself what the look said, and looks the same. */
export function removeLook(d: DesignDraft, id: string): void {
  const { textLooks } = looksOf(d as Design);
  const gone = textLooks?.find((l) => l.id === id);
  if (!textLooks || !gone) return;
  for (const key of Object.keys(d.stories)) {
    const story = plain(d.stories[key]) as Story;
    if (!story.paragraphs.some((p) => p.look === id || p.runs.some((r) => r.look === id))) continue;
    const set = setStory({ textLooks }, story).paragraphs;
    const bare = baseOf(undefined, undefined);
    const paragraphs = story.paragraphs.map((p, i): Paragraph => {
      const all = p.look === id;
      const { look, ...own } = p;
      return {
        ...(all ? different(PARAGRAPH_KEYS, set[i], bare.paragraph) : look !== undefined && { look }),
        ...own,
        runs: p.runs.map((r, k): Run => {
          if (!all && r.look !== id) return r;
          const { look: lettersLook, ...rest } = r;
          const under = all ? bare.letters : baseOf(textLooks, look).letters;
          return {
            ...different(LETTER_KEYS, set[i].runs[k], under),
            ...rest,
            ...(lettersLook !== undefined && lettersLook !== id && { look: lettersLook }),
          };
        }),
      };
    });
    d.stories[key] = { ...story, paragraphs } as DesignDraft['stories'][string];
  }
  const rest = textLooks
    .filter((l) => l.id !== id)
    .map((l): TextLook => {
      if (l.basedOn !== id) return l;
      const { basedOn: _, ...own } = l;
      const letters = { ...gone.letters, ...l.letters };
      const base = gone.basedOn !== undefined && { basedOn: gone.basedOn };
      return own.kind === 'paragraph' && gone.kind === 'paragraph'
        ? { ...own, letters, paragraph: { ...gone.paragraph, ...own.paragraph }, ...base }
        : ({ ...own, letters, ...base } as TextLook);
    });
  if (rest.length) d.textLooks = rest as NonNullable<DesignDraft['textLooks']>;
  else delete d.textLooks;
}
