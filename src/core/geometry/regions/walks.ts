import type { Arrangement } from './arrangement';

/** An edge run one way. */
export interface Half {
  readonly edge: number;
  readonly from: number;
  readonly to: number;
}

/**
 * Edges run there (even numbers: twice the edge's) and back (odd): for each the one that goes on from it round the face
 * to its right, as seen. Of edges that are not kept −1.
 */
export function nextRound({ points, edges }: Arrangement, kept?: ReadonlySet<number>): Int32Array {
  const angles = new Float64Array(2 * edges.length);
  const around = new Map<number, number[]>();
  const put = (half: number, from: number, to: number) => {
    angles[half] = Math.atan2(points[2 * to + 1] - points[2 * from + 1], points[2 * to] - points[2 * from]);
    const list = around.get(from);
    if (list) list.push(half);
    else around.set(from, [half]);
  };
  edges.forEach(({ a, b }, i) => {
    if (kept && !kept.has(i)) return;
    put(2 * i, a, b);
    put(2 * i + 1, b, a);
  });
  const next = new Int32Array(2 * edges.length).fill(-1);
  for (const list of around.values()) {
    if (list.length > 1) list.sort((p, q) => angles[p] - angles[q]);
    // Whoever arrives along the edge that leaves here goes on by the one before it.
    list.forEach((half, k) => (next[half ^ 1] = list[(k + list.length - 1) % list.length]));
  }
  return next;
}

/** An edge run there or back, by its number. */
export const halfOf = ({ edges }: Arrangement, half: number): Half => {
  const edge = half >> 1;
  const { a, b } = edges[edge];
  return half & 1 ? { edge, from: b, to: a } : { edge, from: a, to: b };
};
