import { apply, invert, multiply, type Matrix, type Point } from '../geometry/matrix';
import type { Colour, Design, Pool, PoolsPaint } from '../model/schema';
import type { NodeId } from '../model/tree';
import { paintAt, type Aim } from './aims';
import { stopsOf } from './paint';

/**
 * The exact colour of a part of an object; of a gradient, that of the stop nearest to the point. `matrix` maps the
 * object to the page.
 */
export function exactColour(d: Design, id: NodeId, aim: Aim, matrix: Matrix, p: Point): Colour | null {
  const paint = paintAt(d, id, aim);
  if (!paint || paint.kind === 'none') return null;
  if (paint.kind === 'colour') return paint.colour;
  if (paint.kind === 'pools') return nearestPool(paint, matrix, p).colour;
  // A picture has no colour of its own but what it looks like at a place.
  if (paint.kind === 'picture') return null;
  const back = invert(multiply(matrix, paint.geometry));
  const stops = stopsOf(d, paint);
  if (!back || !stops.length) return stops[0]?.colour ?? null;
  const x = back[0] * p.x + back[2] * p.y + back[4];
  const y = back[1] * p.x + back[3] * p.y + back[5];
  // Along a line there is no place on the page that says where: its first colour stands for it.
  if (paint.strokeMapping) return stops[0].colour;
  const t =
    paint.gradient === 'radial' ? Math.hypot(x, y) : paint.gradient === 'box' ? Math.max(Math.abs(x), Math.abs(y)) : x;
  return [...stops].sort((a, b) => Math.abs(a.offset - t) - Math.abs(b.offset - t))[0].colour;
}

/** The pool whose place on the page is nearest to a point. */
function nearestPool(paint: PoolsPaint, matrix: Matrix, p: Point): Pool {
  const toPage = multiply(matrix, paint.geometry);
  const away = (pool: Pool): number => {
    const at = apply(toPage, pool);
    return Math.hypot(at.x - p.x, at.y - p.y);
  };
  return paint.pools.reduce((best, pool) => (away(pool) < away(best) ? pool : best));
}
