import type { Palette } from '../colour/palette';
import type { ResolvedRamp } from '../colour/ramp';
import { RAMP_STEPS } from './field';

/** What one channel gets along a ramp; `constant` where that is the same everywhere. */
export interface Table {
  readonly table: Uint8Array;
  readonly constant: number | null;
}
/** Which channels a paint writes. Null: leaves that plate as it is. */
export type Writes = readonly (Table | null)[];

/** What a ramp writes into each channel, step by step, 0…255; null where it leaves a channel alone. */
export function rampWrites(ramp: ResolvedRamp, overprint: boolean, palette: Palette): Writes {
  const tables = palette.channels.map((_, i) =>
    overprint && !palette.screen && !ramp.used[i] ? null : new Uint8Array(RAMP_STEPS + 1),
  );
  eachStep(ramp, (n, a, b, f) => {
    for (let i = 0; i < tables.length; i++) {
      const t = tables[i];
      if (t) t[n] = (a.mix[i] + f * (b.mix[i] - a.mix[i])) * 255 + 0.5;
    }
  });
  return tables.map((table) => table && { table, constant: table.every((v) => v === table[0]) ? table[0] : null });
}

/** How far a ramp covers, step by step, 0…255. */
export function opacityTable(ramp: ResolvedRamp): Uint8Array {
  const table = new Uint8Array(RAMP_STEPS + 1);
  eachStep(ramp, (n, a, b, f) => {
    table[n] = (a.opacity + f * (b.opacity - a.opacity)) * 255 + 0.5;
  });
  return table;
}

/** Walks a table's steps and the ramp together: the ends of the piece that each lies in, and how far along it. */
function eachStep(
  { stops }: ResolvedRamp,
  visit: (n: number, a: ResolvedRamp['stops'][number], b: ResolvedRamp['stops'][number], f: number) => void,
): void {
  let i = 0;
  for (let n = 0; n <= RAMP_STEPS; n++) {
    const t = n / RAMP_STEPS;
    while (i < stops.length && stops[i].offset <= t) i++;
    const [a, b] = [stops[Math.max(0, i - 1)], stops[Math.min(stops.length - 1, i)]];
    visit(n, a, b, b.offset > a.offset && t > a.offset ? (t - a.offset) / (b.offset - a.offset) : 0);
  }
}
