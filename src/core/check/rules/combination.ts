import type { Found, Rule } from '../types';

export const unsureRule: Rule<'combination.unsure'> = {
  code: 'combination.unsure',
  severity: 'stop',
  *find({ scene }): Iterable<Found<'combination.unsure'>> {
    for (const node of scene.root.findings.unsure) yield { node, facts: {} };
  },
  say: (_, name) => ({
    message: `${name} could not be combined rightly; what is shown is only near to it.`,
    why: 'Its edges lie so closely on each other that no engine agrees with the shapes. Move one of them by a hair, or make the parts plain.',
  }),
};
