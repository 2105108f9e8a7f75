import type { Rect } from '../geometry/rect';
import type { SetParagraph, SetRun } from '../model/textLooks';
import type { Face } from './face';
import { graphemes } from './graphemes';
import type { Item } from './itemize';
import { clustersOf, hyphenOf, type Cluster, type ShapedParagraph } from './shaping';
import { stopBehind, tabAdvance } from './tabs';

/**
 * A glyph in place: its pen position in the line's space (points, y down, the baseline at 0), and the text it stands
 * for.
 */
export interface PlacedGlyph {
  readonly gid: number;
  readonly x: number;
  readonly y: number;
  /** Pen to pen, points, with kerning and tracking. */
  readonly advance: number;
  readonly text: string;
  /** Where letters do not stand straight: how it is turned and stretched, the linear part of a matrix. */
  readonly turn?: readonly [number, number, number, number];
}

/** Glyphs of one item on one line. */
export interface PlacedRun {
  readonly run: SetRun;
  readonly face: Face;
  /** Of the letters as they are drawn, points. */
  readonly size: number;
  readonly glyphs: readonly PlacedGlyph[];
  /** The words in the order in which they are read. */
  readonly text: string;
  /** Where it begins and ends on the line, and how far it stands above it. */
  readonly x0: number;
  readonly x1: number;
  readonly rise: number;
}

/** A place on a line that is bent, and the way the line runs there. */
export interface Turn {
  readonly x: number;
  readonly y: number;
  readonly cos: number;
  readonly sin: number;
}

/** A place the caret can stand: `offset` counts UTF-16 units. */
export interface CaretStop {
  readonly offset: number;
  readonly x: number;
  /** Where on a line that is bent. */
  readonly turn?: Turn;
}

/** A line by itself: its pen begins at x = 0, its baseline at y = 0. Offsets are of its paragraph. */
export interface LocalLine {
  readonly runs: readonly PlacedRun[];
  /** Without the spaces that hang over its end. */
  readonly width: number;
  /** How many spaces it could be stretched at. */
  readonly spaces: number;
  readonly carets: readonly CaretStop[];
  readonly start: number;
  readonly end: number;
}

/**
 * A line in its place in layout space. Its runs are in the line's own space: `x` and `baseline` are where that begins.
 */
export class Line {
  private stops: readonly CaretStop[] | null = null;

  /** `offset`: where its paragraph begins in the story's plain text; `ascent`, `descent`: of its letters. */
  constructor(
    readonly local: LocalLine,
    readonly offset: number,
    readonly x: number,
    readonly baseline: number,
    readonly ascent: number,
    readonly descent: number,
    /** How wide it is made: to both sides of its column, where that is asked for. */
    readonly width: number,
    /** What its letters reach, where it is bent. */
    private readonly box: Rect | null = null,
    /** What stands beside its words without being of them: the mark of a list. */
    readonly mark: readonly PlacedRun[] = [],
    /** From offsets of the words that are shown to those of the story, where fields stand in it. */
    private readonly back: OffsetsBack | null = null,
  ) {
    this.runs = mark.length ? [...mark, ...local.runs] : local.runs;
  }

  readonly runs: readonly PlacedRun[];
  get x0(): number {
    return this.box ? this.box.x0 : this.x;
  }
  get x1(): number {
    return this.box ? this.box.x1 : this.x + this.width;
  }
  get top(): number {
    return this.box ? this.box.y0 : this.baseline - this.ascent;
  }
  get bottom(): number {
    return this.box ? this.box.y1 : this.baseline + this.descent;
  }
  /** Offsets in the story's plain text. */
  get start(): number {
    return this.inStory(this.local.start);
  }
  get end(): number {
    return this.inStory(this.local.end);
  }
  get carets(): readonly CaretStop[] {
    return (this.stops ??= this.local.carets.flatMap((c) => {
      // Inside a field there is no place for a caret.
      if (this.back?.inside(c.offset + this.offset)) return [];
      return { ...c, offset: this.inStory(c.offset), x: c.x + this.x };
    }));
  }

  private inStory(local: number): number {
    return this.back ? this.back.toStory(local + this.offset) : local + this.offset;
  }

