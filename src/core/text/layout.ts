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
}

export function plainText(story: Story): string {
  return story.paragraphs.map(paragraphText).join('\n');
}
export function paragraphText(p: Paragraph): string {
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
  let overset = 0;
  for (const paragraph of story.paragraphs) {
    const text = paragraphText(paragraph);
    const pieces = piecesOf(paragraph, fonts, missing);
    for (const range of breakLines(text, pieces, measure.width)) {
      const size = range.sizes.length ? Math.max(...range.sizes) : paragraph.runs[0].size;
      const ascent = Math.max(...pieces.filter((p) => p.face).map((p) => (p.face!.ascender / p.face!.upem) * p.run.size), 0);
      const descent = Math.max(...pieces.filter((p) => p.face).map((p) => (-p.face!.descender / p.face!.upem) * p.run.size), 0);
      const step = paragraph.leading * size;
      if (lines.length === 0) y = measure.width === null ? 0 : ascent;
      else y += step;
      if (measure.height !== null && lines.length > 0 && y + descent > measure.height + 0.01) {
        overset = plainText(story).length - (offset + range.start);
        return finish(lines, overset, missing);
      }
      lines.push(placeLine(range, pieces, paragraph, text.length, offset, y, ascent, descent, measure.width));
    }
    offset += text.length + 1;
  }
  return finish(lines, overset, missing);
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
  readonly sizes: readonly number[];
}

/** Widths of each UTF-16 unit in points: a cluster's width stands at its first unit. */
function unitWidths(pieces: readonly Piece[], length: number): Float64Array {
  const widths = new Float64Array(length);
  for (const { run, face, start } of pieces) {
    if (!face) continue;
    const scale = run.size / face.upem;
    for (const g of face.shape(run.text)) widths[start + g.cluster] += g.advance * scale;
    for (const cluster of new Set(face.shape(run.text).map((g) => g.cluster))) widths[start + cluster] += (run.tracking / 1000) * run.size;
  }
  return widths;
}

function breakLines(text: string, pieces: readonly Piece[], width: number | null): LineRange[] {
  const rangeOf = (start: number, end: number): LineRange => ({
    start,
    end,
    sizes: pieces.filter((p) => p.start < end && p.end > start && p.end > p.start).map((p) => p.run.size),
  });
  if (width === null || text === '') return [rangeOf(0, text.length)];
  const widths = unitWidths(pieces, text.length);
  const total = (from: number, to: number) => {
    let sum = 0;
    for (let i = from; i < to; i++) sum += widths[i];
    return sum;
  };
  const trimmedEnd = (from: number, to: number) => {
    let end = to;
    while (end > from && text[end - 1] === ' ') end--;
    return end;
  };
  const out: LineRange[] = [];
  const breaker = new LineBreaker(text);
  let start = 0;
  let fit = 0;
  for (let b = breaker.nextBreak(); b; b = breaker.nextBreak()) {
    if (fit > start && total(start, trimmedEnd(start, b.position)) > width) {
      out.push(rangeOf(start, fit));
      start = fit;
    }
    while (total(start, trimmedEnd(start, b.position)) > width) {
      const cut = cutWord(text, start, b.position, widths, width);
      if (cut >= b.position) break;
      out.push(rangeOf(start, cut));
      start = cut;
    }
    fit = b.position;
  }
  out.push(rangeOf(start, text.length));
  return out;
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
export function graphemes(text: string): Intl.SegmentData[] {
  return [...segmenter.segment(text)];
}

function placeLine(range: LineRange, pieces: readonly Piece[], paragraph: Paragraph, length: number, offset: number, baseline: number, ascent: number, descent: number, width: number | null): Line {
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
  const x0 = share === 0 ? 0 : width === null ? -share * lineWidth : share * (width - lineWidth);

  let x = x0;
  const carets: CaretStop[] = [];
  const runs = shaped.map(({ piece, from, slice, glyphs }): PlacedRun => {
    const face = piece.face!;
    const scale = piece.run.size / face.upem;
    const track = (piece.run.tracking / 1000) * piece.run.size;
    const placed: PlacedGlyph[] = [];
    for (let i = 0; i < glyphs.length; ) {
      const cluster = glyphs[i].cluster;
      let j = i;
      while (j < glyphs.length && glyphs[j].cluster === cluster) j++;
      const next = glyphs[j]?.cluster ?? slice.length;
      const clusterText = slice.slice(cluster, next);
      const start = x;
      for (let k = i; k < j; k++) {
        const g = glyphs[k];
        const extra = k === j - 1 ? track + (clusterText === ' ' ? stretch : 0) : 0;
        placed.push({ gid: g.gid, x: x + g.dx * scale, y: baseline - g.dy * scale, advance: g.advance * scale + extra, text: k === i ? clusterText : '' });
        x += g.advance * scale + extra;
      }
      // A ligature is shared evenly among its letters.
      const letters = graphemes(clusterText);
      letters.forEach((l, n) => carets.push({ offset: offset + from + cluster + l.index, x: start + ((x - start) * n) / letters.length }));
      i = j;
    }
    return { run: piece.run, face, glyphs: placed };
  });
  carets.push({ offset: offset + range.end, x });
  return { runs, baseline, top: baseline - ascent, bottom: baseline + descent, x0, x1: x0 + lineWidth, carets, start: offset + range.start, end: offset + range.end };
}
