import type { SetParagraph } from '../model/textLooks';
import { graphemes } from './graphemes';
import type { Hyphens } from './hyphens';
import { breaksOf } from './lineBreaks';
import { hyphenOf, type ShapedParagraph } from './shaping';
import { tabAdvance } from './tabs';

/** Where a line ends, and whether a hyphen stands there that was not typed. */
export interface LineEnd {
  readonly end: number;
  readonly hyphen: boolean;
}

/**
 * What sums of many widths may be off by, points: what ends at the edge to the hair, as after a tab to the right, is on
 * the line.
 */
const SLACK = 1e-6;
const SOFT = '\u00ad';
/** Words: letters and the marks on them. */
const WORD = /[\p{L}\p{M}]{5,}/gu;

/** Breaks one paragraph line by line, each to the width that it has (UAX 14). Offsets are of the paragraph's text. */
export class Breaker {
  /** Places to break, in order; those with a hyphen by the width of it. */
  private readonly breaks: { readonly at: number; readonly hyphen: number | null }[] = [];
  /** Of each UTF-16 unit in points, with tracking: a cluster's width stands at its first unit. */
  private readonly widths: Float64Array;
  private readonly tabbed: boolean;

  constructor(
    private readonly p: SetParagraph,
    private readonly shaped: ShapedParagraph,
    hyphens: Hyphens,
  ) {
    const { text } = shaped;
    this.widths = new Float64Array(text.length);
    for (const c of shaped.clusters) {
      const { run } = c.item;
      this.widths[c.start] += c.advance + (run.tracking / 1000) * run.size;
    }
    this.tabbed = text.includes('\t');
    for (const at of breaksOf(text))
      this.breaks.push({ at, hyphen: text[at - 1] === SOFT ? this.hyphenWidth(at - 1) : null });
    if (p.hyphenate) this.divide(text, hyphens);
  }

  private hyphenWidth(at: number): number {
    const hyphen = hyphenOf(this.shaped, at);
    return hyphen ? hyphen.advance : 0;
  }

  private divide(text: string, hyphens: Hyphens): void {
    const found: { at: number; hyphen: number }[] = [];
    for (const { 0: word, index } of text.matchAll(WORD))
      for (const place of hyphens.places(word, this.languageAt(index)))
        found.push({ at: index + place, hyphen: this.hyphenWidth(index + place - 1) });
    if (!found.length) return;
    this.breaks.push(...found);
    this.breaks.sort((a, b) => a.at - b.at);
  }

  private languageAt(offset: number) {
    let at = 0;
    for (const r of this.p.runs) {
      at += r.text.length;
      if (offset < at) return r.language;
    }
    return this.p.runs[0].language;
  }

  /** Where the line that begins at `start` ends. Spaces at its end hang over; a word that is too long is cut. */
  lineEnd(start: number, width: number): LineEnd {
    let fit: LineEnd = { end: start, hyphen: false };
    for (let k = this.firstAfter(start); k < this.breaks.length; k++) {
      const { at, hyphen } = this.breaks[k];
      const natural = this.natural(start, at);
      if (natural > width + SLACK)
        return fit.end > start ? fit : { end: this.cutWord(start, this.wordEnd(start), width), hyphen: false };
      if (hyphen === null || natural + hyphen <= width + SLACK) fit = { end: at, hyphen: hyphen !== null };
    }
    return { end: this.shaped.text.length, hyphen: false };
  }

  /** The width of the first word at an offset. */
  wordWidth(start: number): number {
    return this.natural(start, this.wordEnd(start));
  }

  /** Where the first word at an offset ends, undivided. */
  private wordEnd(start: number): number {
    for (let k = this.firstAfter(start); k < this.breaks.length; k++)
      if (this.breaks[k].hyphen === null) return this.breaks[k].at;
    return this.shaped.text.length;
  }

  /** The first place to break behind an offset. */
  private firstAfter(start: number): number {
    let [lo, hi] = [0, this.breaks.length];
    while (lo < hi) {
      const mid = (lo + hi) >> 1;
      if (this.breaks[mid].at > start) hi = mid;
      else lo = mid + 1;
    }
    return lo;
  }

  private natural(from: number, to: number): number {
    const { text } = this.shaped;
    let end = to;
    while (end > from && text[end - 1] === ' ') end--;
    let sum = 0;
    if (!this.tabbed) {
      for (let i = from; i < end; i++) sum += this.widths[i];
      return sum;
    }
    const across = (a: number, b: number): number => {
      let n = 0;
      for (let i = a; i < b; i++) n += this.widths[i];
      return n;
    };
    for (let i = from; i < end; i++)
      sum += text[i] === '\t' ? tabAdvance(this.p, text, i, end, sum, across) : this.widths[i];
    return sum;
  }

  /** Where a word that is wider than the line is cut: between graphemes, at least one on the line. */
  private cutWord(from: number, to: number, width: number): number {
    let sum = 0;
    for (const { index, segment } of graphemes(this.shaped.text.slice(from, to))) {
      for (let i = 0; i < segment.length; i++) sum += this.widths[from + index + i];
      if (sum > width + SLACK && index > 0) return from + index;
    }
    return to;
  }
}
