import { FIELD_MARK, type Design, type Field, type Page, type Run, type Story } from '../model/schema';
import { followersOf, isMaster, pageOf } from '../model/tree';
import { plainText } from '../text/layout';
import type { OffsetsBack } from '../text/line';
import { pageLabels, sectionsOf } from './pageLabels';

/**
 * Fields: what a page says of itself in its words. They stand in a story as one mark each and are resolved before it is
 * laid out.
 */

type Said = Readonly<Record<Field, string>>;

const withFields = new WeakMap<Story['paragraphs'], boolean>();
/** Does a story hold a field? */
function hasFields({ paragraphs }: Pick<Story, 'paragraphs'>): boolean {
  let has = withFields.get(paragraphs);
  if (has === undefined) {
    has = paragraphs.some((p) => p.runs.some((r) => r.field !== undefined && r.text.includes(FIELD_MARK)));
    withFields.set(paragraphs, has);
  }
  return has;
}

/**
 * What fields say on a sheet: on a page of it, on a master of the first page that stands on it, else of the first page.
 */
export function saidOn(d: Design, sheet: Page | undefined): Said {
  const page = sheet && isMaster(d, sheet.id) ? followersOf(d, sheet.id)[0] : sheet;
  const i = Math.max(0, page ? d.pages.findIndex((p) => p.id === page.id) : 0);
  return {
    page: pageLabels(d)[i],
    pages: String(d.pages.length),
    section: sectionsOf(d)[i],
    design: d.name,
    date: longDate(d.modified),
    file: `${plainName(d.name)}.holvet`,
    version: d.version ?? '',
  };
}

/** A name without what no file system takes. */
const plainName = (name: string): string =>
  name
    .replace(/[<>:"/\\|?*\u0000-\u001f]/g, ' ')
    .replace(/\s+/g, ' ')
    .replace(/^[. ]+|[. ]+$/g, '') || 'design';

/** A day as it is written out in English, of a date in UTC. */
const longDate = (iso: string): string => days.format(new Date(iso));
const days = new Intl.DateTimeFormat('en-GB', { dateStyle: 'long', timeZone: 'UTC' });

interface Shown {
  readonly story: Story;
  readonly back: OffsetsBack;
}
const shown = new WeakMap<Story['paragraphs'], Map<string, Shown>>();

/** A story in which fields are words, the same object for the same words; and the way back to its offsets. */
function shownStory(story: Story, said: Said): Shown {
  const known = shown.get(story.paragraphs) ?? new Map<string, Shown>();
  shown.set(story.paragraphs, known);
  const used = new Set(story.paragraphs.flatMap((p) => p.runs.flatMap((r) => (r.field ? [r.field] : []))));
  const key = [...used].map((f) => said[f]).join('\n');
  let made = known.get(key);
  if (!made) {
    // So many pages ask in turn; a story that grew older is asked for no more.
    if (known.size >= MOST_SHOWN) known.clear();
    known.set(key, (made = resolve(story, said)));
  }
  return made;
}
const MOST_SHOWN = 4000;

function resolve(story: Story, said: Said): Shown {
  const fields: Place[] = [];
  let [at, raw] = [0, 0];
  const paragraphs = story.paragraphs.map((p) => {
    const runs = p.runs.map((r): Run => {
      const { field, ...plain } = r;
      const { text } = r;
      if (!field || !text.includes(FIELD_MARK)) {
        [at, raw] = [at + text.length, raw + text.length];
        return r;
      }
      let words = '';
      for (const c of text) {
        const put = c === FIELD_MARK ? said[field] : c;
        if (c === FIELD_MARK) fields.push({ at, length: put.length, raw });
        words += put;
        at += put.length;
        raw += c.length;
      }
      return { ...plain, text: words };
    });
    [at, raw] = [at + 1, raw + 1];
    return runs.every((r, i) => r === p.runs[i]) ? p : { ...p, runs };
  });
  return { story: { ...story, paragraphs }, back: offsetsBack(fields) };
}

/** Where a field begins in the words that are shown, how long it is there, and where its mark stands in the story. */
interface Place {
  readonly at: number;
  readonly length: number;
  readonly raw: number;
}

function offsetsBack(fields: readonly Place[]): OffsetsBack {
  /** The last field that begins before an offset. */
  const before = (offset: number): Place | undefined =>
    fields.findLast((f) => f.at < offset || (!f.length && f.at <= offset));
  return {
    inside(offset) {
      const f = before(offset);
      return f !== undefined && offset > f.at && offset < f.at + f.length;
    },
    toStory(offset) {
      const f = before(offset);
      return f ? f.raw + 1 + Math.max(0, offset - f.at - f.length) : offset;
    },
  };
}

/** A text's story as it is shown where the text lies, with the way back to its offsets; null for one without fields. */
export function storyWhereItLies(d: Design, node: { readonly id: string; readonly story: string }): Shown | null {
  const story = d.stories[node.story];
  return hasFields(story) ? shownStory(story, saidOn(d, pageOf(d, node.id))) : null;
}

const fieldStories = new WeakMap<Design['stories'], readonly string[]>();
/** The stories of a design that hold fields, by their ids. */
export function fieldStoriesOf({ stories }: Pick<Design, 'stories'>): readonly string[] {
  let ids = fieldStories.get(stories);
  if (!ids) fieldStories.set(stories, (ids = Object.keys(stories).filter((id) => hasFields(stories[id]))));
  return ids;
}

/** The design as it is seen on a page: its fields are words that say what that page says. */
export function designOn(d: Design, page: Page): Design {
  const ids = fieldStoriesOf(d);
  if (!ids.length) return d;
  const said = saidOn(d, page);
  const stories = Object.fromEntries(ids.map((id) => [id, shownStory(d.stories[id], said).story]));
  return { ...d, stories: { ...d.stories, ...stories } };
}

/** The words of a text as they are read where it lies. */
export const wordsOf = (d: Design, node: { readonly id: string; readonly story: string }): string =>
  plainText(storyWhereItLies(d, node)?.story ?? d.stories[node.story]);
