import { driftedSets } from '../../derive/drift';
import { formatLength } from '../../units/length';
import type { Found, Rule } from '../types';

/** A set that is meant to be equal looks careless when it is nearly so. */
export const driftRule: Rule<'size.drift'> = {
  code: 'size.drift',
  severity: 'look',
  *find({ design, page }): Iterable<Found<'size.drift'>> {
    for (const { all, odd } of driftedSets(design, page))
      for (const { id, wider, higher } of odd)
        yield { node: id, facts: { others: all.length - 1, wider, higher, unit: design.setup.unit } };
  },
  say: ({ others, wider, higher, unit }, name) => {
    const said = (by: number, more: string, less: string) =>
      Math.abs(by) < 0.03 ? [] : [`${formatLength(Math.abs(by), unit, 2)} ${by > 0 ? more : less}`];
    return {
      message: `${name} is ${[...said(wider, 'wider', 'narrower'), ...said(higher, 'higher', 'lower')].join(' and ')} than ${others} others like it.`,
      why: 'What is nearly equal looks like a slip. Make them equal, or let them differ clearly.',
    };
  },
};
