import type { Warp } from '../geometry/warp';
import type { Story } from '../model/schema';
import type { SetStory } from '../model/textLooks';
import type { Column, FrameMeasure } from './column';
import { flow } from './flow';
import type { FontBook } from './fonts';
import type { Line } from './line';

export { graphemes } from './graphemes';
export type { CaretStop, Line, PlacedGlyph, PlacedRun } from './line';
export type { FrameMeasure } from './column';

export interface Layout {
  readonly lines: readonly Line[];
  /** Characters that did not fit; 0 when all is shown. */
  readonly overset: number;
  /** Faces that were asked for and are not there. */
  readonly missing: readonly string[];
  readonly x0: number;
  readonly x1: number;
  readonly top: number;
  readonly bottom: number;
  /** What is done to all of it last: a bend, from layout space to layout space. Absent: nothing. */
  readonly warp?: Warp;
}

export interface Measure {
  /** The width to break lines at; null for display text, which breaks only where the writer did. */
  readonly width: number | null;
  /** The height that can be shown; null for no limit. */
  readonly height: number | null;
  /** Of a frame that is no box: where a line between two heights can lie. */
  readonly spans?: Column['spans'];
}

/** The words of a story, a line a paragraph. */
export function plainText(story: Pick<Story, 'paragraphs'>): string {
  return story.paragraphs.map((p) => p.runs.map((r) => r.text).join('')).join('\n');
}

/**
 * Lays a story out. Display text: the first baseline at y = 0, each line on its side of x = 0 as its alignment says.
 * In a measure: lines from y = 0 downwards between x = 0 and the width; a word longer than the line is broken, never
 * lost.
 */
export const layoutStory = (story: SetStory, fonts: FontBook, measure: Measure): Layout =>
  layoutFrames(story, fonts, [{ columns: [{ x: 0, y: 0, ...measure }], placing: 'top' }])[0];

/** The same through several frames, one layout each: what lies in one depends on those before it alone. */
export function layoutFrames(story: SetStory, fonts: FontBook, frames: readonly FrameMeasure[]): Layout[] {
  const { lines, left, missing } = flow(story, fonts, frames);
  return frames.map((_, i) => ({
    lines: lines[i],
    overset: i === frames.length - 1 ? left : 0,
    missing,
    ...boundsOf(lines[i]),
  }));
}

function boundsOf(lines: readonly Line[]): Pick<Layout, 'x0' | 'x1' | 'top' | 'bottom'> {
  if (!lines.length) return { x0: 0, x1: 0, top: 0, bottom: 0 };
  let [x0, x1, top, bottom] = [Infinity, -Infinity, Infinity, -Infinity];
  for (const l of lines) {
    x0 = Math.min(x0, l.x0);
    x1 = Math.max(x1, l.x1);
    top = Math.min(top, l.top);
    bottom = Math.max(bottom, l.bottom);
  }
  return { x0, x1, top, bottom };
}
