import { isText } from '../derive/layout';
import { wordsOf } from '../derive/fields';
import type { Making } from '../model/defaults';
import type { Ask, Design, DesignNode, Paint, Paragraph, Picture, Story } from '../model/schema';
import { isPlaced } from '../model/paints';
import { sheetsOf, withDescendants } from '../model/tree';
import { plainText } from '../text/layout';
import { plain, type DesignDraft } from './history';
import { picturesUsed, replaced } from './picture';
import { mapPaints } from './place';
import { usersOfSwatches } from './swatches';

/** Starters: designs that say what in them may be filled in anew. */

/** Names that texts have until somebody names them. */
const UNNAMED = new Set(['', 'Display text', 'Text frame']);
const short = (text: string): string => (text.length > 40 ? `${text.slice(0, 38).trimEnd()} …` : text);

/**
 * All that a design could ask for: its texts in the order of their pages, its pictures, the colours in use, the most
 * used first.
 */
export function askable(d: Design): readonly Ask[] {
  const words = new Map<string, Ask>();
  for (const sheet of sheetsOf(d))
    for (const id of sheet.children.flatMap((c) => withDescendants(d, c))) {
      const node = d.nodes[id];
      if (!isText(node) || node.hidden || words.has(node.story)) continue;
      const said = wordsOf(d, node).replace(/\s+/g, ' ').trim();
      const label = short(UNNAMED.has(node.name) ? said : node.name);
      if (said && label) words.set(node.story, { kind: 'words', of: node.story, label });
    }
  const used = picturesUsed(d);
  const pictures = (d.pictures ?? []).filter((p) => used.has(p.id));
  const users = usersOfSwatches(d);
  const colours = d.swatches
    .filter((s) => s.kind === 'colour' && users.has(s.id))
    .toSorted((a, b) => users.get(b.id)! - users.get(a.id)!);
  return [
    ...words.values(),
    ...pictures.map((p): Ask => ({ kind: 'picture', of: p.id, label: short(p.name) || 'Picture' })),
    ...colours.map((s): Ask => ({ kind: 'colour', of: s.id, label: short(s.name) || 'Colour' })),
  ];
}

/** What a design asks for, without what is gone. */
export function asksOf(d: Design): readonly Ask[] {
  return (d.asks ?? []).filter(({ kind, of }) =>
    kind === 'words'
      ? Object.hasOwn(d.stories, of)
      : kind === 'picture'
        ? d.pictures?.some((p) => p.id === of)
        : d.swatches.some((s) => s.id === of && s.kind === 'colour'),
  );
}

/** A starter of a design: a copy that others are begun with. */
export const starterOf = (d: Design, name: string, asks: readonly Ask[], { newId, now }: Making): Design => {
  const { asks: _, ...rest } = d;
  return { ...rest, id: newId(), name, created: now(), modified: now(), starter: true, ...(asks.length && { asks }) };
};

/** A design begun with a starter. It goes on asking, so that it can be filled in once more. */
export function begun(starter: Design, name: string, { newId, now }: Making): Design {
  const { starter: _, ...rest } = starter;
  return { ...rest, id: newId(), name, created: now(), modified: now() };
}

/** The words that a story is filled in with now, a line a paragraph. */
export const wordsAsked = (d: Design, story: string): string => plainText(d.stories[story]);

/**
 * A story with other words, a paragraph a line; each line looks as the line in its place did, more of them as the last.
 */
function withWords(story: Story, text: string): Story {
  const last = story.paragraphs.length - 1;
  const paragraphs = text
    .replace(/\r\n?/g, '\n')
    .split('\n')
    .map((line, i): Paragraph => {
      const like = story.paragraphs[Math.min(i, last)];
      const { field: _, ...run } = like.runs[0];
      return { ...like, runs: [{ ...run, text: line }] };
    });
  return { ...story, paragraphs };
}

/** Letters of what is filled in are not shrunk below this, points: what most people can read (common practice). */
const LEAST_SIZE = 6;

/**
 * Fills in a story, its lines as those of `like` (as it was when writing began). Words in a frame become smaller where
 * they would not fit.
 */
export function fillWords(d: DesignDraft, story: string, text: string, like?: Story): void {
  const now = plain(d.stories[story]) as Story;
  const { paragraphs } = withWords(like ?? now, text);
  d.stories[story] = { ...now, paragraphs } as DesignDraft['stories'][string];
  for (const node of Object.values(d.nodes))
    if (node.kind === 'textFrame' && node.story === story) node.fit ??= { least: LEAST_SIZE };
}

/** Puts another picture in the place of one, wherever that is shown: each crop shows as much of it as it can. */
export function fillPicture(d: DesignDraft, id: string, next: Omit<Picture, 'id'>): void {
  const pictures = d.pictures ?? [];
  const at = pictures.findIndex((p) => p.id === id);
  if (at < 0) return;
  const old = plain(pictures[at]) as Picture;
  const now: Picture = { ...next, id };
  const anew = (paint: Paint): Paint =>
    paint.kind === 'picture' && paint.picture === id && isPlaced(paint) ? replaced(paint, old, now) : paint;
  const shows = (node: DesignNode): boolean =>
    'fills' in node &&
    [...node.fills, ...node.outlines.map((o) => o.paint)].some((p) => p.kind === 'picture' && p.picture === id);
  for (const node of Object.values(plain(d.nodes) as Design['nodes']))
    if (shows(node)) mapPaints(d.nodes[node.id], anew);
  for (const sheet of sheetsOf(d))
    if (sheet.ground) sheet.ground = anew(plain(sheet.ground) as Paint) as NonNullable<typeof sheet.ground>;
  pictures[at] = now as (typeof pictures)[number];
}
