import { scannable, spansAt } from '../geometry/boolean/scanline';
import { scaling } from '../geometry/matrix';
import { rectPath, transformPath, pathBounds, type FillRule, type PathData } from '../geometry/path';
import { rect } from '../geometry/rect';
import { contoursOf } from '../geometry/segments';
import type { DesignNode, NodeOf, Story, Window } from '../model/schema';
import { shapeById } from '../shapes/catalogue';
import { outlinePath } from '../shapes/outline';

/** Text frames that are no boxes: a dialled shape or a path with words in it. */

type Frame = NodeOf<'textFrame'>;

/** The line of a frame in its own space. */
export function framePath(node: Frame): { readonly path: PathData; readonly rule: FillRule } {
  const { window: w, width, height } = node;
  if (!w) return { path: rectPath(rect(0, 0, width, height)), rule: 'nonZero' };
  if ('path' in w) return { path: transformPath(w.path, scaling(width, height)), rule: w.fillRule };
  return outlinePath(shapeOf(node, w));
}

const known = new WeakMap<Window, { width: number; height: number; shape: NodeOf<'shape'> }>();
/** The window as the dialled shape that it is; the same one for the same measures, so that its outline is remembered. */
function shapeOf(node: Frame, w: Extract<Window, { shape: string }>): NodeOf<'shape'> {
  const old = known.get(w);
  if (old && old.width === node.width && old.height === node.height) return old.shape;
  const { id, name, transform, hidden, locked, width, height, fills, outlines } = node;
  const shape: NodeOf<'shape'> = { id, name, transform, hidden, locked, kind: 'shape', shape: w.shape, knobs: w.knobs, ...(w.corners && { corners: w.corners }), width, height, fills, outlines };
  known.set(w, { width, height, shape });
  return shape;
}

/** How many level lines a line of letters is tried on. */
const TRIES = 7;

/** Where lines can lie in a window, inset on all sides, in the space inside the inset; undefined for a box. */
export function spansIn(node: Frame): ((top: number, bottom: number) => { x0: number; x1: number } | null) | undefined {
  if (!node.window) return undefined;
  const area = scannable({ ...framePath(node), rule: framePath(node).rule });
  const { inset } = node;
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
      if (!best) return null;
      [x0, x1] = best;
    }
    return { x0: x0 - inset, x1: x1 - inset };
  };
}

/** May words be written in it? Closed shapes and paths. */
export function canHoldText(n: DesignNode): n is NodeOf<'shape'> | NodeOf<'path'> {
  if (n.kind === 'shape') return !shapeById(n.shape)?.open;
  return n.kind === 'path' && contoursOf(n.path).some((c) => c.closed);
}

/** The frame that a shape becomes when words are written in it: the same id, place, look and measures. */
export function asWindow(n: NodeOf<'shape'> | NodeOf<'path'>, story: string, inset: number): Frame {
  const { id, name, hidden, locked, fills, outlines } = n;
  const base = { id, name, hidden, locked, fills, outlines, kind: 'textFrame', story, inset } as const;
  if (n.kind === 'shape') return { ...base, transform: n.transform, width: n.width, height: n.height, window: { shape: n.shape, knobs: n.knobs, ...(n.corners && { corners: n.corners }) } };
  const { path, rule } = outlinePath(n);
  const box = pathBounds(path);
  const [w, h] = [Math.max(box.x1 - box.x0, 1e-3), Math.max(box.y1 - box.y0, 1e-3)];
  const [a, b, c, d, e, f] = n.transform;
  return { ...base, transform: [a, b, c, d, a * box.x0 + c * box.y0 + e, b * box.x0 + d * box.y0 + f], width: w, height: h, window: { path: transformPath(path, [1 / w, 0, 0, 1 / h, -box.x0 / w, -box.y0 / h]), fillRule: rule } };
}

/** What a window is without words: the shape it was. */
export function asShape(n: Frame): NodeOf<'shape'> | NodeOf<'path'> | null {
  const { id, name, transform, hidden, locked, fills, outlines, window: w, width, height } = n;
  if (!w) return null;
  const base = { id, name, transform, hidden, locked, fills, outlines } as const;
  if ('path' in w) return { ...base, kind: 'path', path: transformPath(w.path, scaling(width, height)), fillRule: w.fillRule };
  return { ...base, kind: 'shape', shape: w.shape, knobs: w.knobs, ...(w.corners && { corners: w.corners }), width, height };
}

/** The dialled shape that a node is, or is a window of: its knobs, and a way to change them. */
export function dialOf(n: DesignNode | undefined): { readonly shape: string; readonly knobs: Readonly<Record<string, number>>; readonly width: number; readonly height: number } | null {
  if (n?.kind === 'shape') return n;
  if (n?.kind === 'textFrame' && n.window && 'shape' in n.window) return { ...n.window, width: n.width, height: n.height };
  return null;
}
export function setKnobs(n: unknown, keys: readonly string[], v: number): void {
  const node = n as { kind: string; knobs?: Record<string, number>; window?: { knobs?: Record<string, number> } };
  const knobs = node.kind === 'shape' ? node.knobs : node.window?.knobs;
  if (knobs) for (const k of keys) knobs[k] = v;
}

export const emptyStory = (id: string, run: Story['paragraphs'][number]['runs'][number]): Story => ({ id, paragraphs: [{ align: 'middle', leading: 1.2, runs: [run] }] });
