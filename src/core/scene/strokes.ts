import { layLine, type LaidLine } from '../derive/lines';
import type { Matrix } from '../geometry/matrix';
import { grow } from '../geometry/rect';
import type { FillRule } from '../geometry/path';
import type { StrokeStyle } from '../geometry/stroke';
import type { Outline } from '../model/schema';
import { PlacedPath } from './placedPath';
import type { Leaf } from './scene';

/** How far a line can reach from its path. */
export function reach(s: StrokeStyle): number {
  return (s.width / 2) * (s.join === 'miter' ? Math.max(s.miterLimit, Math.SQRT2) : Math.SQRT2);
}

/** An area with a line, and the spaces they are given in. */
interface Lined {
  readonly node: string;
  readonly placed: PlacedPath;
  readonly rule: FillRule;
  /** The space of the paint's geometry, on the page. */
  readonly matrix: Matrix;
}

/** The lines of an area that lie below its fills, or over them. */
export function paintLines(out: Leaf[], area: Lined, outlines: readonly Outline[], behind: boolean): void {
  const { node, placed: edge, rule, matrix } = area;
  for (const outline of outlines) {
    if ((outline.behind ?? false) !== behind) continue;
    for (const laid of layLine({ path: edge.own, toPage: edge.toPage, rule, matrix }, outline)) {
      const leaf = leafOf(node, laid, matrix, edge);
      out.push(leaf.type === 'fill' ? { ...leaf, line: true } : leaf);
    }
  }
}

/** What is laid on the page as a leaf; `edge` is used again where it is the path. */
export function leafOf(node: string, laid: LaidLine, matrix: Matrix, edge?: PlacedPath): Leaf {
  const { path, toPage, paint, stroke, rule } = laid;
  const placed = edge && path === edge.own && toPage === edge.toPage ? edge : new PlacedPath(path, toPage);
  const bounds = stroke ? grow(placed.bounds, reach(stroke)) : placed.bounds;
  const base = { node, inkBounds: bounds, paintBounds: bounds, paint, matrix, placed };
  return stroke ? { ...base, type: 'stroke', stroke } : { ...base, type: 'fill', rule };
}
