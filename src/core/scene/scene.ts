import { EMPTY_RECT, intersect, isEmpty, union, type Rect } from '../geometry/rect';
import type { Matrix } from '../geometry/matrix';
import { pathBounds, type FillRule, type PathData } from '../geometry/path';
import type { StrokeStyle } from '../geometry/stroke';
import type { Blend, Effect, Paint } from '../model/schema';
import type { NodeId } from '../model/tree';
import type { Face } from '../text/face';
import type { PlacedGlyph } from '../text/line';
import { effectRow } from './effects/table';
import type { PlacedPath } from './placedPath';

/** What every leaf has. Geometry is in page points; paints stay references, resolved through a palette. */
interface LeafBase {
  readonly node: NodeId;
  /** All that it can touch, its line included. */
  readonly inkBounds: Rect;
  readonly paintBounds: Rect;
  readonly paint: Exclude<Paint, { kind: 'none' }>;
  /** Maps the node's own space to the page: gradient geometry acts before it. */
  readonly matrix: Matrix;
  readonly placed: PlacedPath;
}

/** Letters by their numbers in a face, and the words they stand for. */
export interface Words {
  readonly face: Face;
  readonly size: number;
  readonly text: string;
  /** Maps the space of the glyphs (points, y down) to the page. */
  readonly layout: Matrix;
  readonly glyphs: readonly Pick<PlacedGlyph, 'gid' | 'x' | 'y' | 'advance' | 'text' | 'turn'>[];
}

export interface Fill extends LeafBase {
  readonly type: 'fill';
  /** It was letters, which became outlines: what they say, and where each stood. */
  readonly words?: Words;
  readonly rule: FillRule;
  /** It is an outline whose width changes along it. */
  readonly line?: true;
  /** The ground of a page (`node` names that): never met by the pointer. */
  readonly fixed?: true;
}

export interface Stroke extends LeafBase {
  readonly type: 'stroke';
  readonly words?: Words;
  readonly stroke: StrokeStyle;
}

/** A run of real text on one line; `placed` is its outlines, filled non-zero, or stroked where `stroke` is given. */
export interface Glyphs extends LeafBase, Words {
  readonly type: 'glyphs';
  readonly stroke: StrokeStyle | null;
}

/** What is painted as it stands. */
export type Leaf = Fill | Stroke | Glyphs;
export type Part = Leaf | Group;

/** An area that cuts. */
export interface Clip {
  readonly path: PathData;
  readonly rule: FillRule;
}

/** Drawn by itself; how far it covers (or how light it is there) is how much of the group is left. */
export interface Mask {
  readonly root: Group;
  readonly light: boolean;
}

/** What is to be said of words and combinations; it travels with the group that has them. */
export interface Findings {
  /** Faces that are asked for and not at hand. */
  readonly missingFaces: readonly string[];
  /** Letters that are not shown, by text. */
  readonly overset: readonly { readonly node: NodeId; readonly characters: number }[];
  /** Combinations that could not be computed rightly. */
  readonly unsure: readonly NodeId[];
}
export const NO_FINDINGS: Findings = { missingFaces: [], overset: [], unsure: [] };

/**
 * Parts of the pile that have something in common: a page, a copy of a repeat, what is cut, faded, blended or masked.
 * Other groups of the design have none here: their parts lie in what holds them.
 */
export interface Group {
  readonly type: 'group';
  /** Who asked for it: a page, a group, a repeat, or an object with an opacity or blend of its own. */
  readonly node: NodeId;
  /** Which copy of a repeat it is, from 0. */
  readonly copy?: number;
  /** The ground of a page, or what a master puts on it (`node` names whose it is): never met by the pointer. */
  readonly fixed?: true;
  /** Back to front. */
  readonly content: readonly Part[];
  readonly opacity: number;
  readonly blend: Blend | null;
  readonly clips: readonly Clip[];
  readonly masks: readonly Mask[];
  /** Made from all that, the first lowest; lengths in page points. */
  readonly effects: readonly Effect[];
  /** What its art covers once it is cut: for choosing, snapping, the bleed. */
  readonly inkBounds: Rect;
  /** All that it can change on the plates, its own effects left out, and with them. */
  readonly bodyBounds: Rect;
  readonly paintBounds: Rect;
  readonly findings: Findings;
}

