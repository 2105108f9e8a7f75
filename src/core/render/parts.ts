import type { Palette } from '../colour/palette';
import { EMPTY_RECT, intersect, isEmpty, union, type Rect } from '../geometry/rect';
import { BLACK, colourPaint } from '../model/defaults';
import type { NodeId } from '../model/tree';
import { bleedRect, type Item, type Scene } from '../scene/scene';
import type { Region } from './coverage';
import { rasterPlates } from './plates';

/** The items of some nodes, and the part of the page that they reach; null if they reach none of it. */
export function itemsOf(scene: Scene, nodes: ReadonlySet<NodeId>): { readonly items: readonly Item[]; readonly box: Rect } | null {
  const items = scene.items.filter((i) => nodes.has(i.node));
  const box = intersect(items.reduce((r, i) => union(r, i.bounds), EMPTY_RECT), bleedRect(scene));
  return items.length && !isEmpty(box) ? { items, box } : null;
}

/** How far items cover each pixel of a region, 0…255, whatever they are painted with. */
export function coverageOf(scene: Scene, items: readonly Item[], palette: Palette, region: Region): Uint8Array {
  const black = colourPaint(palette.screen ? { rgb: [0, 0, 0] } : BLACK) as Item['paint'];
  const plates = rasterPlates({ ...scene, items: items.map((i) => ({ ...i, paint: black })) }, palette, region)!;
  return palette.screen ? plates.data[0].map((v) => 255 - v) : plates.data[3];
}
