import { PathBuilder, type PathData } from '../geometry/path';
import { ellipse, heart, polygon, rectangle, ring, star } from './basics';
import { arrow, chevron } from './pointers';
import { clamp, type ShapeDef } from './types';

export type AnyShape = ShapeDef<readonly ShapeDef['params'][number][], Record<string, number>>;
const row = (d: unknown) => d as AnyShape;

/** Every dialled shape; a new one is a row here. */
export const SHAPES: readonly AnyShape[] = [row(rectangle), row(ellipse), row(polygon), row(star), row(ring), row(chevron), row(heart), row(arrow)];

const byId = new Map(SHAPES.map((s) => [s.id, s]));

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

/** The outline of a dialled shape in its own space. An unknown shape draws as its box, so that nothing is lost from view. */
export function shapePath(id: string, knobs: Readonly<Record<string, number>>, width: number, height: number): PathData {
  const sink = new PathBuilder();
  const def = byId.get(id) ?? SHAPES[0];
  if (width > 0 && height > 0) def.draw(valuesOf(def, knobs), width, height, sink);
  return sink.data;
}
