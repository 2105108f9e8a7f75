import LineBreaker from 'linebreak';
import { DEFAULT_FACE } from '../model/defaults';
import type { Paragraph, Run, Story } from '../model/schema';
import type { Face, FontBook, ShapedGlyph } from './fonts';

/** A glyph in place: its pen position in layout space (points, y down), and the text it stands for. */
export interface PlacedGlyph {
  readonly gid: number;
  readonly x: number;
  readonly y: number;
  /** Pen to pen, points, with kerning and tracking. */
  readonly advance: number;
  readonly text: string;
}

/** Glyphs of one run on one line. */
export interface PlacedRun {
  readonly run: Run;
  readonly face: Face;
  readonly glyphs: readonly PlacedGlyph[];
}

/** A place the caret can stand: `offset` counts UTF-16 units in the story's plain text. */
export interface CaretStop {
  readonly offset: number;
  readonly x: number;
}

export interface Line {
  readonly runs: readonly PlacedRun[];
  readonly baseline: number;
  readonly top: number;
  readonly bottom: number;
  readonly x0: number;
  readonly x1: number;
  readonly carets: readonly CaretStop[];
  /** Offsets in the story's plain text. */
  readonly start: number;
  readonly end: number;
}

export interface Layout {
  readonly lines: readonly Line[];
  /** Characters that did not fit the frame's height; 0 when all is shown. */
  readonly overset: number;
  /** Faces that were asked for and are not there. */
  readonly missing: readonly string[];
  readonly x0: number;
  readonly x1: number;
  readonly top: number;
  readonly bottom: number;
}

export interface Measure {
  /** The width to break lines at; null for display text, which breaks only where the writer did. */
  readonly width: number | null;
  /** The height that can be shown; null for no limit. */
  readonly height: number | null;
  /** Of a frame that is no box: where a line between two heights can lie; null for nowhere. */
  readonly span?: (top: number, bottom: number) => { readonly x0: number; readonly x1: number } | null;
}

/** The words of a story, a line a paragraph. */
export function plainText(story: Story): string {
  return story.paragraphs.map(paragraphText).join('\n');
}
function paragraphText(p: Paragraph): string {
  return p.runs.map((r) => r.text).join('');
}

/**
 * Lays a story out. Display text: the first baseline at y = 0, each line on its side of x = 0 as its alignment says.
 * In a measure: lines from y = 0 downwards between x = 0 and the width; a word longer than the line is broken, never lost.
 */
export function layoutStory(story: Story, fonts: FontBook, measure: Measure): Layout {
  const lines: Line[] = [];
  const missing = new Set<string>();
  let y = 0;
  let offset = 0;
  const ended = (at: number) => finish(lines, plainText(story).length - at, missing);
  for (const paragraph of story.paragraphs) {
    const text = paragraphText(paragraph);
    const pieces = piecesOf(paragraph, fonts, missing);
    const ascent = Math.max(
      ...pieces.filter((p) => p.face).map((p) => (p.face!.ascender / p.face!.upem) * p.run.size),
      0,
    );
    const descent = Math.max(
      ...pieces.filter((p) => p.face).map((p) => (-p.face!.descender / p.face!.upem) * p.run.size),
      0,
    );
    const breaker = measure.width === null || text === '' ? null : new Breaker(text, pieces);
    for (let start = 0, first = true; first || start < text.length; first = false) {
      // A step is measured by the largest letters of the line; before a line is broken, by those of all that is left.
      const sizeOf = (end: number) =>
        sizesIn(pieces, start, end).reduce((a, b) => Math.max(a, b), 0) || paragraph.runs[0].size;
      const at = (size: number) =>
        lines.length === 0 ? (measure.width === null ? 0 : ascent) : y + paragraph.leading * size;
      let baseline = at(sizeOf(text.length));
      let place = { left: 0, width: measure.width };
      if (measure.span && measure.height !== null) {
        const found = roomFor(measure, baseline, ascent, descent, sizeOf(text.length), breaker?.wordWidth(start) ?? 0);
        if (!found) {
          if (lines.length) return ended(offset + start);
          // Not even one line has room: it is laid across the middle, so that it is seen and can be mended.
          place = { left: 0, width: measure.width };
        } else {
          baseline = found.baseline;
          place = { left: found.x0, width: found.x1 - found.x0 };
        }
      }
      const end = breaker ? breaker.lineEnd(start, place.width!) : text.length;
      if (!measure.span) baseline = at(sizeOf(end));
      if (measure.height !== null && lines.length > 0 && baseline + descent > measure.height + 0.01)
        return ended(offset + start);
      y = baseline;
      lines.push(
        placeLine({ start, end }, pieces, paragraph, text.length, offset, y, ascent, descent, place.left, place.width),
      );
      start = end;
    }
    offset += text.length + 1;
  }
  return finish(lines, 0, missing);
}

