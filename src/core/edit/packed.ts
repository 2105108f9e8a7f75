import type { Patches } from 'mutative';
import type { Design } from '../model/schema';

/** Patches, or a design, as text, for store and workers: one text is copied a hundred times faster than many thousand small objects. */
export type Packed = string;
const known = new WeakMap<Patches | Design, Packed>();

/** Made once for the same thing. A patch whose value is undefined has none afterwards, which says the same. */
export function packed(what: Patches | Design): Packed {
  let text = known.get(what);
  if (text === undefined) known.set(what, (text = JSON.stringify(what)));
  return text;
}

/** Reads what is packed, and what is plain as it was kept before. Throws on text that is neither. */
export const unpacked = <T extends Patches | Design>(p: Packed | T): T => (typeof p === 'string' ? (JSON.parse(p) as T) : p);
