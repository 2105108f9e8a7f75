import type { Point } from '../geometry/matrix';
import type { Rect } from '../geometry/rect';
import type { Warp } from '../geometry/warp';
import type { Bend, BendKind } from '../model/schema';

/** A place in the box of a text: −1…1 across, 0 at its foot to 1 at its head. */
interface Place {
  readonly u: number;
  readonly v: number;
}
interface Box {
  readonly width: number;
  readonly height: number;
}
/** Where a place goes, in points from the middle of the foot, up positive; `k` −1…1. */
type BendOf = (at: Place, box: Box, k: number) => Point;

/** At full strength a text is bent round half a circle. */
const MOST_TURN = Math.PI;

/** Round a circle: its middle stays, its ends go down (`k` > 0) or up. */
const round: BendOf = ({ u, v }, { width, height }, k) => {
  const turn = MOST_TURN * k;
  const x = (u * width) / 2;
  if (Math.abs(turn) < 1e-6) return { x, y: v * height };
  // The line through the middle of the letters keeps its length.
  const radius = width / turn;
  const [angle, r] = [x / radius, radius + (v - 0.5) * height];
  return { x: r * Math.sin(angle), y: r * Math.cos(angle) - radius + height / 2 };
};
const taller =
  (share: (u: number, k: number) => number, about: number): BendOf =>
  ({ u, v }, { width, height }, k) => ({
    x: (u * width) / 2,
    y: (about + (v - about) * share(u, k)) * height,
  });

/** What each bend does with a text; a new bend is a row here and a word in `BENDS`. */
const ROWS: { readonly [K in BendKind]: BendOf } = {
  arch: round,
  dip: (at, box, k) => round(at, box, -k),
  wave: ({ u, v }, { width, height }, k) => ({
    x: (u * width) / 2,
    y: v * height + k * height * Math.sin(Math.PI * u),
  }),
  climb: ({ u, v }, { width, height }, k) => ({ x: (u * width) / 2, y: v * height + (k * width * u) / 4 }),
  barrel: taller((u, k) => 1 + k * (1 - u * u), 0.5),
  waist: taller((u, k) => 1 - 0.8 * k * (1 - u * u), 0.5),
  fan: taller((u, k) => 1 + k * (1 - u * u), 0),
};

/**
 * The warp of a bend for a text that fills `box` (y down). Tilts come first: with `tiltX` one end is nearer than the
 * other, with `tiltY` the head nearer than the foot.
 */
export function bendWarp(bend: Bend, box: Rect): Warp {
  const [width, height] = [box.x1 - box.x0, box.y1 - box.y0];
  const [cx, foot] = [(box.x0 + box.x1) / 2, box.y1];
  if (!(width > 0) || !(height > 0)) return (p) => p;
  const { tiltX = 0, tiltY = 0 } = bend;
  return (p) => {
    const u = ((p.x - cx) / width) * 2;
    const v = (foot - p.y) / height;
    const near = 1 + 0.6 * tiltX * u;
    const q = ROWS[bend.kind](
      { u: u * (1 + 0.6 * tiltY * (2 * v - 1)), v: 0.5 + (v - 0.5) * near },
      { width, height },
      bend.strength,
    );
    return { x: cx + q.x, y: foot - q.y };
  };
}

/** How closely bent letters follow their bend, points. */
export const BEND_TOLERANCE = 0.002;
