import '../zodSetup';
import * as z from 'zod/mini';
import { colourPaintSchema } from './effects';

/** Patterns that can lie on the ground of a page. */
export const PATTERNS = ['dots', 'stripes', 'checks', 'waves', 'confetti', 'grid'] as const;

/** A pattern over a ground, drawn as shapes. */
export const patternSchema = z.readonly(
  z.strictObject({
    kind: z.enum(PATTERNS),
    /** In which colours, in turns. */
    paints: z.readonly(z.array(colourPaintSchema).check(z.minLength(1), z.maxLength(4))),
    /** From one mark to the next, points. */
    size: z.number().check(z.gte(2), z.lte(4000)),
    /** How it is turned, degrees clockwise. */
    angle: z.number().check(z.gte(-360), z.lte(360)),
    /** How much of the ground its marks cover. */
    cover: z.number().check(z.gte(0.02), z.lte(0.9)),
    /** Of marks that lie at random: which throw of them. Absent: the first. */
    seed: z.optional(z.number().check(z.int(), z.gte(0), z.lte(9999))),
  }),
);
export type Pattern = z.infer<typeof patternSchema>;
