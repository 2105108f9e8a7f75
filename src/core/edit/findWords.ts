import type { Design, Page, Story } from '../model/schema';
import { childrenOf, type NodeId, sheetsOf, pageById } from '../model/tree';
import { plainText } from '../text/layout';
import { plain, type DesignDraft } from './history';
import { deleteNodes } from './remove';
import { replaceText } from './text';

/** How words are looked for. */
export interface Looking {
  readonly words: string;
  /** Capitals are told from small letters. */
  readonly capitals: boolean;
  /** Not as a part of a longer word. */
  readonly whole: boolean;
}

/** A place where they stand: the text that shows it, and where in its story. */
export interface FoundWords {
  readonly story: string;
  readonly node: NodeId;
  readonly page: string;
  readonly from: number;
  readonly to: number;
  /** What stands before and behind, a few words. */
  readonly before: string;
  readonly after: string;
}

/** No more are found: a list of more is read by nobody. */
const MOST_FOUND = 2000;
const AROUND = 24;
const LETTER = /[\p{L}\p{N}\p{M}_]/u;

/** Every place where words stand in the texts of a design, page by page, back to front. */
export function findWords(
  d: Pick<Design, 'pages' | 'nodes' | 'stories'>,
  { words, capitals, whole }: Looking,
): FoundWords[] {
  const found: FoundWords[] = [];
  const folded = (t: string) => (capitals ? t : fold(t));
  const wanted = folded(words);
  if (!wanted) return found;
  const seen = new Set<string>();
  const look = (page: string, id: NodeId) => {
    const node = d.nodes[id];
    if ('story' in node && !seen.has(node.story)) {
      seen.add(node.story);
      const text = plainText(d.stories[node.story]);
      const within = folded(text);
      for (
        let at = within.indexOf(wanted);
        at >= 0 && found.length < MOST_FOUND;
        at = within.indexOf(wanted, at + wanted.length)
      ) {
        const to = at + wanted.length;
        if (whole && (LETTER.test(text[at - 1] ?? '') || LETTER.test(text[to] ?? ''))) continue;
        found.push({
          story: node.story,
          node: id,
          page,
          from: at,
          to,
          before: text.slice(Math.max(0, at - AROUND), at),
          after: text.slice(to, to + AROUND),
        });
      }
    }
    for (const child of childrenOf(node)) look(page, child);
  };
  for (const page of sheetsOf(d)) for (const id of page.children) look(page.id, id);
  return found;
}

/** Small letters, each as long as it was: so that places stay places. */
const fold = (text: string): string =>
  Array.from(text, (c) => {
    const small = c.toLowerCase();
    return small.length === c.length ? small : c;
  }).join('');

/**
 * Puts other words in the place of those found; they look as those did. A text by itself that is left without words
 * goes. Answers how many.
 */
export function changeWords(d: DesignDraft, found: readonly FoundWords[], words: string): number {
  // From the end on, so that places before stay where they are.
  const last = [...found].sort((a, b) => b.from - a.from);
  for (const { story, from, to } of last) {
    const now = plain(d.stories[story]) as Story;
    d.stories[story] = replaceText(now, from, to, words) as DesignDraft['stories'][string];
  }
  // Nothing invisible stays behind.
  for (const { story, node, page } of found) {
    const gone = d.stories[story] && plainText(plain(d.stories[story]) as Story).trim() === '';
    const sheet = pageById(d, page);
    if (gone && sheet && d.nodes[node]?.kind === 'displayText') deleteNodes(d, plain(sheet) as Page, [node]);
  }
  return last.length;
}
