import type { Patches } from 'mutative';
import type { Design } from '../model/schema';

/**
 * Patches, or a design, for store and workers: one text is copied a hundred times faster than many thousand small
 * objects, and a row of numbers is copied faster still than it is written and read.
 */
export type Packed = string | PackedMoves;
/** Patches that give objects new transforms: `ids` (a JSON list) and six numbers each; then others, as text. */
interface PackedMoves {
  readonly ids: string;
  readonly transforms: Float64Array;
  readonly others: string;
}
const known = new WeakMap<Patches | Design, string>();

/** Made once for the same thing. A patch whose value is undefined has none afterwards, which says the same. */
export function packed(what: Patches | Design): string {
  let text = known.get(what);
  if (text === undefined) known.set(what, (text = JSON.stringify(what)));
  return text;
}

/** `ids`: a JSON list of those that are placed anew, each once; `transforms`: six numbers for each. */
export const packedMoves = (ids: string, transforms: Float64Array, others: Patches): Packed => ({
  ids,
  transforms,
  others: JSON.stringify(others),
});

/** Reads what is packed, and what is plain as it was kept before. Throws on what is neither. */
export function unpacked<T extends Patches | Design>(p: Packed | T): T {
  if (typeof p === 'string') return JSON.parse(p) as T;
  return 'transforms' in p ? (unpackedMoves(p) as T) : p;
}

function unpackedMoves({ ids, transforms, others }: PackedMoves): Patches {
  const list = JSON.parse(ids) as string[];
  if (!Array.isArray(list) || transforms.length !== 6 * list.length)
    throw new Error('A packed step is damaged: there are not six numbers for each object.');
  const moves: Patches = list.map((id, i) => ({
    op: 'replace',
    path: ['nodes', id, 'transform'],
    value: [...transforms.subarray(6 * i, 6 * i + 6)],
  }));
  return [...moves, ...(JSON.parse(others) as Patches)];
}
