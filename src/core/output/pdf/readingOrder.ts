import type { Rect } from '../../geometry/rect';

/** Room between two parts of a page, where it can be cut. */
interface Gap {
  readonly width: number;
  /** What lies before it, and after it. */
  readonly parts: readonly [number[], number[]];
}

/**
 * The order in which boxes are read, by their indices: a page is cut in two at the widest gap that runs across it or
 * down it, its parts in the same way, and so on; what cannot be cut is read from its top, then its left (recursive X–Y
 * cut, Nagy and Seth
 * 1984, from memory).
 */
export function readingOrder(boxes: readonly Rect[], ids: readonly number[] = boxes.map((_, i) => i)): number[] {
  if (ids.length < 2) return [...ids];
  const [level, upright] = [widestGap(boxes, ids, 'y0', 'y1'), widestGap(boxes, ids, 'x0', 'x1')];
  const gap = !upright || (level && level.width >= upright.width) ? level : upright;
  if (gap) return gap.parts.flatMap((part) => readingOrder(boxes, part));
  return [...ids].sort((a, b) => boxes[a].y0 - boxes[b].y0 || boxes[a].x0 - boxes[b].x0);
}

function widestGap(boxes: readonly Rect[], ids: readonly number[], from: 'x0' | 'y0', to: 'x1' | 'y1'): Gap | null {
  const sorted = [...ids].sort((a, b) => boxes[a][from] - boxes[b][from]);
  let widest: Gap | null = null;
  let end = boxes[sorted[0]][to];
  for (let i = 1; i < sorted.length; i++) {
    const width = boxes[sorted[i]][from] - end;
    // Neighbours that touch can be told apart all the same.
    if (width > -0.01 && width > (widest?.width ?? -1))
      widest = { width, parts: [sorted.slice(0, i), sorted.slice(i)] };
    end = Math.max(end, boxes[sorted[i]][to]);
  }
  return widest;
}
