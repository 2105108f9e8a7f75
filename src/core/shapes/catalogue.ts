import { PathBuilder, type PathData } from '../geometry/path';
import * as badges from './badges';
import * as basics from './basics';
import * as edges from './edges';
import * as lines from './lines';
import * as nature from './nature';
import * as pointers from './pointers';
import * as speech from './speech';
import * as technical from './technical';
import { clamp, type ShapeDef } from './types';

export type AnyShape = ShapeDef<readonly ShapeDef['params'][number][], Record<string, number>>;
export type ShapeFamily = ShapeDef['family'];

/** In the order they are shown. */
export const FAMILIES: readonly ShapeFamily[] = [
  'Basics',
  'Badges',
  'Pointers',
  'Speech',
  'Nature',
  'Technical',
  'Lines',
  'Edges',
];

/** Every dialled shape; a new one is a row here. */
const ROWS = [
  basics.rectangle,
  basics.ellipse,
  basics.polygon,
  basics.triangle,
  basics.trapezium,
  basics.parallelogram,
  basics.kite,
  basics.cushion,
  basics.capsule,
  basics.wedge,
  basics.arcBand,
  basics.segmentOfDisc,
  basics.cross,
  basics.elbow,
  basics.frame,
  badges.star,
  badges.ring,
  badges.sun,
  badges.seal,
  badges.shield,
  badges.ticket,
  badges.tag,
  pointers.chevron,
  pointers.arrow,
  pointers.doubleArrow,
  pointers.arrowhead,
  pointers.bentArrow,
  pointers.pennant,
  pointers.pin,
  speech.speechBox,
  speech.speechOval,
  speech.thought,
  speech.shout,
  nature.heart,
  nature.crescent,
  nature.drop,
  nature.leaf,
  nature.flower,
  nature.cloud,
  nature.flame,
  nature.fish,
  technical.gear,
  technical.nut,
  technical.flash,
  technical.barrel,
  technical.lens,
  technical.keyhole,
  lines.spiral,
  lines.zigzag,
  lines.ripple,
  lines.arcLine,
  lines.brace,
  edges.ribbon,
  edges.banner,
  edges.scallops,
  edges.torn,
  edges.stamp,
  edges.bunting,
];
export const SHAPES: readonly AnyShape[] = ROWS as unknown as readonly AnyShape[];

/** Shapes that a search means: by name, family or everyday words, every word of it somewhere. */
export function findShapes(query: string): readonly AnyShape[] {
  const words = query.toLowerCase().split(/\s+/).filter(Boolean);
  return SHAPES.filter((s) => {
    const text = [s.name, s.family, ...s.keywords].join(' ').toLowerCase();
    return words.every((w) => text.includes(w));
  });
}

const byId = new Map(SHAPES.map((s) => [s.id, s]));

/** The dialled shape of that id; undefined for none. */
export function shapeById(id: string): AnyShape | undefined {
  return byId.get(id);
}

/** The measures to draw with: what is stored, filled up and kept in range. */
export function valuesOf(def: AnyShape, stored: Readonly<Record<string, number>>): Record<string, number> {
  return Object.fromEntries(
    def.params.map((p) => {
      const v = clamp(stored[p.id] ?? p.initial, p.min, p.max);
      return [p.id, p.unit === 'count' ? Math.round(v) : v];
    }),
  );
}

/**
 * The outline of a dialled shape in its own space. One that this version does not know has none: it is never drawn as
 * another.
 */
export function shapePath(
  id: string,
  knobs: Readonly<Record<string, number>>,
  width: number,
  height: number,
): PathData {
  const sink = new PathBuilder();
  const def = byId.get(id);
  if (def && width > 0 && height > 0) def.draw(valuesOf(def, knobs), width, height, sink);
  return sink.data;
}
