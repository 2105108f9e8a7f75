import { mm } from '../units/length';
import {
  FORMAT,
  type Colour,
  type Design,
  type NodeOf,
  type Outline,
  type Paint,
  type Run,
  type Setup,
} from './schema';

export const NO_PAINT: Paint = { kind: 'none' };
export const BLACK: Colour = { cmyk: [0, 0, 0, 1] };

/** A flat paint of one colour. */
export function colourPaint(colour: Colour, overprint = false): Paint {
  return { kind: 'colour', colour, overprint };
}

/** An outline of a paint, `width` in points, with butt ends and mitred corners. */
export function outlineOf(paint: Paint, width = 1): Outline {
  return { paint, width, cap: 'butt', join: 'miter', miterLimit: 10 };
}

/** The face of a new text, and the substitute for a face that is missing. */
export const DEFAULT_FACE = 'archivo-600';

/** A run of letters of one face; `size` in points. */
export function runOf(text: string, size: number, fill: Paint = colourPaint(BLACK), face = DEFAULT_FACE): Run {
  return { text, face, size, tracking: 0, fill, outline: null };
}

/** Shipped output profiles with their default limits of total ink (common practice, editable). */
export const PROFILES = [
  { file: 'coated-tr006.icc', name: 'Coated', source: 'characterization data of CGATS TR 006', totalInkLimit: 3 },
  { file: 'uncoated-f29.icc', name: 'Uncoated', source: 'characterization data FOGRA29L', totalInkLimit: 2.8 },
  {
    file: 'newsprint-tr002.icc',
    name: 'Newsprint',
    source: 'characterization data of CGATS TR 002',
    totalInkLimit: 2.4,
  },
] as const;

/**
 * Margins that fit a format: of a card 4 mm, of a sheet 10; a fourteenth of the short side, in halves of a millimetre.
 */
function fittingMargins(width: number, height: number): Setup['margins'] {
  const m = Math.min(mm(10), mm(Math.round((Math.min(width, height) / mm(1) / 14) * 2) / 2));
  return { top: m, right: m, bottom: m, left: m };
}

/** Another size: margins that were fitting fit again, those that someone chose stay. Sides in points. */
export function resized(setup: Setup, width: number, height: number): Setup {
  const fitting = fittingMargins(setup.width, setup.height);
  const untouched = (['top', 'right', 'bottom', 'left'] as const).every(
    (side) => Math.abs(setup.margins[side] - fitting[side]) < 1e-6,
  );
  return { ...setup, width, height, ...(untouched && { margins: fittingMargins(width, height) }) };
}

/** The set-up of a page, in points, for print in millimetres unless it is changed. */
export function setupOf(width: number, height: number, changes: Partial<Setup> = {}): Setup {
  return {
    medium: 'print',
    width,
    height,
    round: false,
    unit: 'mm',
    bleed: mm(3),
    margins: fittingMargins(width, height),
    columns: { count: 1, gutter: mm(5) },
    ...changes,
  };
}

export interface Making {
  newId(): string;
  now(): string;
}

/** An empty design: one page, the process colours that every job starts with, no spot ink. */
export function newDesign(name: string, setup: Setup, make: Making): Design {
  const now = make.now();
  return {
    format: FORMAT,
    id: make.newId(),
    name,
    created: now,
    modified: now,
    setup,
    profile: { file: PROFILES[0].file, totalInkLimit: PROFILES[0].totalInkLimit },
    inks: [],
    swatches:
      setup.medium === 'screen'
        ? [
            { id: make.newId(), name: 'White', kind: 'colour', colour: { rgb: [1, 1, 1] } },
            { id: make.newId(), name: 'Black', kind: 'colour', colour: { rgb: [0, 0, 0] } },
          ]
        : [
            { id: make.newId(), name: 'Bare stock', kind: 'colour', colour: { cmyk: [0, 0, 0, 0] } },
            { id: make.newId(), name: 'Black', kind: 'colour', colour: { cmyk: [0, 0, 0, 1] } },
          ],
    pages: [{ id: make.newId(), name: '', children: [] }],
    nodes: {},
    stories: {},
  };
}

/** What a combination is called until it is given a name. */
export const OP_NAMES: Readonly<Record<NodeOf<'combination'>['op'], string>> = {
  union: 'Union',
  subtract: 'Subtraction',
  intersect: 'Intersection',
  exclude: 'Exclusion',
  divide: 'Division',
};

/**
 * Colours within this (ΔE00) look alike to most eyes side by side (common practice: 1 is just seen, 3 passes for the
 * same job).
 */
export const ALIKE_TOLERANCE = 3;
