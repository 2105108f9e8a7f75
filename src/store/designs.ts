import { redoEntry, undoEntry, type HistoryEntry } from '@/core/edit/history';
import type { Design } from '@/core/model/schema';
import { verifyDesign } from '@/core/model/verify';
import type { DesignRow, HolvetDatabase, JournalRow, LibraryRow } from './database';

/** Steps that can be taken back; older ones become part of the snapshot. */
export const KEPT_STEPS = 200;
/** How many are folded at once: the snapshot is large, and need not be written at every step. */
const FOLD = 25;

export interface LoadedDesign {
  readonly design: Design;
  readonly entries: readonly HistoryEntry[];
  /** How many of the entries are in force. */
  readonly cursor: number;
  /** A sentence when something could not be brought back. */
  readonly warning: string | null;
}

/** All that was kept of a design. */
export interface RemovedDesign {
  readonly row: DesignRow;
  readonly steps: readonly JournalRow[];
}

export type Loaded = { readonly ok: true; readonly value: LoadedDesign } | { readonly ok: false; readonly reason: 'unknown' | 'broken' };

const blank = (design: Design): DesignRow => ({
  id: design.id,
  name: design.name,
  modified: design.modified,
  snapshot: design,
  base: 0,
  cursor: 0,
  thumbnail: null,
  width: design.setup.width,
  height: design.setup.height,
});

/** The designs of this browser. Every method is one transaction: it happens whole or not at all. */
export class DesignStore {
  constructor(
    private readonly db: HolvetDatabase,
    private readonly keptSteps = KEPT_STEPS,
  ) {}

  async list(): Promise<DesignRow[]> {
    return this.db.designs.orderBy('modified').reverse().toArray();
  }

  async has(id: string): Promise<boolean> {
    return (await this.db.designs.where('id').equals(id).count()) > 0;
  }

  async add(design: Design, thumbnail: Uint8Array | null = null): Promise<void> {
    await this.db.transaction('rw', this.db.designs, this.db.journal, async () => {
      await this.db.designs.put({ ...blank(design), thumbnail });
      await this.db.journal.where('designId').equals(design.id).delete();
    });
  }

  /** Takes a design off the shelf, and answers all that was kept of it, its steps too; null if there was none. */
  async remove(id: string): Promise<RemovedDesign | null> {
    return this.db.transaction('rw', this.db.designs, this.db.journal, async () => {
      const row = await this.db.designs.get(id);
      const steps = await this.db.journal.where('designId').equals(id).toArray();
      await this.db.designs.delete(id);
      await this.db.journal.where('designId').equals(id).delete();
      return row ? { row, steps } : null;
    });
  }

  /** Puts a removed design back as it was. */
  async putBack({ row, steps }: RemovedDesign): Promise<void> {
    await this.db.transaction('rw', this.db.designs, this.db.journal, async () => {
      await this.db.designs.put(row);
      await this.db.journal.bulkPut([...steps]);
    });
  }

  async setThumbnail(id: string, thumbnail: Uint8Array): Promise<void> {
    await this.db.designs.update(id, { thumbnail });
  }

  /** Snapshot, then step by step up to the cursor. A step that is torn ends the row there, and is said. */
  async load(id: string): Promise<Loaded> {
    const { row, rows } = await this.db.transaction('r', this.db.designs, this.db.journal, async () => ({
      row: await this.db.designs.get(id),
      rows: await this.db.journal.where('designId').equals(id).sortBy('seq'),
    }));
    if (!row) return { ok: false, reason: 'unknown' };
    const start = verifyDesign(row.snapshot);
    if (!start.ok) return { ok: false, reason: 'broken' };
    let design = start.design;
    const entries: HistoryEntry[] = [];
    let cursor = 0;
    let warning: string | null = null;
    // All steps are tried, those that were taken back too: only whole ones can be offered again.
    let ahead = design;
    for (const entry of rows) {
      const next = row.base + entries.length === entry.seq ? tryStep(ahead, entry) : null;
      if (!next) {
        const lost = rows.length - entries.length;
        warning = `The last ${lost === 1 ? 'step' : `${lost} steps`} could not be brought back; everything before is as you left it.`;
        break;
      }
      ahead = next;
      entries.push({ label: entry.label, patches: entry.patches, inverse: entry.inverse });
      if (entry.seq < row.cursor) {
        design = next;
        cursor = entries.length;
      }
    }
    if (warning === null && row.base + rows.length < row.cursor) warning = 'The last step could not be brought back; everything before is as you left it.';
    if (warning !== null) await this.truncate(id, row.base + entries.length);
    const sound = verifyDesign(design);
    if (!sound.ok) return { ok: false, reason: 'broken' };
    return { ok: true, value: { design, entries, cursor, warning } };
  }

