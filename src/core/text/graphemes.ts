const segmenter = new Intl.Segmenter('en', { granularity: 'grapheme' });

/** A text in the letters that people see (UAX 29). */
export function graphemes(text: string): Intl.SegmentData[] {
  return [...segmenter.segment(text)];
}
