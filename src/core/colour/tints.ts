import type { OwnColour } from '../model/schema';
import { mapTuple } from '../units/tuple';

/** An own colour at part strength, in the same terms where they allow it. */
export function tinted(c: OwnColour, by: number): OwnColour {
  if (by === 1) return c;
  if ('ink' in c) return { ...c, tint: c.tint * by };
  if ('cmyk' in c) return { cmyk: mapTuple(c.cmyk, (v) => v * by) };
  if ('gray' in c) return { gray: 1 - (1 - c.gray) * by };
  if ('rgb' in c) return { rgb: mapTuple(c.rgb, (v) => 1 - (1 - v) * by) };
  return { lab: [100 - (100 - c.lab[0]) * by, c.lab[1] * by, c.lab[2] * by] };
}
