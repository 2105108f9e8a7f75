import type { SetParagraph, SetStory } from '../model/textLooks';
import { Breaker } from './breaking';
import type { FontBook } from './fonts';
import type { Column, Edges, FrameMeasure, Placing } from './column';
import { dropOf, droppedLine } from './dropCapital';
import { hanging, NO_HANG } from './hanging';
import { Line, setLine, sizeIn, type LineSetting, type LocalLine, type PlacedRun } from './line';
import { markRuns, marksOf } from './marks';
import { shapeParagraph, type ShapedParagraph } from './shaping';

/** A line on its way: where it stands in its column. */
interface Draft {
  readonly local: LocalLine;
  readonly offset: number;
  readonly x: number;
  baseline: number;
  readonly shaped: ShapedParagraph;
  readonly width: number;
  readonly mark: readonly PlacedRun[];
}

/**
 * Runs a story through the columns of its frames, each filled before the next. Answers the lines of each frame, and how
 * many characters are left.
 */
export function flow(
  story: SetStory,
  fonts: FontBook,
  frames: readonly FrameMeasure[],
): { readonly lines: readonly Line[][]; readonly left: number; readonly missing: readonly string[] } {
  const run = new Run(
    frames.flatMap((f) => f.columns),
    fonts,
  );
  const shapes = story.paragraphs.map((p) => shapeParagraph(p, fonts));
  const marks = marksOf(story);
  let left = 0;
  let offset = 0;
  for (const [i, p] of story.paragraphs.entries()) {
    const rest = run.put({ p, shaped: shapes[i], offset, mark: marks[i] }, i ? story.paragraphs[i - 1].spaceAfter : 0);
    if (rest !== null) {
      left = shapes.slice(i).reduce((n, s) => n + s.text.length + 1, -1) - rest;
      break;
    }
    offset += shapes[i].text.length + 1;
  }
  const lines: Line[][] = frames.map(() => []);
  let at = 0;
  for (const [frame, { columns, placing }] of frames.entries())
    for (const column of columns) {
      const drafts = run.drafts[at++];
      place(drafts, column, placing);
      for (const d of drafts)
        lines[frame].push(
          new Line(
            d.local,
            d.offset,
            column.x + d.x,
            column.y + d.baseline,
            d.shaped.ascent,
            d.shaped.descent,
            d.width,
            null,
            d.mark,
          ),
        );
    }
  return { lines, left, missing: [...new Set(shapes.flatMap((s) => s.missing))] };
}

/** A paragraph on its way into columns. */
interface Coming {
  readonly p: SetParagraph;
  readonly shaped: ShapedParagraph;
  readonly offset: number;
  /** What stands before its first line; null: nothing. */
  readonly mark: string | null;
}

/** Fills columns with paragraphs, one after the other. */
class Run {
  readonly drafts: Draft[][];
  private at = 0;
  /** The last baseline. */
  private y = 0;

  constructor(
    private readonly columns: readonly Column[],
    private readonly fonts: FontBook,
  ) {
    this.drafts = columns.map(() => []);
  }

  /** Puts a paragraph behind what is there; answers where in it there was no more room, null where all of it had. */
  put(coming: Coming, gap: number): number | null {
    const { p } = coming;
    const [at, y, filled] = [this.at, this.y, this.drafts.map((d) => d.length)];
    const back = () => {
      [this.at, this.y] = [at, y];
      this.drafts.forEach((d, i) => d.splice(filled[i]));
    };
    // Twice at most: for lines that would stand alone at the foot of a column, then at the head of the next.
    const breaks = new Set<number>();
    for (let again = 0; ; again++) {
      const rest = this.lay(coming, gap, breaks);
      const better = again < 2 && p.keepLines > 1 ? this.lonely(p, filled, at) : null;
      if (better === null || breaks.has(better)) return rest;
      breaks.add(better);
      back();
    }
  }

