import '../zodSetup';
import * as z from 'zod/mini';
import type { Point } from '../geometry/matrix';
import { pathOfNodes } from '../geometry/nodes';
import { CLOSE, COORDS, transformPath } from '../geometry/path';
import type { Rect } from '../geometry/rect';
import { outlineOf } from '../model/defaults';
import { pathNumbers } from '../model/primitives';
import type { Colour, DesignNode, Page } from '../model/schema';
import { lineThrough, type HandPlace } from './handLine';
import type { DesignDraft } from './history';

const inUnit = z.number().check(z.gte(0), z.lte(1));
/**
 * A signature as it is kept: strokes in a box one wide, `height` high; the widest place of a line as a share of the
 * width.
 */
export const signatureSchema = z.readonly(
  z.strictObject({
    id: z.string().check(z.minLength(1), z.maxLength(64)),
    height: z.number().check(z.gt(0), z.lte(20)),
    line: z.number().check(z.gt(0), z.lte(0.2)),
    strokes: z.readonly(
      z
        .array(z.readonly(z.strictObject({ path: pathNumbers, widths: z.readonly(z.array(inUnit)) })))
        .check(z.minLength(1), z.maxLength(400)),
    ),
  }),
);
export type Signature = z.infer<typeof signatureSchema>;

/** A hand's shakes are smoothed out over places this near each other, as shares of the signature's width. */
const REACH = 0.03;
/** Nodes keep this near to what is smooth. */
const TOLERANCE = 0.003;
/** A pen's line at full pressure, as a share of the width. */
const LINE = 0.012;
/** How thin the fastest part of a line without pressure is. */
const THINNEST = 0.35;

/**
 * Strokes of a hand (each its places in order, in any unit) as a signature: shakes smoothed out, as few nodes as keep
 * near, widths by the pen's pressure; where there is none, by the hand's speed, which is how ink behaves. Null where
 * nothing was written.
 */
export function signatureFrom(strokes: readonly (readonly HandPlace[])[], id: string): Signature | null {
  const written = strokes.filter((s) => s.length > 0);
  const all = written.flat();
  if (!all.length) return null;
  const [x0, x1] = [Math.min(...all.map((p) => p.x)), Math.max(...all.map((p) => p.x))];
  const [y0, y1] = [Math.min(...all.map((p) => p.y)), Math.max(...all.map((p) => p.y))];
  // A dot alone has a size of its own.
  const width = Math.max(x1 - x0, (y1 - y0) / 4, 1e-3);
  const made = written.flatMap((stroke) => {
    const places = stroke.map((p) => ({ ...p, x: (p.x - x0) / width, y: (p.y - y0) / width }));
    const pressed = places.some((p) => p.pressure !== undefined);
    const smooth = smoothed(pressed ? places : bySpeed(places));
    const only = smooth.length === 1 ? [smooth[0], { ...smooth[0], x: smooth[0].x + LINE / 10 }] : smooth;
    const contour = lineThrough(only, TOLERANCE, 0);
    const { path } = pathOfNodes([contour]);
    return path.length ? [{ path, widths: contour.nodes.map((n) => n.width ?? 1) }] : [];
  });
  if (!made.length) return null;
  return { id, height: Math.min(20, Math.max(LINE, (y1 - y0) / width)), line: LINE, strokes: made };
}

/** Each place the mean of those near it, nearer ones weighing more; the ends stay. */
function smoothed(places: readonly HandPlace[]): HandPlace[] {
  return places.map((p, i) => {
    if (i === 0 || i === places.length - 1) return p;
    let [x, y, weight] = [p.x, p.y, 1];
    for (const step of [-1, 1])
      for (let j = i + step; j >= 0 && j < places.length; j += step) {
        const away = distance(places[j], p);
        if (away > REACH) break;
        const w = 1 - away / REACH;
        x += places[j].x * w;
        y += places[j].y * w;
        weight += w;
      }
    return { ...p, x: x / weight, y: y / weight };
  });
}
const distance = (a: Point, b: Point): number => Math.hypot(a.x - b.x, a.y - b.y);

/** Pressure of a hand that shows none, by how far apart its places are: fast is thin. */
function bySpeed(places: readonly HandPlace[]): HandPlace[] {
  const steps = places.map((p, i) => (i ? distance(p, places[i - 1]) : 0));
  // A single leap of the pointer is no speed.
  const fastest = Math.max(steps.toSorted((a, b) => a - b)[Math.floor(0.9 * (steps.length - 1))], 1e-9);
  let now = 1;
  return places.map((p, i) => {
    // Ink answers late.
    now += (1 - (1 - THINNEST) * Math.min(1, steps[i] / fastest) - now) * 0.3;
    return { ...p, pressure: now };
  });
}

/** Where a signature of a shape lies in a box: as large as it can be, in the middle. */
export function placeIn(
  { height }: Pick<Signature, 'height'>,
  box: Rect,
): { readonly x: number; readonly y: number; readonly width: number } {
  const width = Math.min(box.x1 - box.x0, (box.y1 - box.y0) / height);
  return {
    width,
    x: (box.x0 + box.x1 - width) / 2,
    y: (box.y0 + box.y1 - width * height) / 2,
  };
}

/** Puts a signature on top of a page as one group of lines in one colour; answers its id. Points. */
export function putSignature(
  d: DesignDraft,
  page: Page,
  signature: Signature,
  at: { readonly x: number; readonly y: number; readonly width: number },
  colour: Colour,
  newId: () => string,
): string {
  const children: string[] = [];
  for (const { path, widths } of signature.strokes) {
    const own = transformPath(path, [at.width, 0, 0, at.width, at.x, at.y]);
    const id = newId();
    const outline = outlineOf({ kind: 'colour', colour, overprint: false }, signature.line * at.width);
    const node: DesignNode = {
      id,
      name: 'Pen stroke',
      kind: 'path',
      transform: [1, 0, 0, 1, 0, 0],
      hidden: false,
      locked: false,
      path: own,
      fillRule: 'nonZero',
      fills: [{ kind: 'none' }],
      outlines: [{ ...outline, cap: 'round', join: 'round' }],
      ...(widths.length === nodesIn(own) && { widths: [...widths] }),
    };
    d.nodes[id] = node as DesignDraft['nodes'][string];
    children.push(id);
  }
  const id = newId();
  d.nodes[id] = {
    id,
    name: 'Signature',
    kind: 'group',
    transform: [1, 0, 0, 1, 0, 0],
    hidden: false,
    locked: false,
    children,
    alt: 'Signature',
  };
  [...d.pages, ...(d.masters ?? [])].find((p) => p.id === page.id)?.children.push(id);
  return id;
}

/** How many nodes a path has. */
function nodesIn(path: readonly number[]): number {
  let n = 0;
  for (let i = 0; i < path.length; i += 1 + COORDS[path[i] as 0 | 1 | 2 | 3]) if (path[i] !== CLOSE) n++;
  return n;
}
