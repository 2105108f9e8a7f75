import type { Matrix } from '../geometry/matrix';
import type { DesignNode } from '../model/schema';

/**
 * By node, and the very matrix of its place: most nodes have one place, and those of a repeat's parts go with their
 * matrices.
 */
export type Memory<T> = WeakMap<DesignNode, Place<T>>;
interface Place<T> {
  readonly place: Matrix;
  value: T;
  others: WeakMap<Matrix, T> | null;
}
/** An empty memory of what was made of nodes. */
export const memory = <T>(): Memory<T> => new WeakMap();

/** What is known of a node at a place, if it still holds; else it is made and kept. */
export function remembered<T>(
  known: Memory<T>,
  node: DesignNode,
  place: Matrix,
  holds: (known: T) => boolean,
  make: () => T,
): T {
  const at = known.get(node);
  const value = at?.place === place ? at.value : at?.others?.get(place);
  if (value !== undefined && holds(value)) return value;
  const made = make();
  if (!at) known.set(node, { place, value: made, others: null });
  else if (at.place === place) at.value = made;
  else (at.others ??= new WeakMap()).set(place, made);
  return made;
}
