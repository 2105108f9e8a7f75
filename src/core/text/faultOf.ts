import type { Face } from './face';

/** No letter that was drawn to be read has as many numbers in its outline; one that has would hang whoever sets it. */
const MOST_OF_A_LETTER = 100_000;
/** More letters and numbers than that need not be drawn to know a face: of a broken one each may take milliseconds. */
const TRIED = 300;
const MOST_TRIED = 1_000_000;

const TOO_MANY = 'one of its letters has too many points to be drawn';
const SAMPLE = 'Hamburgefonstiv ÄÖÜ ĀČŠ — 0123456789 fi ffl AV To. אבגד العربية';
/**
 * Why a face from outside cannot be set in, found by shaping and drawing some of its letters; null where it can. Ends
 * after a bounded number of them. Throws where HarfBuzz does.
 */
export function faultOf(face: Face): string | null {
  let all = 0;
  const drawn = (gid: number): boolean => {
    const { length } = face.outline(gid);
    all += length;
    return length <= MOST_OF_A_LETTER;
  };
  if (!face.shape(SAMPLE).every(({ gid }) => drawn(gid))) return TOO_MANY;
  const codes = [...face.codes()];
  // Some of all its scripts.
  const step = Math.ceil(codes.length / TRIED);
  for (let i = 0; i < codes.length && all < MOST_TRIED; i += step) {
    const [glyph] = face.shape(String.fromCodePoint(codes[i]));
    if (glyph && !drawn(glyph.gid)) return TOO_MANY;
  }
  return all ? null : 'it has no letters to draw';
}
