import { withCorners, type CornerStyle } from '../geometry/corners';
import type { FillRule, PathData } from '../geometry/path';
import type { Corners, NodeOf } from '../model/schema';
import { shapeById, shapePath, valuesOf } from './catalogue';

/** Styles by the number of the corner's node. */
export const cornerStyles = (corners: Corners | undefined): ((node: number) => CornerStyle | undefined) => (node) => corners?.each?.[node] ?? corners?.all;

const known = new WeakMap<object, PathData>();

/** The line of a dialled shape or a path in its own space, its corners treated; and how its inside is told. */
export function outlinePath(node: NodeOf<'shape'> | NodeOf<'path'>): { readonly path: PathData; readonly rule: FillRule } {
  const rule = node.kind === 'path' ? node.fillRule : 'nonZero';
  if (node.kind === 'path' && !node.corners) return { path: node.path, rule };
  let path = known.get(node);
  if (!path) {
    path = node.kind === 'path' ? withCorners(node.path, cornerStyles(node.corners)) : shapeOutline(node);
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
