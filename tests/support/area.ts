import { boundsOf, type Region } from '@/core/geometry/boolean/region';
import { scannable, spansAt } from '@/core/geometry/boolean/scanline';

/** Even scan lines over what is covered, however often: exact but for the lines that a corner lies on. */
export function areaOf(region: Region, lines = 60_000): number {
  const [seen, { y0, y1 }] = [scannable(region), boundsOf(region)];
  const step = (y1 - y0) / lines;
  let sum = 0;
  for (let k = 0; k < lines; k++) {
    const spans = spansAt(seen, y0 + (k + 0.5) * step);
    for (let n = 0; n + 1 < spans.length; n += 2) sum += (spans[n + 1] - spans[n]) * step;
  }
  return sum;
}