  private async truncate(id: string, end: number): Promise<void> {
    await this.db.transaction('rw', this.db.designs, this.db.journal, async () => {
      await this.db.journal.where('designId').equals(id).filter((r) => !(r.seq < end)).delete();
      const row = await this.db.designs.get(id);
      if (row && row.cursor > end) await this.db.designs.update(id, { cursor: end });
    });
  }

  /** Appends one step behind the cursor; steps that had been taken back are gone. Old steps fold into the snapshot. */
  async append(design: Design, entry: HistoryEntry): Promise<void> {
    await this.db.transaction('rw', this.db.designs, this.db.journal, async () => {
      const row = await this.db.designs.get(design.id);
      if (!row) throw new Error('This design is no longer on the shelf.');
      await this.db.journal.where('designId').equals(design.id).filter((r) => r.seq >= row.cursor).delete();
      await this.db.journal.put({ ...entry, designId: design.id, seq: row.cursor });
      const change: Partial<DesignRow> = { cursor: row.cursor + 1, name: design.name, modified: design.modified, width: design.setup.width, height: design.setup.height };
      if (row.cursor + 1 - row.base > this.keptSteps + FOLD) {
        const oldest = await this.steps(design.id, row.base, row.base + FOLD).toArray();
        change.snapshot = oldest.reduce((d, step) => redoEntry(d, step), row.snapshot);
        change.base = row.base + oldest.length;
        await this.steps(design.id, row.base, row.base + FOLD).delete();
      }
      await this.db.designs.update(design.id, change);
    });
  }

  /** Moves the cursor after an undo or a redo: `undone` steps at the end are no longer in force. */
  async moveCursor(design: Design, undone: number): Promise<void> {
    await this.db.transaction('rw', this.db.designs, this.db.journal, async () => {
      const last = await this.steps(design.id, 0, Infinity).last();
      if (last) await this.db.designs.update(design.id, { cursor: last.seq + 1 - undone, name: design.name, modified: design.modified });
    });
  }

  private steps(id: string, from: number, to: number) {
    return this.db.journal.where('[designId+seq]').between([id, from], [id, to], true, false);
  }

  // ——— what the person brought

  async addAsset(name: string, bytes: Uint8Array): Promise<void> {
    await this.db.assets.put({ name, bytes });
  }
  async asset(name: string): Promise<Uint8Array | null> {
    return (await this.db.assets.get(name))?.bytes ?? null;
  }

  // ——— colours for every design

  /** Latest first. */
  async libraries(): Promise<LibraryRow[]> {
    return this.db.libraries.orderBy('added').reverse().toArray();
  }
  async addLibrary(row: LibraryRow): Promise<void> {
    await this.db.libraries.put(row);
  }
  async removeLibrary(id: string): Promise<void> {
    await this.db.libraries.delete(id);
  }

  async setting<T>(key: string): Promise<T | undefined> {
    return (await this.db.settings.get(key))?.value as T | undefined;
  }
  async setSetting(key: string, value: unknown): Promise<void> {
    await this.db.settings.put({ key, value });
  }
}

/** Applies a step if it is whole: both directions are there, it applies, and taking it back gives the same design. */
function tryStep(design: Design, row: JournalRow): Design | null {
  if (typeof row.label !== 'string' || !Array.isArray(row.patches) || !Array.isArray(row.inverse) || row.patches.length === 0) return null;
  try {
    const next = redoEntry(design, row);
    undoEntry(next, row);
    return next;
  } catch {
    return null;
  }
}
