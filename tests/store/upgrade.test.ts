import Dexie from 'dexie';
import { readFileSync } from 'node:fs';
import { record, undoEntry } from '@/core/edit/history';
import { packed } from '@/core/edit/packed';
import { moveNodes } from '@/core/edit/place';
import { serializeDesign } from '@/core/model/serialize';
import { HolvetDatabase, type JournalRow, type WholeRow } from '@/store/database';
import { DesignStore } from '@/store/designs';
import { sampleDesign } from '../support/sample';

const kept = JSON.parse(readFileSync('tests/data/version-1/kept.json', 'utf8')) as {
  row: WholeRow;
  steps: JournalRow[];
};

/** A store as the releases before left it: the snapshot is a part of the row, and the steps write both. */
async function before(name: string, rows: readonly object[], steps: readonly JournalRow[]): Promise<void> {
  const old = new Dexie(name);
  old.version(1).stores({ designs: 'id, modified', journal: '[designId+seq], designId', settings: 'key' });
  old.version(2).stores({ assets: 'name', libraries: 'id, added' });
  old.version(3).stores({ aside: 'id, designId' });
  old.version(4).stores({ faces: 'id, added' });
  old.version(5).stores({ states: 'id, designId' });
  await old.table('designs').bulkPut([...rows]);
  await old.table('journal').bulkPut([...steps]);
  old.close();
}

test('what earlier releases kept in one row opens as it was, and goes on', async () => {
  const start = { ...sampleDesign(), id: 'packed' };
  const page = start.pages[0];
  const { design, entry } = record(start, 'Move 2', (d) => moveNodes(d, page, [page.children[0]], 2, 0))!;
  const { width, height } = start.setup;
  const facts = { name: start.name, modified: start.modified, base: 0, cursor: 1, thumbnail: null, width, height };
  const step = (designId: string): JournalRow => ({
    label: 'Move 2',
    patches: packed(entry.patches),
    inverse: packed(entry.inverse),
    designId,
    seq: 0,
  });
  const rows = [
    { ...facts, id: start.id, version: 3, snapshot: packed(start) },
    // As the first release kept it: not packed, without unit and roundness.
    { ...facts, id: 'plain', version: 3, snapshot: { ...start, id: 'plain' } },
    kept.row,
    { ...facts, id: 'empty' },
  ];
  await before('upgrade', rows, [step(start.id), step('plain'), ...kept.steps]);

  const db = new HolvetDatabase('upgrade');
  const store = new DesignStore(db);
  const list = await store.list();
  expect(list).toHaveLength(4);
  for (const row of list) expect(row).not.toHaveProperty('snapshot');
  expect(list.find((r) => r.id === 'plain')).toMatchObject({ unit: start.setup.unit, round: start.setup.round });
  expect(await store.raw(kept.row.id)).toEqual({ row: kept.row, steps: kept.steps });
  expect(await store.load('empty')).toEqual({ ok: false, reason: 'broken' });
  for (const id of [start.id, 'plain']) {
    const loaded = await store.load(id);
    if (!loaded.ok) throw new Error(loaded.reason);
    expect(loaded.value.warning).toBeNull();
    expect(serializeDesign({ ...loaded.value.design, id: design.id })).toBe(serializeDesign(design));
    expect(undoEntry(loaded.value.design, loaded.value.entries[0]).nodes).toEqual(start.nodes);
    const more = record(loaded.value.design, 'Move 5', (d) => moveNodes(d, page, [page.children[0]], 5, 0))!;
    await store.append(more.design, more.entry, 1);
    const again = await store.load(id);
    expect(again).toMatchObject({ ok: true, value: { design: more.design, cursor: 2, warning: null } });
  }
  await db.delete();
});

test('a step leaves the snapshot as it is, until old steps fold into it', async () => {
  const db = new HolvetDatabase('steps');
  const store = new DesignStore(db, 5);
  let design = sampleDesign();
  await store.add(design);
  let written = 0;
  db.snapshots.hook('updating', () => void written++);
  for (let seq = 0; seq < 31; seq++) {
    const page = design.pages[0];
    const next = record(design, 'Move', (d) => moveNodes(d, page, [page.children[0]], 1, 0))!;
    design = next.design;
    await store.append(design, next.entry, seq);
    if (seq === 20) await store.moveCursor(design, seq + 1);
    expect(written).toBe(seq < 30 ? 0 : 1);
  }
  expect(await db.snapshots.count()).toBe(1);
  await store.remove(design.id);
  expect(await db.snapshots.count()).toBe(0);
  await db.delete();
});
