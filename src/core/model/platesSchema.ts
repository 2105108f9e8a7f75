import '../zodSetup';
import * as z from 'zod/mini';

/** The widest overlap that is made, points (2 mm): more is a new drawing, no help against plates that lie aside. */
export const WIDEST_TRAP = 5.67;
/** Letters of black alone overprint below this size (points) unless a design says otherwise: common practice. */
export const SMALL_BLACK = 18;

/** How plates are made from art, beside the inks and the paper; points. */
export const platesSchema = z.readonly(
  z.strictObject({
    /** How far inks that abut are laid over each other. Absent: not at all. */
    trap: z.optional(z.number().check(z.gt(0), z.lte(WIDEST_TRAP))),
    /** Letters of black alone that are smaller overprint; 0: none. Absent: the usual size. */
    smallBlack: z.optional(z.number().check(z.gte(0), z.lte(1000))),
  }),
);
