import { woundRegion } from './boolean/arranged';
import { simplified, type Combined } from './boolean/combine';
import { NOTHING, type Region } from './boolean/region';
import { orientedContours, reversedContour } from './orient';
import { pathBounds, type PathData } from './path';
import { isPlanar } from './regions/arrangement';
import { contoursOf, pathOfContours, withoutMidpoints } from './segments';
import type { StrokeStyle } from './stroke';
import { sideCurves } from './strokeCurves';

type Corners = Pick<StrokeStyle, 'join' | 'miterLimit'>;

/**
 * As `offsetRegion`, in curves with few nodes, for an object that a person goes on with: an area grown by a distance,
 * or shrunk where that is negative. `share` as of a combination: how much of the result is wrong where no engine could
 * do it rightly.
 */
export function offsetCurves(area: Region, by: number, corners: Corners, tolerance: number): Combined {
  if (by === 0 || !area.path.length) return { ok: true, region: area };
  const out: number[] = [];
  for (const part of apart(area, by > 0 ? by * (corners.join === 'miter' ? corners.miterLimit : 1) : 0)) {
    const made = moved(part, by, corners, tolerance);
    if (!made.ok) return made;
    for (const v of withoutMidpoints(made.region.path)) out.push(v);
  }
  return { ok: true, region: { path: out, rule: 'nonZero' } };
}

/** One part of an area: what its edge, moved to one side, still winds round its own way. */
function moved(area: Region, by: number, corners: Corners, tolerance: number): Combined {
  const { x0, y0, x1, y1 } = pathBounds(area.path);
  if (Math.min(x1 - x0, y1 - y0) <= -2 * by) return { ok: true, region: NOTHING };
  const simple: Combined = isPlanar(contoursOf(area.path), tolerance) ? { ok: true, region: area } : simplified(area);
  // The inside lies to the right of the way they run: shrinking moves them to the other side, so they run the other
  // way.
  const contours = orientedContours(simple.region.path);
  const sides = sideCurves(by > 0 ? contours : contours.map(reversedContour), Math.abs(by), corners, tolerance);
  return { ...simple, region: woundRegion(contoursOf(sides), by > 0 ? 1 : -1, tolerance) };
}

/**
 * Parts of an area whose boxes, each grown by `reach`, lie apart: what is done to one has nothing to do with another.
 */
function apart({ path, rule }: Region, reach: number): Region[] {
  const all = contoursOf(path).map((c) => {
    const own = pathOfContours([{ ...c, closed: true }]);
    const { x0, y0, x1, y1 } = pathBounds(own);
    return { box: { x0: x0 - reach, y0: y0 - reach, x1: x1 + reach, y1: y1 + reach }, own: [own] };
  });
  // From left to right; what overlaps is taken together until nothing does.
  const groups: typeof all = [];
  for (const c of all) {
    let now = c;
    for (let i = groups.length - 1; i >= 0; i--) {
      const g = groups[i];
      if (g.box.x0 >= now.box.x1 || now.box.x0 >= g.box.x1 || g.box.y0 >= now.box.y1 || now.box.y0 >= g.box.y1)
        continue;
      groups.splice(i, 1);
      now = {
        box: {
          x0: Math.min(g.box.x0, now.box.x0),
          y0: Math.min(g.box.y0, now.box.y0),
          x1: Math.max(g.box.x1, now.box.x1),
          y1: Math.max(g.box.y1, now.box.y1),
        },
        own: [...g.own, ...now.own],
      };
      i = groups.length;
    }
    groups.push(now);
  }
  return groups.map(({ own }) => ({ path: own.flatMap((p: PathData) => [...p]), rule }));
}
