import { scannable, spansAt } from '../geometry/boolean/scanline';
import { scaling } from '../geometry/matrix';
import { rectPath, transformPath, type FillRule, type PathData } from '../geometry/path';
import { rect } from '../geometry/rect';
import type { NodeOf, Window } from '../model/schema';
import { outlinePath } from '../shapes/outline';
import type { Column, Edges } from '../text/column';
import type { FrameMeasure } from '../text/layout';

type Frame = NodeOf<'textFrame'>;

/** How far words stay off each edge of a frame. */
export const insetsOf = ({ inset }: Pick<Frame, 'inset'>): Exclude<Frame['inset'], number> =>
  typeof inset === 'number' ? { top: inset, right: inset, bottom: inset, left: inset } : inset;

/** Where a line between two heights can lie, between two edges, left to right. */
export type Free = (top: number, bottom: number, edges: Edges) => readonly Edges[];

/**
 * The columns of a frame, seen from the corner where its words begin. `free`: what of a line is not taken by what
 * pushes words away.
 */
export function measureOf(node: Frame, free: Free | null = null): FrameMeasure {
  const { top, right, bottom, left } = insetsOf(node);
  const width = Math.max(0.1, node.width - left - right);
  const height = node.height - top - bottom;
  const own = spansIn(node);
  const placing = node.placing ?? 'top';
  const grid = node.baseline && { start: node.baseline.start - top, step: node.baseline.step };
  if (own || !node.columns || node.columns.count < 2) {
    const spans = free
      ? (t: number, b: number) => (own ? own(t, b) : [{ x0: 0, x1: width }]).flatMap((edges) => free(t, b, edges))
      : own;
    return { columns: [{ x: 0, y: 0, width, height, ...(spans && { spans }), ...(grid && { grid }) }], placing };
  }
  const { count, gutter } = node.columns;
  const each = Math.max(0.1, (width - (count - 1) * gutter) / count);
  return {
    columns: Array.from({ length: count }, (_, i) => {
      const x = i * (each + gutter);
      const column = { x, y: 0, width: each, height, ...(grid && { grid }) };
      if (!free) return column;
      const spans = (t: number, b: number) =>
        free(t, b, { x0: x, x1: x + each }).map(({ x0, x1 }) => ({ x0: x0 - x, x1: x1 - x }));
      return { ...column, spans };
    }),
    placing,
  };
}

/** The line of a frame in its own space. */
export function framePath(node: Frame): { readonly path: PathData; readonly rule: FillRule } {
  const { window: w, width, height } = node;
  if (!w) return { path: rectPath(rect(0, 0, width, height)), rule: 'nonZero' };
  if ('path' in w) return { path: transformPath(w.path, scaling(width, height)), rule: w.fillRule };
  return outlinePath(shapeOf(node, w));
}

const known = new WeakMap<Window, { width: number; height: number; shape: NodeOf<'shape'> }>();
/**
 * The window as the dialled shape that it is; the same one for the same measures, so that its outline is remembered.
 */
function shapeOf(node: Frame, w: Extract<Window, { shape: string }>): NodeOf<'shape'> {
  const old = known.get(w);
  if (old && old.width === node.width && old.height === node.height) return old.shape;
  const { id, name, transform, hidden, locked, width, height, fills, outlines } = node;
  const shape: NodeOf<'shape'> = {
    id,
    name,
    transform,
    hidden,
    locked,
    kind: 'shape',
    shape: w.shape,
    knobs: w.knobs,
    ...(w.corners && { corners: w.corners }),
    width,
    height,
    fills,
    outlines,
  };
  known.set(w, { width, height, shape });
  return shape;
}

/** How many level lines a line of letters is tried on. */
const TRIES = 7;

/** Where lines can lie in a window, inset on all sides, in the space inside the inset; undefined for a box. */
function spansIn(node: Frame): Column['spans'] {
  if (!node.window) return undefined;
  const area = scannable({ ...framePath(node), rule: framePath(node).rule });
  // A frame that is no box keeps one distance to all of its edge.
  const inset = insetsOf(node).left;
  return (top, bottom) => {
    let [x0, x1] = [-Infinity, Infinity];
    for (let i = 0; i < TRIES; i++) {
      // The room above and below the letters is part of the inset.
      const y = top - inset * 0.999 + ((bottom - top + 2 * inset * 0.999) * i) / (TRIES - 1) + inset;
      const spans = spansAt(area, y);
      // The widest stretch that goes on from what was free so far.
      let best: [number, number] | null = null;
      for (let k = 0; k < spans.length; k += 2) {
        const [a, b] = [Math.max(x0, spans[k] + inset), Math.min(x1, spans[k + 1] - inset)];
        if (b > a && (!best || b - a > best[1] - best[0])) best = [a, b];
      }
      if (!best) return [];
      [x0, x1] = best;
    }
    return [{ x0: x0 - inset, x1: x1 - inset }];
  };
}
