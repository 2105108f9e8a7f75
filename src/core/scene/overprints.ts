import type { Mix } from '../colour/mixing';
import type { Palette } from '../colour/palette';
import { meanScale } from '../geometry/matrix';
import type { Leaf } from './scene';

/** So little ink is none. */
const TRACE = 0.02;
/** Is nothing printed by it? */
export const isFree = (mix: Mix): boolean => mix.every((v) => v < TRACE);
/** How many inks print it. */
export const inksIn = (mix: Mix): number => mix.filter((v) => v >= TRACE).length;
/** Full black, of black ink and nothing else. */
export const isBlackAlone = (mix: Mix): boolean => mix[3] >= 0.95 && inksIn(mix) === 1;

/** The size of letters as they lie on the page, points; null of what are none. */
export function letterSize(leaf: Leaf): number | null {
  const words = leaf.type === 'glyphs' ? leaf : leaf.words;
  return words ? words.size * meanScale(words.layout) : null;
}

/**
 * Is a leaf laid over the plates that it has no ink for? What is set to, and small letters of black alone, whose thin
 * strokes would show paper all round where plates lie a hair aside. Paint of light never is.
 */
export function overprints(leaf: Leaf, palette: Palette): boolean {
  if (palette.screen) return false;
  const { paint } = leaf;
  if (paint.overprint) return true;
  if (paint.kind !== 'colour' || palette.smallBlack <= 0) return false;
  const size = letterSize(leaf);
  return size !== null && size < palette.smallBlack && isBlackAlone(palette.mix(paint.colour));
}
