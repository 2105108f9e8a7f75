import { isEmpty } from '../../geometry/rect';
import { spreadOf } from '../../model/tree';
import { seenBounds, walk } from '../../scene/walk';
import { formatLength } from '../../units/length';
import { isMark } from '../marks';
import type { Found, Rule } from '../types';

/** Art this close to the trim (points, 0.2 mm) is meant to reach it. */
const CLOSE = (0.2 * 72) / 25.4;

/** Art that ends at the trim shows a white sliver when the knife is a hair off. */
export const bleedRule: Rule<'bleed.missing'> = {
  code: 'bleed.missing',
  severity: 'look',
  *find({ design, page, scene, palette }): Iterable<Found<'bleed.missing'>> {
    const { width, height, bleed } = scene;
    if (bleed <= 0 || design.setup.medium === 'screen') return;
    // At the fold to the page that faces it nothing is cut.
    const spread = spreadOf(design, page);
    const fold = spread?.other ? (spread.side === 'left' ? 'right' : 'left') : '';
    const short = new Map<string, string[]>();
    walk(scene.root, (leaf, within) => {
      if (short.has(leaf.node) || isMark(leaf, palette)) return;
      const bounds = seenBounds(leaf, within);
      if (isEmpty(bounds)) return;
      const sides = [
        bounds.y0 <= CLOSE && bounds.y0 > CLOSE - bleed ? 'top' : '',
        bounds.x1 >= width - CLOSE && bounds.x1 < width + bleed - CLOSE ? 'right' : '',
        bounds.y1 >= height - CLOSE && bounds.y1 < height + bleed - CLOSE ? 'bottom' : '',
        bounds.x0 <= CLOSE && bounds.x0 > CLOSE - bleed ? 'left' : '',
      ].filter((side) => side && side !== fold);
      if (sides.length) short.set(leaf.node, sides);
    });
    for (const [node, sides] of short) yield { node, facts: { sides, bleed } };
  },
  say: ({ sides, bleed }, name) => ({
    message: `${name} stops short of the bleed at the ${sides.join(' and the ')}.`,
    why: `If the cut is a hair off, paper shows there. Draw it ${formatLength(bleed, 'mm')} past the trim, or keep it well inside.`,
  }),
};
