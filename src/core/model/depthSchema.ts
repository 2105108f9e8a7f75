import '../zodSetup';
import * as z from 'zod/mini';
import { colourPaintSchema } from './effects';
import { paintSchema } from './paintSchema';
import { coordinate, measure, unit01 } from './primitives';

const angle = z.number().check(z.gte(-360), z.lte(360));

/**
 * A flat object pushed back: its sides are drawn below it. Directions are of the page, degrees clockwise from the
 * right, however the object is turned; lengths are the object's own.
 */
export const depthSchema = z.readonly(
  z.strictObject({
    /** Sides shaded by the way they look; or one flat area, as a long shadow is. */
    kind: z.enum(['solid', 'shadow']),
    angle,
    length: measure,
    /** Instead of the same way for all: towards a place of the page, that share of the way. */
    vanish: z.optional(z.readonly(z.strictObject({ x: coordinate, y: coordinate, share: unit01 }))),
    side: paintSchema,
    /** How much paler sides are that look to the light; of a flat colour. */
    shade: unit01,
    /** Where light comes from. */
    light: angle,
    /** A line round every side. Absent: none. */
    edge: z.optional(z.readonly(z.strictObject({ paint: colourPaintSchema, width: measure }))),
    /** Of a shadow: it becomes nothing towards its end. */
    fades: z.optional(z.literal(true)),
  }),
);
export type Depth = z.infer<typeof depthSchema>;
