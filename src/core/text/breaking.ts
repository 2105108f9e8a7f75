import LineBreaker from 'linebreak';
import type { ShapedParagraph } from './shaping';
import { graphemes } from './graphemes';

/** Where a line ends, and whether a hyphen stands there that was not typed. */
export interface LineEnd {
  readonly end: number;
  readonly hyphen: boolean;
}

/** Breaks one paragraph line by line, each to the width that it has (UAX 14). Offsets are of the paragraph's text. */
export class Breaker {
  private readonly breaks: number[] = [];
  /** Of each UTF-16 unit in points, with tracking: a cluster's width stands at its first unit. */
  private readonly widths: Float64Array;

  constructor(private readonly shaped: ShapedParagraph) {
    const { text } = shaped;
    this.widths = new Float64Array(text.length);
    for (const c of shaped.clusters) {
      const { run } = c.item;
      this.widths[c.start] += c.advance + (run.tracking / 1000) * run.size;
    }
    const breaker = new LineBreaker(text);
    for (let b = breaker.nextBreak(); b; b = breaker.nextBreak()) this.breaks.push(b.position);
  }

  /** Where the line that begins at `start` ends. Spaces at its end hang over; a word that is too long is cut. */
  lineEnd(start: number, width: number): LineEnd {
    let fit = start;
    for (let k = this.firstAfter(start); k < this.breaks.length; k++) {
      const at = this.breaks[k];
      if (this.natural(start, at) > width)
        return { end: fit > start ? fit : this.cutWord(start, at, width), hyphen: false };
      fit = at;
    }
    return { end: this.shaped.text.length, hyphen: false };
  }

  /** The width of the first word at an offset. */
  wordWidth(start: number): number {
    return this.natural(start, this.breaks[this.firstAfter(start)] ?? this.shaped.text.length);
  }

  /** The first place to break behind an offset. */
  private firstAfter(start: number): number {
    let [lo, hi] = [0, this.breaks.length];
    while (lo < hi) {
      const mid = (lo + hi) >> 1;
      if (this.breaks[mid] > start) hi = mid;
      else lo = mid + 1;
    }
    return lo;
  }

  private natural(from: number, to: number): number {
    const { text } = this.shaped;
    let end = to;
    while (end > from && text[end - 1] === ' ') end--;
    let sum = 0;
    for (let i = from; i < end; i++) sum += this.widths[i];
    return sum;
  }

  /** Where a word that is wider than the line is cut: between graphemes, at least one on the line. */
  private cutWord(from: number, to: number, width: number): number {
    let sum = 0;
    for (const { index, segment } of graphemes(this.shaped.text.slice(from, to))) {
      for (let i = 0; i < segment.length; i++) sum += this.widths[from + index + i];
      if (sum > width && index > 0) return from + index;
    }
    return to;
  }
}
