import { table } from '../../model/own';
import { FACES, type FaceRow } from '../../text/faces';
import type { Style } from './style';

const GENERIC = table<FaceRow['kind']>({
  serif: 'serif',
  'sans-serif': 'sans',
  'system-ui': 'sans',
  monospace: 'mono',
  cursive: 'script',
  fantasy: 'display',
});
export interface FoundFace {
  readonly face: string;
  /** Is it what was asked for? Else another stands in, and the words become shapes. */
  readonly there: boolean;
  /** The family that was asked for first. */
  readonly asked: string;
}

/**
 * The shipped face for a style: the first family that is there, at the nearest weight. Kinds of families count as asked
 * for where no family is named.
 */
export function faceFor(style: Style): FoundFace {
  const families = style['font-family']
    .split(',')
    .map((f) => f.trim().replace(/^["']|["']$/g, ''))
    .filter(Boolean);
  const weight = Number(style['font-weight']);
  const italic = style['font-style'] !== 'normal';
  // Slope first, then weight.
  const away = (f: FaceRow): number => (f.italic === italic ? 0 : 10_000) + Math.abs(f.weight - weight);
  const nearest = (rows: readonly FaceRow[]) => [...rows].sort((a, b) => away(a) - away(b))[0];
  for (const family of families) {
    const rows = FACES.filter((f) => f.family.toLowerCase() === family.toLowerCase());
    if (rows.length) return { face: nearest(rows).id, there: nearest(rows).italic === italic, asked: family };
  }
  const kind = families.map((f) => GENERIC[f.toLowerCase()]).find(Boolean) ?? 'sans';
  const named = families.find((f) => !GENERIC[f.toLowerCase()]);
  const face = nearest(FACES.filter((f) => f.kind === kind));
  return { face: face.id, there: !named && face.italic === italic, asked: named ?? kind };
}
