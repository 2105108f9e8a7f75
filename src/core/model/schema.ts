import '../zodSetup';
import * as z from 'zod';
import { effects } from './effects';
import { mixingSchema, outlineSchema, paintSchema, stops } from './paintSchema';
import { pictureSchema } from './pictureSchema';
import {
  cmykSchema,
  colourSchema,
  coordinate,
  id,
  lab,
  MAX_PAGE,
  matrix,
  measure,
  name,
  ownColourSchema,
  pathNumbers,
  unit01,
} from './primitives';
import { faceSchema } from './faceSchema';
import { alongSchema, bendSchema, storySchema, textLookSchema } from './textSchema';

export { midpointSchema, mixingSchema, paintSchema } from './paintSchema';
export { cmykSchema, colourSchema, FAR, MAX_PAGE, ownColourSchema } from './primitives';
export { type Effect, type EffectKind, type EffectOf, type Shadow } from './effects';
export {
  type Along,
  type Bend,
  type BendKind,
  type Letters,
  type Paragraph,
  type ParagraphSet,
  type Run,
  type Story,
  type TabStop,
  type TextLook,
} from './textSchema';
export { type Picture, type PicturePaint, type PictureSpace, type Tone, type ToneInk } from './pictureSchema';

/** The document, as it is kept and exchanged. Lengths in points, angles in degrees, inks 0…1, y down. */
export const FORMAT = 'holvet/3';

/** The group of the tray that a swatch lies in; absent: none. */
const group = z.string().min(1).max(80).optional();
const swatchSchema = z.union([
  z.strictObject({ id, name, kind: z.literal('colour'), colour: ownColourSchema, group }).readonly(),
  z.strictObject({ id, name, kind: z.literal('ramp'), stops, mixing: mixingSchema, group }).readonly(),
]);

/**
 * A spot ink of the design. `lab` is the solid on paper, `alternate` its process stand-in. Inks print after the process
 * inks in the order of the list. Absent switches are off.
 */
export const inkSchema = z
  .strictObject({
    id,
    name: z.string().min(1).max(80),
    lab,
    alternate: cmykSchema,
    /** Printed from its stand-in recipe: no plate of its own. */
    asStandIn: z.boolean().optional(),
    /** Hides what was printed before it. */
    opaque: z.boolean().optional(),
    /** What is given this ink overprints unless it is told otherwise. */
    overprints: z.boolean().optional(),
  })
  .readonly();

/** What is made of a corner: an arc inwards or outwards, or a cut, that begins `radius` from it (an arc of that radius at a right angle). */
const cornerSchema = z.strictObject({ radius: measure, kind: z.enum(['round', 'cut', 'scoop']) }).readonly();
/** Corners of a path, by the number of their node; `all` for those that are not told otherwise. */
const corners = z
  .strictObject({
    all: cornerSchema.optional(),
    each: z
      .record(z.string().regex(/^\d{1,6}$/), cornerSchema)
      .readonly()
      .optional(),
  })
  .readonly()
  .optional();

/** No more copies of one thing than a page can be drawn with. */
export const MOST_COPIES = 2000;
const copies = z.number().int().min(1).max(MOST_COPIES);
const turn = z.number().min(-36_000).max(36_000);
const point = z.strictObject({ x: coordinate, y: coordinate }).readonly();
/** How copies lie, in the repeat's own space. Each copy after the first turns and grows by `turn` and `scale` about `about`. */
const alike = { turn: turn.optional(), scale: z.number().min(0.1).max(10).optional(), about: point };
const arrangementSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('row'), count: copies, step: point, ...alike }).readonly(),
  z
    .strictObject({ kind: z.literal('grid'), columns: copies, rows: copies, across: point, down: point, ...alike })
    .readonly(),
  /** `step` degrees round `centre`; `upright`: copies do not turn with the ring. */
  z
    .strictObject({
      kind: z.literal('ring'),
      count: copies,
      step: turn,
      centre: point,
      upright: z.boolean().optional(),
      ...alike,
    })
    .readonly(),
]);

/** How colours meet those below them; the words of PDF and CSS. */
export const BLENDS = [
  'multiply',
  'screen',
  'overlay',
  'darken',
  'lighten',
  'color-dodge',
  'color-burn',
  'hard-light',
  'soft-light',
  'difference',
  'exclusion',
  'hue',
  'saturation',
  'color',
  'luminosity',
] as const;

