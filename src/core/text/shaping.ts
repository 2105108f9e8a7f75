import { DEFAULT_FACE } from '../model/defaults';
import type { SetParagraph } from '../model/textLooks';
import type { ShapedGlyph } from './face';
import type { FontBook } from './fonts';
import { itemize, type Item } from './itemize';

/** What cannot be cut: letters that are one glyph, a letter and its marks. Advance in points. */
export interface Cluster {
  /** Offsets in the paragraph's text. */
  readonly start: number;
  readonly end: number;
  readonly item: Item;
  /** From left to right. */
  readonly glyphs: readonly ShapedGlyph[];
  /** Pen to pen without tracking. */
  readonly advance: number;
  /** Cut before it, both sides are shaped anew. */
  readonly bound: boolean;
}

/** A paragraph, shaped as if it were one endless line. */
export interface ShapedParagraph {
  readonly text: string;
  readonly items: readonly Item[];
  /** In the order in which they are read. */
  readonly clusters: readonly Cluster[];
  /** The most that its letters reach above and below a line, points. */
  readonly ascent: number;
  readonly descent: number;
  readonly missing: readonly string[];
  readonly level: number;
}

const known = new WeakMap<SetParagraph, { readonly epoch: number; readonly shaped: ShapedParagraph }>();

/** Remembered by the paragraph (with all that is set of it) and the faces at hand. */
export function shapeParagraph(p: SetParagraph, fonts: FontBook): ShapedParagraph {
  const old = known.get(p);
  if (old?.epoch === fonts.epoch) return old.shaped;
  const { items, missing, level } = itemize(p, fonts);
  const text = p.runs.map((r) => r.text).join('');
  const clusters: Cluster[] = [];
  for (const item of items) for (const c of clustersOf(item)) clusters.push(c);
  let [ascent, descent] = [0, 0];
  for (const run of p.runs) {
    const face = fonts.instance(run.face, run.axes) ?? fonts.get(DEFAULT_FACE);
    if (!face) continue;
    ascent = Math.max(ascent, (face.ascender / face.upem) * run.size);
    descent = Math.max(descent, (-face.descender / face.upem) * run.size);
  }
  const shaped = { text, items, clusters, ascent, descent, missing, level };
  known.set(p, { epoch: fonts.epoch, shaped });
  return shaped;
}

/** The clusters of an item, or of a part of it shaped by itself, in the order in which they are read. */
export function clustersOf(item: Item, start = item.start, end = item.end): Cluster[] {
  const { face, size, offsets } = item;
  const scale = size / face.upem;
  // Where the part begins and ends in what is shaped.
  const from = offsets ? offsets.findIndex((o) => o >= start) : start - item.start;
  const next = offsets ? offsets.findIndex((o) => o >= end) : end - item.start;
  const to = next < 0 ? item.text.length : next;
  const whole = from === 0 && to === item.text.length;
  const glyphs = face.shape(whole ? item.text : item.text.slice(from, to), item.shaping);
  const out: Cluster[] = [];
  const origin = (unit: number): number => (offsets ? offsets[from + unit] : start + unit);
  for (let i = 0; i < glyphs.length;) {
    const { cluster } = glyphs[i];
    let j = i + 1;
    let advance = glyphs[i].advance * scale;
    for (; j < glyphs.length && glyphs[j].cluster === cluster; j++) advance += glyphs[j].advance * scale;
    out.push({
      start: origin(cluster),
      end: 0,
      item,
      glyphs: i === 0 && j === glyphs.length ? glyphs : glyphs.slice(i, j),
      advance,
      bound: glyphs[i].bound,
    });
    i = j;
  }
  if (item.level % 2) out.reverse();
  for (let i = 0; i < out.length; i++) (out[i] as { end: number }).end = out[i + 1]?.start ?? end;
  return merged(out);
}

/** Clusters that came from one letter (ß in capitals) are one. */
function merged(clusters: Cluster[]): Cluster[] {
  if (clusters.every((c) => c.end > c.start)) return clusters;
  const out: Cluster[] = [];
  for (const c of clusters) {
    const last = out[out.length - 1];
    if (last && last.start === c.start) {
      const [a, b] = c.item.level % 2 ? [c, last] : [last, c];
      out[out.length - 1] = {
        ...last,
        end: c.end,
        glyphs: [...a.glyphs, ...b.glyphs],
        advance: last.advance + c.advance,
      };
    } else out.push(c);
  }
  return out;
}

/** A hyphen as the letters at an offset would have it; null where their face has none. */
export function hyphenOf(shaped: ShapedParagraph, at: number): Cluster | null {
  const item = shaped.items.find((i) => at >= i.start && at < i.end) ?? shaped.items[shaped.items.length - 1];
  if (!item) return null;
  const text = item.face.coversAll('\u2010') ? '\u2010' : '-';
  const glyphs = item.face.shape(text, item.shaping);
  const advance = glyphs.reduce((n, g) => n + g.advance, 0) * (item.size / item.face.upem);
  return { start: at + 1, end: at + 1, item, glyphs, advance, bound: false };
}
