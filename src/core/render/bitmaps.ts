import { mapBitmap, paintBitmap } from './bitmap';
import { fieldMap } from './field';

/** What makes pictures of paints that a canvas does not know. */
export const BITMAPS = { mapBitmap, paintBitmap, fieldMap };
export type Bitmaps = typeof BITMAPS;
