import { apply, applyVector, meanScale, type Point } from '@/core/geometry/matrix';
import { alongContour, contourLength, nearestOnContours, segmentLength } from '@/core/geometry/measure';
import { contoursOf, type Contour } from '@/core/geometry/segments';
import { depthOf } from '@/core/edit/depth';
import { isFurtherAim, lineAt, type LineAim } from '@/core/edit/aims';
import type { Outline } from '@/core/model/schema';
import { outlinePath } from '@/core/shapes/outline';
import type { Session } from '../session/session';
import { toScreen } from './camera';
import type { Frame, PlacedGrip } from './grips';

/**
 * Grips that few objects have. The knobs of a line whose width changes along its way: one a knot, beside the line where
 * its edge is.
 */

/** A knob never comes nearer to the line than this, CSS pixels, so that it can be told from the line. */
const OFF = 14;

/** A line with knots, the way it runs, and which line of its object it is. */
export interface KnottedLine {
  readonly id: string;
  readonly aim: LineAim;
  readonly line: Outline & { readonly profile: NonNullable<Outline['profile']> };
  /** Its first contour, in the object's own space, and how long that is. */
  readonly way: Contour;
  readonly length: number;
}

/** The knotted line of the one chosen object: the one that colours go to, else its topmost. */
export function knottedLine(s: Session, f: Frame): KnottedLine | null {
  const node = f.single ? s.design.nodes[f.single] : null;
  if (!node || (node.kind !== 'shape' && node.kind !== 'path')) return null;
  const aim: LineAim = isFurtherAim(s.state.aim) ? s.state.aim : 'outline';
  const line = lineAt(node, aim);
  if (!line?.profile) return null;
  const [way] = contoursOf(outlinePath(node).path);
  if (!way) return null;
  return { id: node.id, aim, line: line as KnottedLine['line'], way, length: contourLength(way) };
}

/** The middle of a frame, on the page. */
export const middleOf = (f: Frame): Point =>
  apply(f.matrix, { x: (f.box.x0 + f.box.x1) / 2, y: (f.box.y0 + f.box.y1) / 2 });

/** The grips that few objects have: knots of a line, and the ring of a depth. */
export const laterGrips = (s: Session, f: Frame, ux: Point, uy: Point): PlacedGrip[] => [
  ...widthGrips(s, f, ux, uy),
  ...depthGrip(s, f, ux, uy),
];

/** The ring that stands where the middle of an object is pushed to, or at its vanishing point. */
function depthGrip(s: Session, f: Frame, ux: Point, uy: Point): PlacedGrip[] {
  const depth = f.single ? depthOf(s.design.nodes[f.single]) : undefined;
  if (!depth) return [];
  const middle = middleOf(f);
  const far = depth.length * meanScale(f.matrix);
  const rad = (depth.angle * Math.PI) / 180;
  const to = depth.vanish ?? { x: middle.x + far * Math.cos(rad), y: middle.y + far * Math.sin(rad) };
  const { camera } = s.state;
  return [{ grip: { kind: 'depth' }, at: toScreen(camera, to), ux, uy, notch: toScreen(camera, middle) }];
}

function widthGrips(s: Session, f: Frame, ux: Point, uy: Point): PlacedGrip[] {
  const found = knottedLine(s, f);
  if (!found) return [];
  const { line, way, length } = found;
  return line.profile.map(({ at, share }, knot): PlacedGrip => {
    const { point, tangent } = alongContour(way, at * length);
    const out = applyVector(f.matrix, { x: tangent.y, y: -tangent.x });
    const n = Math.hypot(out.x, out.y) || 1;
    const notch = { x: out.x / n, y: out.y / n };
    const on = toScreen(s.state.camera, apply(f.matrix, point));
    const by = Math.max(OFF, (share * line.width * meanScale(f.matrix) * s.state.camera.scale) / 2);
    return {
      grip: { kind: 'width', knot },
      at: { x: on.x + notch.x * by, y: on.y + notch.y * by },
      ux,
      uy,
      notch,
      letter: knot === 0 ? 'w' : '',
    };
  });
}

/** Where a place lies on the line's way, 0…1, and how far from it. */
export function placeOnWay({ way, length }: KnottedLine, p: Point): { readonly at: number; readonly away: number } {
  const near = nearestOnContours([way], p)!;
  const before = way.segments.slice(0, near.segment).reduce((n, x) => n + segmentLength(x), 0);
  return { at: (before + segmentLength(way.segments[near.segment], 0, near.t)) / (length || 1), away: near.distance };
}
