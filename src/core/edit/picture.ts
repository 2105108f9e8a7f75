import { angleOf, determinant, multiply, rotation, scaling, translation, type Matrix } from '../geometry/matrix';
import type { Rect } from '../geometry/rect';
import type { Design, Paint, Picture, PicturePaint, Tone } from '../model/schema';
import { mm } from '../units/length';
import type { NodeId } from '../model/tree';
import type { DesignDraft } from './history';
import { type Aim } from './aims';
import { setPaint } from './paint';
import { visitPaints } from '../model/paints';
import { mapPaints, placedPaint } from './place';

/** How a picture is laid into its frame once; it can be moved and sized there afterwards. */
export type Fit = 'fill' | 'fit' | 'centre' | 'stretch';

/** Pictures that say no resolution of their own are placed for print at this many pixels an inch (common practice). */
const PLACED_PPI = 300;

/** Width and height of a picture in points, at its own resolution or the usual one. */
export function naturalSize(p: Pick<Picture, 'width' | 'height' | 'ppi'>): {
  readonly width: number;
  readonly height: number;
} {
  const k = 72 / (p.ppi ?? PLACED_PPI);
  return { width: p.width * k, height: p.height * k };
}

/**
 * The geometry that lays a picture into a box of its object's space: `fill` covers the box in proportion, `fit` lies
 * inside it, `centre` keeps the picture's own size, `stretch` takes the box's proportions.
 */
export function fitted(p: Pick<Picture, 'width' | 'height' | 'ppi'>, box: Rect, fit: Fit): Matrix {
  const [bw, bh] = [Math.max(1e-3, box.x1 - box.x0), Math.max(1e-3, box.y1 - box.y0)];
  if (fit === 'stretch') return [bw, 0, 0, bh, box.x0, box.y0];
  const ratio = p.width / p.height;
  const wide = ratio > bw / bh;
  const { width: w, height: h } =
    fit === 'centre'
      ? naturalSize(p)
      : wide === (fit === 'fit')
        ? { width: bw, height: bw / ratio }
        : { width: bh * ratio, height: bh };
  return [w, 0, 0, h, (box.x0 + box.x1 - w) / 2, (box.y0 + box.y1 - h) / 2];
}

/** A picture as the paint of a box. */
export function pictureIn(p: Picture, box: Rect, fit: Fit = 'fill', old?: Paint): PicturePaint {
  return {
    kind: 'picture',
    picture: p.id,
    geometry: fitted(p, box, fit),
    overprint: old && old.kind !== 'none' ? old.overprint : false,
  };
}

/** The size a picture is placed at: its own, made smaller until it fits into so much room. */
export function placedSize(
  p: Picture,
  room: { readonly width: number; readonly height: number },
): { readonly width: number; readonly height: number } {
  const { width, height } = naturalSize(p);
  const k = Math.min(1, room.width / width, room.height / height);
  return { width: width * k, height: height * k };
}

/**
 * Pixels an inch that a picture comes to on the page, the fewer of its two ways. `matrix` maps the object to the page.
 */
export function effectivePpi(p: Pick<Picture, 'width' | 'height'>, paint: PicturePaint, matrix: Matrix): number {
  const m = multiply(matrix, paint.geometry);
  return Math.min((p.width * 72) / Math.hypot(m[0], m[1]), (p.height * 72) / Math.hypot(m[2], m[3]));
}

/**
 * Another picture in the place of a paint's: what the old one covered, the new one covers, in its own proportions and
 * about the same middle. Tone, tiles and turn stay.
 */
export function replaced(paint: PicturePaint, old: Pick<Picture, 'width' | 'height'>, next: Picture): PicturePaint {
  const relative = next.width / next.height / (old.width / old.height);
  const [kx, ky] = relative > 1 ? [relative, 1] : [1, 1 / relative];
  // Pictures of the same proportions lie exactly where the old one lay.
  if (Math.abs(relative - 1) < 1e-9) return { ...paint, picture: next.id };
  return {
    ...paint,
    picture: next.id,
    geometry: multiply(
      paint.geometry,
      multiply(translation(0.5, 0.5), multiply(scaling(kx, ky), translation(-0.5, -0.5))),
    ),
  };
}

