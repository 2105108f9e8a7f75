import '../zodSetup';
import * as z from 'zod';
import { colourSchema, id, matrix, name, unit01 } from './primitives';

/** No picture has more pixels than a machine can hold at once. */
export const MAX_PIXELS = 120_000_000;
/** What is said of a picture that has more; null where it has not. */
export const tooManyPixels = (width: number, height: number): string | null =>
  width * height > MAX_PIXELS
    ? `it has ${width} × ${height} pixels; ${Math.round(MAX_PIXELS / 1e6)} million are the most. Make a smaller copy`
    : null;

/** A picture of the design: a file by the name made from its content (or a shipped one), and what is known without opening it. */
export const pictureSchema = z
  .strictObject({
    id,
    /** As the person knows it: the name of the file that was placed. */
    name,
    file: z.string().regex(/^[A-Za-z0-9._-]{1,120}$/),
    /** Pixels, after the turn that the file asks for. */
    width: z.number().int().min(1).max(100_000),
    height: z.number().int().min(1).max(100_000),
    space: z.enum(['gray', 'rgb', 'cmyk']),
    /** Pixels an inch that the file asks for. */
    ppi: z.number().min(1).max(100_000).optional(),
    /** Some of it lets through what lies below. */
    alpha: z.boolean().optional(),
  })
  .readonly();

const signed = z.number().min(-1).max(1);
/** Points of a curve from darkness (x) to ink (y), by rising x. */
const curve = z
  .array(z.tuple([unit01, unit01]).readonly())
  .min(2)
  .max(12)
  .readonly();
const toneInkSchema = z
  .strictObject({ colour: colourSchema, /** Absent: straight. */ curve: curve.optional() })
  .readonly();

/** How a picture is changed on its way to the plates; its file stays as it is. Absent: not at all. */
const toneSchema = z
  .strictObject({
    brightness: signed.optional(),
    contrast: signed.optional(),
    saturation: signed.optional(),
    /** Towards bare paper, 0…1. */
    fade: unit01.optional(),
    invert: z.boolean().optional(),
    /** What becomes black and white, 0…1, and the exponent between. */
    levels: z
      .strictObject({ black: unit01, white: unit01, middle: z.number().min(0.1).max(10) })
      .readonly()
      .optional(),
    /** Printed in one or two inks (or recipes) by how dark it is. */
    inks: z.array(toneInkSchema).min(1).max(2).readonly().optional(),
    /** What looks like its edge and touches it is taken out: up to this difference (ΔE00), and as much again until it is fully there. */
    surround: z
      .strictObject({ tolerance: z.number().min(0).max(100), soft: z.number().min(0).max(100) })
      .readonly()
      .optional(),
  })
  .readonly();

export const picturePaintSchema = z
  .strictObject({
    kind: z.literal('picture'),
    picture: id,
    /** From the picture's unit square (0…1, y down) to the object's own space. */
    geometry: matrix,
    /** Beyond its edges: again, or again in a mirror. Absent: nothing. */
    tile: z.enum(['repeat', 'mirror']).optional(),
    tone: toneSchema.optional(),
    overprint: z.boolean(),
  })
  .readonly();

export type Picture = z.infer<typeof pictureSchema>;
export type PictureSpace = Picture['space'];
export type PicturePaint = z.infer<typeof picturePaintSchema>;
export type Tone = z.infer<typeof toneSchema>;
export type ToneInk = z.infer<typeof toneInkSchema>;
