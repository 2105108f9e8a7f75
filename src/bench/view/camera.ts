import type { Point } from '@/core/geometry/matrix';
import type { Rect } from '@/core/geometry/rect';
import type { Camera } from '../session/state';

const MIN_SCALE = 0.01;
const MAX_SCALE = 400;

export const toScreen = (c: Camera, p: Point): Point => ({ x: p.x * c.scale + c.x, y: p.y * c.scale + c.y });
export const toPage = (c: Camera, p: Point): Point => ({ x: (p.x - c.x) / c.scale, y: (p.y - c.y) / c.scale });

/** Zooms so that what lies under a screen point stays there. */
export function zoomAt(c: Camera, at: Point, factor: number): Camera {
  const scale = Math.min(MAX_SCALE, Math.max(MIN_SCALE, c.scale * factor));
  const k = scale / c.scale;
  return { scale, x: at.x - (at.x - c.x) * k, y: at.y - (at.y - c.y) * k };
}

/** Shows a part of the page whole, with some room round it. */
export function fitRect(r: Rect, width: number, height: number, room = 28): Camera {
  const w = Math.max(r.x1 - r.x0, 1);
  const h = Math.max(r.y1 - r.y0, 1);
  const scale = Math.min(MAX_SCALE, Math.max(MIN_SCALE, Math.min((width - 2 * room) / w, (height - 2 * room) / h)));
  return { scale, x: (width - w * scale) / 2 - r.x0 * scale, y: (height - h * scale) / 2 - r.y0 * scale };
}

/** CSS pixels are 1/96 inch: at this scale a millimetre on the screen is a millimetre. */
export const REAL_SIZE = 96 / 72;
