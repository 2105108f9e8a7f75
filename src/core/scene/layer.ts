import { areaOf } from '../edit/area';
import { multiply, type Matrix } from '../geometry/matrix';
import { pathBounds, transformPath } from '../geometry/path';
import { EMPTY_RECT, intersect, union, type Rect } from '../geometry/rect';
import type { Design, DesignNode } from '../model/schema';
import type { FontBook } from '../text/fonts';
import type { Clip, Item, Layer, Mask } from './scene';

export interface KnownLayer {
  readonly outer: Layer | undefined;
  /** Everything that its cuts are made from. */
  readonly deps: readonly unknown[];
  readonly layer: Layer;
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
