import { isTranslation } from '../geometry/matrix';
import { CLOSE, CUBIC, LINE, MOVE, type PathData } from '../geometry/path';
import type { PlacedPath } from '../scene/placedPath';

type CanvasPath = Pick<Path2D, 'moveTo' | 'lineTo' | 'bezierCurveTo' | 'closePath'>;

/** Puts a path on a canvas, or into a path of one, moved by so much. */
export function drawOn(target: CanvasPath, p: PathData, dx = 0, dy = 0): void {
  for (let i = 0; i < p.length;) {
    switch (p[i]) {
      case MOVE:
        target.moveTo(p[i + 1] + dx, p[i + 2] + dy);
        i += 3;
        break;
      case LINE:
        target.lineTo(p[i + 1] + dx, p[i + 2] + dy);
        i += 3;
        break;
      case CUBIC:
        target.bezierCurveTo(p[i + 1] + dx, p[i + 2] + dy, p[i + 3] + dx, p[i + 4] + dy, p[i + 5] + dx, p[i + 6] + dy);
        i += 7;
        break;
      case CLOSE:
        target.closePath();
        i += 1;
        break;
      default:
        throw new Error(`unknown path opcode: ${p[i]} at ${i}`);
    }
  }
}

/** The same of a placed path: what is only moved is not first made anew on the page. */
export function drawPlaced(target: CanvasPath, placed: PlacedPath): void {
  const { own, toPage } = placed;
  if (isTranslation(toPage)) drawOn(target, own, toPage[4], toPage[5]);
  else drawOn(target, placed.path);
}
