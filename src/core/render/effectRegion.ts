import type { Effect } from '../model/schema';
import { effectRow } from '../scene/effects/table';
import type { Group } from '../scene/scene';
import type { Region } from './coverage';
import { regionWith } from './region';

/** Pixels of the largest cover of an effect; one that needs more is made coarser. */
const MOST_PIXELS = 24_000_000;
/** Pixels a point of the finest: 600 dpi. */
const FINEST = 600 / 72;

/** The pixels that an effect of a group is made of in a file; null where there is nothing of it. */
export function effectRegion(group: Group, effect: Effect): Region | null {
  const row = effectRow(effect);
  const box = row.reach(effect, group.bodyBounds);
  const area = (box.x1 - box.x0) * (box.y1 - box.y0);
  if (!(box.x1 > box.x0 && box.y1 > box.y0)) return null;
  const needed = Math.min(FINEST, Math.max(1, row.detail(effect)));
  return regionWith(box, Math.min(MOST_PIXELS, area * needed ** 2));
}
