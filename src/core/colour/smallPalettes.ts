import type { Cmyk } from '../model/schema';

export interface SmallPalette {
  readonly name: string;
  readonly colours: readonly { readonly name: string; readonly cmyk: Cmyk }[];
}

const palette = (
  name: string,
  ...rows: readonly (readonly [string, number, number, number, number])[]
): SmallPalette => ({
  name,
  colours: rows.map(([n, c, m, y, k]) => ({ name: n, cmyk: [c / 100, m / 100, y / 100, k / 100] })),
});

/**
 * Six sets of five to begin with: a dark, a ground, two that carry and one that speaks up. Made for this; recipes keep
 * under 220 % ink.
 */
export const SMALL_PALETTES: readonly SmallPalette[] = [
  palette(
    'Quay at dusk',
    ['Quay Night', 100, 80, 30, 10],
    ['Low Tide', 82, 46, 22, 6],
    ['Mist', 14, 6, 4, 0],
    ['Wick', 0, 36, 92, 0],
    ['Paper Glow', 2, 8, 34, 0],
  ),
  palette(
    'Market stall',
    ['Aubergine', 60, 90, 30, 30],
    ['Tomato', 0, 84, 82, 0],
    ['Leaf', 70, 10, 96, 0],
    ['Butter', 0, 8, 56, 0],
    ['Flour', 3, 4, 8, 0],
  ),
  palette(
    'First frost',
    ['Pine', 88, 36, 70, 24],
    ['Ice', 22, 2, 6, 0],
    ['Rose hip', 8, 88, 62, 2],
    ['Bark', 40, 56, 66, 26],
    ['Breath', 6, 2, 3, 0],
  ),
  palette(
    'Ink and straw',
    ['Ink', 92, 72, 34, 20],
    ['Straw', 6, 14, 56, 0],
    ['Clay', 14, 62, 66, 4],
    ['Slate', 58, 44, 40, 20],
    ['Linen', 4, 6, 14, 0],
  ),
  palette(
    'Kelp and rope',
    ['Kelp', 88, 28, 72, 16],
    ['Rope', 28, 34, 52, 8],
    ['Buoy', 0, 68, 88, 0],
    ['Sea glass', 42, 4, 30, 0],
    ['Sail', 3, 3, 10, 0],
  ),
  palette(
    'Sweet shop',
    ['Plum', 52, 92, 20, 22],
    ['Raspberry', 6, 92, 34, 0],
    ['Mint', 46, 0, 34, 0],
    ['Lemon', 2, 4, 76, 0],
    ['Sugar', 0, 6, 4, 0],
  ),
];
