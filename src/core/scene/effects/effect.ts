import type { Rect } from '../../geometry/rect';
import type { Effect, EffectKind, EffectOf } from '../../model/effects';

/** How far something covers the pixels of a part of a page, 0…255. `x` and `y` say where it begins, in whole pixels. */
export interface Cover extends Window {
  readonly data: Uint8Array;
}
export interface Window {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** What draws an effect onto a canvas: the image of what throws it, and where that lies there, in pixels. */
export interface Thrower {
  readonly ctx: Pick<CanvasRenderingContext2D, keyof CanvasShadowStyles | 'drawImage'>;
  readonly image: CanvasImageSource;
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/**
 * A kind of effect: an even paint through a cover that is made from that of the group it belongs to, laid below it.
 * Lengths are page points by then; painters give it the group drawn by itself and know no kinds.
 */
export interface EffectRow<E extends Effect> {
  /** What art within a box can change on the page. */
  reach(e: E, box: Rect): Rect;
  /** Where the art lies that a part of the effect is made from. */
  source(e: E, box: Rect): Rect;
  /** The effect's cover over a window of the page, from the art's; `scale` is pixels a point. */
  cover(e: E, art: Cover, window: Window, scale: number): Uint8Array;
  /**
   * How many times finer than `scale` (pixels a point) the cover must be made to be right where an edge falls within a
   * pixel.
   */
  finer(e: E, scale: number): number;
  /** Pixels a point that hold the cover within one level of 255 between their middles. */
  detail(e: E): number;
  /** Draws it quickly, in a colour of CSS; `scale` is pixels a point. */
  quick(e: E, thrower: Thrower, colour: string, scale: number): void;
  /** Filter primitives of SVG 1.1 that leave the effect alone, in a colour of CSS. */
  svg(e: E, colour: string): string;
}

export type EffectRows = { readonly [K in EffectKind]: EffectRow<EffectOf<K>> };
