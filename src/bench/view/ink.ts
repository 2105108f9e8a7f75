import type { Matrix } from '@/core/geometry/matrix';
import { draw, transformPath, type PathData } from '@/core/geometry/path';

/** The colours of what lies over the sheet. */
export interface Ink {
  accent: string;
  halo: string;
  text: string;
}

/** The selection's two lines: a halo below, the accent above. */
export function twoLines(ctx: CanvasRenderingContext2D, ink: Ink, path: () => void, width = 1.25): void {
  path();
  ctx.strokeStyle = ink.halo;
  ctx.lineWidth = width + 1.75;
  ctx.stroke();
  ctx.strokeStyle = ink.accent;
  ctx.lineWidth = width;
  ctx.stroke();
}

/** Begins a path of the canvas and draws a path of ours into it, through a map to the screen. */
export function tracePath(ctx: CanvasRenderingContext2D, path: PathData, m: Matrix): void {
  ctx.beginPath();
  draw(transformPath(path, m), {
    moveTo: (x, y) => ctx.moveTo(x, y),
    lineTo: (x, y) => ctx.lineTo(x, y),
    curveTo: (a, b, c, d, x, y) => ctx.bezierCurveTo(a, b, c, d, x, y),
    close: () => ctx.closePath(),
  });
}
