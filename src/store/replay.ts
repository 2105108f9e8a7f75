// A design and its steps as they lie in the store, read again: step by step, as far as they are whole.
import { redoEntry, undoEntry, type HistoryEntry } from '@/core/edit/history';
import { packed, unpacked } from '@/core/edit/packed';
import { newDesign, setupOf } from '@/core/model/defaults';
import { leftOutText } from '@/core/model/faultText';
import { CURRENT_VERSION, migrate, migratePatches } from '@/core/model/migrations';
import type { Design } from '@/core/model/schema';
import { verifyChange, verifyDesign } from '@/core/model/verify';
import type { DesignRow, JournalRow, SnapshotRow, WholeRow } from './database';

/** A design with its steps: `start` is what it was before the first of the entries, which is number `base`. */
export interface WholeDesign {
  readonly design: Design;
  readonly start: Design;
  readonly base: number;
  readonly entries: readonly HistoryEntry[];
  readonly cursor: number;
}

export const rowOf = (designId: string, e: HistoryEntry, seq: number): JournalRow => ({
  label: e.label,
  patches: e.packed?.patches ?? packed(e.patches),
  inverse: e.packed?.inverse ?? packed(e.inverse),
  designId,
  seq,
});
export const entryOf = (row: JournalRow): HistoryEntry => ({
  label: row.label,
  patches: unpacked(row.patches),
  inverse: unpacked(row.inverse),
});
export const versionIn = (row: DesignRow): number => row.version ?? 1;
/** A step in our words, whatever version kept it. */
function migrated(e: HistoryEntry, version: number): HistoryEntry {
  if (version === CURRENT_VERSION) return e;
  return { ...e, patches: migratePatches(e.patches, version), inverse: migratePatches(e.inverse, version) };
}
/** What a snapshot holds; as it lies there, where it cannot be read. */
export function startOf({ snapshot }: Pick<SnapshotRow, 'snapshot'>): Design {
  try {
    return unpacked(snapshot);
  } catch {
    return snapshot as unknown as Design;
  }
}
/** A step as its file shows it: unpacked where it can be. */
export function readable(row: JournalRow): unknown {
  try {
    return { ...row, ...entryOf(row) };
  } catch {
    return row;
  }
}

interface Replayed extends WholeDesign {
  /** What could not be brought back, in words; null where all of it was. */
  readonly why: string | null;
}

/** From the snapshot on, step by step; null where not even the snapshot holds a design. */
export async function replay(row: WholeRow, steps: readonly JournalRow[]): Promise<Replayed | null> {
  const version = versionIn(row);
  const kept = migrate(startOf(row), version) as Design;
  const first = verifyDesign(kept);
  const start = first.ok ? first.design : kept;
  let [design, ahead] = [start, start];
  const entries: HistoryEntry[] = [];
  let cursor = 0;
  let sound = first.ok;
  // All steps are tried, those that were taken back too: only whole ones can be offered again.
  for (const step of steps) {
    const tried = row.base + entries.length === step.seq ? tryStep(ahead, step, version) : null;
    if (!tried) break;
    const { next, entry } = tried;
    sound &&= verifyChange(ahead, next) === null;
    ahead = next;
    entries.push(entry);
    if (step.seq < row.cursor) {
      design = next;
      cursor = entries.length;
    }
  }
  const lost = Math.max(steps.length - entries.length, row.cursor - row.base - entries.length > 0 ? 1 : 0);
  const torn = lost
    ? `The last ${lost === 1 ? 'step' : `${lost} steps`} could not be brought back; everything before is as you left it.`
    : null;
  if (sound) return { design, start, base: row.base, entries, cursor, why: torn };
  const { salvageDesign } = await import('@/core/model/salvage');
  const salvaged = salvageDesign(
    design,
    newDesign(row.name || 'Design', setupOf(row.width || 595, row.height || 842), {
      newId: () => row.id,
      now: () => row.modified,
    }),
  );
  if (!salvaged) return null;
  const whole = { ...salvaged.design, id: row.id };
  return {
    design: whole,
    start: whole,
    base: row.base,
    entries: [],
    cursor: 0,
    why: [`Some of this design could not be read and was left out. ${leftOutText(salvaged.leftOut, design)}`, torn]
      .filter(Boolean)
      .join(' '),
  };
}

/** Applies a step if it is whole: both directions are there, it applies, and taking it back gives the same design. */
function tryStep(
  design: Design,
  row: JournalRow,
  version: number,
): { readonly next: Design; readonly entry: HistoryEntry } | null {
  try {
    const entry = migrated(entryOf(row), version);
    if (
      typeof entry.label !== 'string' ||
      !Array.isArray(entry.patches) ||
      !Array.isArray(entry.inverse) ||
      entry.patches.length === 0
    )
      return null;
    const next = redoEntry(design, entry);
    undoEntry(next, entry);
    return { next, entry };
  } catch {
    return null;
  }
}
