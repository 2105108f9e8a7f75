import { scaling } from '../geometry/matrix';
import { transformPath, pathBounds } from '../geometry/path';
import { contoursOf } from '../geometry/segments';
import { finishOf } from '../model/finish';
import type { DesignNode, NodeOf, Story } from '../model/schema';
import { shapeById } from '../shapes/catalogue';
import { outlinePath } from '../shapes/outline';

/** Text frames that are no boxes: a dialled shape or a path with words in it. */

type Frame = NodeOf<'textFrame'>;

/** May words be written in it? Closed shapes and paths. */
export function canHoldText(n: DesignNode): n is NodeOf<'shape'> | NodeOf<'path'> {
  if (n.kind === 'shape') return !shapeById(n.shape)?.open;
  return n.kind === 'path' && contoursOf(n.path).some((c) => c.closed);
}

/** The frame that a shape becomes when words are written in it: the same id, place, look and measures. */
export function asWindow(n: NodeOf<'shape'> | NodeOf<'path'>, story: string, inset: number): Frame {
  const { id, name, hidden, locked, fills, outlines } = n;
  const base = { id, name, hidden, locked, ...finishOf(n), fills, outlines, kind: 'textFrame', story, inset } as const;
  if (n.kind === 'shape')
    return {
      ...base,
      transform: n.transform,
      width: n.width,
      height: n.height,
      window: { shape: n.shape, knobs: n.knobs, ...(n.corners && { corners: n.corners }) },
    };
  const { path, rule } = outlinePath(n);
  const box = pathBounds(path);
  const [w, h] = [Math.max(box.x1 - box.x0, 1e-3), Math.max(box.y1 - box.y0, 1e-3)];
  const [a, b, c, d, e, f] = n.transform;
  return {
    ...base,
    transform: [a, b, c, d, a * box.x0 + c * box.y0 + e, b * box.x0 + d * box.y0 + f],
    width: w,
    height: h,
    window: { path: transformPath(path, [1 / w, 0, 0, 1 / h, -box.x0 / w, -box.y0 / h]), fillRule: rule },
  };
}

/** What a window is without words: the shape it was. */
export function asShape(n: Frame): NodeOf<'shape'> | NodeOf<'path'> | null {
  const { id, name, transform, hidden, locked, fills, outlines, window: w, width, height } = n;
  if (!w) return null;
  const base = { id, name, transform, hidden, locked, ...finishOf(n), fills, outlines } as const;
  if ('path' in w)
    return { ...base, kind: 'path', path: transformPath(w.path, scaling(width, height)), fillRule: w.fillRule };
  return {
    ...base,
    kind: 'shape',
    shape: w.shape,
    knobs: w.knobs,
    ...(w.corners && { corners: w.corners }),
    width,
    height,
  };
}

/** The dialled shape that a node is, or is a window of: its knobs, and a way to change them. */
export function dialOf(n: DesignNode | undefined): {
  readonly shape: string;
  readonly knobs: Readonly<Record<string, number>>;
  readonly width: number;
  readonly height: number;
} | null {
  if (n?.kind === 'shape') return n;
  if (n?.kind === 'textFrame' && n.window && 'shape' in n.window)
    return { ...n.window, width: n.width, height: n.height };
  return null;
}
/** Sets knobs of a shape, or of the shape that a text frame has. */
export function setKnobs(n: unknown, keys: readonly string[], v: number): void {
  const node = n as { kind: string; knobs?: Record<string, number>; window?: { knobs?: Record<string, number> } };
  const knobs = node.kind === 'shape' ? node.knobs : node.window?.knobs;
  if (knobs) for (const k of keys) knobs[k] = v;
}

/** A story of one paragraph in the middle. */
export const emptyStory = (id: string, run: Story['paragraphs'][number]['runs'][number]): Story => ({
  id,
  paragraphs: [{ align: 'middle', leading: 1.2, runs: [run] }],
});
