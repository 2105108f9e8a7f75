import { grow, type Rect } from '../../geometry/rect';
import type { Shadow } from '../../model/effects';
import type { EffectRow } from './effect';
import { blurred, TAIL } from './gaussian';

const sigmaOf = (e: Shadow): number => e.blur / 2;
const moved = (r: Rect, dx: number, dy: number): Rect => ({
  x0: r.x0 + dx,
  y0: r.y0 + dy,
  x1: r.x1 + dx,
  y1: r.y1 + dy,
});
const n = (v: number): string => String(Number(v.toFixed(4)));
/** Away from all that is seen. */
const FAR_OFF = 100_000;

/**
 * Pixels of a standard deviation at which that is under half a level of 255; and how much finer a narrow one is made at
 * most.
 */
const FINE_ENOUGH = 3.4;
const MOST_FINER = 4;

/** The group's own cover, moved and blurred by a Gaussian. */
export const shadow: EffectRow<Shadow> = {
  reach: (e, box) => grow(moved(box, e.dx, e.dy), TAIL * sigmaOf(e)),
  source: (e, box) => grow(moved(box, -e.dx, -e.dy), TAIL * sigmaOf(e)),
  cover: (e, art, window, scale) => blurred(art, window, sigmaOf(e) * scale, e.dx * scale, e.dy * scale),
  // An edge that falls together with a pixel's blurs less than one within it, by a sixth of a pixel's square.
  finer: (e, scale) => Math.min(MOST_FINER, Math.ceil(FINE_ENOUGH / Math.max(sigmaOf(e) * scale, 1e-3))),
  // The steepest place of a blurred edge rises by 255/(σ√2π) levels a point.
  detail: (e) => 255 / (Math.max(sigmaOf(e), 0.01) * Math.sqrt(2 * Math.PI)) / 2,
  quick(e, { ctx, image, x, y, width, height }, colour, scale) {
    ctx.shadowBlur = e.blur * scale;
    ctx.shadowColor = colour;
    ctx.shadowOffsetX = FAR_OFF + e.dx * scale;
    ctx.shadowOffsetY = e.dy * scale;
    ctx.drawImage(image, x - FAR_OFF, y, width, height);
    ctx.shadowColor = 'transparent';
  },
  svg: (e, colour) =>
    `<feGaussianBlur in="SourceAlpha" stdDeviation="${n(sigmaOf(e))}"/><feOffset dx="${n(e.dx)}" dy="${n(e.dy)}" result="s"/><feFlood flood-color="${colour}" flood-opacity="${n(e.opacity)}"/><feComposite in2="s" operator="in"/>`,
};