/** Lines are looked for this share of a size further down where there is no room for one. */
const LOWER_BY = 0.2;
/** A line narrower than this many sizes would hold no word. */
const NARROWEST = 1.2;

/** The first place at or below a baseline where a line has room between the edges of a frame that is no box. */
function roomFor(
  measure: Measure,
  from: number,
  ascent: number,
  descent: number,
  size: number,
  word: number,
): { baseline: number; x0: number; x1: number } | null {
  let narrow: { baseline: number; x0: number; x1: number } | null = null;
  for (let baseline = from; baseline + descent <= measure.height! + 0.01; baseline += size * LOWER_BY) {
    const span = measure.span!(baseline - ascent, baseline + descent);
    if (!span || span.x1 - span.x0 < size * NARROWEST) continue;
    // A word is not cut where there is room for it further down.
    if (span.x1 - span.x0 >= word) return { baseline, ...span };
    narrow ??= { baseline, ...span };
  }
  return narrow;
}

function finish(lines: Line[], overset: number, missing: Set<string>): Layout {
  return {
    lines,
    overset,
    missing: [...missing],
    x0: Math.min(...lines.map((l) => l.x0)),
    x1: Math.max(...lines.map((l) => l.x1)),
    top: lines[0].top,
    bottom: lines[lines.length - 1].bottom,
  };
}

interface Piece {
  readonly run: Run;
  readonly face: Face | undefined;
  /** Offsets in the paragraph's text. */
  readonly start: number;
  readonly end: number;
}

function piecesOf(paragraph: Paragraph, fonts: FontBook, missing: Set<string>): Piece[] {
  let at = 0;
  return paragraph.runs.map((run) => {
    const own = fonts.get(run.face);
    if (!own) missing.add(run.face);
    const piece = { run, face: own ?? fonts.get(DEFAULT_FACE), start: at, end: at + run.text.length };
    at = piece.end;
    return piece;
  });
}

interface LineRange {
  readonly start: number;
  readonly end: number;
}

/** Sizes of the letters between two offsets. */
const sizesIn = (pieces: readonly Piece[], start: number, end: number): number[] =>
  pieces.filter((p) => p.start < end && p.end > start && p.end > p.start).map((p) => p.run.size);

/** Widths of each UTF-16 unit in points: a cluster's width stands at its first unit. */
function unitWidths(pieces: readonly Piece[], length: number): Float64Array {
  const widths = new Float64Array(length);
  for (const { run, face, start } of pieces) {
    if (!face) continue;
    const scale = run.size / face.upem;
    for (const g of face.shape(run.text)) widths[start + g.cluster] += g.advance * scale;
    for (const cluster of new Set(face.shape(run.text).map((g) => g.cluster)))
      widths[start + cluster] += (run.tracking / 1000) * run.size;
  }
  return widths;
}

/** Breaks one paragraph line by line, each to the width that it has. */
class Breaker {
  private readonly breaks: number[] = [];
  private readonly widths: Float64Array;

  constructor(
    private readonly text: string,
    pieces: readonly Piece[],
  ) {
    this.widths = unitWidths(pieces, text.length);
    const breaker = new LineBreaker(text);
    for (let b = breaker.nextBreak(); b; b = breaker.nextBreak()) this.breaks.push(b.position);
  }

  /** Where the line that begins at `start` ends. Spaces at its end hang over; a word that is too long is cut. */
  lineEnd(start: number, width: number): number {
    let fit = start;
    for (const at of this.breaks) {
      if (at <= start) continue;
      if (this.natural(start, at) > width) {
        if (fit > start) return fit;
        const cut = cutWord(this.text, start, at, this.widths, width);
        return cut;
      }
      fit = at;
    }
    return this.text.length;
  }

  /** The width of the first word at an offset. */
  wordWidth(start: number): number {
    return this.natural(start, this.breaks.find((at) => at > start) ?? this.text.length);
  }

  private natural(from: number, to: number): number {
    let end = to;
    while (end > from && this.text[end - 1] === ' ') end--;
    let sum = 0;
    for (let i = from; i < end; i++) sum += this.widths[i];
    return sum;
  }
}

