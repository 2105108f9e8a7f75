// How two things are compared here. The machine is now fast and now slow, so one side is never measured after the
// other: both are warmed, then run in turns, many short ones, and what counts is the ratio within a turn. Others may
// have the machine meanwhile: the turns in which they had most of it are left out.
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

/**
 * A quantile of times that are told in steps: those of one step are taken to lie evenly within it (the quantile of
 * grouped data: common practice).
 */
export function quantileInSteps(list: readonly number[], q: number, step: number): number {
  const sorted = [...list].sort((a, b) => a - b);
  const wanted = q * sorted.length;
  const told = sorted[Math.min(sorted.length - 1, Math.floor(wanted))];
  const below = sorted.indexOf(told);
  const same = sorted.lastIndexOf(told) + 1 - below;
  return told - step / 2 + (step * (wanted - below)) / same;
}

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

/**
 * How much of this machine others had since now, 0…1: what the system tells of a machine that is one of several on
 * another.
 */
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

/** Each core is two: while another's work runs on its other half, this one has little more than half its pace. */
const MOST_UNEVEN = 1.15;

const numbers = Uint8Array.from({ length: 65_536 }, (_, i) => (i * 7919) >> 3);
const result = new Int32Array(1);
/** Work that a core at its full pace does side by side; its result is kept, so that it is not left out. */
function work(): void {
  let [a, b, c, d, e] = [0, 0, 0, 0, 0];
  for (let i = 0; i < 100_000; i++) {
    const v = numbers[i & 65_535];
    a += v;
    b ^= v;
    if (v > 200) c++;
    d = (d + v * 3) | 0;
    e = (e ^ (v << 1)) | 0;
  }
  result[0] = a + b + c + d + e;
}
for (let i = 0; i < 200; i++) work();

/** What is asked of the machine; its tests have one that they make fast and slow themselves. */
export const machine = {
  now: () => performance.now(),
  /** How long a small piece of work takes just now, in ms: the best of four. */
  pace(): number {
    let best = Infinity;
    for (let i = 0; i < 4; i++) {
      const t = performance.now();
      work();
      best = Math.min(best, performance.now() - t);
    }
    return best;
  },
  takenShare,
};

/**
 * So many turns in which the machine was here and kept its pace, the first `warm` left out: up to half as many again
 * are made, the quietest count. A turn may ask in between how fast the machine is just now; one that never asks is
 * judged by what others took alone.
 */
export async function quietTurns<T>(
  turns: number,
  warm: number,
  turn: (probe: () => void) => Promise<T>,
): Promise<T[]> {
  for (let i = 0; i < warm; i++) await turn(() => {});
  const seen: { readonly read: T; readonly trouble: number }[] = [];
  for (let quiet = 0; quiet < turns && seen.length < Math.ceil(turns * 1.5);) {
    const share = machine.takenShare();
    const paces: number[] = [];
    const read = await turn(() => void paces.push(machine.pace()));
    const uneven = paces.length ? Math.max(...paces) / Math.min(...paces) - 1 : 0;
    const trouble = Math.max(share() / MOST_TAKEN, uneven / (MOST_UNEVEN - 1));
    seen.push({ read, trouble });
    if (trouble <= 1) quiet++;
  }
  return seen
    .sort((a, b) => a.trouble - b.trouble)
    .slice(0, turns)
    .map((s) => s.read);
}

/**
 * The times of several runs in turns, the first `warm` turns left out. In each turn they run there and back again (a b
 * b a), so that a pace that changes meanwhile is shared by all.
 */
export async function inTurns(turns: number, warm: number, ...runs: (() => unknown)[]): Promise<number[][]> {
  const timed = async (run: () => unknown) => {
    const t = machine.now();
    await run();
    return machine.now() - t;
  };
  const times = await quietTurns(turns, warm, async (probe) => {
    const out: number[] = runs.map(() => 0);
    probe();
    for (const k of [...runs.keys(), ...[...runs.keys()].reverse()]) {
      out[k] += (await timed(runs[k])) / 2;
      probe();
    }
    return out;
  });
  return runs.map((_, k) => times.map((t) => t[k]));
}

/** The times of one run in ms, those of its turns at the machine's best pace: for what is held against a time. */
export async function atFullPace(turns: number, warm: number, run: (turn: number) => unknown): Promise<number[]> {
  for (let i = 0; i < warm; i++) await run(-1 - i);
  const seen: { readonly time: number; readonly slowest: number }[] = [];
  for (let i = 0; i < turns * 3; i++) {
    const before = machine.pace();
    const t = machine.now();
    await run(i);
    seen.push({ time: machine.now() - t, slowest: Math.max(before, machine.pace()) });
  }
  return seen
    .sort((a, b) => a.slowest - b.slowest)
    .slice(0, turns)
    .map((s) => s.time);
}

/** Two readings in turns, there and back again, the first `warm` turns left out; each reads its own figure. */
export async function readInTurns(
  turns: number,
  warm: number,
  ours: () => Promise<number>,
  reference: () => Promise<number>,
): Promise<Measured> {
  const pairs = await quietTurns(turns, warm, async () => {
    const there = [await ours(), await reference()];
    const back = [await reference(), await ours()];
    return [(there[0] + back[1]) / 2, (there[1] + back[0]) / 2] as const;
  });
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