  private lay({ p, shaped, offset, mark }: Coming, gap: number, breaks: ReadonlySet<number>): number | null {
    const { text } = shaped;
    const drop = dropOf(p, shaped, this.columns[this.at], this.fonts);
    let broken = -1;
    let beside = 0;
    let row: Row | null = null;
    for (let start = drop?.end ?? 0, first = true; first || start < text.length;) {
      const drafts = this.drafts[this.at];
      // The first line of a column stands at its head, whatever space it asks for.
      const from = drafts.length ? { y: this.y, gap: first ? gap + p.spaceBefore : 0 } : null;
      const torn = breaks.has(start) && broken !== start;
      const room = drop && beside < drop.lines ? drop.width : 0;
      const made: Made | null = torn
        ? null
        : nextLine(p, shaped, this.columns[this.at], this.fonts, { start, first, from, beside: room, row });
      row = made?.row ?? null;
      if (!made) {
        if (this.at + 1 === this.columns.length) return start;
        this.at++;
        broken = start;
        // A capital that reaches down does so in the column where it begins.
        if (!first) beside = Infinity;
        continue;
      }
      this.y = made.baseline;
      if (first && drop) drafts.push(droppedLine(drop, made, p, shaped, offset));
      drafts.push({
        local: made.local,
        x: made.x,
        baseline: made.baseline,
        width: made.width,
        offset,
        shaped,
        mark: first && mark !== null ? markRuns(p, mark, made.hang, this.fonts) : [],
      });
      start = made.local.end;
      first = false;
      beside++;
    }
    return null;
  }

  /**
   * Where the paragraph that was put last had better be broken, so that no lines of it stand alone; null where it is
   * well.
   */
  private lonely(p: SetParagraph, filled: readonly number[], from: number): number | null {
    for (let i = from; i < this.at; i++) {
      const [here, next] = [this.drafts[i].slice(filled[i]), this.drafts[i + 1].slice(filled[i + 1])];
      if (!here.length || !next.length) continue;
      // At the foot: all of them go on, where something else stays.
      if (here.length < p.keepLines && filled[i] > 0) return here[0].local.start;
      const short = p.keepLines - next.length;
      const last = i + 1 === this.at;
      if (last && short > 0 && here.length - short >= p.keepLines) return here[here.length - short].local.start;
    }
    return null;
  }
}

interface From {
  readonly start: number;
  readonly first: boolean;
  /** The baseline of the line above, and what is to be left free below it; null at the head of a column. */
  readonly from: { readonly y: number; readonly gap: number } | null;
  /** How much a capital that reaches down takes from it. */
  readonly beside: number;
  /** Where the line above goes on beside what pushes it away; null: nowhere. */
  readonly row: Row | null;
}

/** Room that is left at the height of a line, in the order in which it is read. */
interface Row {
  readonly baseline: number;
  readonly rest: readonly Edges[];
}

type Made = Pick<Draft, 'local' | 'x' | 'baseline' | 'width'> & {
  /** How far its words begin behind where the paragraph's marks stand. */
  readonly hang: number;
  readonly row?: Row | null;
};

/** A height on the first line of a column's grid at or below it; itself where there is none. */
const onGrid = ({ grid }: Column, y: number): number =>
  grid ? grid.start + Math.ceil((y - grid.start) / grid.step - 1e-6) * grid.step : y;

/** From line to line, points. */
const stepOf = (p: SetParagraph, size: number): number =>
  typeof p.leading === 'number' ? p.leading * size : p.leading.points;

