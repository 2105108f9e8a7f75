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
const WEIGHTS: readonly [RegExp, number][] = [
  [/ExtraBold|Black/, 800],
  [/SemiBold/, 600],
  [/Medium/, 500],
  [/Bold/, 700],
  [/Light/, 300],
];
const weightOf = (f: FaceRow): number => WEIGHTS.find(([word]) => word.test(f.style))?.[1] ?? 400;

export interface FoundFace {
  readonly face: string;
  /** Is it what was asked for? Else another stands in, and the words become shapes. */
  readonly there: boolean;
  /** The family that was asked for first. */
  readonly asked: string;
}

/** The shipped face for a style: the first family that is there, at the nearest weight. Kinds of families count as asked for where no family is named. */
export function faceFor(style: Style): FoundFace {
  const families = style['font-family']
    .split(',')
    .map((f) => f.trim().replace(/^["']|["']$/g, ''))
    .filter(Boolean);
  const weight = Number(style['font-weight']);
  const nearest = (rows: readonly FaceRow[]) =>
    [...rows].sort((a, b) => Math.abs(weightOf(a) - weight) - Math.abs(weightOf(b) - weight))[0];
  const italic = style['font-style'] !== 'normal';
  for (const family of families) {
    const rows = FACES.filter((f) => f.family.toLowerCase() === family.toLowerCase());
    if (rows.length) return { face: nearest(rows).id, there: !italic, asked: family };
  }
  const kind = families.map((f) => GENERIC[f.toLowerCase()]).find(Boolean) ?? 'sans';
  const named = families.find((f) => !GENERIC[f.toLowerCase()]);
  return { face: nearest(FACES.filter((f) => f.kind === kind)).id, there: !named && !italic, asked: named ?? kind };
}
