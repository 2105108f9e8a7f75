import { applyVector, invert, multiply, translation, type Matrix } from '../geometry/matrix';
import { height, unionAll, width, type Rect } from '../geometry/rect';
import type { Design, Page } from '../model/schema';
import { parentMatrix, withDescendants, type NodeId } from '../model/tree';
import type { FontBook } from '../text/fonts';
import { boxIn, localBox } from '../derive/box';
import { tryOut } from './history';
import { GROWING, moveNodes, scaleNodes, scalingAbout, type Growing } from './place';

/**
 * The frame round objects: its box in a space of its own, and the map from there to the page. `single`: it is that of
 * one object.
 */
export interface SizeFrame {
  readonly box: Rect;
  readonly matrix: Matrix;
  readonly single: NodeId | null;
}

/** The map of the page that sizes about a frame's top left. */
export function sizingMap({ box, matrix }: SizeFrame, sx: number, sy: number): Matrix {
  return multiply(matrix, multiply(scalingAbout(sx, sy, { x: box.x0, y: box.y0 }), invert(matrix)!));
}

const TRIES = 12;
const NEAR = 1e-7;

/**
 * The sizing that makes a frame's box `want` times as wide and as high. What keeps a measure of its own while it grows
 * (the round corners of a combination) does not grow by the plain factor: the factor is sought until the box is right.
 * `shift` takes its top left back to where it was, in page space.
 */
function exactSizing(
  design: Design,
  page: Page,
  ids: readonly NodeId[],
  frame: SizeFrame,
  want: { readonly x: number; readonly y: number },
  fonts: FontBook,
  growing: Growing,
): { readonly map: Matrix; readonly shift: Matrix } {
  let [sx, sy] = [want.x, want.y];
  const plain = { map: sizingMap(frame, sx, sy), shift: translation(0, 0) };
  if (!ids.some((id) => withDescendants(design, id).some((x) => design.nodes[x].kind === 'combination'))) return plain;
  const [w, h] = [width(frame.box) * want.x, height(frame.box) * want.y];
  for (let i = 0; i < TRIES; i++) {
    const map = sizingMap(frame, sx, sy);
    const box = measured(
      tryOut(design, (d) => scaleNodes(d, page, ids, map, growing)),
      page,
      ids,
      frame,
      fonts,
    );
    const [mw, mh] = [width(box), height(box)];
    if (!(mw > 0) || !(mh > 0)) return plain;
    if (i === TRIES - 1 || (Math.abs(mw - w) < NEAR && Math.abs(mh - h) < NEAR)) {
      const back = applyVector(frame.matrix, { x: frame.box.x0 - box.x0, y: frame.box.y0 - box.y0 });
      return { map, shift: translation(back.x, back.y) };
    }
    sx *= w / mw;
    sy *= h / mh;
  }
  return plain;
}

function measured(design: Design, page: Page, ids: readonly NodeId[], { single }: SizeFrame, fonts: FontBook): Rect {
  return single
    ? localBox(design, design.nodes[single], fonts)
    : unionAll(ids.map((id) => boxIn(design, id, parentMatrix(design, page, id), fonts)));
}

/** Sizes objects so that their frame is `want` times as wide and high, exactly. */
export function sizeExactly(
  design: Design,
  page: Page,
  ids: readonly NodeId[],
  frame: SizeFrame,
  want: { readonly x: number; readonly y: number },
  fonts: FontBook,
  growing: Growing = GROWING,
) {
  const { map, shift } = exactSizing(design, page, ids, frame, want, fonts, growing);
  return (d: Parameters<typeof scaleNodes>[0]): void => {
    scaleNodes(d, page, ids, map, growing);
    if (shift[4] || shift[5]) moveNodes(d, page, ids, shift[4], shift[5]);
  };
}