/** The next line of a paragraph in a column; null where the column has no room for it. */
function nextLine(
  p: SetParagraph,
  shaped: ShapedParagraph,
  column: Column,
  fonts: FontBook,
  { start, first, from, beside, row }: From,
): Made | null {
  const { text, ascent, descent } = shaped;
  const measured = column.width !== null;
  const breaker = !measured || text === '' ? null : breakerOf(p, shaped, fonts);
  const at = (size: number): number =>
    onGrid(column, from ? from.y + from.gap + stepOf(p, size) : measured ? ascent : 0);
  const room = (baseline: number): boolean =>
    column.height === null || !from || baseline + descent <= column.height + 0.01;
  const stretch = { start, first, beside };
  if (!column.spans || column.height === null) {
    const { size, ...line } = boxLine(p, shaped, column.width, breaker, stretch);
    const baseline = at(size);
    return room(baseline) ? { ...line, baseline } : null;
  }
  // Before a line is broken, its step is measured by the largest letters of all that is left.
  const size = sizeIn(p, start, text.length);
  const word = breaker?.wordWidth(start) ?? 0;
  const found = (row && onRow(row, word)) ?? roomFor(column, at(size), shaped, size, word);
  if (!found && from) return null;
  // Not even one line has room: it is laid across the middle, so that it is seen and can be mended.
  const { baseline, rest, ...edges } = found ?? { baseline: at(size), x0: 0, x1: column.width ?? 0, rest: [] };
  const { size: _, ...line } = brokenLine(p, shaped, edges, breaker, stretch);
  return room(baseline) ? { ...line, baseline, row: rest.length ? { baseline, rest } : null } : null;
}

/** A line by itself between two edges, and the largest size in it, which measures its step. */
type Broken = Omit<Made, 'baseline'> & { readonly size: number };
type Stretch = Pick<From, 'start' | 'first' | 'beside'>;

const boxLines = new WeakMap<ShapedParagraph, Map<string, Broken>>();
/** A line in a column that is a box: the same one for the same stretch and width, wherever the column has it. */
function boxLine(
  p: SetParagraph,
  shaped: ShapedParagraph,
  width: number | null,
  breaker: Breaker | null,
  stretch: Stretch,
): Broken {
  let lines = boxLines.get(shaped);
  if (!lines || lines.size > MOST_LINES) boxLines.set(shaped, (lines = new Map()));
  const key = `${stretch.start} ${stretch.first} ${stretch.beside} ${width}`;
  let line = lines.get(key);
  if (!line) {
    const edges = width === null ? null : { x0: 0, x1: width };
    lines.set(key, (line = brokenLine(p, shaped, edges, breaker, stretch)));
  }
  return line;
}

/** Breaks a line between edges; null: there are none, and it ends with its paragraph. */
function brokenLine(
  p: SetParagraph,
  shaped: ShapedParagraph,
  edges: { readonly x0: number; readonly x1: number } | null,
  breaker: Breaker | null,
  { start, first, beside }: Stretch,
): Broken {
  const { text } = shaped;
  const rtl = shaped.level % 2 === 1;
  const indent = first ? p.indentFirst : 0;
  const inner = {
    x0: (edges?.x0 ?? 0) + p.indentLeft + (rtl ? 0 : indent + beside),
    x1: (edges?.x1 ?? 0) - p.indentRight - (rtl ? indent + beside : 0),
  };
  // A mark stands where the first line would begin; its words go on where the others begin.
  const hang = first && p.list && indent < 0 ? -indent : 0;
  if (hang && !rtl) inner.x0 += hang;
  else if (hang) inner.x1 -= hang;
  const width = edges ? Math.max(0.1, inner.x1 - inner.x0) : null;
  const { end, hyphen } = breaker ? breaker.lineEnd(start, width!) : { end: text.length, hyphen: false };
  const plain = lineOf(p, shaped, start, end, { stretch: 0, hyphen });
  const out = p.opticalMargin && width !== null ? hanging(plain) : NO_HANG;
  const full = p.align === 'full' && width !== null && end < text.length && plain.spaces > 0;
  const wide = width === null ? 0 : width + out.left + out.right;
  const local = full ? lineOf(p, shaped, start, end, { stretch: (wide - plain.width) / plain.spaces, hyphen }) : plain;
  const lineWidth = full ? wide : plain.width;
  const share = { left: 0, full: rtl ? 1 : 0, middle: 0.5, right: 1 }[p.align];
  const x =
    inner.x0 - out.left + (share === 0 || full ? 0 : width === null ? -share * lineWidth : share * (wide - lineWidth));
  return { local, x, width: lineWidth, hang, size: sizeIn(p, start, end) };
}

