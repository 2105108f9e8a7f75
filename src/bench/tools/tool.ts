import type { Point } from '@/core/geometry/matrix';
import type { OverlayExtras } from '../view/extras';
import type { Session } from '../session/session';

/** A pointer event in the terms tools think in. */
export interface PointerAt {
  /** On the page, points. */
  readonly page: Point;
  /** On the bench top, CSS pixels. */
  readonly screen: Point;
  readonly shift: boolean;
  readonly alt: boolean;
  /** Ctrl or Cmd: suspends snapping. */
  readonly mod: boolean;
  /** How hard a pen presses, 0…1; absent for what has no pressure. */
  readonly pressure?: number;
}

/** One press until it is let go. Moves show, release makes it so, cancel drops it. */
export interface Gesture {
  move(at: PointerAt): void;
  release(at: PointerAt): void;
  cancel(): void;
}

export interface ToolContext {
  readonly session: Session;
  readonly extras: OverlayExtras;
  /** Redraws what is not art. */
  refresh(): void;
  /** Says a measure at the pointer, with a colour beside it; null takes it away. */
  readout(text: string | null, colour?: string): void;
}

export interface Tool {
  press(at: PointerAt, c: ToolContext): Gesture | null;
  double?(at: PointerAt, c: ToolContext): void;
  /** The pointer moves with nothing pressed: what a press would do may be shown. */
  hover?(at: PointerAt, c: ToolContext): void;
  /** The pointer's shape over a place, as a CSS cursor. */
  cursor(at: PointerAt, c: ToolContext): string;
}

/** How far a press may stray and still be a click, and how near counts as on it (CSS pixels). */
const CLICK_PX = 3;
export const NEAR_PX = 5;
/** Snapping reaches this far on the screen at any zoom. */
export const SNAP_PX = 7;

export const far = (a: PointerAt, b: PointerAt): boolean =>
  Math.hypot(a.screen.x - b.screen.x, a.screen.y - b.screen.y) > CLICK_PX;