  /** The same line, its offsets told by the story that its fields stand in. */
  withOffsets(back: OffsetsBack): Line {
    const { local, offset, x, baseline, ascent, descent, width, box, mark } = this;
    return new Line(local, offset, x, baseline, ascent, descent, width, box, mark, back);
  }
}

/** Offsets of words that are shown, told by the story they came of. */
export interface OffsetsBack {
  /** Within what one field came to, not at its ends? */
  inside(offset: number): boolean;
  toStory(offset: number): number;
}

/** The clusters from one offset to another, shaped anew where a cut goes through what leans on each other. */
function clustersIn(shaped: ShapedParagraph, start: number, end: number): Cluster[] {
  const { clusters } = shaped;
  const [first, last] = [indexAt(clusters, start), indexAt(clusters, end)];
  const cut = (i: number, at: number) =>
    at > 0 && i < clusters.length && (clusters[i].start !== at || clusters[i].bound);
  if (!cut(first, start) && !cut(last, end)) return clusters.slice(first, last);
  const out: Cluster[] = [];
  for (const item of shaped.items) {
    const [a, b] = [Math.max(item.start, start), Math.min(item.end, end)];
    if (a >= b) continue;
    for (const c of clustersOf(item, a, b)) out.push(c);
  }
  return out;
}

/**
 * The number of the first cluster that begins at an offset or behind it; of the one that holds it, where none begins
 * there.
 */
function indexAt(clusters: readonly Cluster[], offset: number): number {
  let [lo, hi] = [0, clusters.length];
  while (lo < hi) {
    const mid = (lo + hi) >> 1;
    if (clusters[mid].end > offset) hi = mid;
    else lo = mid + 1;
  }
  return lo;
}

/** Clusters as they stand from left to right (UAX 9, L2): runs of a level are turned round, the highest first. */
function visual(clusters: readonly Cluster[]): readonly Cluster[] {
  let [most, least] = [0, Infinity];
  for (const c of clusters) {
    most = Math.max(most, c.item.level);
    least = Math.min(least, c.item.level);
  }
  if (most === 0) return clusters;
  const out = [...clusters];
  for (let level = most; level >= Math.max(1, least % 2 ? least : least + 1); level--)
    for (let i = 0; i < out.length;) {
      if (out[i].item.level < level) {
        i++;
        continue;
      }
      let j = i;
      while (j < out.length && out[j].item.level >= level) j++;
      out.splice(i, j - i, ...out.slice(i, j).reverse());
      i = j;
    }
  return out;
}

const trackOf = (item: Item): number => (item.run.tracking / 1000) * item.run.size;

/** How a line is set beside its letters. */
export interface LineSetting {
  /** Added to each space. */
  readonly stretch: number;
  /** A hyphen stands at its end that was not typed. */
  readonly hyphen: boolean;
}

