import { PROCESS, type Palette } from '../colour/palette';
import type { Leaf } from '../scene/scene';

/**
 * A line in a spot ink alone that overprints says where to cut or fold: it is not art, and lies on the trim as it
 * should.
 */
export const isMark = (leaf: Leaf, palette: Palette): boolean => {
  const { paint } = leaf;
  if (!(leaf.type === 'stroke' || (leaf.type === 'fill' && leaf.line)) || paint.kind !== 'colour' || !paint.overprint)
    return false;
  const mix = palette.mix(paint.colour);
  return mix.slice(PROCESS.length).some((v) => v > 0) && mix.slice(0, PROCESS.length).every((v) => v === 0);
};