/** Where a word that is wider than the line is cut: between graphemes, at least one on the line. */
function cutWord(text: string, from: number, to: number, widths: Float64Array, width: number): number {
  let sum = 0;
  for (const { index, segment } of graphemes(text.slice(from, to))) {
    for (let i = 0; i < segment.length; i++) sum += widths[from + index + i];
    if (sum > width && index > 0) return from + index;
  }
  return to;
}

const segmenter = new Intl.Segmenter('en', { granularity: 'grapheme' });
/** A text in the letters that people see (UAX 29). */
export function graphemes(text: string): Intl.SegmentData[] {
  return [...segmenter.segment(text)];
}

function placeLine(
  range: LineRange,
  pieces: readonly Piece[],
  paragraph: Paragraph,
  length: number,
  offset: number,
  baseline: number,
  ascent: number,
  descent: number,
  left: number,
  width: number | null,
): Line {
  const text = paragraphText(paragraph);
  const shaped: { piece: Piece; from: number; slice: string; glyphs: readonly ShapedGlyph[] }[] = [];
  for (const piece of pieces) {
    const from = Math.max(piece.start, range.start);
    const to = Math.min(piece.end, range.end);
    if (from >= to || !piece.face) continue;
    const slice = text.slice(from, to);
    shaped.push({ piece, from, slice, glyphs: piece.face.shape(slice) });
  }

  // Spaces at the line's end hang: they take no part in alignment.
  let visibleEnd = range.end;
  while (visibleEnd > range.start && text[visibleEnd - 1] === ' ') visibleEnd--;
  let natural = 0;
  let spaces = 0;
  for (const { piece, from, slice, glyphs } of shaped) {
    const scale = piece.run.size / piece.face!.upem;
    const track = (piece.run.tracking / 1000) * piece.run.size;
    glyphs.forEach((g, i) => {
      if (from + g.cluster >= visibleEnd) return;
      const lastOfCluster = i + 1 >= glyphs.length || glyphs[i + 1].cluster !== g.cluster;
      const lastVisible = lastOfCluster && from + (glyphs[i + 1]?.cluster ?? slice.length) >= visibleEnd;
      natural += g.advance * scale + (lastOfCluster && !lastVisible ? track : 0);
    });
    for (let i = 0; i < slice.length; i++) if (slice[i] === ' ' && from + i < visibleEnd) spaces++;
  }

  const lastLine = range.end >= length;
  const full = paragraph.align === 'full' && width !== null && !lastLine && spaces > 0;
  const stretch = full ? (width - natural) / spaces : 0;
  const lineWidth = full ? width : natural;
  const share = { left: 0, full: 0, middle: 0.5, right: 1 }[paragraph.align];
  const x0 = left + (share === 0 ? 0 : width === null ? -share * lineWidth : share * (width - lineWidth));

  let x = x0;
  const carets: CaretStop[] = [];
  const runs = shaped.map(({ piece, from, slice, glyphs }): PlacedRun => {
    const face = piece.face!;
    const scale = piece.run.size / face.upem;
    const track = (piece.run.tracking / 1000) * piece.run.size;
    const placed: PlacedGlyph[] = [];
    for (let i = 0; i < glyphs.length;) {
      const cluster = glyphs[i].cluster;
      let j = i;
      while (j < glyphs.length && glyphs[j].cluster === cluster) j++;
      const next = glyphs[j]?.cluster ?? slice.length;
      const clusterText = slice.slice(cluster, next);
      const start = x;
      for (let k = i; k < j; k++) {
        const g = glyphs[k];
        const extra = k === j - 1 ? track + (clusterText === ' ' ? stretch : 0) : 0;
        placed.push({
          gid: g.gid,
          x: x + g.dx * scale,
          y: baseline - g.dy * scale,
          advance: g.advance * scale + extra,
          text: k === i ? clusterText : '',
        });
        x += g.advance * scale + extra;
      }
      // A ligature is shared evenly among its letters.
      const letters = graphemes(clusterText);
      letters.forEach((l, n) =>
        carets.push({ offset: offset + from + cluster + l.index, x: start + ((x - start) * n) / letters.length }),
      );
      i = j;
    }
    return { run: piece.run, face, glyphs: placed };
  });
  carets.push({ offset: offset + range.end, x });
  return {
    runs,
    baseline,
    top: baseline - ascent,
    bottom: baseline + descent,
    x0,
    x1: x0 + lineWidth,
    carets,
    start: offset + range.start,
    end: offset + range.end,
  };
}
