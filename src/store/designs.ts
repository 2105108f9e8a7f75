import { redoEntry, type HistoryEntry } from '@/core/edit/history';
import { packed, unpacked } from '@/core/edit/packed';
import { faceSchema, type OwnFace } from '@/core/model/faceSchema';
import { CURRENT_VERSION, migrate } from '@/core/model/migrations';
import type { Design } from '@/core/model/schema';
import { verifyDesign } from '@/core/model/verify';
import type { AsideRow, DesignRow, HolvetDatabase, JournalRow, LibraryRow, StateRow, WholeRow } from './database';
import { entryOf, readable, replay, rowOf, startOf, versionIn, type WholeDesign } from './replay';

/** Steps that can be taken back; older ones become part of the snapshot. */
export const KEPT_STEPS = 200;
/** How many are folded at once: the snapshot is large, and need not be written at every step. */
const FOLD = 25;
/** Files of so many bytes are kept where the browser need not hold them to know of them. */
const LARGE_ASSET = 1 << 19;

export interface LoadedDesign {
  readonly design: Design;
  /** Number of the first entry among all steps that were ever done. */
  readonly base: number;
  readonly entries: readonly HistoryEntry[];
  /** How many of the entries are in force. */
  readonly cursor: number;
  /** A sentence when something could not be brought back. */
  readonly warning: string | null;
  /** With a warning: all that lay in the store, to be put aside before this takes its place. */
  readonly aside: AsideRow | null;
}

/** The design was taken off the shelf. */
class GoneError extends Error {
  constructor() {
    super('it was taken off the shelf: put it back there, or save a copy');
  }
}
/**
 * What is kept cannot be gone on from (a step is missing, or it is in older words): it must be written anew as a whole.
 */
export class GapError extends Error {}

/** All that was kept of a design. */
export interface RemovedDesign {
  readonly row: WholeRow;
  readonly steps: readonly JournalRow[];
  /** States that were kept under a name. */
  readonly states?: readonly StateRow[];
}

export type Loaded =
  { readonly ok: true; readonly value: LoadedDesign } | { readonly ok: false; readonly reason: 'unknown' | 'broken' };

const blank = (design: Design): DesignRow => ({
  id: design.id,
  name: design.name,
  modified: design.modified,
  version: CURRENT_VERSION,
  base: 0,
  cursor: 0,
  thumbnail: null,
  ...sheetOf(design),
});

const sheetOf = ({ setup, starter }: Design): Pick<DesignRow, 'width' | 'height' | 'unit' | 'round' | 'starter'> => ({
  starter: starter === true,
  width: setup.width,
  height: setup.height,
  unit: setup.unit,
  round: setup.round,
});

