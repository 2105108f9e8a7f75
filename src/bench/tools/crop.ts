import { localBox } from '@/core/derive/box';
import { framePath } from '@/core/derive/frame';
import { paintAt, type Aim } from '@/core/edit/aims';
import { cropFrame, effectivePpi, placedPicture, setPicture } from '@/core/edit/picture';
import type { Recipe } from '@/core/edit/history';
import { areaOf } from '@/core/derive/area';
import { pathContains } from '@/core/geometry/contains';
import {
  apply,
  applyVector,
  invert,
  multiply,
  scaling,
  translation,
  type Matrix,
  type Point,
} from '@/core/geometry/matrix';
import type { FillRule, PathData } from '@/core/geometry/path';
import { centre, type Rect } from '@/core/geometry/rect';
import type { PicturePaint } from '@/core/model/schema';
import { pageMatrix } from '@/core/model/tree';
import { formatLength, formatNumber } from '@/core/units/length';
import { screenMatrix } from '../view/frame';
import type { Session } from '../session/session';
import { endCrop } from './cropping';
import { far, type Gesture, type PointerAt, type Tool, type ToolContext } from './tool';

/** What is being cropped, as it is shown now. */
export interface Cropped {
  readonly node: string;
  readonly aim: Aim;
  readonly paint: PicturePaint;
  /** From the object to the page. */
  readonly matrix: Matrix;
  /** The frame's box and line in the object's space; letters have a line only. */
  readonly box: Rect;
  readonly line: { readonly path: PathData; readonly rule: FillRule };
  /** Can the frame's box be changed by itself? */
  readonly framed: boolean;
}

export function cropped(s: Session): Cropped | null {
  const { crop } = s.state;
  const node = crop && s.design.nodes[crop.node];
  const paint = crop && paintAt(s.design, crop.node, crop.aim);
  if (!crop || !node || paint?.kind !== 'picture') return null;
  const region =
    crop.aim === 'frame' && node.kind === 'textFrame'
      ? framePath(node)
      : areaOf(s.design, node.id, s.engines.fonts, true).region;
  return {
    ...crop,
    paint,
    matrix: pageMatrix(s.design, s.page, node.id),
    box: localBox(s.design, node, s.engines.fonts),
    line: region,
    framed: node.kind === 'shape' || (node.kind === 'textFrame' && crop.aim === 'frame'),
  };
}

export type CropGrip =
  | { readonly kind: 'bracket'; readonly hx: -1 | 0 | 1; readonly hy: -1 | 0 | 1; readonly at: Point }
  | { readonly kind: 'dot'; readonly u: 0 | 1; readonly v: 0 | 1; readonly at: Point };
/** How near a press must come to a grip, in pixels of the screen. */
const GRIP_PX = 9;

/** Brackets on the frame, dots on the picture's own corners; on the screen. */
export function cropGrips(s: Session, c: Cropped): CropGrip[] {
  const toScreen = multiply(screenMatrix(s.state.camera), c.matrix);
  const { x0, y0, x1, y1 } = c.box;
  const mid = centre(c.box);
  const grips: CropGrip[] = [];
  if (c.framed)
    for (const hx of [-1, 0, 1] as const)
      for (const hy of [-1, 0, 1] as const)
        if (hx || hy)
          grips.push({
            kind: 'bracket',
            hx,
            hy,
            at: apply(toScreen, { x: hx < 0 ? x0 : hx > 0 ? x1 : mid.x, y: hy < 0 ? y0 : hy > 0 ? y1 : mid.y }),
          });
  const fromUnit = multiply(toScreen, c.paint.geometry);
  for (const u of [0, 1] as const)
    for (const v of [0, 1] as const) grips.push({ kind: 'dot', u, v, at: apply(fromUnit, { x: u, y: v }) });
  return grips;
}

function gripUnder(s: Session, c: Cropped, at: Point): CropGrip | null {
  const near = cropGrips(s, c).map((g) => ({ g, d: Math.hypot(g.at.x - at.x, g.at.y - at.y) }));
  near.sort((a, b) => a.d - b.d);
  return near[0] && near[0].d <= GRIP_PX ? near[0].g : null;
}

/** Is a place on the picture, or in its frame? */
function onPicture(c: Cropped, p: Point): boolean {
  const unit = invert(multiply(c.matrix, c.paint.geometry));
  const own = invert(c.matrix);
  const u = unit && apply(unit, p);
  return (
    (u !== null && u.x >= 0 && u.x <= 1 && u.y >= 0 && u.y <= 1) ||
    (own !== null && pathContains(c.line.path, c.line.rule, apply(own, p)))
  );
}

/** A change of the picture inside its frame, by a map of the object's space. */
const withPicture =
  (c: Pick<Cropped, 'node' | 'aim'>, map: Matrix): Recipe =>
  (d) =>
    setPicture(d, [c.node], c.aim, (p) => placedPicture(p, map));

function ppiText(s: Session, c: Cropped, map: Matrix): string {
  const picture = s.palette.picture(c.paint.picture);
  return s.palette.screen
    ? ''
    : `, ${formatNumber(effectivePpi(picture, placedPicture(c.paint, map), c.matrix), 0)} ppi`;
}

/** Moves the picture by page points. */
export function panPicture(s: Session, dx: number, dy: number): void {
  const c = cropped(s);
  const back = c && invert(c.matrix);
  if (!c || !back) return;
  const by = applyVector(back, { x: dx, y: dy });
  s.commit('Move a picture in its frame', withPicture(c, translation(by.x, by.y)));
}

