import type { Bidi, EmbeddingLevels } from 'bidi-js';

let bidi: Bidi | null = null;

/** Loads what tells which words run from right to left (UAX 9); answers whether it is new. */
export async function loadBidi(): Promise<boolean> {
  if (bidi) return false;
  const { default: make } = await import('bidi-js');
  if (bidi) return false;
  bidi = make();
  return true;
}

/** The level of every unit of a text; null until what tells it is loaded. */
export const levelsOf = (text: string, direction: 'auto' | 'ltr' | 'rtl'): EmbeddingLevels | null =>
  bidi && bidi.getEmbeddingLevels(text, direction === 'auto' ? undefined : direction);