const nodeBase = {
  id,
  name,
  transform: matrix,
  hidden: z.boolean(),
  locked: z.boolean(),
  /** Of the object as a whole. Absent: 1, nothing shows through. */
  opacity: unit01.optional(),
  blend: z.enum(BLENDS).optional(),
  /** What is made of it beside itself, the first lowest. Absent: nothing. */
  effects: effects.optional(),
  /** Inside a group: it is not seen itself, but cuts what lies beside it: by its outline, by how far it would cover, or by how light it would be there. */
  maskMode: z.enum(['outline', 'opacity', 'light']).optional(),
};
const fills = z.array(paintSchema).max(16).readonly();
const outlines = z.array(outlineSchema).max(16).readonly();
const children = z.array(id).max(100_000).readonly();

const windowSchema = z.union([
  z.strictObject({ shape: id, knobs: z.record(z.string().max(40), z.number()).readonly(), corners }).readonly(),
  /** The path lies in a box of 1 by 1. */
  z.strictObject({ path: pathNumbers, fillRule: z.enum(['nonZero', 'evenOdd']) }).readonly(),
]);

export const nodeSchema = z.discriminatedUnion('kind', [
  /** `layer`: a part of the pile that is worked on as one, at the top of a page. */
  z.strictObject({ ...nodeBase, kind: z.literal('group'), children, layer: z.boolean().optional() }).readonly(),
  z
    .strictObject({
      ...nodeBase,
      kind: z.literal('shape'),
      shape: id,
      width: measure,
      height: measure,
      knobs: z.record(z.string().max(40), z.number()).readonly(),
      corners,
      fills,
      outlines,
    })
    .readonly(),
  /**
   * `kinds`: a letter a node (c corner, s smooth, y symmetric), for editing. `widths`: the outline's width at every node as a
   * share of its full width, from a pen's pressure.
   */
  z
    .strictObject({
      ...nodeBase,
      kind: z.literal('path'),
      path: pathNumbers,
      fillRule: z.enum(['nonZero', 'evenOdd']),
      corners,
      kinds: z
        .string()
        .max(1_000_000)
        .regex(/^[csy]*$/)
        .optional(),
      widths: z.array(unit01).max(1_000_000).readonly().optional(),
      fills,
      outlines,
    })
    .readonly(),
  /**
   * Shapes, texts and groups combined, back to front, that can still be changed. Subtract: the rest from the first, or
   * with `reversed` from the last. Divide: every piece has the paints of the frontmost operand over it; else the
   * combination has its own.
   */
  z
    .strictObject({
      ...nodeBase,
      kind: z.literal('combination'),
      op: z.enum(['union', 'subtract', 'intersect', 'exclude', 'divide']),
      reversed: z.boolean().optional(),
      children,
      fills,
      outlines,
    })
    .readonly(),
  z.strictObject({ ...nodeBase, kind: z.literal('repeat'), arrangement: arrangementSchema, children }).readonly(),
  z
    .strictObject({
      ...nodeBase,
      kind: z.literal('displayText'),
      story: id,
      stretch: z.number().min(0.01).max(100),
      /** It stands on a line instead of straight ones. */
      along: alongSchema.optional(),
      /** Its letters are bent, after all else. */
      bend: bendSchema.optional(),
    })
    .readonly(),
  /** `window`: the frame is a dialled shape or a path (in the frame's own width and height) instead of a box. */
  z
    .strictObject({
      ...nodeBase,
      kind: z.literal('textFrame'),
      story: id,
      width: measure,
      height: measure,
      /** How far words stay off its edges; on all sides, or each. */
      inset: z.union([
        measure,
        z.strictObject({ top: measure, right: measure, bottom: measure, left: measure }).readonly(),
      ]),
      /** Absent: one. */
      columns: z
        .strictObject({ count: z.number().int().min(1).max(20), gutter: measure })
        .readonly()
        .optional(),
      /** Where words stand in its height. Absent: at its head. */
      placing: z.enum(['middle', 'foot', 'spread']).optional(),
      /** Its words become smaller until they fit, but no letter smaller than so many points. */
      fit: z
        .strictObject({ least: z.number().min(0.1).max(10_000) })
        .readonly()
        .optional(),
      window: windowSchema.optional(),
      fills,
      outlines,
    })
    .readonly(),
  /** A kind of object that a later version made: kept as it came, with what it holds, and not drawn. */
  z
    .strictObject({
      ...nodeBase,
      kind: z.literal('unknown'),
      children,
      was: z.record(z.string(), z.unknown()).readonly(),
    })
    .readonly(),
]);

