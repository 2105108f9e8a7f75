import { localBox } from '@/core/derive/box';
import { isText, layoutMatrix, layoutOf } from '@/core/derive/layout';
import { apply, applyVector, meanScale, multiply, type Matrix, type Point } from '@/core/geometry/matrix';
import { isEmpty } from '@/core/geometry/rect';
import { pageMatrix, present } from '@/core/model/tree';
import { shapeById, valuesOf } from '@/core/shapes/catalogue';
import { shadowOf } from '@/core/edit/effects';
import { dialOf } from '@/core/edit/window';
import { cornerHandle, roundsItself, treatedCorners } from '@/core/edit/corners';
import { bisector } from '@/core/geometry/corners';
import { toScreen } from './camera';
import { afterPaint } from '../session/afterPaint';
import type { Frame, Grip, PlacedGrip } from './grips';
import { alongHandle, BEND_PARTS, bendHandle, type BendPart } from './wordGrips';

export type { Frame, Grip, PlacedGrip } from './grips';
import type { Session } from '../session/session';
import type { Camera } from '../session/state';

export function selectionFrame(s: Session): Frame | null {
  const { design } = s;
  const { selection } = s.state;
  const ids = present(design, selection);
  if (!ids.length) return null;
  if (ids.length === 1) return frameOf(s, ids[0]);
  const box = s.boxOf(ids);
  return isEmpty(box) ? null : { box, matrix: [1, 0, 0, 1, 0, 0], single: null };
}

/** The frame round one object of the page; null where it has no extent. */
export function frameOf(s: Session, id: string): Frame | null {
  const box = localBox(s.design, s.design.nodes[id], s.engines.fonts);
  return isEmpty(box) ? null : { box, matrix: pageMatrix(s.design, s.page, id), single: id };
}

const lineKnobs = afterPaint(() => import('./lineKnobs'));

/** Knobs need room to be told from ticks: a frame smaller than this (CSS pixels) shows none. */
const KNOBS_FROM = 44;
/** A knob never comes nearer than this to a corner of the frame, where the ticks are. */
const KNOB_INSET = 15;
const TICK_AWAY = 8;
const TURN_AWAY = 20;
/** Where the pivot waits until it is put somewhere. */
const PIVOT_AWAY = 40;
/** A shape with more corners than this shows the handle of its first only. */
const MOST_CORNERS = 4;

const unit = (p: Point): Point => {
  const n = Math.hypot(p.x, p.y) || 1;
  return { x: p.x / n, y: p.y / n };
};

export function screenMatrix(c: Camera): Matrix {
  return [c.scale, 0, 0, c.scale, c.x, c.y];
}

/** Corner points of the frame on the screen, from its top left round. */
export function frameCorners(f: Frame, c: Camera): Point[] {
  const m = multiply(screenMatrix(c), f.matrix);
  return [
    { x: f.box.x0, y: f.box.y0 },
    { x: f.box.x1, y: f.box.y0 },
    { x: f.box.x1, y: f.box.y1 },
    { x: f.box.x0, y: f.box.y1 },
  ].map((p) => apply(m, p));
}

