import '../zodSetup';
import * as z from 'zod';
import { outlineSchema, paintSchema } from './paintSchema';
import { FAR, id, measure, name, pathNumbers } from './primitives';

const shift = z.number().min(-FAR).max(FAR);
const size = z.number().min(0.1).max(10_000);
/** Four characters that name an OpenType feature or an axis of a variable face. */
const tag = z.string().regex(/^[ -~]{4}$/);
/** Languages whose words can be divided; BCP 47. */
export const LANGUAGES = ['en', 'de', 'fi', 'fr', 'es'] as const;

/** How letters are set. A run and a look say only what they set otherwise; lengths in points. */
const LETTERS = {
  face: id,
  size,
  /** Thousandths of an em after each letter. */
  tracking: z.number().min(-500).max(5000),
  kerning: z.boolean(),
  /** How far above its line it stands. */
  baselineShift: shift,
  position: z.enum(['normal', 'super', 'sub']),
  case: z.enum(['typed', 'capitals', 'smallCapitals']),
  underline: z.boolean(),
  strike: z.boolean(),
  ligatures: z.boolean(),
  /** OpenType features that are switched, by tag: 0 off, 1 on, or which of several. */
  features: z.record(tag, z.number().int().min(0).max(99)).readonly(),
  /** Of a variable face: where on its axes, by tag, in the axes' own units. */
  axes: z.record(tag, z.number().min(-100_000).max(100_000)).readonly(),
  language: z.enum(LANGUAGES),
  fill: paintSchema,
  outline: outlineSchema.nullable(),
};

const tabStop = z
  .strictObject({
    /** From the left of the column. */
    at: measure,
    align: z.enum(['left', 'middle', 'right', 'decimal']),
    /** What fills the way to it. */
    leader: z.string().max(8).optional(),
  })
  .readonly();

/** How a paragraph is set; lengths in points. */
const PARAGRAPH = {
  align: z.enum(['left', 'middle', 'right', 'full']),
  /** Line to line: as a multiple of the largest size in the line, or in points. */
  leading: z.union([z.number().min(0.1).max(10), z.strictObject({ points: size }).readonly()]),
  spaceBefore: measure,
  spaceAfter: measure,
  indentLeft: measure,
  indentRight: measure,
  /** Of the first line, added to the left; negative hangs out. */
  indentFirst: shift,
  tabs: z.array(tabStop).max(100).readonly(),
  list: z
    .discriminatedUnion('kind', [
      z.strictObject({ kind: z.literal('bullets'), mark: z.string().min(1).max(8) }).readonly(),
      z
        .strictObject({
          kind: z.literal('numbers'),
          style: z.enum(['decimal', 'lowerLetters', 'capitals', 'lowerRoman', 'capitalRoman']),
          after: z.string().max(4),
          /** Begins anew with this number. Absent: goes on from the paragraph before. */
          start: z.number().int().min(0).max(100_000).optional(),
        })
        .readonly(),
    ])
    .nullable(),
  hyphenate: z.boolean(),
  /** Marks at the edges hang out a little, so that the edge looks even. */
  opticalMargin: z.boolean(),
  /** So many lines of it at least stand together at the foot of a column and at the head of the next. */
  keepLines: z.number().int().min(1).max(10),
  dropCapital: z
    .strictObject({ lines: z.number().int().min(2).max(20), letters: z.number().int().min(1).max(100) })
    .readonly()
    .nullable(),
  direction: z.enum(['auto', 'ltr', 'rtl']),
};

/** A line that display text stands on, in the text's own space. */
export const alongSchema = z
  .strictObject({
    /** A circle about the origin, from its top clockwise; or a path, its first contour. */
    line: z.union([
      z.strictObject({ radius: z.number().min(0.1).max(FAR) }).readonly(),
      z.strictObject({ path: pathNumbers }).readonly(),
    ]),
    /** Where on it, as a share of its length: there words begin, are centred or end, as they are aligned. */
    at: z.number().min(-10).max(10),
    /** Where words end that are aligned to both sides. Absent: once round, or at its end. */
    to: z.number().min(-10).max(10).optional(),
    /** Against the way it runs, letters on its other side. */
    reversed: z.boolean().optional(),
    /** How far letters stand off it, towards their heads. */
    distance: shift.optional(),
    /** What of the letters touches it. Absent: their feet. */
    touches: z.enum(['middle', 'heads']).optional(),
    /** Letters do not turn with it. */
    upright: z.boolean().optional(),
  })
  .readonly();

/** How display text is bent. Strength and tilts −1…1. */
export const BENDS = ['arch', 'dip', 'wave', 'climb', 'barrel', 'waist', 'fan'] as const;
const tilt = z.number().min(-1).max(1);
export const bendSchema = z
  .strictObject({ kind: z.enum(BENDS), strength: tilt, tiltX: tilt.optional(), tiltY: tilt.optional() })
  .readonly();

const own = { letters: z.strictObject(LETTERS).partial(), paragraph: z.strictObject(PARAGRAPH).partial() };
/** `look`: the letters' look that it follows in all that it does not say itself. */
const runSchema = own.letters.extend({ text: z.string().max(1_000_000), look: id.optional() }).readonly();
const paragraphSchema = own.paragraph
  .extend({ look: id.optional(), runs: z.array(runSchema).min(1).readonly() })
  .readonly();
/** `frames`: where several text frames share it, in the order in which it runs through them. */
export const storySchema = z
  .strictObject({
    id,
    paragraphs: z.array(paragraphSchema).min(1).readonly(),
    frames: z.array(id).min(2).max(2000).readonly().optional(),
  })
  .readonly();

/** A look of paragraphs (with the letters in them) or of letters alone; what it does not say is its base's. */
export const textLookSchema = z.discriminatedUnion('kind', [
  z
    .strictObject({
      id,
      name: name.min(1),
      kind: z.literal('paragraph'),
      basedOn: id.optional(),
      paragraph: own.paragraph.readonly(),
      letters: own.letters.readonly(),
    })
    .readonly(),
  z
    .strictObject({
      id,
      name: name.min(1),
      kind: z.literal('letters'),
      basedOn: id.optional(),
      letters: own.letters.readonly(),
    })
    .readonly(),
]);

type All<T extends Record<string, z.ZodType>> = { readonly [K in keyof T]: z.infer<T[K]> };
/** All that can be set of letters. */
export type Letters = All<typeof LETTERS>;
/** All that can be set of a paragraph. */
export type ParagraphSet = All<typeof PARAGRAPH>;
export type Along = z.infer<typeof alongSchema>;
export type Bend = z.infer<typeof bendSchema>;
export type BendKind = Bend['kind'];
export type TabStop = z.infer<typeof tabStop>;
export type Run = z.infer<typeof runSchema>;
export type Paragraph = z.infer<typeof paragraphSchema>;
export type Story = z.infer<typeof storySchema>;
export type TextLook = z.infer<typeof textLookSchema>;
