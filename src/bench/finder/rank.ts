import { distance } from 'fastest-levenshtein';

/** Something that can be found: its title, and the everyday and trade words that mean it. */
export interface Findable {
  readonly title: string;
  readonly keywords: readonly string[];
}

const wordsOf = (text: string): string[] =>
  text
    .toLowerCase()
    .normalize('NFD')
    .replace(/[\u0300-\u036f]/g, '')
    .split(/[^a-z0-9°%]+/)
    .filter(Boolean);
/** Words that say nothing about what is meant. */
const EMPTY = new Set([
  'a',
  'an',
  'the',
  'to',
  'of',
  'in',
  'on',
  'my',
  'is',
  'it',
  'this',
  'that',
  'how',
  'do',
  'i',
  'can',
  'make',
  'with',
  'and',
  'for',
  'me',
  'please',
  'want',
  'where',
]);

/** How well a word of the question meets a word of a row, 0…1: the word itself, its beginning, nearly its spelling. */
function meets(asked: string, word: string): number {
  if (asked === word) return 1;
  // Rotate, rotated, rotating: one word in its forms.
  if (
    asked.length > 3 &&
    (word === `${asked}s` ||
      asked === `${word}s` ||
      asked === `${word}ed` ||
      asked === `${word}d` ||
      asked === `${word}ing` ||
      asked === `${word.replace(/e$/, '')}ing`)
  )
    return 0.95;
  if (word.startsWith(asked)) return asked.length > 1 ? 0.8 : 0.5;
  if (asked.length < 4) return 0;
  const most = asked.length < 7 ? 1 : 2;
  return Math.abs(asked.length - word.length) <= most && asked[0] === word[0] && distance(asked, word) <= most
    ? 0.5
    : 0;
}

/**
 * How well a row answers a question; 0 where it does not. Every word of the question that says something must be met by
 * a whole word, the start of one, or nearly one; letters scattered over the row are nothing. Titles count for more than
 * keywords, and keywords that are the whole question for more than those that hold it.
 */
export function score(query: string, row: Findable): number {
  const all = wordsOf(query);
  const asked = all.filter((w) => !EMPTY.has(w));
  const words = asked.length ? asked : all;
  if (!words.length) return 1;
  const title = wordsOf(row.title);
  const whole = words.join(' ');
  const named = title.join(' ');
  let best = named === whole ? 2 : named.startsWith(`${whole} `) ? 1.35 : 0;
  for (const k of row.keywords) if (wordsOf(k).join(' ') === whole) best = Math.max(best, 1.6);
  let sum = 0;
  const spoken = row.keywords.flatMap(wordsOf);
  for (const w of words) {
    const inTitle = Math.max(0, ...title.map((t, i) => meets(w, t) * (i === 0 ? 1.1 : 1)));
    const inWords = Math.max(0, ...spoken.map((t) => meets(w, t) * 0.9));
    const met = Math.max(inTitle, inWords);
    if (met === 0) return best;
    sum += met;
  }
  // Of two that meet all words the shorter title is meant more.
  return best + sum / words.length - Math.min(0.05, title.length / 200);
}

/** The rows that answer a question, best first; in their own order among equals. */
export function found<T extends Findable>(query: string, rows: readonly T[]): T[] {
  return rows
    .map((row, i) => ({ row, i, s: score(query, row) }))
    .filter((x) => x.s > 0)
    .sort((a, b) => b.s - a.s || a.i - b.i)
    .map((x) => x.row);
}
