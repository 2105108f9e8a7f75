import '../zodSetup';
import * as z from 'zod/mini';
import { outlineSchema, paintSchema } from './paintSchema';
import { FAR, id, measure, name, pathNumbers } from './primitives';

const shift = z.number().check(z.gte(-FAR), z.lte(FAR));
const size = z.number().check(z.gte(0.1), z.lte(10_000));
/** Four characters that name an OpenType feature or an axis of a variable face. */
const tag = z.string().check(z.regex(/^[ -~]{4}$/));
/** Languages whose words can be divided; BCP 47. */
export const LANGUAGES = ['en', 'de', 'fi', 'fr', 'es'] as const;

/** How letters are set. A run and a look say only what they set otherwise; lengths in points. */
const LETTERS = {
  face: id,
  size,
  /** Thousandths of an em after each letter. */
  tracking: z.number().check(z.gte(-500), z.lte(5000)),
  kerning: z.boolean(),
  /** How far above its line it stands. */
  baselineShift: shift,
  position: z.enum(['normal', 'super', 'sub']),
  case: z.enum(['typed', 'capitals', 'smallCapitals']),
  underline: z.boolean(),
  strike: z.boolean(),
  ligatures: z.boolean(),
  /** OpenType features that are switched, by tag: 0 off, 1 on, or which of several. */
  features: z.readonly(z.record(tag, z.number().check(z.int(), z.gte(0), z.lte(99)))),
  /** Of a variable face: where on its axes, by tag, in the axes' own units. */
  axes: z.readonly(z.record(tag, z.number().check(z.gte(-100_000), z.lte(100_000)))),
  language: z.enum(LANGUAGES),
  fill: paintSchema,
  outline: z.nullable(outlineSchema),
};

const tabStop = z.readonly(
  z.strictObject({
    /** From the left of the column. */
    at: measure,
    align: z.enum(['left', 'middle', 'right', 'decimal']),
    /** What fills the way to it. */
    leader: z.optional(z.string().check(z.maxLength(8))),
  }),
);

/** How a paragraph is set; lengths in points. */
const PARAGRAPH = {
  align: z.enum(['left', 'middle', 'right', 'full']),
  /** Line to line: as a multiple of the largest size in the line, or in points. */
  leading: z.union([z.number().check(z.gte(0.1), z.lte(10)), z.readonly(z.strictObject({ points: size }))]),
  spaceBefore: measure,
  spaceAfter: measure,
  indentLeft: measure,
  indentRight: measure,
  /** Of the first line, added to the left; negative hangs out. */
  indentFirst: shift,
  tabs: z.readonly(z.array(tabStop).check(z.maxLength(100))),
  list: z.nullable(
    z.discriminatedUnion('kind', [
      z.readonly(
        z.strictObject({ kind: z.literal('bullets'), mark: z.string().check(z.minLength(1), z.maxLength(8)) }),
      ),
      z.readonly(
        z.strictObject({
          kind: z.literal('numbers'),
          style: z.enum(['decimal', 'lowerLetters', 'capitals', 'lowerRoman', 'capitalRoman']),
          after: z.string().check(z.maxLength(4)),
          /** Begins anew with this number. Absent: goes on from the paragraph before. */
          start: z.optional(z.number().check(z.int(), z.gte(0), z.lte(100_000))),
        }),
      ),
    ]),
  ),
  hyphenate: z.boolean(),
  /** Marks at the edges hang out a little, so that the edge looks even. */
  opticalMargin: z.boolean(),
  /** So many lines of it at least stand together at the foot of a column and at the head of the next. */
  keepLines: z.number().check(z.int(), z.gte(1), z.lte(10)),
  dropCapital: z.nullable(
    z.readonly(
      z.strictObject({
        lines: z.number().check(z.int(), z.gte(2), z.lte(20)),
        letters: z.number().check(z.int(), z.gte(1), z.lte(100)),
      }),
    ),
  ),
  direction: z.enum(['auto', 'ltr', 'rtl']),
};

