import { contrastRatio, luminance } from '../colour/models';
import type { Palette } from '../colour/palette';
import type { NodeId } from '../model/tree';
import type { Scene } from '../scene/scene';
import { compositePlates } from './composite';
import { mapLeaves, withContent } from '../scene/walk';
import { artOf, coverageOf } from './parts';
import { regionWith } from './region';
import { rasterPlates } from './plates';

export interface Contrast {
  /** WCAG 2.2 contrast ratio 1…21 that nineteen of twenty points reach. */
  readonly low: number;
  /** The ratio in the middle of all points. */
  readonly typical: number;
}

const PIXELS = 160_000;

/** How an object stands out against what lies under it, point by point as both look on paper; null if nothing shows. */
export function contrastOf(scene: Scene, palette: Palette, nodes: ReadonlySet<NodeId>): Contrast | null {
  const found = artOf(scene, nodes);
  if (!found) return null;
  const region = regionWith(found.box, PIXELS);
  let reached = false;
  const below = mapLeaves(scene.root.content, (leaf) => ((reached ||= nodes.has(leaf.node)) ? null : leaf));
  // What lies between the parts of a group counts as below its later parts: here the group is seen as one.
  const under = compositePlates(rasterPlates(withContent(scene, below), palette, region)!, palette);
  const over = compositePlates(rasterPlates(withContent(scene, [...below, ...found.parts]), palette, region)!, palette);
  const mask = coverageOf(scene, found.parts, palette, region);
  const ratios: number[] = [];
  const light = (p: Uint8ClampedArray, i: number) =>
    luminance([p[4 * i] / 255, p[4 * i + 1] / 255, p[4 * i + 2] / 255]);
  for (let i = 0; i < mask.length; i++) if (mask[i] > 200) ratios.push(contrastRatio(light(over, i), light(under, i)));
  // A hairline fills no pixel: its best covered ones speak for it.
  if (!ratios.length)
    for (let i = 0; i < mask.length; i++) if (mask[i] > 60) ratios.push(contrastRatio(light(over, i), light(under, i)));
  if (!ratios.length) return null;
  ratios.sort((a, b) => a - b);
  return { low: ratios[Math.floor(ratios.length * 0.05)], typical: ratios[Math.floor(ratios.length / 2)] };
}

/** WCAG 2.2: 1.4.3 for text (less from 18 pt on), 1.4.11 for shapes. */
export function contrastNeeded(kind: 'text' | 'largeText' | 'shape'): number {
  return kind === 'text' ? 4.5 : 3;
}
