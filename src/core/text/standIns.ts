import type { FaceKind, OwnFace } from '../model/faceSchema';
import { DEFAULT_FACE } from '../model/defaults';
import { FACE_METRICS } from './faceMetrics';
import { FACES, type FaceRow } from './faces';

/** A shipped face in the place of one that is missing, and its share of the size, so that words stay as wide. */
export interface StandIn {
  readonly face: string;
  readonly share: number;
}

/** What is looked for. What is not known counts as met. */
interface Asked {
  readonly weight: number;
  readonly italic: boolean;
  readonly kind?: FaceKind;
  readonly width?: number;
  readonly xHeight?: number;
}

/** Kinds that may pass for each other. */
const ALIKE: readonly (readonly FaceKind[])[] = [
  ['sans', 'condensed'],
  ['serif', 'slab'],
  ['display', 'blackletter'],
];

/** Beyond these a face would look too small or too large beside its neighbours. */
const LEAST_SHARE = 0.8;
const MOST_SHARE = 1.25;

/**
 * The shipped face that comes nearest to a missing one: by its slope, kind, width, height of small letters and weight
 * where the design kept them; else by what its id says.
 */
export function standInFor(id: string, known: OwnFace | undefined): StandIn {
  const family = FACES.filter((f) => id.startsWith(`${f.id.replace(/-\d+i?$/, '')}-`));
  const said = /-(\d{3})(i?)$/.exec(id);
  if (!known && !said && !family.length) return { face: DEFAULT_FACE, share: 1 };
  const asked: Asked = known ?? { weight: Number(said?.[1] ?? 400), italic: said?.[2] === 'i' };
  let [best, least] = [FACES[0], Infinity];
  for (const f of family.length ? family : FACES) {
    const away = distance(asked, f);
    if (away < least) [best, least] = [f, away];
  }
  const [width] = FACE_METRICS[best.id];
  const share = asked.width && width ? Math.min(MOST_SHARE, Math.max(LEAST_SHARE, asked.width / width)) : 1;
  return { face: best.id, share };
}

function distance(asked: Asked, f: FaceRow): number {
  const [width, xHeight] = FACE_METRICS[f.id];
  const kind =
    asked.kind === undefined || asked.kind === f.kind
      ? 0
      : ALIKE.some((pair) => pair.includes(asked.kind!) && pair.includes(f.kind))
        ? 0.4
        : 1;
  return (
    (asked.italic === f.italic ? 0 : 1.5) +
    kind +
    Math.abs(asked.weight - f.weight) / 400 +
    (asked.width === undefined ? 0 : Math.abs(asked.width - width) * 8) +
    (asked.xHeight === undefined ? 0 : Math.abs(asked.xHeight - xHeight) * 4)
  );
}
