import type { ToolContext } from './tool';

/** Nothing is snapped to any more. */
export function clearSnap(c: ToolContext): void {
  c.extras.snapX = null;
  c.extras.snapY = null;
  c.extras.snapPoint = null;
  c.extras.gaps = [];
}

/** A gesture is over, or was dropped: what it showed goes. */
export function drop(c: ToolContext): void {
  c.session.preview(null);
  clearSnap(c);
  c.extras.marquee = null;
  c.readout(null);
}
