import { formatLength, formatNumber } from '../../units/length';
import { bandingIn } from '../banding';
import type { Found, Rule } from '../types';

export const bandingRule: Rule<'gradient.banding'> = {
  code: 'gradient.banding',
  severity: 'look',
  *find({ scene, palette }): Iterable<Found<'gradient.banding'>> {
    const seen = new Set<string>();
    for (const item of scene.items) {
      const found = seen.has(item.node) ? null : bandingIn(item, palette);
      if (!found) continue;
      seen.add(item.node);
      yield { node: item.node, facts: { steps: found.steps, step: found.step } };
    }
  },
  say: ({ steps, step }, name) => ({
    message: `The gradient of ${name} changes so slowly that its steps may show: ${formatNumber(steps, 0)} tones, each ${formatLength(step, 'mm', 1)} wide.`,
    why: 'Steps wider than about 0.8 mm show as bands in print. Choose the object and press “Break them up with grain” under its gradient, or make its colours differ more.',
  }),
};
