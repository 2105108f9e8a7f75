import type { LocalLine } from './line';

export interface Hang {
  readonly left: number;
  readonly right: number;
}
export const NO_HANG: Hang = { left: 0, right: 0 };

/** Which share of a mark hangs out at an edge so that it looks even (common practice; values by eye). */
const SHARES: ReadonlyMap<string, number> = new Map([
  ...[...'.,-\u00ad\u2010'].map((c) => [c, 0.7] as const),
  ...[...'‘’‚“”„\'"'].map((c) => [c, 0.6] as const),
  ...[...':;–'].map((c) => [c, 0.4] as const),
  ...[...'!?()«»—'].map((c) => [c, 0.25] as const),
]);

/** How far the marks at both ends of a line hang out, in points. */
export function hanging(line: LocalLine): Hang {
  const glyphs = line.runs.flatMap((r) => r.glyphs);
  const first = glyphs[0];
  const last = glyphs.findLast((g) => g.text.trim() !== '');
  const out = (g: typeof first | undefined): number => (g ? (SHARES.get(g.text) ?? 0) * g.advance : 0);
  return { left: out(first), right: last === first ? 0 : out(last) };
}
