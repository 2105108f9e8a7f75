// How two things are compared here. The machine is now fast and now slow, so one side is never measured after the other:
// both are warmed, then run in turns, many short ones, and what counts is the ratio within a turn.

export interface Measured {
  /** Medians in ms (or what `scale` makes of it). */
  readonly ours: number;
  readonly reference: number;
  /** The median of the turns' ratios, and their quartiles. */
  readonly ratio: number;
  readonly low: number;
  readonly high: number;
  readonly turns: number;
}

const at = (list: readonly number[], share: number) =>
  [...list].sort((a, b) => a - b)[Math.min(list.length - 1, Math.floor(list.length * share))];
export const median = (list: readonly number[]): number => at(list, 0.5);

/** What paired times come to. */
export function measured(ours: readonly number[], reference: readonly number[], scale = 1): Measured {
  const ratios = ours.map((v, i) => v / reference[i]);
  return {
    ours: median(ours) * scale,
    reference: median(reference) * scale,
    ratio: median(ratios),
    low: at(ratios, 0.25),
    high: at(ratios, 0.75),
    turns: ratios.length,
  };
}

/** The times of several runs in turns, the first `warm` turns left out. */
export async function inTurns(turns: number, warm: number, ...runs: (() => unknown)[]): Promise<number[][]> {
  const out: number[][] = runs.map(() => []);
  for (let i = -warm; i < turns; i++)
    for (const [k, run] of runs.entries()) {
      const t = performance.now();
      await run();
      if (i >= 0) out[k].push(performance.now() - t);
    }
  return out;
}

/** Two readings in turns, the first `warm` turns left out; each reads its own figure. */
export async function readInTurns(
  turns: number,
  warm: number,
  ours: () => Promise<number>,
  reference: () => Promise<number>,
): Promise<Measured> {
  const [a, b]: number[][] = [[], []];
  for (let i = -warm; i < turns; i++) {
    const pair = [await ours(), await reference()];
    if (i < 0) continue;
    a.push(pair[0]);
    b.push(pair[1]);
  }
  return measured(a, b);
}

/** A row of the table. Where there is nothing to compare with, the reference is the bar itself, in the unit of both. */
export interface Row extends Measured {
  readonly what: string;
  readonly aim: number;
  readonly note: string;
  /** Absent: ms. */
  readonly unit?: string;
}

/** One figure against a bar. */
export const against = (ours: number, bar: number): Measured => ({
  ours,
  reference: bar,
  ratio: ours / bar,
  low: ours / bar,
  high: ours / bar,
  turns: 1,
});
