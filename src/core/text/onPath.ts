import { EMPTY_RECT, union, type Rect } from '../geometry/rect';
import { stopEnds } from './caret';
import type { Layout } from './layout';
import { Line, type CaretStop, type PlacedGlyph, type PlacedRun } from './line';
import type { Track } from './track';

/** How words stand along a line. */
export interface Along {
  /** Where on the line, as a share of its length: they begin, are centred or end there, as they are aligned. */
  readonly at: number;
  /** Where they end, of those that reach from one place to another. */
  readonly to: number;
  /** Letters stay upright, whatever way the line runs. */
  readonly upright: boolean;
  /** Letters are so much wider than they are drawn. */
  readonly stretch: number;
  readonly align: 'left' | 'middle' | 'right' | 'full';
}

/**
 * Puts the lines of a display text on tracks, one each: every letter by its middle, in a straight line's distances.
 * What runs over the end of an open track is not shown, and counted.
 */
export function layAlong(layout: Layout, tracks: (below: number) => Track, along: Along): Layout {
  const lines: Line[] = [];
  let lost = 0;
  for (const line of layout.lines) {
    const track = tracks(line.baseline);
    const put = putLine(line, track, along);
    lines.push(put.line);
    lost += put.lost;
  }
  const box = unionOf(lines);
  return { ...layout, lines, overset: layout.overset + lost, x0: box.x0, x1: box.x1, top: box.y0, bottom: box.y1 };
}

function putLine(line: Line, track: Track, along: Along): { readonly line: Line; readonly lost: number } {
  const { stretch, upright } = along;
  const width = line.width * stretch;
  const letters = line.runs.reduce((n, r) => n + r.glyphs.filter((g) => g.text !== '').length, 0);
  const full = along.align === 'full' && letters > 1;
  const extra = full ? ((along.to - along.at) * track.length - width) / (letters - 1) : 0;
  const share = { left: 0, full: 0, middle: 0.5, right: 1 }[along.align];
  const start = along.at * track.length - share * width;
  let lost = 0;
  let seen = 0;
  let pen = 0;
  const runs = line.runs.map((run): PlacedRun => {
    const glyphs: PlacedGlyph[] = [];
    for (let i = 0; i < run.glyphs.length;) {
      let j = i + 1;
      while (j < run.glyphs.length && run.glyphs[j].text === '') j++;
      const parts = run.glyphs.slice(i, j);
      i = j;
      const x = pen * stretch;
      for (const g of parts) pen += g.advance;
      // Tracking stands behind a letter and is no part of it.
      const half = (pen * stretch - x - (run.run.tracking / 1000) * run.run.size * stretch) / 2;
      const middle = start + x + extra * seen++ + half;
      if (!track.closed && (middle < 0 || middle > track.length)) {
        lost += parts[0].text.length;
        continue;
      }
      const at = track.at(middle);
      const [cos, sin] = upright ? [1, 0] : [at.cos, at.sin];
      for (const g of parts) {
        const [dx, dy] = [g.x * stretch - x - half, g.y];
        glyphs.push({
          ...g,
          x: at.x + cos * dx - sin * dy,
          y: at.y + sin * dx + cos * dy,
          turn: [cos * stretch, sin * stretch, -sin, cos],
        });
      }
    }
    return { ...run, glyphs };
  });
  const moved = extra ? lettersBefore(line) : null;
  const carets = line.local.carets.map((c): CaretStop => ({
    ...c,
    turn: track.at(start + c.x * stretch + extra * (moved?.(c.x) ?? 0)),
  }));
  const local = { ...line.local, runs, carets };
  const bare = new Line(local, line.offset, 0, 0, line.ascent, line.descent, width);
  return { line: new Line(local, line.offset, 0, 0, line.ascent, line.descent, width, boxOf(bare)), lost };
}

/** How many letters of a line stand before a place on it. */
function lettersBefore(line: Line): (x: number) => number {
  const middles = Float64Array.from(
    line.runs.flatMap((r) => r.glyphs.filter((g) => g.text !== '').map((g) => g.x + g.advance / 2)),
  ).sort();
  return (x) => {
    let [lo, hi] = [0, middles.length];
    while (lo < hi) {
      const mid = (lo + hi) >> 1;
      if (middles[mid] < x) lo = mid + 1;
      else hi = mid;
    }
    return lo;
  };
}

function boxOf(line: Line): Rect {
  let box = EMPTY_RECT;
  for (const c of line.carets)
    for (const { x, y } of stopEnds(line, c)) box = union(box, { x0: x, y0: y, x1: x, y1: y });
  return box;
}

const unionOf = (lines: readonly Line[]): Rect =>
  lines.reduce((box, l) => union(box, { x0: l.x0, y0: l.top, x1: l.x1, y1: l.bottom }), EMPTY_RECT);