export function placedGrips(s: Session, f: Frame): PlacedGrip[] {
  const c = s.state.camera;
  const ux = unit(applyVector(f.matrix, { x: 1, y: 0 }));
  const uy = unit(applyVector(f.matrix, { x: 0, y: 1 }));
  const [tl, tr, br, bl] = frameCorners(f, c);
  const mid = (a: Point, b: Point): Point => ({ x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 });
  const out = (p: Point, dx: number, dy: number, by: number): Point => ({
    x: p.x + (ux.x * dx + uy.x * dy) * by,
    y: p.y + (ux.y * dx + uy.y * dy) * by,
  });
  const grips: PlacedGrip[] = [];
  const put = (grip: Grip, at: Point) => grips.push({ grip, at, ux, uy });
  for (const [p, hx, hy] of [
    [tl, -1, -1],
    [tr, 1, -1],
    [br, 1, 1],
    [bl, -1, 1],
  ] as const)
    put({ kind: 'size', hx, hy }, out(p, hx, hy, TICK_AWAY * 0.75));
  const wide = Math.hypot(tr.x - tl.x, tr.y - tl.y) > 34;
  const tall = Math.hypot(bl.x - tl.x, bl.y - tl.y) > 34;
  if (wide) {
    put({ kind: 'size', hx: 0, hy: -1 }, out(mid(tl, tr), 0, -1, TICK_AWAY));
    put({ kind: 'size', hx: 0, hy: 1 }, out(mid(bl, br), 0, 1, TICK_AWAY));
  }
  if (tall) {
    put({ kind: 'size', hx: -1, hy: 0 }, out(mid(tl, bl), -1, 0, TICK_AWAY));
    put({ kind: 'size', hx: 1, hy: 0 }, out(mid(tr, br), 1, 0, TICK_AWAY));
  }
  put({ kind: 'turn' }, out(tr, 1, -1, TURN_AWAY));
  put({ kind: 'pivot' }, s.state.pivot ? toScreen(c, s.state.pivot) : out(tr, 1, -1, PIVOT_AWAY));
  return [
    ...grips,
    ...shadowGrip(s, f, mid(tl, br), ux, uy),
    ...wordGrips(s, f, ux, uy),
    ...knobGrips(s, f, ux, uy),
    ...cornerGrips(s, f, ux, uy),
    ...(lineKnobs.now?.laterGrips(s, f, ux, uy) ?? []),
  ];
}

/**
 * The ring that moves the shadow of the one chosen object, as far from its middle as the shadow falls; only while
 * colours go there too.
 */
function shadowGrip(s: Session, f: Frame, middle: Point, ux: Point, uy: Point): PlacedGrip[] {
  const shadow = f.single && s.state.aim === 'shadow' ? shadowOf(s.design.nodes[f.single]) : undefined;
  if (!shadow) return [];
  const by = meanScale(f.matrix) * s.state.camera.scale;
  return [
    {
      grip: { kind: 'shadow' },
      at: { x: middle.x + shadow.dx * by, y: middle.y + shadow.dy * by },
      ux,
      uy,
      notch: middle,
    },
  ];
}

/** The dots of one display text that stands on a line or is bent. */
function wordGrips(s: Session, f: Frame, ux: Point, uy: Point): PlacedGrip[] {
  const node = f.single ? s.design.nodes[f.single] : null;
  if (node?.kind !== 'displayText') return [];
  const grips: PlacedGrip[] = [];
  const put = (of: 'along' | BendPart, at: Point, notch: Point) =>
    grips.push({ grip: { kind: 'words', of }, at: toScreen(s.state.camera, apply(f.matrix, at)), ux, uy, notch });
  const on = alongHandle(node);
  if (on) put('along', on, ux);
  const up = { x: -uy.x, y: -uy.y };
  if (node.bend) for (const part of BEND_PARTS) put(part, bendHandle(s, node, part), part === 'tiltX' ? ux : up);
  return grips;
}

/** The knobs of a single dialled shape, where they stand on the screen. */
function knobGrips(s: Session, f: Frame, ux: Point, uy: Point): PlacedGrip[] {
  if (!f.single) return [];
  const node = dialOf(s.design.nodes[f.single]);
  const def = node ? shapeById(node.shape) : undefined;
  if (!node || !def) return [];
  const v = valuesOf(def, node.knobs);
  const corners = frameCorners(f, s.state.camera);
  const side = (i: number, j: number) => Math.hypot(corners[i].x - corners[j].x, corners[i].y - corners[j].y);
  if (Math.min(side(0, 1), side(0, 3)) < KNOBS_FROM) return [];
  const middle = { x: (corners[0].x + corners[2].x) / 2, y: (corners[0].y + corners[2].y) / 2 };
  return def.knobs.map((knob, index): PlacedGrip => {
    const at = inset(toScreen(s.state.camera, apply(f.matrix, knob.at(v, node.width, node.height))), corners, middle);
    const rad = (knob.travels * Math.PI) / 180;
    const notch = unit({
      x: ux.x * Math.cos(rad) + uy.x * Math.sin(rad),
      y: ux.y * Math.cos(rad) + uy.y * Math.sin(rad),
    });
    return {
      grip: { kind: 'knob', index },
      at,
      ux,
      uy,
      letter: def.params.find((p) => p.id === knob.param)?.letter ?? '',
      notch,
    };
  });
}

