import { walk } from '../../scene/walk';
import { formatLength, formatNumber } from '../../units/length';
import { bandingIn, type Banding } from '../banding';
import type { Found, Rule } from '../types';

export const bandingRule: Rule<'gradient.banding'> = {
  code: 'gradient.banding',
  severity: 'look',
  *find({ scene, palette }): Iterable<Found<'gradient.banding'>> {
    const banded = new Map<string, Banding>();
    walk(scene.root, (leaf) => {
      const found = banded.has(leaf.node) ? null : bandingIn(leaf, palette);
      if (found) banded.set(leaf.node, found);
    });
    for (const [node, { steps, step }] of banded) yield { node, facts: { steps, step } };
  },
  say: ({ steps, step }, name) => ({
    message: `The gradient of ${name.replace(/^The /, 'the ')} changes so slowly that its steps may show: ${formatNumber(steps, 0)} tones, each ${formatLength(step, 'mm', 1)} wide.`,
    why: 'Steps wider than about 0.8 mm show as bands in print. Press “Break them up with grain” under it in Details, or make its colours differ more.',
  }),
};
