import { DEFAULT_FACE } from '../model/defaults';
import type { SetParagraph, SetRun } from '../model/textLooks';
import type { Column } from './column';
import type { FontBook } from './fonts';
import { graphemes } from './graphemes';
import { setLine, type LocalLine } from './line';
import { shapeParagraph, type ShapedParagraph } from './shaping';

/** The letters of a drop capital, and how many lines stand beside it. Points. */
interface Drop {
  readonly local: LocalLine;
  /** Where in the paragraph the words beside it begin. */
  readonly end: number;
  readonly lines: number;
  /** With the gap behind it. */
  readonly width: number;
  /** From its first line's baseline to its own. */
  readonly down: number;
}

/** Between a drop capital and its words: this share of their size. */
const GAP = 0.15;

const known = new WeakMap<ShapedParagraph, { readonly drop: Drop | null }>();

/** The drop capital of a paragraph in a column; null where it has none, or where there is no room for one. */
export function dropOf(p: SetParagraph, shaped: ShapedParagraph, column: Column, fonts: FontBook): Drop | null {
  if (!p.dropCapital || column.width === null || column.spans || shaped.level % 2) return null;
  let made = known.get(shaped);
  if (!made) known.set(shaped, (made = { drop: makeDrop(p, p.dropCapital, shaped, fonts) }));
  return made.drop && made.drop.width < column.width / 2 ? made.drop : null;
}

function makeDrop(
  p: SetParagraph,
  { lines, letters }: NonNullable<SetParagraph['dropCapital']>,
  shaped: ShapedParagraph,
  fonts: FontBook,
): Drop | null {
  const taken = graphemes(shaped.text).slice(0, letters);
  const end = taken.reduce((n, g) => n + g.segment.length, 0);
  if (!end || end >= shaped.text.length) return null;
  const first = p.runs[0];
  const face = fonts.instance(first.face, first.axes) ?? fonts.get(DEFAULT_FACE);
  const capitals = face?.capHeight ?? 0.7;
  const step = typeof p.leading === 'number' ? p.leading * first.size : p.leading.points;
  // From the head of the capitals of its first line down to the feet of its last.
  const size = first.size + ((lines - 1) * step) / capitals;
  const runs: SetRun[] = [];
  for (let i = 0, at = 0; at < end; i++) {
    const run = p.runs[i];
    runs.push({ ...run, text: run.text.slice(0, end - at), size });
    at += run.text.length;
  }
  const own: SetParagraph = { ...p, dropCapital: null, list: null, runs };
  const local = setLine(own, shapeParagraph(own, fonts), 0, end, { stretch: 0, hyphen: false });
  const width = local.width + GAP * first.size;
  return { local, end, lines, width, down: (lines - 1) * step };
}

/** The drop capital as a line of its own, beside the first line of its paragraph. */
export function droppedLine(
  drop: Drop,
  made: { readonly x: number; readonly baseline: number },
  p: SetParagraph,
  shaped: ShapedParagraph,
  offset: number,
) {
  const x = p.align === 'left' || p.align === 'full' ? made.x - drop.width : p.indentLeft + p.indentFirst;
  return {
    local: drop.local,
    offset,
    shaped,
    x,
    baseline: made.baseline + drop.down,
    width: drop.local.width,
    mark: [],
  };
}