const setupSchema = z
  .strictObject({
    /** `print` designs are made of inks, `screen` designs of red, green and blue light. */
    medium: z.enum(['print', 'screen']),
    width: z.number().min(1).max(MAX_PAGE),
    height: z.number().min(1).max(MAX_PAGE),
    round: z.boolean(),
    unit: z.enum(['mm', 'cm', 'in', 'pt', 'px']),
    bleed: z
      .number()
      .min(0)
      .max(MAX_PAGE / 4),
    margins: z.strictObject({ top: measure, right: measure, bottom: measure, left: measure }).readonly(),
    columns: z.strictObject({ count: z.number().int().min(1).max(40), gutter: measure }).readonly(),
  })
  .readonly();

const guide = z.strictObject({ axis: z.enum(['x', 'y']), at: coordinate, locked: z.boolean().optional() }).readonly();
export const pageSchema = z
  .strictObject({ id, name, children, guides: z.array(guide).max(1000).readonly().optional() })
  .readonly();

export const designSchema = z
  .strictObject({
    format: z.literal(FORMAT),
    id,
    name: name.min(1),
    created: z.iso.datetime(),
    modified: z.iso.datetime(),
    setup: setupSchema,
    /**
     * The output profile: a shipped file, or `sha256-….icc` for one that the person opened, then with its name; and the
     * most ink it bears at a point (1 = 100 %).
     */
    profile: z
      .strictObject({
        file: z
          .string()
          .max(120)
          .regex(/^[A-Za-z0-9][A-Za-z0-9_-]*(\.[A-Za-z0-9_-]+)*$/),
        name: z.string().max(200).optional(),
        totalInkLimit: z.number().min(0.5).max(4),
      })
      .readonly(),
    inks: z.array(inkSchema).max(27).readonly(),
    swatches: z.array(swatchSchema).max(5000).readonly(),
    pages: z.array(pageSchema).min(1).max(2000).readonly(),
    nodes: z.record(id, nodeSchema).readonly(),
    stories: z.record(id, storySchema).readonly(),
    /** Pictures that paints refer to. Absent: none. */
    pictures: z.array(pictureSchema).max(5000).readonly().optional(),
    /** Faces of its own, beside those that ship. Absent: none. */
    faces: z.array(faceSchema).max(1000).readonly().optional(),
    /** How texts look, by name: those of a kind change together. Absent: none. */
    textLooks: z.array(textLookSchema).max(1000).readonly().optional(),
  })
  .readonly();

export type Design = z.infer<typeof designSchema>;
export type Setup = z.infer<typeof setupSchema>;
export type Page = z.infer<typeof pageSchema>;
export type DesignNode = z.infer<typeof nodeSchema>;
export type NodeKind = DesignNode['kind'];
export type NodeOf<K extends NodeKind> = Extract<DesignNode, { kind: K }>;
export type Colour = z.infer<typeof colourSchema>;
export type OwnColour = z.infer<typeof ownColourSchema>;
export type Cmyk = z.infer<typeof cmykSchema>;
export type Stop = z.infer<typeof stops>[number];
export type Swatch = z.infer<typeof swatchSchema>;
export type Ink = z.infer<typeof inkSchema>;
export type Paint = z.infer<typeof paintSchema>;
export type GradientPaint = Extract<Paint, { kind: 'gradient' }>;
export type PoolsPaint = Extract<Paint, { kind: 'pools' }>;
export type Blend = (typeof BLENDS)[number];
export type Pool = PoolsPaint['pools'][number];
export type Ramp = GradientPaint['ramp'];
export type Mixing = NonNullable<Extract<Ramp, { stops: unknown }>['mixing']>;
export type Window = z.infer<typeof windowSchema>;
export type Corner = z.infer<typeof cornerSchema>;
export type Corners = NonNullable<NodeOf<'path'>['corners']>;
export type Arrangement = z.infer<typeof arrangementSchema>;
export type Guide = z.infer<typeof guide>;
export type Outline = z.infer<typeof outlineSchema>;
