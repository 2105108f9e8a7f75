import type { Matrix } from '../geometry/matrix';
import type { FillRule, PathData } from '../geometry/path';
import type { Rect } from '../geometry/rect';
import type { StrokeStyle } from '../geometry/stroke';
import type { Blend, Paint } from '../model/schema';
import type { NodeId } from '../model/tree';
import type { Face } from '../text/fonts';

/** What every item has. Geometry is in page points; paints stay references, resolved through a palette. */
interface ItemBase {
  readonly node: NodeId;
  /** All that the item can touch, its line included. */
  readonly bounds: Rect;
  readonly paint: Exclude<Paint, { kind: 'none' }>;
  /** Maps the node's own space to the page: gradient geometry acts before it. */
  readonly matrix: Matrix;
  readonly path: PathData;
  /** What it is drawn into. Absent: the page itself. */
  readonly layer?: Layer;
}

/** An area that cuts. */
export interface Clip {
  readonly path: PathData;
  readonly rule: FillRule;
}

/** Drawn by itself; how far it covers (or how light it is there) is how much of the layer is left. */
export interface Mask {
  readonly items: readonly Item[];
  readonly light: boolean;
}

/**
 * What a part of the pile is drawn into before it meets what lies below. Only cut, it is a matter of drawing; with an
 * opacity, a blend or a mask it is one thing of its own (an isolated transparency group, ISO 32000-1 11.4).
 */
export interface Layer {
  readonly node: NodeId;
  readonly parent: Layer | null;
  readonly opacity: number;
  readonly blend: Blend | null;
  readonly clips: readonly Clip[];
  readonly masks: readonly Mask[];
  /** All that clips and masks leave. */
  readonly bounds: Rect;
}

/** Must it be drawn by itself first? */
export const isOwn = (l: Layer): boolean => l.opacity < 1 || l.blend !== null || l.masks.length > 0;

export interface FillItem extends ItemBase {
  readonly type: 'fill';
  readonly rule: FillRule;
  /** It is an outline whose width changes along it. */
  readonly line?: true;
}

export interface StrokeItem extends ItemBase {
  readonly type: 'stroke';
  readonly stroke: StrokeStyle;
}

/** A run of real text on one line; `path` is its outlines, filled non-zero, or stroked where `stroke` is given. */
export interface GlyphsItem extends ItemBase {
  readonly type: 'glyphs';
  readonly face: Face;
  readonly size: number;
  readonly text: string;
  /** Maps layout space (points, y down) to the page. */
  readonly layout: Matrix;
  readonly glyphs: readonly { readonly gid: number; readonly x: number; readonly y: number; readonly text: string }[];
  readonly stroke: StrokeStyle | null;
}

export type Item = FillItem | StrokeItem | GlyphsItem;

export interface Scene {
  readonly width: number;
  readonly height: number;
  readonly bleed: number;
  readonly round: boolean;
  /** Back to front. */
  readonly items: readonly Item[];
  readonly missingFaces: readonly string[];
  readonly overset: readonly { readonly node: NodeId; readonly characters: number }[];
  /** Combinations that could not be computed rightly. */
  readonly unsure: readonly NodeId[];
}

export const bleedRect = (s: Pick<Scene, 'width' | 'height' | 'bleed'>): Rect => ({ x0: -s.bleed, y0: -s.bleed, x1: s.width + s.bleed, y1: s.height + s.bleed });
export const trimRect = (s: Pick<Scene, 'width' | 'height'>): Rect => ({ x0: 0, y0: 0, x1: s.width, y1: s.height });
