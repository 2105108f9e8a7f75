import { EMPTY_RECT, intersect, union, type Rect } from '../geometry/rect';
import type { Item, Layer } from './scene';

/** Items that are drawn into one layer, and the layers in it, back to front. */
export interface LayerGroup {
  readonly type: 'layer';
  readonly layer: Layer;
  readonly content: readonly Drawn[];
  readonly bounds: Rect;
}
export type Drawn = Item | LayerGroup;

/** A list of items as a tree of the layers they are drawn into; the list itself where there are none. */
export function byLayer(items: readonly Item[]): readonly Drawn[] {
  if (!items.some((i) => i.layer)) return items;
  const top: Drawn[] = [];
  const open: { layer: Layer; content: Drawn[]; bounds: Rect }[] = [];
  const shut = () => {
    const { layer, content, bounds } = open.pop()!;
    put({ type: 'layer', layer, content, bounds: intersect(bounds, layer.bounds) }, bounds);
  };
  const put = (d: Drawn, bounds: Rect) => {
    const into = open[open.length - 1];
    (into?.content ?? top).push(d);
    if (into) into.bounds = union(into.bounds, bounds);
  };
  for (const item of items) {
    const line = lineOf(item.layer ?? null);
    while (open.length > line.length || open.some((o, i) => o.layer !== line[i])) shut();
    for (const layer of line.slice(open.length)) open.push({ layer, content: [], bounds: EMPTY_RECT });
    put(item, item.bounds);
  }
  while (open.length) shut();
  return top;
}

/** A layer and all round it, the outermost first. */
export function lineOf(layer: Layer | null): Layer[] {
  const out: Layer[] = [];
  for (let l = layer; l; l = l.parent) out.unshift(l);
  return out;
}

/** All items of a scene, those that only mask others among them. */
export function* everyItem(items: readonly Item[], seen: Set<Layer> = new Set()): Iterable<Item> {
  for (const item of items) {
    yield item;
    for (let layer: Layer | null = item.layer ?? null; layer && !seen.has(layer); layer = layer.parent) {
      seen.add(layer);
      for (const mask of layer.masks) yield* everyItem(mask.items, seen);
    }
  }
}
