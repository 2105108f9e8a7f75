/**
 * Scripts that are told apart when letters are shaped (ISO 15924); the engine's own Unicode tables say which is whose.
 */
const SCRIPTS: readonly (readonly [string, RegExp])[] = (
  [
    ['Latn', 'Latin'],
    ['Cyrl', 'Cyrillic'],
    ['Grek', 'Greek'],
    ['Hebr', 'Hebrew'],
    ['Arab', 'Arabic'],
    ['Armn', 'Armenian'],
    ['Geor', 'Georgian'],
    ['Deva', 'Devanagari'],
    ['Beng', 'Bengali'],
    ['Guru', 'Gurmukhi'],
    ['Gujr', 'Gujarati'],
    ['Taml', 'Tamil'],
    ['Telu', 'Telugu'],
    ['Knda', 'Kannada'],
    ['Mlym', 'Malayalam'],
    ['Sinh', 'Sinhala'],
    ['Thai', 'Thai'],
    ['Laoo', 'Lao'],
    ['Khmr', 'Khmer'],
    ['Mymr', 'Myanmar'],
    ['Ethi', 'Ethiopic'],
    ['Hang', 'Hangul'],
    ['Hira', 'Hiragana'],
    ['Kana', 'Katakana'],
    ['Hani', 'Han'],
  ] as const
).map(([code, name]) => [code, new RegExp(`\\p{Script=${name}}`, 'u')]);

const known = new Map<string, string | null>();

/** The script of a character; null for one that many share: spaces, marks, digits, signs. */
export function scriptOf(char: string): string | null {
  let found = known.get(char);
  if (found === undefined) {
    found = SCRIPTS.find(([, of]) => of.test(char))?.[0] ?? null;
    if (known.size > 5000) known.clear();
    known.set(char, found);
  }
  return found;
}

/** Nothing but Latin letters, digits and the common signs: one script, left to right, letter by letter. */
export const isPlainLatin = (text: string): boolean =>
  /^[\x20-\x7e\xa0-\u024f\u2010-\u2027\u2030-\u203a\u20ac]*$/.test(text);

/** May anything in it run from right to left? */
export const mayRunLeft = (text: string): boolean =>
  /[\u0590-\u08ff\u200f\u202b\u202e\u2067\ufb1d-\ufdff\ufe70-\ufeff]|[\ud802\ud803\ud83a\ud83b]/.test(text);
