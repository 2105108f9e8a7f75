import type { Palette } from '../colour/palette';
import { intersect, isEmpty, type Rect } from '../geometry/rect';
import { BLACK, colourPaint } from '../model/defaults';
import type { NodeId } from '../model/tree';
import { bleedRect, type Leaf, type Part, type Scene } from '../scene/scene';
import { mapLeaves, partsOf, withContent } from '../scene/walk';
import type { Region } from './coverage';
import { rasterPlates } from './plates';

/** What some nodes put on a page, and how far it reaches there; null if none of it does. */
export function artOf(
  scene: Scene,
  nodes: ReadonlySet<NodeId>,
): { readonly parts: readonly Part[]; readonly box: Rect } | null {
  const parts = partsOf(scene, nodes);
  const box = intersect(withContent(scene, parts).root.inkBounds, bleedRect(scene));
  return parts.length && !isEmpty(box) ? { parts, box } : null;
}

/** How far parts cover each pixel of a region, 0…255, whatever they are painted with; their effects do not count. */
export function coverageOf(scene: Scene, parts: readonly Part[], palette: Palette, region: Region): Uint8Array {
  const black = colourPaint(palette.screen ? { rgb: [0, 0, 0] } : BLACK) as Leaf['paint'];
  const blackened = mapLeaves(
    parts,
    (leaf) => ({ ...leaf, paint: black }),
    () => [],
  );
  const plates = rasterPlates(withContent(scene, blackened), palette, region)!;
  return palette.screen ? plates.data[0].map((v) => 255 - v) : plates.data[3];
}
