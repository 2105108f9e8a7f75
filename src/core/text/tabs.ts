import type { SetParagraph } from '../model/textLooks';

/** Without stops of one's own, every half inch (common practice). */
const EVERY = 36;
/** A stop so near is passed already. */
const PASSED = 0.01;

/**
 * How far a tab goes that stands `pen` points behind the line's beginning: to the next stop, with what follows it up to
 * the next tab (or `end`) set left of it, on it or behind it. `across` is the width between two offsets.
 */
export function tabAdvance(
  p: SetParagraph,
  text: string,
  tab: number,
  end: number,
  pen: number,
  across: (from: number, to: number) => number,
): number {
  // Stops are measured from the column's edge; lines begin at their indent.
  const at = p.indentLeft + pen;
  const stop = stopBehind(p, at);
  if (!stop) return Math.ceil((at + PASSED) / EVERY) * EVERY - at;
  if (stop.align === 'left') return stop.at - at;
  const next = text.indexOf('\t', tab + 1);
  const to = next < 0 || next > end ? end : next;
  const point = stop.align === 'decimal' ? decimalIn(text, tab + 1, to) : to;
  const share = stop.align === 'middle' ? 0.5 : 1;
  return Math.max(0, stop.at - at - share * across(tab + 1, point));
}

/** The first stop behind a place. */
export const stopBehind = (p: SetParagraph, at: number) =>
  p.tabs.toSorted((a, b) => a.at - b.at).find((t) => t.at > at + PASSED);

/** Where the decimal sign stands, or the end of a number without one. */
function decimalIn(text: string, from: number, to: number): number {
  for (let i = from; i < to; i++) if (/[.,]/.test(text[i]) && /\d/.test(text[i + 1] ?? '')) return i;
  return to;
}