/** A tile in words: its width in points, where its corner lies in the object, how far it is turned. */
export interface Tile {
  readonly width: number;
  readonly x: number;
  readonly y: number;
  /** Degrees, clockwise as seen. */
  readonly turn: number;
}
/** No tile is smaller: a page of them would be more than anyone can see. */
export const LEAST_TILE = mm(0.5);

/** A tile as it lies: see `Tile`. */
export function tileOf(geometry: Matrix): Tile {
  return { width: Math.hypot(geometry[0], geometry[1]), x: geometry[4], y: geometry[5], turn: angleOf(geometry) };
}

/** The geometry of a tile in the picture's own proportions; a mirrored one stays mirrored. */
export function tileGeometry(p: Pick<Picture, 'width' | 'height'>, tile: Tile, old: Matrix): Matrix {
  const w = Math.max(LEAST_TILE, tile.width);
  const h = (w * p.height) / p.width;
  const flip = determinant(old) < 0 ? -1 : 1;
  return multiply(translation(tile.x, tile.y), multiply(rotation(tile.turn), scaling(w, h * flip)));
}

/** A tone with some of it changed; what is at rest is left out, and no tone at all is none. */
export function withTone(
  paint: PicturePaint,
  change: { readonly [K in keyof Tone]?: Tone[K] | undefined },
): PicturePaint {
  const { tone, ...rest } = paint;
  const next = Object.fromEntries(
    Object.entries({ ...tone, ...change }).filter(([, v]) => v !== undefined && v !== 0 && v !== false),
  ) as Tone;
  return Object.keys(next).length ? { ...rest, tone: next } : rest;
}

/** Changes the picture paints of an aim, each with its object in hand. */
export function setPicture(
  d: DesignDraft,
  ids: readonly NodeId[],
  aim: Aim,
  change: (p: PicturePaint, id: NodeId) => Paint,
): void {
  setPaint(d, ids, aim, (old, id) => (old.kind === 'picture' ? change(old, id) : old));
}

/** Takes a picture through a map of its object's space: moved or grown inside its frame. */
export const placedPicture = (p: PicturePaint, map: Matrix): PicturePaint => ({
  ...p,
  geometry: multiply(map, p.geometry),
});

/**
 * Gives a frame another box in its own space while everything it is painted with stays where it is on the page. Only
 * shapes and text frames have a box that can be changed alone.
 */
export function cropFrame(d: DesignDraft, id: NodeId, box: Rect): void {
  const node = d.nodes[id];
  if (node.kind !== 'shape' && node.kind !== 'textFrame') return;
  const back = translation(-box.x0, -box.y0);
  node.width = Math.max(LEAST_FRAME, box.x1 - box.x0);
  node.height = Math.max(LEAST_FRAME, box.y1 - box.y0);
  node.transform = [...multiply(node.transform as Matrix, translation(box.x0, box.y0))];
  mapPaints(node, (p) => placedPaint(p, back));
}
/** A frame stays one that can be taken hold of. */
const LEAST_FRAME = mm(0.5);

/** Makes the paints of a picture show another file; all that use it follow. */
export function relinkPicture(d: DesignDraft, id: string, next: Omit<Picture, 'id'>): void {
  const i = (d.pictures ?? []).findIndex((p) => p.id === id);
  if (i >= 0) d.pictures!.splice(i, 1, { ...next, id });
}

/** The pictures of a design that anything is painted with. */
export function picturesUsed(d: Design): Map<string, number> {
  const used = new Map<string, number>();
  visitPaints(d, (p) => {
    if (p.kind === 'picture') used.set(p.picture, (used.get(p.picture) ?? 0) + 1);
  });
  return used;
}
