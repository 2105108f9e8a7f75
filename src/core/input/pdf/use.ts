import type { PDFObject } from '@cantoo/pdf-lib';
import type { Rect } from '../../geometry/rect';
import type { Space } from './spaces';

/** A picture as it lies on a page. */
export interface PlacedPicture {
  readonly width: number;
  readonly height: number;
  /** Pixels an inch where it lies, the lesser of both ways. */
  readonly ppi: number;
  readonly colour: Space['kind'];
  readonly tagged: boolean;
  readonly box: Rect;
}

/** What a page is painted with. Boxes are in the file's own points. */
export interface PageUse {
  /** Plates that get ink within the page's bleed. */
  readonly inks: Set<string>;
  /** Fonts that words are set in, by resource. */
  readonly fonts: Set<PDFObject>;
  readonly pictures: PlacedPicture[];
  /** Colours of light that do not say which light they are. */
  untaggedRgb: Rect | null;
  taggedRgb: boolean;
  overprints: boolean;
  transparent: boolean;
  /** The thinnest line in points, and where. */
  thinnest: { readonly width: number; readonly box: Rect } | null;
  /** The smallest letters in points, and where. */
  smallest: { readonly size: number; readonly box: Rect } | null;
  /** Paint free of ink that overprints: it is not seen. */
  whiteOverprint: Rect | null;
  /** What the content asks for and the file does not have; and what is no content at all. */
  readonly faults: Set<string>;
}

/** Of a page on which nothing was met yet. */
export const unused = (): PageUse => ({
  inks: new Set(),
  fonts: new Set(),
  pictures: [],
  untaggedRgb: null,
  taggedRgb: false,
  overprints: false,
  transparent: false,
  thinnest: null,
  smallest: null,
  whiteOverprint: null,
  faults: new Set(),
});

/** Operators of a whole file. */
const MOST_OPERATORS = 20_000_000;

/** How much may still be read: shared by all pages of a file. */
export interface Budget {
  operators: number;
}
/** The budget of a new file. */
export const budget = (): Budget => ({ operators: MOST_OPERATORS });
