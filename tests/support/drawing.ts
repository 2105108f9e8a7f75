import { newDesign, setupOf } from '@/core/model/defaults';
import { colourPaint } from '@/core/model/defaults';
import type { Colour, Design, DesignNode } from '@/core/model/schema';
import { DesignBuilder } from '@/demo/builder';
import { making } from './sample';

export const INK: Colour = { cmyk: [0, 0.5, 1, 0] };
export const OTHER: Colour = { cmyk: [1, 0.5, 0, 0] };

/** A page of 400 × 300 points to draw on. */
export function sheet(draw: (b: DesignBuilder) => string[]): Design {
  const b = new DesignBuilder(
    newDesign(
      'Drawing',
      setupOf(400, 300, { bleed: 0, margins: { top: 20, right: 20, bottom: 20, left: 20 } }),
      making,
    ),
    making,
  );
  b.place(0, draw(b));
  return b.done();
}

export const box = (
  b: DesignBuilder,
  name: string,
  x: number,
  y: number,
  w: number,
  h: number,
  colour: Colour = INK,
): string => b.shape(name, 'rectangle', { x, y, w, h }, { fill: colourPaint(colour) });
export const disc = (b: DesignBuilder, name: string, x: number, y: number, r: number, colour: Colour = INK): string =>
  b.shape(name, 'ellipse', { x: x - r, y: y - r, w: 2 * r, h: 2 * r }, { fill: colourPaint(colour) });

export const named = (d: Design, name: string): DesignNode => {
  const found = Object.values(d.nodes).filter((n) => n.name === name);
  if (found.length !== 1) throw new Error(`${found.length} objects are called ${name}`);
  return found[0];
};
export const idOf = (d: Design, name: string): string => named(d, name).id;
