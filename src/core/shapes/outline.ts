import { withCorners, type CornerStyle } from '../geometry/corners';
import type { FillRule, PathData } from '../geometry/path';
import type { Corners, NodeOf } from '../model/schema';
import { shapeById, shapePath, valuesOf } from './catalogue';

/** Styles by the number of the corner's node. */
export const cornerStyles =
  (corners: Corners | undefined): ((node: number) => CornerStyle | undefined) =>
  (node) =>
    corners?.each?.[node] ?? corners?.all;

const known = new WeakMap<object, PathData>();
/**
 * The last path made of the same knobs, or the same line: what is only placed anew keeps its path, and all that is
 * known of it.
 */
const lastMade = new WeakMap<object, { readonly of: Shaped; readonly path: PathData }>();
type Shaped = NodeOf<'shape'> | NodeOf<'path'>;
const shapedAlike = (a: Shaped, b: Shaped): boolean =>
  a.corners === b.corners &&
  (a.kind === 'path' || (b.kind === 'shape' && a.shape === b.shape && a.width === b.width && a.height === b.height));

/** The line of a dialled shape or a path in its own space, its corners treated; and how its inside is told. */
export function outlinePath(node: Shaped): { readonly path: PathData; readonly rule: FillRule } {
  const rule = node.kind === 'path' ? node.fillRule : 'nonZero';
  if (node.kind === 'path' && !node.corners) return { path: node.path, rule };
  let path = known.get(node);
  if (!path) {
    const stuff = node.kind === 'path' ? node.path : node.knobs;
    const last = lastMade.get(stuff);
    if (last && shapedAlike(last.of, node)) return { path: last.path, rule };
    path = node.kind === 'path' ? withCorners(node.path, cornerStyles(node.corners)) : shapeOutline(node);
    lastMade.set(stuff, { of: node, path });
    known.set(node, path);
  }
  return { path, rule };
}

function shapeOutline(node: NodeOf<'shape'>): PathData {
  const { corners, knobs, width, height } = node;
  const def = shapeById(node.shape);
  if (!corners || !def) return shapePath(node.shape, knobs, width, height);
  // A shape that rounds its own corners keeps its radii; only what is made of them may be told here.
  const own = def.params.filter((p) => p.letter === 'r').map((p) => p.id);
  if (!own.length) return withCorners(shapePath(node.shape, knobs, width, height), cornerStyles(corners));
  const styles = own.map((_, i) => corners.each?.[i]?.kind ?? corners.all?.kind ?? 'round');
  if (styles.every((k) => k === 'round')) return shapePath(node.shape, knobs, width, height);
  const values = valuesOf(def, knobs);
  const sharp = shapePath(node.shape, { ...knobs, ...Object.fromEntries(own.map((id) => [id, 0])) }, width, height);
  return withCorners(sharp, (i) => (own[i] ? { radius: values[own[i]], kind: styles[i] } : undefined));
}
