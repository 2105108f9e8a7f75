import { pageInk } from '../../render/pageInk';
import { PROFILES } from '../../model/defaults';
import type { Found, Rule } from '../types';

/** Rounding of 8-bit plates must not raise an alarm. */
const SLACK = 0.02;

export const totalInkRule: Rule<'ink.tooMuch'> = {
  code: 'ink.tooMuch',
  severity: 'look',
  *find({ design, scene, palette }): Iterable<Found<'ink.tooMuch'>> {
    const most = pageInk(scene, palette);
    const limit = design.profile.totalInkLimit;
    if (most && most.total > limit + SLACK)
      yield { node: null, facts: { total: most.total, limit, x: most.x, y: most.y } };
  },
  say: ({ total, limit }, name) => ({
    message: `${name} carries ${Math.round(total * 100)} % ink at its fullest point; the paper bears ${Math.round(limit * 100)} %.`,
    why: 'Too much ink dries slowly and marks the next sheet. Use less of cyan, magenta and yellow in the darkest colours.',
  }),
};

export const missingProfileRule: Rule<'ink.profileMissing'> = {
  code: 'ink.profileMissing',
  severity: 'stop',
  *find({ design, palette }): Iterable<Found<'ink.profileMissing'>> {
    if (palette.substituted) yield { node: null, facts: { profile: design.profile.name ?? design.profile.file } };
  },
  say: ({ profile }) => ({
    message: `The profile “${profile}” is not in this browser; colours are shown as on ${PROFILES[0].name.toLowerCase()} paper.`,
    why: 'The file for print would name a paper that it was not made for. Open the profile again in the Inks slip, or choose another paper.',
  }),
};
