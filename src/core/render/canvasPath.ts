import { draw, type PathData } from '../geometry/path';

type CanvasPath = Pick<Path2D, 'moveTo' | 'lineTo' | 'bezierCurveTo' | 'closePath'>;

/** Puts a path on a canvas, or into a path of one. One sink serves all: there are thousands. */
export function drawOn(target: CanvasPath, data: PathData): void {
  SINK.target = target;
  draw(data, SINK);
}
const SINK = {
  target: null as unknown as CanvasPath,
  moveTo: (x: number, y: number) => SINK.target.moveTo(x, y),
  lineTo: (x: number, y: number) => SINK.target.lineTo(x, y),
  curveTo: (a: number, b: number, c: number, d: number, x: number, y: number) =>
    SINK.target.bezierCurveTo(a, b, c, d, x, y),
  close: () => SINK.target.closePath(),
};
