const segmenter = new Intl.Segmenter('en', { granularity: 'grapheme' });

/**
 * A text in the letters that people see (UAX 29). For short ones: the platform takes its time with each letter of a
 * long one.
 */
export function graphemes(text: string): Intl.SegmentData[] {
  return [...segmenter.segment(text)];
}

/** Letters below this stand each for itself. */
const ASCII = 0x80;
/** No letter that people see is longer, in UTF-16 units. */
const LONGEST = 256;

/**
 * The nearest place that does not lie inside a grapheme: back for a start, on for an end. Looks at what is round it
 * alone.
 */
export function wholeGrapheme(text: string, offset: number, towards: 'back' | 'on'): number {
  if (offset <= 0) return 0;
  if (offset >= text.length) return text.length;
  if (between(text, offset)) return offset;
  // From the nearest place before that is surely between two letters.
  let from = offset;
  while (from > 0 && offset - from < LONGEST && !between(text, from)) from--;
  for (const { index, segment } of graphemes(text.slice(from, offset + LONGEST))) {
    const [start, end] = [from + index, from + index + segment.length];
    if (start >= offset) return start;
    if (offset < end) return towards === 'back' ? start : end;
  }
  return offset;
}

/** Is a place surely between two letters? Two plain signs never are one, but for the end of a line in two. */
function between(text: string, offset: number): boolean {
  const [a, b] = [text.charCodeAt(offset - 1), text.charCodeAt(offset)];
  return a < ASCII && b < ASCII && !(a === 13 && b === 10);
}