/** Lines are looked for this share of a size further down where there is no room for one. */
const LOWER_BY = 0.2;
/**
 * A line narrower than this many sizes would hold no word; beside another stretch, one narrower than that many is left
 * empty.
 */
const NARROWEST = 1.2;
const NARROWEST_BESIDE = 3;

/** Edges for a stretch of a line at a height, and the room that is left beside it. */
type Found = Row & Edges;

/** The first place at or below a baseline where a line has room between the edges of a column that is no box. */
function roomFor(
  column: Column,
  from: number,
  { ascent, descent, level }: ShapedParagraph,
  size: number,
  word: number,
): Found | null {
  let narrow: Found | null = null;
  for (
    let baseline = from;
    baseline + descent <= column.height! + 0.01;
    baseline += column.grid?.step ?? size * LOWER_BY
  ) {
    const all = column.spans!(baseline - ascent, baseline + descent);
    const least = size * (all.length > 1 ? NARROWEST_BESIDE : NARROWEST);
    const wide = all.filter(({ x0, x1 }) => x1 - x0 >= least);
    if (!wide.length) continue;
    const rest = level % 2 ? wide.toReversed() : wide;
    // A word is not cut where there is room for it further down.
    const found = onRow({ baseline, rest }, word);
    if (found) return found;
    narrow ??= onRow({ baseline, rest }, 0);
  }
  return narrow;
}

/** The next stretch of a line at a height that holds a word. */
function onRow({ baseline, rest }: Row, word: number): Found | null {
  const i = rest.findIndex(({ x0, x1 }) => x1 - x0 >= word);
  return i < 0 ? null : { baseline, ...rest[i], rest: rest.slice(i + 1) };
}

/** Moves the lines of a column to where its frame wants them. */
function place(lines: readonly Draft[], { height, spans, grid }: Column, placing: Placing): void {
  const last = lines[lines.length - 1];
  // In a frame that is no box lines lie where there is room.
  if (placing === 'top' || height === null || spans || !last) return;
  const free = Math.max(0, height - (last.baseline + last.shaped.descent));
  lines.forEach((l, i) => {
    const share = placing === 'foot' ? 1 : placing === 'middle' ? 0.5 : lines.length > 1 ? i / (lines.length - 1) : 0;
    l.baseline += grid ? Math.floor((free * share) / grid.step + 1e-6) * grid.step : free * share;
  });
}

const breakers = new WeakMap<ShapedParagraph, Breaker>();
function breakerOf(p: SetParagraph, shaped: ShapedParagraph, fonts: FontBook): Breaker {
  let made = breakers.get(shaped);
  if (!made) breakers.set(shaped, (made = new Breaker(p, shaped, fonts.hyphens)));
  return made;
}

/** No paragraph is kept in more ways to break it than this. */
const MOST_LINES = 2000;
const known = new WeakMap<ShapedParagraph, Map<string, LocalLine>>();
/** A line, the same one for the same stretch of the same paragraph. */
function lineOf(p: SetParagraph, shaped: ShapedParagraph, start: number, end: number, setting: LineSetting): LocalLine {
  let lines = known.get(shaped);
  if (!lines || lines.size > MOST_LINES) known.set(shaped, (lines = new Map()));
  const key = `${start} ${end} ${setting.stretch} ${setting.hyphen}`;
  let line = lines.get(key);
  if (!line) lines.set(key, (line = setLine(p, shaped, start, end, setting)));
  return line;
}