/** Sets the letters from one offset to another side by side; `p` says where tabs go. */
export function setLine(
  p: SetParagraph,
  shaped: ShapedParagraph,
  start: number,
  end: number,
  { stretch, hyphen }: LineSetting,
): LocalLine {
  const { text } = shaped;
  const clusters = clustersIn(shaped, start, end);
  // Spaces at the line's end hang: they take no part in alignment.
  let visibleEnd = end;
  while (visibleEnd > start && text[visibleEnd - 1] === ' ') visibleEnd--;
  const tabs = text.slice(start, end).includes('\t') ? tabsIn(p, text, clusters, end) : null;
  const advanceOf = (c: Cluster): number => tabs?.get(c) ?? c.advance;
  const last = hyphen ? hyphenOf(shaped, end - 1) : null;
  let width = last ? last.advance : 0;
  let spaces = 0;
  for (const c of clusters) {
    if (c.start >= visibleEnd) continue;
    width += advanceOf(c) + (c.end >= visibleEnd && !last ? 0 : trackOf(c.item));
    if (isSpace(text, c)) spaces++;
  }
  // What stands before a tab is not moved: only the spaces behind the last one can give.
  if (tabs?.size) spaces = 0;
  const carets: CaretStop[] = [];
  const runs: PlacedRun[] = [];
  let x = 0;
  let glyphs: PlacedGlyph[] = [];
  let words: string[] = [];
  let item: Item | null = null;
  let x0 = 0;
  const done = () => {
    if (!item) return;
    const { run, face, size, rise, level } = item;
    runs.push({ run, face, size, rise, glyphs, text: (level % 2 ? words.reverse() : words).join(''), x0, x1: x });
  };
  const put = (c: Cluster, said: string, extra: number) => {
    const { size, face, rise } = c.item;
    const scale = size / face.upem;
    for (const [k, g] of c.glyphs.entries()) {
      const advance = g.advance * scale + (k === c.glyphs.length - 1 ? extra : 0);
      glyphs.push({ gid: g.gid, x: x + g.dx * scale, y: -rise - g.dy * scale, advance, text: k === 0 ? said : '' });
      x += advance;
    }
    words.push(said);
  };
  for (const c of visual(clusters)) {
    if (c.item !== item) {
      done();
      item = c.item;
      [glyphs, words, x0] = [[], [], x];
    }
    const said = text.slice(c.start, c.end);
    const from = x;
    const extra = trackOf(item) + (isSpace(text, c) ? stretch : 0);
    if (said === '\t') {
      // Nothing is drawn on the way but its leader; in the words it is a space.
      const to = x + advanceOf(c);
      const leader = stopBehind(p, p.indentLeft + x)?.leader;
      if (leader) fillWith(leader, item, x, to, glyphs);
      words.push(' ');
      x = to;
    } else put(c, said, extra);
    // A ligature is shared evenly among its letters.
    const letters = said.length === 1 ? ONE : graphemes(said);
    const n = letters.length;
    letters.forEach((l, i) => {
      const share = item!.level % 2 ? (n - i) / n : i / n;
      carets.push({ offset: c.start + l.index, x: from + (x - from) * share });
    });
  }
  if (last && item) {
    if (last.item !== item) {
      done();
      item = last.item;
      [glyphs, words, x0] = [[], [], x];
    }
    put(last, SOFT, 0);
  }
  done();
  if (shaped.level || clusters.some((c) => c.item.level)) carets.sort((a, b) => a.offset - b.offset);
  // Behind the last letter: at the side to which the paragraph runs.
  carets.push({ offset: end, x: shaped.level % 2 ? 0 : x });
  return { runs, width, spaces, carets, start, end };
}
const ONE = [{ index: 0 }] as const;
const SOFT = '\u00ad';
const isSpace = (text: string, c: Cluster): boolean => c.end - c.start === 1 && text[c.start] === ' ';

/** How far each tab of a line goes. */
function tabsIn(p: SetParagraph, text: string, clusters: readonly Cluster[], end: number): Map<Cluster, number> {
  const tabs = new Map<Cluster, number>();
  const across = (from: number, to: number): number => {
    let sum = 0;
    for (const c of clusters) if (c.start >= from && c.start < to) sum += c.advance + trackOf(c.item);
    return sum;
  };
  let pen = 0;
  for (const c of clusters) {
    const tab = text[c.start] === '\t';
    const advance = tab ? tabAdvance(p, text, c.start, end, pen, across) : c.advance + trackOf(c.item);
    if (tab) tabs.set(c, advance);
    pen += advance;
  }
  return tabs;
}

/** A way that would take more copies of its leader stays empty. */
const MOST_LEADERS = 2000;

/**
 * Repeats a leader between two places, each of its copies a multiple of its width from the line's beginning, so that
 * those of all lines stand below each other.
 */
function fillWith(
  leader: string,
  { face, size, rise, shaping }: Item,
  from: number,
  to: number,
  out: PlacedGlyph[],
): void {
  const shaped = face.shape(leader, shaping);
  const scale = size / face.upem;
  const width = shaped.reduce((n, g) => n + g.advance, 0) * scale;
  if (!((to - from) / width < MOST_LEADERS)) return;
  for (let x = Math.ceil(from / width) * width; x + width <= to; x += width) {
    let pen = x;
    for (const g of shaped) {
      out.push({
        gid: g.gid,
        x: pen + g.dx * scale,
        y: -rise - g.dy * scale,
        advance: g.advance * scale,
        text: leader,
      });
      pen += g.advance * scale;
    }
  }
}

/** The largest letters between two offsets; of an empty stretch, those that typing there would take. */
export function sizeIn(p: SetParagraph, start: number, end: number): number {
  let size = 0;
  let at = 0;
  for (const r of p.runs) {
    if (r.text && at < end && at + r.text.length > start) size = Math.max(size, r.size);
    at += r.text.length;
  }
  return size || p.runs[0].size;
}
