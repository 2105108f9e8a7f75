import type { Point } from '@/core/geometry/matrix';
import type { PathData } from '@/core/geometry/path';
import type { Rect } from '@/core/geometry/rect';
import type { SnapPoint } from '@/core/geometry/snap';

/** What a gesture shows besides the art: a marquee, lines snapped to. */
export interface OverlayExtras {
  marquee: Rect | null;
  snapX: number | null;
  snapY: number | null;
  snapPoint: SnapPoint | null;
  /** Stretches that a snap made equal, as boxes without a height or a width. */
  gaps: readonly Rect[];
  /** The area under the pointer that lines enclose, on the page; and the lines that close its gaps. */
  lit: PathData | null;
  bridges: readonly (readonly [Point, Point])[];
  /** Where the next piece of a line being drawn would go, on the page. */
  rubber: PathData | null;
  /** The ring of a brush: its middle on the page, its radius in pixels. */
  brush: { readonly at: Point; readonly radius: number } | null;
  /** Hides the frame while it would be in the way. */
  bare: boolean;
  caretOn: boolean;
}
export const noExtras = (): OverlayExtras => ({
  marquee: null,
  snapX: null,
  snapY: null,
  snapPoint: null,
  gaps: [],
  lit: null,
  bridges: [],
  rubber: null,
  brush: null,
  bare: false,
  caretOn: true,
});
