import { warpPath } from '../geometry/warp';
import { transformPath, type PathData } from '../geometry/path';
import { translation } from '../geometry/matrix';
import { BEND_TOLERANCE } from './bends';
import type { Layout } from './layout';
import type { Line, PlacedGlyph } from './line';

const known = new WeakMap<Layout, WeakMap<PathData, PathData>>();

/** A path of a line, bent as its layout is: in layout space. The same list for the same path. */
export function bentRun(layout: Layout, line: Line, path: PathData): PathData {
  let paths = known.get(layout);
  if (!paths) known.set(layout, (paths = new WeakMap()));
  let bent = paths.get(path);
  if (!bent) {
    bent = warpPath(transformPath(path, translation(line.x, line.baseline)), layout.warp!, BEND_TOLERANCE);
    paths.set(path, bent);
  }
  return bent;
}

/** A glyph where the bend takes it: turned and stretched as its middle is. */
export function bentTurn<G extends Pick<PlacedGlyph, 'x' | 'y' | 'advance'>>(
  layout: Layout,
  line: Line,
  g: G,
): G & Pick<PlacedGlyph, 'turn'> {
  const warp = layout.warp!;
  const middle = { x: line.x + g.x + g.advance / 2, y: line.baseline + g.y };
  const step = Math.max(1e-3, g.advance / 4);
  const [p, right, down] = [
    warp(middle),
    warp({ x: middle.x + step, y: middle.y }),
    warp({ x: middle.x, y: middle.y + step }),
  ];
  const [a, b] = [(right.x - p.x) / step, (right.y - p.y) / step];
  const [c, d] = [(down.x - p.x) / step, (down.y - p.y) / step];
  return { ...g, x: p.x - (a * g.advance) / 2, y: p.y - (b * g.advance) / 2, turn: [a, b, c, d] };
}
