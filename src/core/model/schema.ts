import '../zodSetup';
import * as z from 'zod/mini';
import { checksSchema } from './checksSchema';
import { platesSchema } from './platesSchema';
import { depthSchema } from './depthSchema';
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
import { patternSchema } from './groundSchema';
import { regionsSchema } from './regionsSchema';
import { alongSchema, bendSchema, storySchema, textLookSchema } from './textSchema';

export { midpointSchema, mixingSchema, paintSchema } from './paintSchema';
export { cmykSchema, colourSchema, FAR, MAX_PAGE, ownColourSchema } from './primitives';
export { type Depth } from './depthSchema';
export { type Pattern } from './groundSchema';
export { type Effect, type EffectKind, type EffectOf, type Shadow } from './effects';
export { FIELD_MARK, FIELDS } from './textSchema';
export {
  type Along,
  type Bend,
  type BendKind,
  type Field,
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
const group = z.optional(z.string().check(z.minLength(1), z.maxLength(80)));
const swatchSchema = z.union([
  z.readonly(z.strictObject({ id, name, kind: z.literal('colour'), colour: ownColourSchema, group })),
  z.readonly(z.strictObject({ id, name, kind: z.literal('ramp'), stops, mixing: mixingSchema, group })),
]);

/**
 * A spot ink of the design. `lab` is the solid on paper, `alternate` its process stand-in. Inks print after the process
 * inks in the order of the list. Absent switches are off.
 */
export const inkSchema = z.readonly(
  z.strictObject({
    id,
    name: z.string().check(z.minLength(1), z.maxLength(80)),
    lab,
    alternate: cmykSchema,
    /** Printed from its stand-in recipe: no plate of its own. */
    asStandIn: z.optional(z.boolean()),
    /** Hides what was printed before it. */
    opaque: z.optional(z.boolean()),
    /** What is given this ink overprints unless it is told otherwise. */
    overprints: z.optional(z.boolean()),
  }),
);

/**
 * What is made of a corner: an arc inwards or outwards, or a cut, that begins `radius` from it (an arc of that radius
 * at a right angle).
 */
const cornerSchema = z.readonly(z.strictObject({ radius: measure, kind: z.enum(['round', 'cut', 'scoop']) }));
/** Corners of a path, by the number of their node; `all` for those that are not told otherwise. */
const corners = z.optional(
  z.readonly(
    z.strictObject({
      all: z.optional(cornerSchema),
      each: z.optional(z.readonly(z.record(z.string().check(z.regex(/^\d{1,6}$/)), cornerSchema))),
    }),
  ),
);

/** No more copies of one thing than a page can be drawn with. */
export const MOST_COPIES = 2000;
const copies = z.number().check(z.int(), z.gte(1), z.lte(MOST_COPIES));
const turn = z.number().check(z.gte(-36_000), z.lte(36_000));
const point = z.readonly(z.strictObject({ x: coordinate, y: coordinate }));
/**
 * How copies lie, in the repeat's own space. Each copy after the first turns and grows by `turn` and `scale` about
 * `about`.
 */
const alike = { turn: z.optional(turn), scale: z.optional(z.number().check(z.gte(0.1), z.lte(10))), about: point };
const arrangementSchema = z.discriminatedUnion('kind', [
  z.readonly(z.strictObject({ kind: z.literal('row'), count: copies, step: point, ...alike })),
  z.readonly(
    z.strictObject({ kind: z.literal('grid'), columns: copies, rows: copies, across: point, down: point, ...alike }),
  ),
  /** `step` degrees round `centre`; `upright`: copies do not turn with the ring. */
  z.readonly(
    z.strictObject({
      kind: z.literal('ring'),
      count: copies,
      step: turn,
      centre: point,
      upright: z.optional(z.boolean()),
      ...alike,
    }),
  ),
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
  /** What is said of it to those who cannot see it. Absent: its name, of a picture. */
  alt: z.optional(z.string().check(z.minLength(1), z.maxLength(1000))),
  /** Of the object as a whole. Absent: 1, nothing shows through. */
  opacity: z.optional(unit01),
  blend: z.optional(z.enum(BLENDS)),
  /** What is made of it beside itself, the first lowest. Absent: nothing. */
  effects: z.optional(effects),
  /** Words in frames of its page run round it, and stay so far off it. Absent: over it. */
  pushesWords: z.optional(measure),
  /**
   * Inside a group: it is not seen itself, but cuts what lies beside it: by its outline, by how far it would cover, or
   * by how light it would be there.
   */
  maskMode: z.optional(z.enum(['outline', 'opacity', 'light'])),
};
/** Pushed back in space. Absent: flat. */
const depth = z.optional(depthSchema);
const fills = z.readonly(z.array(paintSchema).check(z.maxLength(16)));
const outlines = z.readonly(z.array(outlineSchema).check(z.maxLength(16)));
/** Lines round all letters of a text at once, beside those that its runs have, bottom to top. */
const letterOutlines = z.optional(z.readonly(z.array(outlineSchema).check(z.minLength(1), z.maxLength(8))));
const children = z.readonly(z.array(id).check(z.maxLength(100_000)));

const windowSchema = z.union([
  z.readonly(
    z.strictObject({ shape: id, knobs: z.readonly(z.record(z.string().check(z.maxLength(40)), z.number())), corners }),
  ),
  /** The path lies in a box of 1 by 1. */
  z.readonly(z.strictObject({ path: pathNumbers, fillRule: z.enum(['nonZero', 'evenOdd']) })),
]);

/** Lines at even distances: the first so far from the head, then one each step; points. */
const baselineSchema = z.readonly(
  z.strictObject({ start: measure, step: z.number().check(z.gte(0.5), z.lte(MAX_PAGE)) }),
);

export const nodeSchema = z.discriminatedUnion('kind', [
  /** `layer`: a part of the pile that is worked on as one, at the top of a page. */
  z.readonly(
    z.strictObject({
      ...nodeBase,
      kind: z.literal('group'),
      children,
      layer: z.optional(z.boolean()),
      /** Of a layer: shown, and never printed. */
      proof: z.optional(z.boolean()),
      /** The areas that its lines enclose, coloured below them. */
      regions: z.optional(regionsSchema),
      /** What it was made of, with its values: they can be set anew. */
      ready: z.optional(
        z.readonly(z.strictObject({ id, values: z.readonly(z.record(z.string().check(z.maxLength(40)), z.number())) })),
      ),
    }),
  ),
  z.readonly(
    z.strictObject({
      ...nodeBase,
      kind: z.literal('shape'),
      shape: id,
      width: measure,
      height: measure,
      knobs: z.readonly(z.record(z.string().check(z.maxLength(40)), z.number())),
      corners,
      depth,
      fills,
      outlines,
    }),
  ),
  /**
   * `kinds`: a letter a node (c corner, s smooth, y symmetric), for editing. `widths`: the outline's width at every
   * node as a share of its full width, from a pen's pressure.
   */
  z.readonly(
    z.strictObject({
      ...nodeBase,
      kind: z.literal('path'),
      path: pathNumbers,
      fillRule: z.enum(['nonZero', 'evenOdd']),
      corners,
      kinds: z.optional(z.string().check(z.maxLength(1_000_000), z.regex(/^[csy]*$/))),
      widths: z.optional(z.readonly(z.array(unit01).check(z.maxLength(1_000_000)))),
      depth,
      fills,
      outlines,
    }),
  ),
  /**
   * Shapes, texts and groups combined, back to front, that can still be changed. Subtract: the rest from the first, or
   * with `reversed` from the last. Divide: every piece has the paints of the frontmost operand over it; else the
   * combination has its own.
   */
  z.readonly(
    z.strictObject({
      ...nodeBase,
      kind: z.literal('combination'),
      op: z.enum(['union', 'subtract', 'intersect', 'exclude', 'divide']),
      reversed: z.optional(z.boolean()),
      children,
      depth,
      fills,
      outlines,
    }),
  ),
  z.readonly(z.strictObject({ ...nodeBase, kind: z.literal('repeat'), arrangement: arrangementSchema, children })),
  z.readonly(
    z.strictObject({
      ...nodeBase,
      kind: z.literal('displayText'),
      story: id,
      stretch: z.number().check(z.gte(0.01), z.lte(100)),
      /** It stands on a line instead of straight ones. */
      along: z.optional(alongSchema),
      /** Its letters are bent, after all else. */
      bend: z.optional(bendSchema),
      depth,
      letterOutlines,
    }),
  ),
  /** `window`: the frame is a dialled shape or a path (in the frame's own width and height) instead of a box. */
  z.readonly(
    z.strictObject({
      ...nodeBase,
      kind: z.literal('textFrame'),
      story: id,
      width: measure,
      height: measure,
      /** How far words stay off its edges; on all sides, or each. */
      inset: z.union([
        measure,
        z.readonly(z.strictObject({ top: measure, right: measure, bottom: measure, left: measure })),
      ]),
      /** Absent: one. */
      columns: z.optional(
        z.readonly(z.strictObject({ count: z.number().check(z.int(), z.gte(1), z.lte(20)), gutter: measure })),
      ),
      /** Where words stand in its height. Absent: at its head. */
      placing: z.optional(z.enum(['middle', 'foot', 'spread'])),
      /** Its words become smaller until they fit, but no letter smaller than so many points. */
      fit: z.optional(z.readonly(z.strictObject({ least: z.number().check(z.gte(0.1), z.lte(10_000)) }))),
      /** Lines stand on these only, seen from its head. Absent: where their leading puts them. */
      baseline: z.optional(baselineSchema),
      window: z.optional(windowSchema),
      fills,
      outlines,
      letterOutlines,
    }),
  ),
  /** A kind of object that a later version made: kept as it came, with what it holds, and not drawn. */
  z.readonly(
    z.strictObject({
      ...nodeBase,
      kind: z.literal('unknown'),
      children,
      was: z.readonly(z.record(z.string(), z.unknown())),
    }),
  ),
]);

/** Where things stand on a sheet: all lengths in points. */
const gridParts = {
  margins: z.readonly(z.strictObject({ top: measure, right: measure, bottom: measure, left: measure })),
  columns: z.readonly(z.strictObject({ count: z.number().check(z.int(), z.gte(1), z.lte(40)), gutter: measure })),
  /** Lines of text stand on these: the first so far from the head, then one each step. Absent: none. */
  baseline: z.optional(baselineSchema),
};
const formatParts = {
  width: z.number().check(z.gte(1), z.lte(MAX_PAGE)),
  height: z.number().check(z.gte(1), z.lte(MAX_PAGE)),
  round: z.boolean(),
};
/** The size of a sheet, points. */
export const formatSchema = z.readonly(z.strictObject(formatParts));

const setupSchema = z.readonly(
  z.strictObject({
    /** `print` designs are made of inks, `screen` designs of red, green and blue light. */
    medium: z.enum(['print', 'screen']),
    ...formatParts,
    /** Pages face each other, the first on that side. Absent: each stands alone. */
    facing: z.optional(z.enum(['left', 'right'])),
    /**
     * Pages that face each other end at the fold: nothing is drawn past it. Absent: they have their bleed there too.
     */
    endAtFold: z.optional(z.literal(true)),
    unit: z.enum(['mm', 'cm', 'in', 'pt', 'px']),
    bleed: z.number().check(z.gte(0), z.lte(MAX_PAGE / 4)),
    ...gridParts,
  }),
);

const guide = z.readonly(z.strictObject({ axis: z.enum(['x', 'y']), at: coordinate, locked: z.optional(z.boolean()) }));
/** A page, or a master: what others have below what is their own. */
export const pageSchema = z.readonly(
  z.strictObject({
    id,
    name,
    children,
    guides: z.optional(z.readonly(z.array(guide).check(z.maxLength(1000)))),
    /**
     * What lies below everything, to the bleed; geometry in the unit square over the page with its bleed. Absent: its
     * master's.
     */
    ground: z.optional(paintSchema),
    /** Drawn over a ground of its own. Absent: none. */
    pattern: z.optional(patternSchema),
    /** A format of its own. Absent: the design's. */
    format: z.optional(formatSchema),
    /**
     * Margins, columns and baseline grid of its own, in points. Absent: its master's, and where none has them the
     * design's.
     */
    grid: z.optional(z.readonly(z.strictObject(gridParts))),
    /** The master that it stands on. Absent: none. */
    master: z.optional(id),
    /** Of a master: another that pages on the left of a fold have in its place. */
    onLeft: z.optional(id),
    /**
     * Objects of its masters that it has taken over, and what lies here in their place; that may be gone: then they are
     * not shown here.
     */
    takenOver: z.optional(z.readonly(z.record(id, id))),
    /** Numbers begin anew on it. Absent: they go on from the page before; the first is 1. */
    numbering: z.optional(
      z.readonly(
        z.strictObject({
          start: z.number().check(z.int(), z.gte(0), z.lte(99_999)),
          style: z.enum(['decimal', 'lowerLetters', 'capitals', 'lowerRoman', 'capitalRoman']),
          /** What stands before every number: “A-”. */
          before: z.optional(z.string().check(z.maxLength(20))),
          /** What begins here, by its name. */
          section: z.optional(z.string().check(z.maxLength(80))),
        }),
      ),
    ),
  }),
);

/**
 * What of a design may be filled in anew: the words of a story, a picture, a swatch; `of` is its id. One that is gone
 * is asked for no more.
 */
const askSchema = z.readonly(
  z.strictObject({
    kind: z.enum(['words', 'picture', 'colour']),
    of: id,
    label: z.string().check(z.minLength(1), z.maxLength(80)),
  }),
);

const told = z.optional(z.string().check(z.maxLength(400)));
const aboutSchema = z.readonly(z.strictObject({ author: told, subject: told, keywords: told }));

export const designSchema = z.readonly(
  z.strictObject({
    format: z.literal(FORMAT),
    id,
    name: name.check(z.minLength(1)),
    /** What its maker calls this state of it: “2nd proof”. */
    version: z.optional(z.string().check(z.maxLength(80))),
    /** What files made of it say of themselves. Absent: nothing but its name. */
    about: z.optional(aboutSchema),
    /** What is asked for when it is filled in, in that order. Absent: nothing. */
    asks: z.optional(z.readonly(z.array(askSchema).check(z.minLength(1), z.maxLength(100)))),
    /** Others are begun with a copy of it. */
    starter: z.optional(z.boolean()),
    created: z.iso.datetime(),
    modified: z.iso.datetime(),
    setup: setupSchema,
    /**
     * The output profile: a shipped file, or `sha256-….icc` for one that the person opened, then with its name; and the
     * most ink it bears at a point (1 = 100 %).
     */
    profile: z.readonly(
      z.strictObject({
        file: z.string().check(z.maxLength(120), z.regex(/^[A-Za-z0-9][A-Za-z0-9_-]*(\.[A-Za-z0-9_-]+)*$/)),
        name: z.optional(z.string().check(z.maxLength(200))),
        totalInkLimit: z.number().check(z.gte(0.5), z.lte(4)),
      }),
    ),
    /** Limits of its own, and what is meant to be as it is. Absent: neither. */
    checks: z.optional(checksSchema),
    /** How plates are made from art. Absent: as usual. */
    plates: z.optional(platesSchema),
    inks: z.readonly(z.array(inkSchema).check(z.maxLength(27))),
    swatches: z.readonly(z.array(swatchSchema).check(z.maxLength(5000))),
    pages: z.readonly(z.array(pageSchema).check(z.minLength(1), z.maxLength(2000))),
    /** Pages that are in no order and printed by those that stand on them. Absent: none. */
    masters: z.optional(z.readonly(z.array(pageSchema).check(z.maxLength(500)))),
    nodes: z.readonly(z.record(id, nodeSchema)),
    stories: z.readonly(z.record(id, storySchema)),
    /** Pictures that paints refer to. Absent: none. */
    pictures: z.optional(z.readonly(z.array(pictureSchema).check(z.maxLength(5000)))),
    /** Faces of its own, beside those that ship. Absent: none. */
    faces: z.optional(z.readonly(z.array(faceSchema).check(z.maxLength(1000)))),
    /** How texts look, by name: those of a kind change together. Absent: none. */
    textLooks: z.optional(z.readonly(z.array(textLookSchema).check(z.maxLength(1000)))),
  }),
);

export type Design = z.infer<typeof designSchema>;
export type Ask = z.infer<typeof askSchema>;
export type Setup = z.infer<typeof setupSchema>;
export type Page = z.infer<typeof pageSchema>;
export type Format = z.infer<typeof formatSchema>;
export type Grid = NonNullable<Page['grid']>;
export type Numbering = NonNullable<Page['numbering']>;
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
export type LineMark = NonNullable<Outline['start']>;
