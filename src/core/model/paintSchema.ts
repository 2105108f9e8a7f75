import '../zodSetup';
import * as z from 'zod/mini';
import { isWholePath } from '../geometry/path';
import { colourPaintSchema } from './effects';
import { picturePaintSchema } from './pictureSchema';
import { colourSchema, coordinate, id, matrix, measure, pathNumbers, unit01 } from './primitives';

export const midpointSchema = z.number().check(z.gte(0.02), z.lte(0.98));
const stopSchema = z.readonly(
  z.strictObject({
    offset: unit01,
    colour: colourSchema,
    /** Absent: 1, nothing shows through. */
    opacity: z.optional(unit01),
    /** Where between this stop and the next half of the change is done, 0…1 of the way. Absent: half way. */
    midpoint: z.optional(midpointSchema),
  }),
);
export const stops = z.readonly(z.array(stopSchema).check(z.minLength(2), z.maxLength(64)));
/** Where the colours between stops are mixed. Absent: in ink (in light for a screen design). */
export const mixingSchema = z.optional(z.enum(['ink', 'srgb', 'oklab', 'oklch']));

export const paintSchema = z.union([
  z.readonly(z.strictObject({ kind: z.literal('none') })),
  colourPaintSchema,
  z.readonly(
    z.strictObject({
      kind: z.literal('gradient'),
      gradient: z.enum(['linear', 'radial', 'box']),
      ramp: z.union([
        z.readonly(z.strictObject({ swatch: id })),
        z.readonly(z.strictObject({ stops, mixing: mixingSchema })),
      ]),
      /** From unit space (line 0→1 along x, the unit circle, or the square −1…1) to the object's own space. */
      geometry: matrix,
      overprint: z.boolean(),
      /** Radial: where in the unit circle it begins. Absent: in the middle. */
      focus: z.optional(
        z.readonly(
          z
            .tuple([z.number().check(z.gte(-0.98), z.lte(0.98)), z.number().check(z.gte(-0.98), z.lte(0.98))])
            .check(z.refine(([x, y]) => Math.hypot(x, y) <= 0.98 + 1e-9)),
        ),
      ),
      /** Of an outline: follows the line, or runs from its one edge to the other. Absent: over the whole shape. */
      strokeMapping: z.optional(z.enum(['along', 'across'])),
      /** Along a line: there and back, so that a closed one has no seam. */
      thereAndBack: z.optional(z.boolean()),
      /** Of letters: each has the gradient to itself; the geometry is then in the unit square of each letter's box. */
      eachLetter: z.optional(z.boolean()),
      /** Noise that breaks up visible steps, 0…1 of the ramp. */
      grain: z.optional(z.number().check(z.gte(0), z.lte(0.2))),
    }),
  ),
  z.readonly(
    z.strictObject({
      kind: z.literal('pools'),
      /** Points in unit space, the square 0…1; reach as a share of the square's mean side. */
      pools: z.readonly(
        z
          .array(
            z.readonly(
              z.strictObject({
                x: z.number().check(z.gte(-4), z.lte(5)),
                y: z.number().check(z.gte(-4), z.lte(5)),
                colour: colourSchema,
                opacity: z.optional(unit01),
                reach: z.number().check(z.gte(0.02), z.lte(4)),
              }),
            ),
          )
          .check(z.minLength(1), z.maxLength(32)),
      ),
      /** From unit space to the object's own space. */
      geometry: matrix,
      overprint: z.boolean(),
    }),
  ),
  picturePaintSchema,
]);

const endSize = z.number().check(z.gte(0.2), z.lte(50));
/** What stands at an end of an open line; `size` times as large as suits the line's weight. */
const endSchema = z.union([
  z.readonly(
    z.strictObject({
      kind: z.enum(['arrow', 'slim', 'open', 'bar', 'dot', 'ring', 'box', 'diamond']),
      size: endSize,
    }),
  ),
  /** A shape of one's own, in weights of the line: its tip at 0 0, the line coming from the left. */
  z.readonly(
    z.strictObject({
      kind: z.literal('own'),
      path: pathNumbers.check(
        z.maxLength(20_000),
        z.refine((p) => Array.isArray(p) && isWholePath(p)),
      ),
      size: endSize,
    }),
  ),
]);

/** So many dashes and gaps at most. */
export const MOST_DASHES = 32;

/** A line's width changes at so many places at most. */
export const MOST_KNOTS = 24;

export const outlineSchema = z.readonly(
  z.strictObject({
    paint: paintSchema,
    width: measure,
    cap: z.enum(['butt', 'round', 'square']),
    join: z.enum(['miter', 'round', 'bevel']),
    miterLimit: z.number().check(z.gte(1), z.lte(1000)),
    /** Lengths drawn and left out in turn; of no length with round caps: a dot. Absent: a whole line. */
    dashes: z.optional(
      z.readonly(
        z.array(measure).check(
          z.minLength(2),
          z.maxLength(MOST_DASHES),
          z.refine((all) => all.length % 2 === 0 && all.some((v) => v > 0)),
        ),
      ),
    ),
    /** How far into the dashes it begins. */
    dashOffset: z.optional(coordinate),
    /** Dashes become a little longer or shorter, so that corners stand within one and open ends have a whole one. */
    dashFit: z.optional(z.literal(true)),
    /** What is seen between the dashes. Absent: nothing. */
    between: z.optional(colourPaintSchema),
    /** Below the fills, not over them. */
    behind: z.optional(z.boolean()),
    /** All of it lies on that side of the edge of an area. Absent: half on each. */
    side: z.optional(z.enum(['inside', 'outside'])),
    /** How far outside the edge it runs; below nothing, inside. Absent: on it. */
    away: z.optional(coordinate),
    /** What stands where an open line begins and ends. Absent: nothing. */
    start: z.optional(endSchema),
    end: z.optional(endSchema),
    /**
     * How wide it is along its way (0…1) as a share of its width; between two of them it changes evenly. Absent: all of
     * it everywhere.
     */
    profile: z.optional(
      z.readonly(
        z.array(z.readonly(z.strictObject({ at: unit01, share: unit01 }))).check(
          z.minLength(2),
          z.maxLength(MOST_KNOTS),
          z.refine((k) => k.every((p, i) => !i || p.at >= k[i - 1].at)),
        ),
      ),
    ),
    /** It strays as a hand's line does: so far, from bulge to bulge, drawn so many times over. */
    wobble: z.optional(
      z.readonly(
        z.strictObject({
          strength: z.number().check(z.gt(0), z.lte(1000)),
          wave: z.number().check(z.gte(0.5), z.lte(10_000)),
          passes: z.number().check(z.int(), z.gte(1), z.lte(5)),
          seed: z.number().check(z.int(), z.gte(0), z.lte(9999)),
        }),
      ),
    ),
  }),
);