/** Grows the picture about a place of the page; steps that follow each other are one. */
export function zoomPicture(s: Session, k: number, at: Point | null): void {
  const c = cropped(s);
  const back = c && invert(c.matrix);
  if (!c || !back) return;
  const about = at ? apply(back, at) : centre(c.box);
  const map = scalingAt(k, about);
  const next = multiply(map, c.paint.geometry);
  s.commit('Zoom a picture in its frame', (d) => setPicture(d, [c.node], c.aim, (p) => ({ ...p, geometry: next })), {
    merge: `zoom ${c.node}`,
  });
}

const scalingAt = (k: number, p: Point): Matrix =>
  multiply(translation(p.x, p.y), multiply(scaling(k, k), translation(-p.x, -p.y)));

export const cropTool: Tool = {
  press(at, context) {
    const s = context.session;
    const c = cropped(s);
    if (!c) {
      endCrop(s);
      return null;
    }
    const grip = gripUnder(s, c, at.screen);
    if (grip) return grip.kind === 'bracket' ? dragBracket(context, c, grip, at) : dragDot(context, c, grip, at);
    if (!onPicture(c, at.page)) {
      endCrop(s);
      return null;
    }
    return pan(context, c, at);
  },
  double(at, context) {
    const c = cropped(context.session);
    if (c && !gripUnder(context.session, c, at.screen)) endCrop(context.session);
  },
  cursor(at, context) {
    const c = cropped(context.session);
    if (!c) return 'default';
    const grip = gripUnder(context.session, c, at.screen);
    if (grip?.kind === 'dot') return grip.u === grip.v ? 'nwse-resize' : 'nesw-resize';
    if (grip)
      return grip.hx && grip.hy
        ? grip.hx === grip.hy
          ? 'nwse-resize'
          : 'nesw-resize'
        : grip.hx
          ? 'ew-resize'
          : 'ns-resize';
    return onPicture(c, at.page) ? 'grab' : 'default';
  },
};

/** A gesture that shows a recipe as it goes and commits it in the end. */
function showing(
  context: ToolContext,
  start: PointerAt,
  label: string,
  ids: readonly string[],
  at: (p: PointerAt) => { readonly recipe: Recipe; readonly said: string },
): Gesture {
  const s = context.session;
  let now: ReturnType<typeof at> | null = null;
  return {
    move(p) {
      if (!now && !far(p, start)) return;
      now = at(p);
      s.preview(now.recipe, ids);
      context.readout(now.said);
    },
    release(p) {
      if (now) s.commit(label, at(p).recipe);
      context.readout(null);
    },
    cancel() {
      s.preview(null);
      context.readout(null);
    },
  };
}

function pan(context: ToolContext, c: Cropped, start: PointerAt): Gesture {
  const back = invert(c.matrix);
  const { unit } = context.session.design.setup;
  return showing(context, start, 'Move a picture in its frame', [c.node], (p) => {
    let [dx, dy] = [p.page.x - start.page.x, p.page.y - start.page.y];
    if (p.shift) [dx, dy] = Math.abs(dx) > Math.abs(dy) ? [dx, 0] : [0, dy];
    const by = back ? applyVector(back, { x: dx, y: dy }) : { x: 0, y: 0 };
    return {
      recipe: withPicture(c, translation(by.x, by.y)),
      said: `picture ${formatLength(dx, unit)}, ${formatLength(dy, unit)}`,
    };
  });
}

/** A dot sizes the picture in proportion; the corner across stays, with Alt the middle. */
function dragDot(
  context: ToolContext,
  c: Cropped,
  grip: Extract<CropGrip, { kind: 'dot' }>,
  start: PointerAt,
): Gesture {
  const unit = invert(multiply(c.matrix, c.paint.geometry));
  const offset = { x: grip.u, y: grip.v };
  return showing(context, start, 'Size a picture in its frame', [c.node], (p) => {
    const q = unit ? apply(unit, p.page) : offset;
    const anchor = p.alt ? { x: 0.5, y: 0.5 } : { x: 1 - grip.u, y: 1 - grip.v };
    const kx = (q.x - anchor.x) / (grip.u - anchor.x);
    const ky = (q.y - anchor.y) / (grip.v - anchor.y);
    const k = Math.min(1000, Math.max(0.02, Math.max(kx, ky)));
    const map = scalingAt(k, apply(c.paint.geometry, anchor));
    return {
      recipe: withPicture(c, map),
      said: `picture ${formatNumber(k * 100, 0)} %${ppiText(context.session, c, map)}`,
    };
  });
}

/** A bracket changes the frame alone. */
function dragBracket(
  context: ToolContext,
  c: Cropped,
  grip: Extract<CropGrip, { kind: 'bracket' }>,
  start: PointerAt,
): Gesture {
  const back = invert(c.matrix);
  const { unit } = context.session.design.setup;
  const scale = Math.hypot(c.matrix[0], c.matrix[1]);
  return showing(context, start, 'Crop a picture', [c.node], (p) => {
    const by = back ? applyVector(back, { x: p.page.x - start.page.x, y: p.page.y - start.page.y }) : { x: 0, y: 0 };
    const least = 2 / scale;
    const { x0, y0, x1, y1 } = c.box;
    const box: Rect = {
      x0: grip.hx < 0 ? Math.min(x0 + by.x, x1 - least) : x0,
      y0: grip.hy < 0 ? Math.min(y0 + by.y, y1 - least) : y0,
      x1: grip.hx > 0 ? Math.max(x1 + by.x, x0 + least) : x1,
      y1: grip.hy > 0 ? Math.max(y1 + by.y, y0 + least) : y1,
    };
    return {
      recipe: (d) => cropFrame(d, c.node, box),
      said: `frame ${formatLength((box.x1 - box.x0) * scale, unit)} × ${formatLength((box.y1 - box.y0) * scale, unit)}`,
    };
  });
}