export interface Scene {
  readonly width: number;
  readonly height: number;
  readonly bleed: number;
  /** The side that has no bleed: there the page ends at the fold. Absent: none. */
  readonly fold?: 'left' | 'right';
  readonly round: boolean;
  readonly root: Group;
}

/** The page with its bleed, in points. */
export const bleedRect = (s: Pick<Scene, 'width' | 'height' | 'bleed' | 'fold'>): Rect => ({
  x0: s.fold === 'left' ? 0 : -s.bleed,
  y0: -s.bleed,
  x1: s.fold === 'right' ? s.width : s.width + s.bleed,
  y1: s.height + s.bleed,
});
/** The page as it is cut, in points. */
export const trimRect = (s: Pick<Scene, 'width' | 'height'>): Rect => ({ x0: 0, y0: 0, x1: s.width, y1: s.height });

/** Must it be drawn by itself first (an isolated transparency group, ISO 32000-1 11.4)? What is only cut need not. */
export const isOwn = (g: Group): boolean => g.opacity < 1 || g.blend !== null || g.masks.length > 0;

/** Is it no more than its parts, one after the other? */
export const isPlain = (g: Group): boolean => !isOwn(g) && g.clips.length === 0 && g.effects.length === 0;

const EVERYWHERE: Rect = { x0: -Infinity, y0: -Infinity, x1: Infinity, y1: Infinity };

/** A group with the bounds that follow from what it holds and what cuts it. */
export function makeGroup(g: Omit<Group, 'type' | 'inkBounds' | 'bodyBounds' | 'paintBounds'>): Group {
  let cut = EVERYWHERE;
  for (const { path } of g.clips) cut = intersect(cut, path.length ? pathBounds(path) : EMPTY_RECT);
  for (const { root } of g.masks) cut = intersect(cut, root.paintBounds);
  const bodyBounds = unionWithin(g.content, 'paintBounds', cut);
  let paintBounds = bodyBounds;
  if (!isEmpty(bodyBounds))
    for (const e of g.effects) paintBounds = union(paintBounds, effectRow(e).reach(e, bodyBounds));
  return { ...g, type: 'group', inkBounds: unionWithin(g.content, 'inkBounds', cut), bodyBounds, paintBounds };
}

const bodies = new WeakMap<Group, Group>();
/** What a group's effects are made from: it, cut and masked, and nothing more. */
export function bodyOf(g: Group): Group {
  let body = bodies.get(g);
  if (!body) bodies.set(g, (body = makeGroup({ ...g, opacity: 1, blend: null, effects: [] })));
  return body;
}

/**
 * A group of which nothing is cut, some of whose parts are others now, at the same places: its bounds are found without
 * a look at the rest, as long as what went did not reach their edges.
 */
export function withParts(g: Group, content: readonly Part[], gone: readonly Part[], come: readonly Part[]): Group {
  const boxes = ['inkBounds', 'paintBounds'] as const;
  const inside = gone.every((p) => boxes.every((b) => isEmpty(p[b]) || within(p[b], g[b])));
  if (g.clips.length || g.masks.length || g.effects.length || !inside) return makeGroup({ ...g, content });
  const inkBounds = come.reduce((box, p) => union(box, p.inkBounds), g.inkBounds);
  const paintBounds = come.reduce((box, p) => union(box, p.paintBounds), g.paintBounds);
  return { ...g, content, inkBounds, bodyBounds: paintBounds, paintBounds };
}

/** Does a box lie in another one without touching its edges? */
const within = (a: Rect, b: Rect): boolean => a.x0 > b.x0 && a.y0 > b.y0 && a.x1 < b.x1 && a.y1 < b.y1;

/** The box round what is left of parts within another box. */
function unionWithin(parts: readonly Part[], which: 'inkBounds' | 'paintBounds', cut: Rect): Rect {
  let { x0, y0, x1, y1 } = EMPTY_RECT;
  for (const part of parts) {
    const b = part[which];
    const [l, t, r, f] = [
      Math.max(b.x0, cut.x0),
      Math.max(b.y0, cut.y0),
      Math.min(b.x1, cut.x1),
      Math.min(b.y1, cut.y1),
    ];
    if (!(r >= l && f >= t)) continue;
    if (l < x0) x0 = l;
    if (t < y0) y0 = t;
    if (r > x1) x1 = r;
    if (f > y1) y1 = f;
  }
  return { x0, y0, x1, y1 };
}
