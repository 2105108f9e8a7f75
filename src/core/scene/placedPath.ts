import { IDENTITY, type Matrix } from '../geometry/matrix';
import { pathBounds, transformPath, type PathData } from '../geometry/path';
import { transformRect, type Rect } from '../geometry/rect';

/**
 * A path in a space of its own and its place on the page. What is only moved keeps the path, and all that painters know
 * of it; page points are made when they are first asked for.
 */
export class PlacedPath {
  readonly bounds: Rect;
  private made: PathData | null = null;

  constructor(
    readonly own: PathData,
    readonly toPage: Matrix,
  ) {
    this.bounds = isUpright(toPage) ? transformRect(toPage, ownBounds(own)) : pathBounds(this.path);
  }

  /** In page points. */
  get path(): PathData {
    return (this.made ??= this.toPage === IDENTITY ? this.own : transformPath(this.own, this.toPage));
  }

  static onPage(path: PathData): PlacedPath {
    return new PlacedPath(path, IDENTITY);
  }
}

/** Does it keep upright boxes upright, so that the box of what is mapped is the mapped box? */
const isUpright = (m: Matrix): boolean => m[1] === 0 && m[2] === 0;

const known = new WeakMap<PathData, Rect>();
function ownBounds(path: PathData): Rect {
  let box = known.get(path);
  if (!box) {
    box = pathBounds(path);
    known.set(path, box);
  }
  return box;
}
