import '../../zodSetup';
import * as z from 'zod/mini';

/** What stands round the sheet, outside the bleed. */
const pdfMarksSchema = z.readonly(
  z.strictObject({
    /** Where it is cut. */
    crop: z.boolean(),
    /** Targets that plates are laid on each other by. */
    registration: z.boolean(),
    /** Patches of each ink. */
    bar: z.boolean(),
    /** Name, page, state and day in words. */
    words: z.boolean(),
  }),
);
export type PdfMarks = z.infer<typeof pdfMarksSchema>;
export const ALL_MARKS: PdfMarks = { crop: true, registration: true, bar: true, words: false };
export const NO_MARKS: PdfMarks = { crop: false, registration: false, bar: false, words: false };

/** How a PDF is made of a design. What is absent is as a print shop wants it. */
export const pdfOptionsSchema = z.readonly(
  z.strictObject({
    /** All (true), none (false), or each by itself. */
    marks: z.union([z.boolean(), pdfMarksSchema]),
    /** `x4`: PDF/X-4 for a press; `plain`: PDF 1.7 for offices and screens. Absent: x4. */
    standard: z.optional(z.enum(['x4', 'plain'])),
    /** False: cut at the trim. */
    bleed: z.optional(z.boolean()),
    /** Flat screen colours stay RGB, tagged as sRGB, and are separated at the printer’s; otherwise here. */
    keepRgb: z.optional(z.boolean()),
    /** Letters become outlines: nothing can be found or copied, and no face is needed. */
    outlines: z.optional(z.boolean()),
    /**
     * `standIns`: spot inks are printed from their process recipes; `one`: all of it in one ink. Absent: each has its
     * plate.
     */
    spots: z.optional(z.enum(['keep', 'standIns', 'one'])),
    /** The one ink: its id, or `black`. */
    ink: z.optional(z.string().check(z.maxLength(120))),
    /** Pictures have no more pixels an inch than that. */
    ppi: z.optional(z.number().check(z.gte(36), z.lte(2400))),
    /** The design's layers can be shown and hidden. */
    layers: z.optional(z.boolean()),
    /** Read aloud in order, with words for pictures. */
    tagged: z.optional(z.boolean()),
    /** Pages that face each other are one sheet. */
    spreads: z.optional(z.boolean()),
  }),
);
export type PdfOptions = z.infer<typeof pdfOptionsSchema>;

/** The marks that options ask for, each by itself. */
export const marksOf = ({ marks }: PdfOptions): PdfMarks =>
  typeof marks === 'boolean' ? (marks ? ALL_MARKS : NO_MARKS) : marks;