/** A handle on each corner that can be treated. */
function cornerGrips(s: Session, f: Frame, ux: Point, uy: Point): PlacedGrip[] {
  const node = f.single ? s.design.nodes[f.single] : null;
  if (!node || (node.kind !== 'shape' && node.kind !== 'path') || roundsItself(node)) return [];
  const frame = frameCorners(f, s.state.camera);
  const side = (i: number, j: number) => Math.hypot(frame[i].x - frame[j].x, frame[i].y - frame[j].y);
  if (Math.min(side(0, 1), side(0, 3)) < KNOBS_FROM) return [];
  const corners = treatedCorners(node);
  const shown = corners.length > MOST_CORNERS ? corners.slice(0, 1) : corners;
  return shown.map((corner): PlacedGrip => {
    const way = unit(applyVector(f.matrix, bisector(corner)));
    const at = toScreen(s.state.camera, apply(f.matrix, cornerHandle(corner)));
    const tip = toScreen(s.state.camera, apply(f.matrix, corner.at));
    // Kept off the corner itself, where nodes and ticks are.
    const near = Math.hypot(at.x - tip.x, at.y - tip.y) < KNOB_INSET;
    return {
      grip: { kind: 'corner', node: corner.node },
      at: near ? { x: tip.x + way.x * KNOB_INSET, y: tip.y + way.y * KNOB_INSET } : at,
      ux,
      uy,
      letter: corner === shown[0] ? 'r' : '',
      notch: way,
    };
  });
}

/** Moves a knob that lies on a corner towards the middle, so that both can be taken. */
function inset(p: Point, corners: readonly Point[], middle: Point): Point {
  const near = corners.find((c) => Math.hypot(c.x - p.x, c.y - p.y) < KNOB_INSET);
  if (!near) return p;
  const way = unit({ x: middle.x - near.x, y: middle.y - near.y });
  return { x: near.x + way.x * KNOB_INSET, y: near.y + way.y * KNOB_INSET };
}

/** The grip under a screen point; knobs before the rest, since they lie inside. */
export function gripAt(s: Session, p: Point): { frame: Frame; placed: PlacedGrip } | null {
  const frame = selectionFrame(s);
  if (!frame) return null;
  const grips = placedGrips(s, frame);
  const near = (g: PlacedGrip, by: number) => Math.hypot(g.at.x - p.x, g.at.y - p.y) <= by;
  const inner = (g: PlacedGrip) =>
    g.grip.kind === 'shadow' ||
    g.grip.kind === 'words' ||
    g.grip.kind === 'knob' ||
    g.grip.kind === 'corner' ||
    g.grip.kind === 'width' ||
    g.grip.kind === 'depth' ||
    (g.grip.kind === 'pivot' && s.state.pivot !== null);
  const found = grips.find((g) => inner(g) && near(g, 9)) ?? grips.find((g) => near(g, 10));
  return found ? { frame, placed: found } : null;
}

/** Where a line of letters lies, for the caret: layout and the map from layout space to the page. */
export function textFrameOf(s: Session, id: string) {
  const node = s.design.nodes[id];
  if (!node || !isText(node)) return null;
  const layout = layoutOf(s.design, node, s.engines.fonts);
  return {
    layout,
    matrix: multiply(pageMatrix(s.design, s.page, id), layoutMatrix(node)),
    story: s.design.stories[node.story],
  };
}
