import { hexOf } from '../colour/spaces';
import type { Cmyk, OwnColour } from '../model/schema';

/** A name from the numbers: `C100 M72 Y8 K20`, inks at 0 left out. */
export function recipeName(cmyk: Cmyk): string {
  const parts = ['C', 'M', 'Y', 'K'].flatMap((ink, i) =>
    Math.round(cmyk[i] * 100) > 0 ? [`${ink}${Math.round(cmyk[i] * 100)}`] : [],
  );
  return parts.join(' ') || 'Bare stock';
}

/** The name that a colour's numbers propose; null for a spot ink, which has a name of its own. */
export function proposedName(c: OwnColour): string | null {
  if ('cmyk' in c) return recipeName(c.cmyk);
  if ('rgb' in c) return hexOf(c.rgb);
  if ('lab' in c) return `Lab ${c.lab.map((v) => Math.round(v)).join(' ')}`;
  if ('gray' in c) return `Grey ${Math.round((1 - c.gray) * 100)}`;
  return null;
}
