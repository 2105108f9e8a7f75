import '../zodSetup';
import * as z from 'zod/mini';
import { colourSchema, id, matrix, name, unit01 } from './primitives';

/** No picture has more pixels than a machine can hold at once. */
export const MAX_PIXELS = 120_000_000;
/** What is said of a picture that has more; null where it has not. */
export const tooManyPixels = (width: number, height: number): string | null =>
  width * height > MAX_PIXELS
    ? `it has ${width} × ${height} pixels; ${Math.round(MAX_PIXELS / 1e6)} million are the most. Make a smaller copy`
    : null;

/**
 * A picture of the design: a file by the name made from its content (or a shipped one), and what is known without
 * opening it.
 */
export const pictureSchema = z.readonly(
  z.strictObject({
    id,
    /** As the person knows it: the name of the file that was placed. */
    name,
    file: z.string().check(z.regex(/^[A-Za-z0-9._-]{1,120}$/)),
    /** Pixels, after the turn that the file asks for. */
    width: z.number().check(z.int(), z.gte(1), z.lte(100_000)),
    height: z.number().check(z.int(), z.gte(1), z.lte(100_000)),
    space: z.enum(['gray', 'rgb', 'cmyk']),
    /** Pixels an inch that the file asks for. */
    ppi: z.optional(z.number().check(z.gte(1), z.lte(100_000))),
    /** Some of it lets through what lies below. */
    alpha: z.optional(z.boolean()),
  }),
);

const signed = z.number().check(z.gte(-1), z.lte(1));
/** Points of a curve from darkness (x) to ink (y), by rising x. */
const curve = z.readonly(z.array(z.readonly(z.tuple([unit01, unit01]))).check(z.minLength(2), z.maxLength(12)));
const toneInkSchema = z.readonly(
  z.strictObject({ colour: colourSchema, /** Absent: straight. */ curve: z.optional(curve) }),
);

/** How a picture is changed on its way to the plates; its file stays as it is. Absent: not at all. */
const toneSchema = z.readonly(
  z.strictObject({
    brightness: z.optional(signed),
    contrast: z.optional(signed),
    saturation: z.optional(signed),
    /** Towards bare paper, 0…1. */
    fade: z.optional(unit01),
    invert: z.optional(z.boolean()),
    /** What becomes black and white, 0…1, and the exponent between. */
    levels: z.optional(
      z.readonly(z.strictObject({ black: unit01, white: unit01, middle: z.number().check(z.gte(0.1), z.lte(10)) })),
    ),
    /** Printed in one or two inks (or recipes) by how dark it is. */
    inks: z.optional(z.readonly(z.array(toneInkSchema).check(z.minLength(1), z.maxLength(2)))),
    /**
     * What looks like its edge and touches it is taken out: up to this difference (ΔE00), and as much again until it is
     * fully there.
     */
    surround: z.optional(
      z.readonly(
        z.strictObject({
          tolerance: z.number().check(z.gte(0), z.lte(100)),
          soft: z.number().check(z.gte(0), z.lte(100)),
        }),
      ),
    ),
  }),
);

export const picturePaintSchema = z.readonly(
  z.strictObject({
    kind: z.literal('picture'),
    picture: id,
    /** From the picture's unit square (0…1, y down) to the object's own space. */
    geometry: matrix,
    /** Beyond its edges: again, or again in a mirror. Absent: nothing. */
    tile: z.optional(z.enum(['repeat', 'mirror'])),
    tone: z.optional(toneSchema),
    overprint: z.boolean(),
  }),
);

export type Picture = z.infer<typeof pictureSchema>;
export type PictureSpace = Picture['space'];
export type PicturePaint = z.infer<typeof picturePaintSchema>;
export type Tone = z.infer<typeof toneSchema>;
export type ToneInk = z.infer<typeof toneInkSchema>;
