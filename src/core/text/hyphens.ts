import type { LANGUAGES } from '../model/textSchema';

export type Language = (typeof LANGUAGES)[number];

/** Patterns by language, each fetched when a text of it is first to be divided. */
const PATTERNS: { readonly [L in Language]: () => Promise<{ readonly default: unknown }> } = {
  en: () => import('hyphen/patterns/en-us.js'),
  de: () => import('hyphen/patterns/de-1996.js'),
  fi: () => import('hyphen/patterns/fi.js'),
  fr: () => import('hyphen/patterns/fr.js'),
  es: () => import('hyphen/patterns/es.js'),
};

const SOFT = '\u00ad';
/** Shorter words are left whole, and so many letters stand before and behind a hyphen at least (common practice). */
const SHORTEST = 5;
const LEAST_BEFORE = 2;
const LEAST_BEHIND = 3;

/** Where words may be divided, by the patterns of their language. */
export class Hyphens {
  private readonly ready = new Map<Language, (word: string) => string>();
  private readonly known = new Map<string, readonly number[]>();

  /** Loads the patterns of languages; answers whether any were new. */
  async load(languages: Iterable<Language>): Promise<boolean> {
    const missing = [...new Set(languages)].filter((l) => !this.ready.has(l));
    if (!missing.length) return false;
    const { default: create } = await import('hyphen');
    await Promise.all(
      missing.map(async (l) => {
        const { default: patterns } = await PATTERNS[l]();
        this.ready.set(l, create(patterns, { async: false, hyphenChar: SOFT, minWordLength: SHORTEST }));
      }),
    );
    return true;
  }

  /** The offsets in a word at which it may be divided; none while its language is not loaded. */
  places(word: string, language: Language): readonly number[] {
    const divide = this.ready.get(language);
    if (!divide || word.length < SHORTEST) return [];
    const key = `${language} ${word}`;
    const old = this.known.get(key);
    if (old) return old;
    const places: number[] = [];
    let at = 0;
    for (const part of divide(word).split(SOFT).slice(0, -1)) {
      at += part.length;
      if (at >= LEAST_BEFORE && word.length - at >= LEAST_BEHIND) places.push(at);
    }
    if (this.known.size > 20_000) this.known.clear();
    this.known.set(key, places);
    return places;
  }
}
