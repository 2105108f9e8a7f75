// How two things are compared here. The machine is now fast and now slow, so one side is never measured after the other:
// both are warmed, then run in turns, many short ones, and what counts is the ratio within a turn. Others may have the
// machine meanwhile: the turns in which they had most of it are left out.
import { readFileSync } from 'node:fs';

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

/** A machine of which others had more than this says nothing. */
export const MOST_TAKEN = 0.02;

/** How much of this machine others had since now, 0…1: what the system tells of a machine that is one of several on another. */
export function takenShare(): () => number {
  const read = () => {
    try {
      const times = readFileSync('/proc/stat', 'utf8').split('\n', 1)[0].split(/\s+/).slice(1).map(Number);
      return { taken: times[7] || 0, all: times.reduce((sum, t) => sum + (t || 0), 0) };
    } catch {
      return { taken: 0, all: 0 }; // another system, which does not tell
    }
  };
  const before = read();
  return () => {
    const now = read();
    return (now.taken - before.taken) / Math.max(1, now.all - before.all);
  };
}

/** So many turns in which the machine was here, the first `warm` left out: up to half as many again are made, the quietest count. */
export async function quietTurns<T>(turns: number, warm: number, turn: () => Promise<T>): Promise<T[]> {
  for (let i = 0; i < warm; i++) await turn();
  const seen: { readonly read: T; readonly taken: number }[] = [];
  for (let quiet = 0; quiet < turns && seen.length < Math.ceil(turns * 1.5);) {
    const share = takenShare();
    const read = await turn();
    const taken = share();
    seen.push({ read, taken });
    if (taken <= MOST_TAKEN) quiet++;
  }
  return seen
    .sort((a, b) => a.taken - b.taken)
    .slice(0, turns)
    .map((s) => s.read);
}

/** The times of several runs in turns, the first `warm` turns left out. */
export async function inTurns(turns: number, warm: number, ...runs: (() => unknown)[]): Promise<number[][]> {
  const times = await quietTurns(turns, warm, async () => {
    const out: number[] = [];
    for (const run of runs) {
      const t = performance.now();
      await run();
      out.push(performance.now() - t);
    }
    return out;
  });
  return runs.map((_, k) => times.map((t) => t[k]));
}

/** Two readings in turns, the first `warm` turns left out; each reads its own figure. */
export async function readInTurns(
  turns: number,
  warm: number,
  ours: () => Promise<number>,
  reference: () => Promise<number>,
): Promise<Measured> {
  const pairs = await quietTurns(turns, warm, async () => [await ours(), await reference()] as const);
  return measured(
    pairs.map((p) => p[0]),
    pairs.map((p) => p[1]),
  );
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
