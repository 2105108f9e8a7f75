import { BLACK, colourPaint, DEFAULT_FACE } from './defaults';
import type { Design, Letters, Paragraph, ParagraphSet, Run, Story, TextLook } from './schema';

/** What is said of letters where nobody says anything. */
export const DEFAULT_LETTERS: Letters = {
  face: DEFAULT_FACE,
  size: 12,
  tracking: 0,
  kerning: true,
  baselineShift: 0,
  position: 'normal',
  case: 'typed',
  underline: false,
  strike: false,
  ligatures: true,
  features: {},
  axes: {},
  language: 'en',
  fill: colourPaint(BLACK),
  outline: null,
};

const DEFAULT_PARAGRAPH: ParagraphSet = {
  align: 'left',
  leading: 1.2,
  spaceBefore: 0,
  spaceAfter: 0,
  indentLeft: 0,
  indentRight: 0,
  indentFirst: 0,
  tabs: [],
  list: null,
  hyphenate: false,
  opticalMargin: false,
  keepLines: 1,
  dropCapital: null,
  direction: 'auto',
};

/** A run with all that is set of it, by itself or by its looks. */
export interface SetRun extends Letters {
  readonly text: string;
}
export interface SetParagraph extends ParagraphSet {
  readonly runs: readonly SetRun[];
}
export interface SetStory {
  readonly paragraphs: readonly SetParagraph[];
}

type Looks = Design['textLooks'];

/** A look with those it is based on, the furthest first; what leads in a ring or nowhere ends there. */
export function chainOf(looks: Looks, id: string | undefined): TextLook[] {
  const chain: TextLook[] = [];
  for (let at = id; at !== undefined;) {
    const look = looks?.find((l) => l.id === at);
    if (!look || chain.includes(look)) break;
    chain.unshift(look);
    at = look.basedOn;
  }
  return chain;
}

const known = new WeakMap<Paragraph, { readonly looks: Looks; readonly set: SetParagraph }>();
const stories = new WeakMap<readonly Paragraph[], { readonly looks: Looks; readonly set: SetStory }>();

/**
 * A story with everything said that its looks say: look ← the look it is based on; over it what the paragraph says
 * itself; in it the letters' look, and over that the run. The same paragraph with the same looks is the same object
 * again.
 */
export function setStory(d: Pick<Design, 'textLooks'>, story: Pick<Story, 'paragraphs'>): SetStory {
  const looks = d.textLooks;
  const old = stories.get(story.paragraphs);
  if (old && old.looks === looks) return old.set;
  const set = { paragraphs: story.paragraphs.map((p) => setParagraph(looks, p)) };
  stories.set(story.paragraphs, { looks, set });
  return set;
}

function setParagraph(looks: Looks, p: Paragraph): SetParagraph {
  const bound = p.look !== undefined || p.runs.some((r) => r.look !== undefined) ? looks : undefined;
  const old = known.get(p);
  if (old && old.looks === bound) return old.set;
  const base = baseOf(looks, p.look);
  const { look: _, runs, ...own } = p;
  const set = { ...base.paragraph, ...own, runs: runs.map((r) => setRun(looks, base.letters, r)) };
  known.set(p, { looks: bound, set });
  return set;
}

function setRun(looks: Looks, base: Letters, { look, ...own }: Run): SetRun {
  return { ...base, ...Object.assign({}, ...chainOf(looks, look).map((l) => l.letters)), ...own } as SetRun;
}

/** What a paragraph of a look has, with the letters in it, before it says anything itself. */
export function baseOf(
  looks: Looks,
  look: string | undefined,
): { readonly paragraph: ParagraphSet; readonly letters: Letters } {
  const chain = chainOf(looks, look);
  return {
    paragraph: Object.assign({}, DEFAULT_PARAGRAPH, ...chain.map((l) => (l.kind === 'paragraph' ? l.paragraph : {}))),
    letters: Object.assign({}, DEFAULT_LETTERS, ...chain.map((l) => l.letters)),
  };
}

/** The letters a story begins with. */
export const firstLetters = (d: Pick<Design, 'textLooks'>, story: Pick<Story, 'paragraphs'>): SetRun =>
  setStory(d, story).paragraphs[0].runs[0];
/** All runs of a story, with all that is set of them. */
export const runsIn = (d: Pick<Design, 'textLooks'>, story: Pick<Story, 'paragraphs'>): readonly SetRun[] =>
  setStory(d, story).paragraphs.flatMap((p) => p.runs);

/** A story with its letters, and what is measured by them, so many times as large. */
export function scaledStory(story: SetStory, by: number): SetStory {
  return {
    paragraphs: story.paragraphs.map((p) => ({
      ...p,
      leading: typeof p.leading === 'number' ? p.leading : { points: p.leading.points * by },
      spaceBefore: p.spaceBefore * by,
      spaceAfter: p.spaceAfter * by,
      indentFirst: p.indentFirst * by,
      indentLeft: p.indentLeft * by,
      indentRight: p.indentRight * by,
      runs: p.runs.map((r) => ({
        ...r,
        size: r.size * by,
        baselineShift: r.baselineShift * by,
        outline: r.outline && { ...r.outline, width: r.outline.width * by },
      })),
    })),
  };
}
