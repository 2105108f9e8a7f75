import type { Point } from '../geometry/matrix';
import { pathBounds } from '../geometry/path';
import { EMPTY_RECT, union } from '../geometry/rect';
import { contoursOf } from '../geometry/segments';
import { DEFAULT_FACE } from '../model/defaults';
import type { Along, Bend } from '../model/schema';
import type { SetStory } from '../model/textLooks';
import { bendWarp } from '../text/bends';
import { bentRun } from '../text/bent';
import type { FontBook } from '../text/fonts';
import type { Layout } from '../text/layout';
import { layAlong } from '../text/onPath';
import { runPath } from '../text/outlines';
import { circleTrack, contourTrack, type Track } from '../text/track';

/** The lines of a display text on the line that it stands on; each further line below the one before, off the first. */
export function alongLine(along: Along, stretch: number, straight: Layout, set: SetStory, fonts: FontBook): Layout {
  const off = (along.distance ?? 0) - touching(along, set, fonts);
  const track = trackOf(along);
  if (!track) return straight;
  const { align } = set.paragraphs[0];
  return layAlong(straight, (below) => track(off - below), {
    at: along.at,
    to: along.to ?? (along.at >= 1 ? along.at : 1),
    upright: along.upright ?? false,
    stretch,
    align,
  });
}

/** How far above their feet letters touch the line. */
function touching({ touches }: Along, set: SetStory, fonts: FontBook): number {
  if (!touches) return 0;
  const { face, axes, size } = set.paragraphs[0].runs[0];
  const capitals = (fonts.instance(face, axes) ?? fonts.get(DEFAULT_FACE))?.capHeight ?? 0.7;
  return capitals * size * (touches === 'heads' ? 1 : 0.5);
}

function trackOf({ line, reversed = false }: Along): ((distance: number) => Track) | null {
  if ('radius' in line) return (distance) => circleTrack(line.radius, distance, reversed);
  const contour = contoursOf(line.path).find((c) => c.segments.length > 0);
  return contour ? (distance) => contourTrack(contour, distance, reversed) : null;
}

/** The line itself that words stand on; null where it has no length. */
export const trackFor = (along: Along): Track | null => trackOf(along)?.(0) ?? null;

/** Places that are tried for the one nearest to a point. */
const TRIES = 720;

/**
 * The share of the line at which it comes nearest to a point, how far that is, and whether the point lies on the
 * letters' other side.
 */
export function placeOn(
  along: Along,
  p: Point,
): { readonly at: number; readonly distance: number; readonly across: boolean } | null {
  const track = trackFor(along);
  if (!track || !(track.length > 0)) return null;
  const away = (share: number): number => {
    const q = track.at(share * track.length);
    return Math.hypot(q.x - p.x, q.y - p.y);
  };
  let best = 0;
  for (let i = 1; i <= TRIES; i++) if (away(i / TRIES) < away(best)) best = i / TRIES;
  for (let step = 0.5 / TRIES; step > 1e-7; step /= 2) {
    if (away(best - step) < away(best)) best -= step;
    else if (away(best + step) < away(best)) best += step;
  }
  const at = track.closed ? ((best % 1) + 1) % 1 : Math.min(1, Math.max(0, best));
  const q = track.at(at * track.length);
  return { at, distance: away(at), across: (p.x - q.x) * q.sin - (p.y - q.y) * q.cos < 0 };
}

/** A layout with a bend over all of it, and what its bent letters reach. */
export function bentLayout(layout: Layout, bend: Bend, stretch: number): Layout {
  const { x0, x1, top, bottom } = layout;
  // A bend is seen as it is on the text, after its stretch.
  const bent = bendWarp(bend, { x0: x0 * stretch, y0: top, x1: x1 * stretch, y1: bottom });
  const warp = (p: { x: number; y: number }) => {
    const q = bent({ x: p.x * stretch, y: p.y });
    return { x: q.x / stretch, y: q.y };
  };
  const made: Layout = { ...layout, warp };
  let box = EMPTY_RECT;
  for (const line of made.lines)
    for (const run of line.runs) if (run.glyphs.length) box = union(box, pathBounds(bentRun(made, line, runPath(run))));
  if (!(box.x1 > box.x0)) return made;
  // The same object: its bent letters are remembered by it.
  return Object.assign(made, { x0: box.x0, x1: box.x1, top: box.y0, bottom: box.y1 });
}