/** A line that display text stands on, in the text's own space. */
export const alongSchema = z.readonly(
  z.strictObject({
    /** A circle about the origin, from its top clockwise; or a path, its first contour. */
    line: z.union([
      z.readonly(z.strictObject({ radius: z.number().check(z.gte(0.1), z.lte(FAR)) })),
      z.readonly(z.strictObject({ path: pathNumbers })),
    ]),
    /** Where on it, as a share of its length: there words begin, are centred or end, as they are aligned. */
    at: z.number().check(z.gte(-10), z.lte(10)),
    /** Where words end that are aligned to both sides. Absent: once round, or at its end. */
    to: z.optional(z.number().check(z.gte(-10), z.lte(10))),
    /** Against the way it runs, letters on its other side. */
    reversed: z.optional(z.boolean()),
    /** How far letters stand off it, towards their heads. */
    distance: z.optional(shift),
    /** What of the letters touches it. Absent: their feet. */
    touches: z.optional(z.enum(['middle', 'heads'])),
    /** Letters do not turn with it. */
    upright: z.optional(z.boolean()),
  }),
);

/** How display text is bent. Strength and tilts −1…1. */
export const BENDS = ['arch', 'dip', 'wave', 'climb', 'barrel', 'waist', 'fan'] as const;
const tilt = z.number().check(z.gte(-1), z.lte(1));
export const bendSchema = z.readonly(
  z.strictObject({ kind: z.enum(BENDS), strength: tilt, tiltX: z.optional(tilt), tiltY: z.optional(tilt) }),
);

const own = { letters: z.partial(z.strictObject(LETTERS)), paragraph: z.partial(z.strictObject(PARAGRAPH)) };
/** What a page says of itself where it is asked for. */
export const FIELDS = ['page', 'pages', 'section', 'design', 'date', 'file', 'version'] as const;
/** In a run with a field, this character stands for what the page says there (object replacement, Unicode). */
export const FIELD_MARK = '\uFFFC';
/**
 * `look`: the letters' look that it follows in all that it does not say itself. `field`: what each field mark in it
 * stands for.
 */
const runSchema = z.readonly(
  z.extend(own.letters, {
    text: z.string().check(z.maxLength(1_000_000)),
    look: z.optional(id),
    field: z.optional(z.enum(FIELDS)),
  }),
);
const paragraphSchema = z.readonly(
  z.extend(own.paragraph, { look: z.optional(id), runs: z.readonly(z.array(runSchema).check(z.minLength(1))) }),
);
/** `frames`: where several text frames share it, in the order in which it runs through them. */
export const storySchema = z.readonly(
  z.strictObject({
    id,
    paragraphs: z.readonly(z.array(paragraphSchema).check(z.minLength(1))),
    frames: z.optional(z.readonly(z.array(id).check(z.minLength(2), z.maxLength(2000)))),
  }),
);

/** A look of paragraphs (with the letters in them) or of letters alone; what it does not say is its base's. */
export const textLookSchema = z.discriminatedUnion('kind', [
  z.readonly(
    z.strictObject({
      id,
      name: name.check(z.minLength(1)),
      kind: z.literal('paragraph'),
      basedOn: z.optional(id),
      paragraph: z.readonly(own.paragraph),
      letters: z.readonly(own.letters),
    }),
  ),
  z.readonly(
    z.strictObject({
      id,
      name: name.check(z.minLength(1)),
      kind: z.literal('letters'),
      basedOn: z.optional(id),
      letters: z.readonly(own.letters),
    }),
  ),
]);

type All<T extends Record<string, z.ZodMiniType>> = { readonly [K in keyof T]: z.infer<T[K]> };
/** All that can be set of letters. */
export type Letters = All<typeof LETTERS>;
/** All that can be set of a paragraph. */
export type ParagraphSet = All<typeof PARAGRAPH>;
export type Along = z.infer<typeof alongSchema>;
export type Bend = z.infer<typeof bendSchema>;
export type BendKind = Bend['kind'];
export type TabStop = z.infer<typeof tabStop>;
export type Run = z.infer<typeof runSchema>;
export type Field = (typeof FIELDS)[number];
export type Paragraph = z.infer<typeof paragraphSchema>;
export type Story = z.infer<typeof storySchema>;
export type TextLook = z.infer<typeof textLookSchema>;
