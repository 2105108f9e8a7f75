import type { Matrix, Point } from '@/core/geometry/matrix';
import type { Rect } from '@/core/geometry/rect';
import type { BendPart } from './wordGrips';

/** The box round the selection: a box in its own space and the map from there to the page. */
export interface Frame {
  readonly box: Rect;
  readonly matrix: Matrix;
  readonly single: string | null;
}

/** A place to take the frame by: −1, 0, 1 on each axis; `turn` is the arc outside the top right corner. */
export type Grip =
  | { readonly kind: 'size'; readonly hx: -1 | 0 | 1; readonly hy: -1 | 0 | 1 }
  | { readonly kind: 'turn' }
  | { readonly kind: 'pivot' }
  | { readonly kind: 'knob'; readonly index: number }
  | { readonly kind: 'corner'; readonly node: number }
  | { readonly kind: 'width'; readonly knot: number }
  | { readonly kind: 'depth' }
  | { readonly kind: 'shadow' }
  | { readonly kind: 'words'; readonly of: 'along' | BendPart };

export interface PlacedGrip {
  readonly grip: Grip;
  /** Middle of the mark on the screen. */
  readonly at: Point;
  /** The unit vectors of the frame's axes on the screen. */
  readonly ux: Point;
  readonly uy: Point;
  /**
   * What stands beside a knob, and the way its notch points (unit vector); of a shadow's ring, where its line begins.
   */
  readonly letter?: string;
  readonly notch?: Point;
}
