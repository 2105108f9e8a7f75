import { effectRegion } from '../../render/effectRegion';
import type { Group } from '../../scene/scene';
import type { Found, Rule } from '../types';

/**
 * Pixels a point that a blurred edge needs so that none is seen: six over its width, and never more than the press
 * shows (300 ppi).
 */
const needed = (blur: number): number => Math.min(300 / 72, Math.max(1, 6 / blur));

/** Shadows and the like so large that they are made of fewer pixels than their edges need. */
export const coarseEffectRule: Rule<'effect.coarse'> = {
  code: 'effect.coarse',
  severity: 'look',
  *find({ scene, palette }): Iterable<Found<'effect.coarse'>> {
    if (palette.screen) return;
    const found = new Map<string, { ppi: number; needed: number }>();
    const look = (group: Group) => {
      for (const effect of group.effects) {
        const made = effectRegion(group, effect);
        const wants = needed(effect.blur);
        if (made && made.scale < wants * 0.95) found.set(group.node, { ppi: made.scale * 72, needed: wants * 72 });
      }
      for (const part of group.content) if (part.type === 'group') look(part);
    };
    look(scene.root);
    for (const [node, facts] of found) yield { node, facts };
  },
  say: ({ ppi, needed }, name) => ({
    message: `The shadow of ${name} is made of ${Math.round(ppi)} pixels an inch.`,
    why: `It is so large and so sharp that it would need ${Math.round(needed)}: its edge may show steps. Blur it more, or draw it as a shape.`,
  }),
};
