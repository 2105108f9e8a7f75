import Dexie, { type EntityTable, type Table, type Transaction } from 'dexie';
import type { Patches } from 'mutative';
import type { Packed } from '@/core/edit/packed';
import type { ExchangeSwatch } from '@/core/colour/exchange';
import type { OwnFace } from '@/core/model/faceSchema';
import type { Design, Setup } from '@/core/model/schema';

/** One design as kept in the browser: what the shelf shows of it, and how many of its steps are in force. */
export interface DesignRow {
  id: string;
  name: string;
  modified: string;
  /** The version of snapshot and steps. Absent: the first. */
  version?: number;
  /** Number of the first step after the snapshot. */
  base: number;
  /** Steps base … cursor−1 are in force; those from the cursor on can be done again. */
  cursor: number;
  thumbnail: Uint8Array | null;
  width: number;
  height: number;
  /** Absent where the row was kept by an earlier release. */
  unit?: Setup['unit'];
  round?: boolean;
  /** Others are begun with it: it is not listed among the designs. */
  starter?: boolean;
}

/** A design as it was before its first kept step; apart from its row, which every step writes, since it is large. */
export interface SnapshotRow {
  id: string;
  /** Packed; plain where it was kept by an earlier release. */
  snapshot: string | Design;
}

/** Row and snapshot as one, as they lay up to the fifth version of the store. */
export type WholeRow = DesignRow & Pick<SnapshotRow, 'snapshot'>;

export interface JournalRow {
  label: string;
  /** Packed; plain where it was kept by an earlier release. */
  patches: Packed | Patches;
  inverse: Packed | Patches;
  designId: string;
  seq: number;
}

/**
 * What could not be read of a design when it was opened, kept as it lay in the store until the person throws it away.
 */
export interface AsideRow {
  id: string;
  designId: string;
  when: string;
  /** A sentence: what was left out. */
  why: string;
  /** The row and its steps as JSON. */
  json: string;
}

/** Small things that belong to the person, not to a design: the clip, drawing defaults, choices. */
export interface SettingRow {
  key: string;
  value: unknown;
}

/** A file that a person brought, by the name made from its content. */
export interface AssetRow {
  name: string;
  /** A Blob where there are many: the browser keeps those on its disk until they are read. */
  bytes: Uint8Array | Blob;
}

/** A face that a person brought, for every design; its bytes are among the assets. */
export interface FaceRow {
  id: string;
  added: string;
  facts: OwnFace;
}

/** Colours kept for every design: palettes lifted and kept, libraries opened. */
export interface LibraryRow {
  id: string;
  name: string;
  kind: 'palette' | 'inks';
  added: string;
  swatches: ExchangeSwatch[];
}

/** A state of a design that was kept under a name. */
export interface StateRow {
  id: string;
  designId: string;
  name: string;
  when: string;
  /** The version of its words. */
  version: number;
  /** The design, packed. */
  design: string;
}

export class HolvetDatabase extends Dexie {
  designs!: EntityTable<DesignRow, 'id'>;
  snapshots!: EntityTable<SnapshotRow, 'id'>;
  journal!: Table<JournalRow, [string, number]>;
  settings!: EntityTable<SettingRow, 'key'>;
  assets!: EntityTable<AssetRow, 'name'>;
  libraries!: EntityTable<LibraryRow, 'id'>;
  aside!: EntityTable<AsideRow, 'id'>;
  faces!: EntityTable<FaceRow, 'id'>;
  states!: EntityTable<StateRow, 'id'>;

  constructor(name = 'holvet') {
    super(name);
    this.version(1).stores({ designs: 'id, modified', journal: '[designId+seq], designId', settings: 'key' });
    this.version(2).stores({ assets: 'name', libraries: 'id, added' });
    this.version(3).stores({ aside: 'id, designId' });
    this.version(4).stores({ faces: 'id, added' });
    this.version(5).stores({ states: 'id, designId' });
    this.version(6).stores({ snapshots: 'id' }).upgrade(apart);
  }
}

/** Moves each snapshot out of its row, one after the other: all of them at once might not fit into memory. */
async function apart(tx: Transaction): Promise<void> {
  const [rows, snapshots] = [tx.table<WholeRow, string>('designs'), tx.table<SnapshotRow, string>('snapshots')];
  for (const id of await rows.toCollection().primaryKeys()) {
    const whole = await rows.get(id);
    if (!whole) continue;
    const { snapshot, ...row } = whole;
    await snapshots.put({ id, snapshot });
    // The oldest rows have their unit and their roundness in the snapshot only.
    const setup = typeof snapshot === 'string' ? undefined : snapshot?.setup;
    await tx.table('designs').put({ ...(setup && { unit: setup.unit, round: setup.round }), ...row });
  }
}
