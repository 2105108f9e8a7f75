// The table of the bench, of one run or of the last five.
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { median, type Row } from './measure';

export const RUNS = 5;
const KEPT = 'tmp/bench-runs.json';

export const HEAD = `# Speed

Ratios against a reference measured in the same run by \`npm run bench\`, in turns, there and back again: headless Chromium without a GPU,
two cores that others share. Turns in which the machine was not there, or changed its pace, are left out as far as may be.
Script time is the browser's own count of script; frame gaps are between animation frames (60 Hz). The ratio is the middle one (of two,
the larger) of the last whole runs, at most five, which stand beside it; figures and turns are of that run.`;

/** The whole runs that were made here before, oldest first. */
export function keptRuns(): readonly (readonly Row[])[] {
  try {
    return JSON.parse(readFileSync(KEPT, 'utf8')) as (readonly Row[])[];
  } catch {
    return [];
  }
}

export function keepRuns(runs: readonly (readonly Row[])[]): void {
  mkdirSync('tmp', { recursive: true });
  writeFileSync(KEPT, JSON.stringify(runs));
}

const figure = (v: number, unit = 'ms') => `${v.toFixed(v < 10 ? 2 : 0)} ${unit}`;
const spread = (r: Row) => (r.turns > 1 ? `${r.low.toFixed(2)}–${r.high.toFixed(2)}, ${r.turns} turns` : '');

/** Rows in the order of the last run. */
export function tableOf(runs: readonly (readonly Row[])[]): string {
  const several = runs.length > 1;
  return [
    `| what | ours | reference | ratio | ${several ? 'runs | ' : ''}middle half of the turns | aim | |`,
    `|---|---|---|---|${several ? '---|' : ''}---|---|---|`,
    ...runs[runs.length - 1].map((last) => {
      const same = runs.flatMap((rows) => rows.filter((r) => r.what === last.what));
      const ratio = median(same.map((r) => r.ratio));
      const r = same.find((x) => x.ratio === ratio)!;
      const each = several ? `${same.map((x) => x.ratio.toFixed(2)).join(' · ')} | ` : '';
      return `| ${r.what} | ${figure(r.ours, r.unit)} | ${figure(r.reference, r.unit)} | ${r.ratio.toFixed(2)} | ${each}${spread(r)} | ≤ ${r.aim} ${r.ratio <= r.aim ? 'met' : '**missed**'} | ${r.note} |`;
    }),
  ].join('\n');
}

/** How far three runs may lie from their middle one. */
const STEADY = 0.1;
/**
 * How many rows came to the same in the last three runs, in words: of those that are held against other work, and
 * against a time.
 */
export function steadinessOf(runs: readonly (readonly Row[])[]): string {
  const three = runs.slice(-3);
  if (three.length < 3) return '';
  const tell = (rows: readonly Row[]) => {
    const apart = rows.map((r) => {
      const ratios = three.flatMap((run) => run.filter((x) => x.what === r.what)).map((x) => x.ratio);
      return Math.max(...ratios.map((v) => Math.abs(v / median(ratios) - 1)));
    });
    return `${apart.filter((d) => d <= STEADY).length} of ${rows.length}`;
  };
  const last = three[2];
  const timed = (r: Row) => r.turns === 1 || r.what.endsWith('/ the bar');
  return `In the last three runs ${tell(last.filter((r) => !timed(r)))} rows that are held against other work lie within ${STEADY * 100} % of their middle, and ${tell(last.filter(timed))} that are held against a bar.`;
}
