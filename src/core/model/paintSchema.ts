import '../zodSetup';
import * as z from 'zod';
import { colourPaintSchema } from './effects';
import { picturePaintSchema } from './pictureSchema';
import { colourSchema, id, matrix, measure, unit01 } from './primitives';

export const midpointSchema = z.number().min(0.02).max(0.98);
const stopSchema = z
  .strictObject({
    offset: unit01,
    colour: colourSchema,
    /** Absent: 1, nothing shows through. */
    opacity: unit01.optional(),
    /** Where between this stop and the next half of the change is done, 0…1 of the way. Absent: half way. */
    midpoint: midpointSchema.optional(),
  })
  .readonly();
export const stops = z.array(stopSchema).min(2).max(64).readonly();
/** Where the colours between stops are mixed. Absent: in ink (in light for a screen design). */
export const mixingSchema = z.enum(['ink', 'srgb', 'oklab', 'oklch']).optional();

export const paintSchema = z.union([
  z.strictObject({ kind: z.literal('none') }).readonly(),
  colourPaintSchema,
  z
    .strictObject({
      kind: z.literal('gradient'),
      gradient: z.enum(['linear', 'radial', 'box']),
      ramp: z.union([
        z.strictObject({ swatch: id }).readonly(),
        z.strictObject({ stops, mixing: mixingSchema }).readonly(),
      ]),
      /** From unit space (line 0→1 along x, the unit circle, or the square −1…1) to the object's own space. */
      geometry: matrix,
      overprint: z.boolean(),
      /** Radial: where in the unit circle it begins. Absent: in the middle. */
      focus: z
        .tuple([z.number().min(-0.98).max(0.98), z.number().min(-0.98).max(0.98)])
        .refine(([x, y]) => Math.hypot(x, y) <= 0.98 + 1e-9)
        .readonly()
        .optional(),
      /** Of an outline: follows the line, or runs from its one edge to the other. Absent: over the whole shape. */
      strokeMapping: z.enum(['along', 'across']).optional(),
      /** Along a line: there and back, so that a closed one has no seam. */
      thereAndBack: z.boolean().optional(),
      /** Of letters: each has the gradient to itself; the geometry is then in the unit square of each letter's box. */
      eachLetter: z.boolean().optional(),
      /** Noise that breaks up visible steps, 0…1 of the ramp. */
      grain: z.number().min(0).max(0.2).optional(),
    })
    .readonly(),
  z
    .strictObject({
      kind: z.literal('pools'),
      /** Points in unit space, the square 0…1; reach as a share of the square's mean side. */
      pools: z
        .array(
          z
            .strictObject({
              x: z.number().min(-4).max(5),
              y: z.number().min(-4).max(5),
              colour: colourSchema,
              opacity: unit01.optional(),
              reach: z.number().min(0.02).max(4),
            })
            .readonly(),
        )
        .min(1)
        .max(32)
        .readonly(),
      /** From unit space to the object's own space. */
      geometry: matrix,
      overprint: z.boolean(),
    })
    .readonly(),
  picturePaintSchema,
]);

export const outlineSchema = z
  .strictObject({
    paint: paintSchema,
    width: measure,
    cap: z.enum(['butt', 'round', 'square']),
    join: z.enum(['miter', 'round', 'bevel']),
    miterLimit: z.number().min(1).max(1000),
  })
  .readonly();
