import { areaOf } from '../edit/area';
import { isText, layoutOf } from '../edit/layout';
import { multiply, type Matrix } from '../geometry/matrix';
import { pathBounds, transformPath } from '../geometry/path';
import { EMPTY_RECT, intersect, union, type Rect } from '../geometry/rect';
import type { Design, DesignNode } from '../model/schema';
import { childrenOf } from '../model/tree';
import type { FontBook } from '../text/fonts';
import type { Clip, Item, Layer, Mask } from './scene';

export interface KnownLayer {
  readonly outer: Layer | undefined;
  /** Everything that its cuts are made from. */
  readonly deps: readonly unknown[];
  readonly layer: Layer;
  /** What was found in its cuts: as true the second time as the first. */
  readonly found: Found;
}

/** What a scene says of its words and combinations. */
export interface Found {
  readonly missing: Set<string>;
  /** Letters that are not shown, by text. */
  readonly overset: Map<string, number>;
  readonly unsure: Set<string>;
}
export const nothingFound = (): Found => ({ missing: new Set(), overset: new Map(), unsure: new Set() });
export function addFound(to: Found, from: Found): void {
  for (const x of from.missing) to.missing.add(x);
  for (const [node, n] of from.overset) to.overset.set(node, n);
  for (const x of from.unsure) to.unsure.add(x);
}

/** What is to be said of words that are seen as areas only: operands of combinations, what cuts by its outline. */
export function findInArea(d: Design, id: string, fonts: FontBook, found: Found): void {
  const node = d.nodes[id];
  if (node.hidden) return;
  if (isText(node)) {
    const { missing, overset } = layoutOf(d, node, fonts);
    for (const face of missing) found.missing.add(face);
    if (overset) found.overset.set(id, overset);
  }
  if (node.kind === 'combination' && areaOf(d, id, fonts).unsure) found.unsure.add(id);
  for (const child of childrenOf(node)) findInArea(d, child, fonts, found);
}

const EVERYWHERE: Rect = { x0: -Infinity, y0: -Infinity, x1: Infinity, y1: Infinity };

/** Is a node more than what it holds, one after the other? */
export function needsLayer(d: Design, node: DesignNode): boolean {
  return (node.opacity ?? 1) < 1 || node.blend !== undefined || (node.kind === 'group' && node.children.some((c) => d.nodes[c].cuts !== undefined));
}

/** The layer of a node. `matrix` maps the space of its children (of a leaf: its parent's) to the page. */
export function layerOf(d: Design, node: DesignNode, matrix: Matrix, parent: Layer | null, fonts: FontBook, maskOf: (child: string) => readonly Item[]): Layer {
  const clips: Clip[] = [];
  const masks: Mask[] = [];
  let bounds = parent?.bounds ?? EVERYWHERE;
  for (const id of node.kind === 'group' ? node.children : []) {
    const child = d.nodes[id];
    if (!child.cuts || child.hidden) continue;
    if (child.cuts === 'outline') {
      const { region } = areaOf(d, id, fonts);
      const path = transformPath(region.path, multiply(matrix, child.transform));
      clips.push({ path, rule: region.rule });
      bounds = intersect(bounds, path.length ? pathBounds(path) : EMPTY_RECT);
    } else {
      const items = maskOf(id);
      masks.push({ items, light: child.cuts === 'light' });
      bounds = intersect(bounds, items.reduce((r, i) => union(r, i.bounds), EMPTY_RECT));
    }
  }
  return { node: node.id, parent, opacity: node.opacity ?? 1, blend: node.blend ?? null, clips, masks, bounds };
}
