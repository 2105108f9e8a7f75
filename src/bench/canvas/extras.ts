import type { Rect } from '@/core/geometry/rect';

/** What a gesture shows besides the art: a marquee, lines snapped to. */
export interface OverlayExtras {
  marquee: Rect | null;
  snapX: number | null;
  snapY: number | null;
  /** Hides the frame while it would be in the way. */
  bare: boolean;
  caretOn: boolean;
}
export const noExtras = (): OverlayExtras => ({ marquee: null, snapX: null, snapY: null, bare: false, caretOn: true });
