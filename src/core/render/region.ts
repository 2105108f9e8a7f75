import type { Rect } from '../geometry/rect';
import type { Region } from './coverage';

/** The part of the page that a region shows, in points. */
export function regionRect(r: Region): Rect {
  return { x0: r.x, y0: r.y, x1: r.x + r.width / r.scale, y1: r.y + r.height / r.scale };
}

/** The pixels of a rectangle in page points at a resolution: whole pixels, the first at its top left. */
export function regionOf(r: Rect, dpi: number): Region {
  const scale = dpi / 72;
  return {
    x: r.x0,
    y: r.y0,
    scale,
    width: Math.max(1, Math.round((r.x1 - r.x0) * scale)),
    height: Math.max(1, Math.round((r.y1 - r.y0) * scale)),
  };
}

/** A region over a box with about so many pixels. */
export function regionWith(box: Rect, pixels: number): Region {
  const [w, h] = [box.x1 - box.x0, box.y1 - box.y0];
  const scale = Math.min(8, Math.sqrt(pixels / Math.max(w * h, 1e-6)));
  return {
    x: box.x0,
    y: box.y0,
    scale,
    width: Math.max(1, Math.round(w * scale)),
    height: Math.max(1, Math.round(h * scale)),
  };
}
