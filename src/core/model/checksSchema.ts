import '../zodSetup';
import * as z from 'zod/mini';
import { id, measure, name } from './primitives';

const points = measure;
const count = z.number().check(z.int(), z.gte(0), z.lte(40));
const ppi = z.number().check(z.gte(1), z.lte(10_000));

/** What the checks hold a job against; lengths and sizes in points. */
export const limitsSchema = z.readonly(
  z.strictObject({
    name: name.check(z.minLength(1)),
    /** The thinnest line that prints for certain, and the thinnest that is left free of ink. */
    line: points,
    freeLine: points,
    /** The smallest letters at all; in more than one ink; free of ink; of a black that is not black ink alone. */
    text: points,
    mixedText: points,
    freeText: points,
    richText: points,
    /** How far words stay off the cut and the fold. */
    safe: points,
    /** Pixels an inch of a picture at its size: fewer look soft; fewer show; more are no use. */
    softPpi: ppi,
    coarsePpi: ppi,
    mostPpi: ppi,
    /** The most spot inks, and the most inks of all. */
    spots: count,
    inks: count,
  }),
);
export type Limits = z.infer<typeof limitsSchema>;

/** A finding that is meant to be so: of which rule, of which object or page, and why. */
const waiverSchema = z.readonly(
  z.strictObject({
    code: z.string().check(z.minLength(1), z.maxLength(40)),
    of: id,
    reason: name.check(z.minLength(1)),
  }),
);

/** How a design is checked. Absent limits: those of its paper. */
export const checksSchema = z.readonly(
  z.strictObject({
    limits: z.optional(limitsSchema),
    waivers: z.optional(z.readonly(z.array(waiverSchema).check(z.minLength(1), z.maxLength(1000)))),
  }),
);
