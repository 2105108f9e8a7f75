import { rectPath } from '../geometry/path';
import { rectMatrix, type Rect } from '../geometry/rect';
import type { Design, Page, Paint } from '../model/schema';
import { groundOf } from '../model/tree';
import { PlacedPath } from './placedPath';
import { bleedRect, type Fill } from './scene';

const known = new WeakMap<Paint, { readonly key: string; readonly leaf: Fill }>();

/** The ground of a page as it is laid on it, always to the bleed; null for none. The same one for the same paint and format. */
export function groundLeaf(design: Design, page: Page): Fill | null {
  const ground = groundOf(design, page);
  if (!ground || ground.paint.kind === 'none') return null;
  const { paint, of } = ground;
  const box: Rect = bleedRect(design.setup);
  const key = `${of.id} ${box.x0} ${box.x1} ${box.y1}`;
  const old = known.get(paint);
  if (old?.key === key) return old.leaf;
  const leaf: Fill = {
    type: 'fill',
    node: of.id,
    inkBounds: box,
    paintBounds: box,
    paint,
    matrix: rectMatrix(box),
    placed: PlacedPath.onPage(rectPath(box)),
    rule: 'nonZero',
    fixed: true,
  };
  known.set(paint, { key, leaf });
  return leaf;
}