/** A state that was kept under a name; without its design where that cannot be read. */
export interface KeptState {
  readonly id: string;
  readonly name: string;
  readonly when: string;
  readonly design: Design | null;
}
/** A state as it was kept, in our words; null where it cannot be read. */
export function readState(text: string, version: number): Design | null {
  try {
    const verified = verifyDesign(migrate(JSON.parse(text), version));
    return verified.ok ? verified.design : null;
  } catch {
    return null;
  }
}

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
    await this.db.transaction('rw', this.db.designs, this.db.snapshots, this.db.journal, async () => {
      await this.db.designs.put({ ...blank(design), thumbnail });
      await this.db.snapshots.put({ id: design.id, snapshot: packed(design) });
      await this.db.journal.where('designId').equals(design.id).delete();
    });
  }

  /** Takes a design off the shelf, and answers all that was kept of it, its steps too; null if there was none. */
  async remove(id: string): Promise<RemovedDesign | null> {
    return this.db.transaction('rw', this.tables(), async () => {
      const row = await this.wholeRow(id);
      const steps = await this.db.journal.where('designId').equals(id).toArray();
      const states = await this.db.states.where('designId').equals(id).toArray();
      await this.db.designs.delete(id);
      await this.db.snapshots.delete(id);
      await this.db.journal.where('designId').equals(id).delete();
      await this.db.states.where('designId').equals(id).delete();
      return row ? { row, steps, states } : null;
    });
  }

  /** Puts a removed design back as it was. */
  async putBack({ row, steps, states }: RemovedDesign): Promise<void> {
    await this.db.transaction('rw', this.tables(), async () => {
      const { snapshot, ...rest } = row;
      await this.db.designs.put(rest);
      await this.db.snapshots.put({ id: row.id, snapshot });
      await this.db.journal.bulkPut([...steps]);
      await this.db.states.bulkPut([...(states ?? [])]);
    });
  }

  async setThumbnail(id: string, thumbnail: Uint8Array): Promise<void> {
    await this.db.designs.update(id, { thumbnail });
  }

  /**
   * Snapshot, then step by step up to the cursor. A step that cannot be read ends the way there; parts that no design
   * may have are left out. Either is said, with all that lay in the store as a file to put aside. Nothing is written
   * here.
   */
  async load(id: string): Promise<Loaded> {
    const kept = await this.raw(id);
    if (!kept) return { ok: false, reason: 'unknown' };
    const { row, steps } = kept;
    const read = await replay(row, steps);
    if (!read) return { ok: false, reason: 'broken' };
    const { design, entries, cursor, base, why } = read;
    if (why === null) return { ok: true, value: { design, base, entries, cursor, warning: null, aside: null } };
    const aside: AsideRow = {
      id: `${id}-${row.modified}-${steps.length}`,
      designId: id,
      when: new Date().toISOString(),
      why,
      json: rawJson(kept),
    };
    return { ok: true, value: { design, base, entries, cursor, warning: why, aside } };
  }

  /** All that is kept of a design, unread; null if there is none. */
  async raw(id: string): Promise<RemovedDesign | null> {
    return this.db.transaction('r', this.db.designs, this.db.snapshots, this.db.journal, async () => {
      const row = await this.wholeRow(id);
      const steps = await this.db.journal.where('designId').equals(id).sortBy('seq');
      return row ? { row, steps } : null;
    });
  }

  /** What was put aside of the designs, latest first. */
  async asides(designId?: string): Promise<AsideRow[]> {
    const rows =
      designId === undefined
        ? await this.db.aside.toArray()
        : await this.db.aside.where('designId').equals(designId).toArray();
    return rows.sort((a, b) => (a.when < b.when ? 1 : -1));
  }
  async keepAside(row: AsideRow): Promise<void> {
    await this.db.aside.put(row);
  }
  async removeAside(id: string): Promise<void> {
    await this.db.aside.delete(id);
  }

  /**
   * Keeps a step as number `seq` (counted over all that were ever done): what was kept from that number on is gone, in
   * the same transaction. Keeping the same step again changes nothing more. Old steps fold into the snapshot.
   */
  async append(design: Design, entry: HistoryEntry, seq: number): Promise<void> {
    await this.db.transaction('rw', this.db.designs, this.db.snapshots, this.db.journal, async () => {
      const row = await this.db.designs.get(design.id);
      if (!row) throw new GoneError();
      if (versionIn(row) !== CURRENT_VERSION) throw new GapError('it was kept in the words of an earlier version');
      const last = await this.lastStep(design.id, seq);
      if (seq < row.base || (last ?? row.base - 1) !== seq - 1)
        throw new GapError(`step ${seq} does not follow step ${last ?? 'none'}`);
      await this.steps(design.id, seq, Infinity).delete();
      await this.db.journal.put(rowOf(design.id, entry, seq));
      const change: Partial<DesignRow> = {
        cursor: seq + 1,
        name: design.name,
        modified: design.modified,
        ...sheetOf(design),
      };
      if (seq + 1 - row.base > this.keptSteps + FOLD) {
        const oldest = await this.steps(design.id, row.base, row.base + FOLD).toArray();
        const kept = await this.db.snapshots.get(design.id);
        if (!kept) throw new GapError('what it began with is missing');
        const moved = oldest.reduce((d, step) => redoEntry(d, entryOf(step)), unpacked(kept.snapshot));
        await this.db.snapshots.put({ id: design.id, snapshot: packed(moved) });
        change.base = row.base + oldest.length;
        await this.steps(design.id, row.base, row.base + FOLD).delete();
      }
      await this.db.designs.put({ ...row, ...change });
    });
  }

  /** After an undo or a redo: the steps before number `cursor` are in force. */
  async moveCursor(design: Design, cursor: number): Promise<void> {
    await this.db.transaction('rw', this.db.designs, this.db.journal, async () => {
      const row = await this.db.designs.get(design.id);
      if (!row) throw new GoneError();
      if (versionIn(row) !== CURRENT_VERSION) throw new GapError('it was kept in the words of an earlier version');
      const last = await this.lastStep(design.id, Infinity);
      if (cursor < row.base || cursor > (last ?? row.base - 1) + 1) throw new GapError(`there is no step ${cursor}`);
      await this.db.designs.put({ ...row, cursor, name: design.name, modified: design.modified });
    });
  }

  /** Keeps a design and its steps in the place of whatever is kept of it. */
  async keepWhole({ design, start, base, entries, cursor }: WholeDesign): Promise<void> {
    await this.db.transaction('rw', this.db.designs, this.db.snapshots, this.db.journal, async () => {
      const row = await this.db.designs.get(design.id);
      if (!row) throw new GoneError();
      await this.db.journal.where('designId').equals(design.id).delete();
      await this.db.designs.put({
        ...row,
        ...blank(design),
        thumbnail: row.thumbnail,
        base,
        cursor: base + cursor,
      });
      await this.db.snapshots.put({ id: design.id, snapshot: packed(start) });
      await this.db.journal.bulkPut(entries.map((e, i) => rowOf(design.id, e, base + i)));
    });
  }

  /** All that is kept of designs. */
  private tables() {
    return [this.db.designs, this.db.snapshots, this.db.journal, this.db.states];
  }
  private async wholeRow(id: string): Promise<WholeRow | undefined> {
    const row = await this.db.designs.get(id);
    // A snapshot that is not there reads like one that is broken.
    return row && { ...row, snapshot: (await this.db.snapshots.get(id))?.snapshot ?? '' };
  }
  private steps(id: string, from: number, to: number) {
    return this.db.journal.where('[designId+seq]').between([id, from], [id, to], true, false);
  }
  /** The number of the last step before `to`; the steps themselves, which may be long, are not read. */
  private async lastStep(id: string, to: number): Promise<number | undefined> {
    const keys = (await this.steps(id, 0, to).primaryKeys()) as unknown as [string, number][];
    return keys[keys.length - 1]?.[1];
  }

  // ——— states kept under a name

  /** Latest first, in our words; what cannot be read is there without its design. */
  async states(designId: string): Promise<KeptState[]> {
    const rows = await this.db.states.where('designId').equals(designId).toArray();
    return rows
      .sort((a, b) => (a.when < b.when ? 1 : -1))
      .map(({ id, name, when, version, design }) => ({ id, name, when, design: readState(design, version) }));
  }
  async keepState(id: string, name: string, when: string, design: Design): Promise<void> {
    await this.db.states.put({
      id,
      designId: design.id,
      name,
      when,
      version: CURRENT_VERSION,
      design: packed(design),
    });
  }
  /** As they lie, for a file of the whole shelf. */
  async stateRows(designId: string): Promise<StateRow[]> {
    return this.db.states.where('designId').equals(designId).toArray();
  }
  async removeState(id: string): Promise<StateRow | null> {
    const row = (await this.db.states.get(id)) ?? null;
    await this.db.states.delete(id);
    return row;
  }
  async putStateBack(row: StateRow): Promise<void> {
    await this.db.states.put(row);
  }

  // ——— what the person brought

  async addAsset(name: string, bytes: Uint8Array): Promise<void> {
    await this.db.assets.put({ name, bytes: bytes.length < LARGE_ASSET ? bytes : new Blob([bytes as BlobPart]) });
  }
  async asset(name: string): Promise<Uint8Array | null> {
    const bytes = (await this.db.assets.get(name))?.bytes ?? null;
    return bytes instanceof Blob ? new Uint8Array(await bytes.arrayBuffer()) : bytes;
  }
  /** A large file that a person brought, unread; null for small ones and none. */
  async assetBlob(name: string): Promise<Blob | null> {
    const bytes = (await this.db.assets.get(name))?.bytes;
    return bytes instanceof Blob ? bytes : null;
  }

  /** Faces for every design, latest first; what cannot be read is left out. */
  async faces(): Promise<OwnFace[]> {
    const rows = await this.db.faces.orderBy('added').reverse().toArray();
    return rows.flatMap((r) => {
      const read = faceSchema.safeParse(r.facts);
      return read.success ? [read.data] : [];
    });
  }
  /** Keeps a face and its file. */
  async addFace(facts: OwnFace, bytes: Uint8Array): Promise<void> {
    await this.db.transaction('rw', this.db.faces, this.db.assets, async () => {
      await this.db.assets.put({ name: facts.file, bytes });
      await this.db.faces.put({ id: facts.id, added: new Date().toISOString(), facts });
    });
  }
  /** Takes it out of the list; its file stays for the designs that have it. */
  async removeFace(id: string): Promise<void> {
    await this.db.faces.delete(id);
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

/** What is kept of a design as a file that any program can read. */
export const rawJson = ({ row, steps }: RemovedDesign): string =>
  JSON.stringify({ snapshot: startOf(row), base: row.base, cursor: row.cursor, steps: steps.map(readable) }, null, 1);
