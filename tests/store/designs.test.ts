import { record, undoEntry, type HistoryEntry } from '@/core/edit/history';
import { moveNodes } from '@/core/edit/place';
import type { Design } from '@/core/model/schema';
import { serializeDesign } from '@/core/model/serialize';
import { HolvetDatabase } from '@/store/database';
import { DesignStore, KEPT_STEPS } from '@/store/designs';
import { sampleDesign } from '../support/sample';

let n = 0;
let db: HolvetDatabase;
let store: DesignStore;
beforeEach(() => {
  db = new HolvetDatabase(`test-${n++}`);
  store = new DesignStore(db);
});
afterEach(() => db.delete());

/** Moves the first object a little and keeps the step. */
async function step(design: Design, by = 1): Promise<{ design: Design; entry: HistoryEntry }> {
  const page = design.pages[0];
  const r = record(design, `Move ${by}`, (d) => moveNodes(d, page, [page.children[0]], by, 0))!;
  await store.append(r.design, r.entry, (await store.raw(design.id))!.row.cursor);
  return r;
}
async function load(id: string) {
  const r = await store.load(id);
  if (!r.ok) throw new Error(r.reason);
  return r.value;
}

test('what was done comes back after a reload, history included', async () => {
  const start = sampleDesign();
  await store.add(start);
  let design = start;
  for (let i = 1; i <= 5; i++) design = (await step(design, i)).design;
  const back = await load(start.id);
  expect(serializeDesign(back.design)).toBe(serializeDesign(design));
  expect([back.entries.length, back.cursor, back.warning]).toEqual([5, 5, null]);
  expect(back.entries.map((e) => e.label)).toEqual(['Move 1', 'Move 2', 'Move 3', 'Move 4', 'Move 5']);
});

test('taken back steps stay taken back, and can be done again', async () => {
  const start = sampleDesign();
  await store.add(start);
  const one = await step(start, 3);
  const two = await step(one.design, 4);
  await store.moveCursor(one.design, 1);
  const back = await load(start.id);
  expect(serializeDesign(back.design)).toBe(serializeDesign(one.design));
  expect([back.entries.length, back.cursor]).toEqual([2, 1]);
  // A new step takes the place of those that were taken back.
  const other = await step(one.design, 9);
  const after = await load(start.id);
  expect(after.entries.map((e) => e.label)).toEqual(['Move 3', 'Move 9']);
  expect(serializeDesign(after.design)).toBe(serializeDesign(other.design));
  expect(serializeDesign(two.design)).not.toBe(serializeDesign(other.design));
});

test('past the last kept steps (200, here 20) the snapshot moves on, and nothing is lost', async () => {
  expect(KEPT_STEPS).toBe(200);
  store = new DesignStore(db, 20);
  const start = sampleDesign();
  await store.add(start);
  let design = start;
  for (let i = 0; i < 60; i++) design = (await step(design, 0.5)).design;
  const back = await load(start.id);
  expect(back.entries.length).toBeGreaterThanOrEqual(20);
  expect(back.entries.length).toBeLessThanOrEqual(45);
  expect(back.cursor).toBe(back.entries.length);
  expect(serializeDesign(back.design)).toBe(serializeDesign(design));
  expect(await db.journal.count()).toBe(back.entries.length);
  // Undo still counts from the end.
  const last = back.entries[back.entries.length - 1];
  await store.moveCursor(undoEntry(design, last), (await store.raw(start.id))!.row.cursor - 1);
  expect((await load(start.id)).cursor).toBe(back.entries.length - 1);
});

describe('a torn last entry is dropped and said', () => {
  test.each([
    ['half written', { patches: null }],
    ['of another shape', { patches: [{ op: 'replace', path: ['nodes', 'nowhere', 'width'], value: 3 }] }],
    ['without its way back', { inverse: undefined }],
  ])('%s', async (_, damage) => {
    const start = sampleDesign();
    await store.add(start);
    const one = await step(start, 2);
    const two = await step(one.design, 3);
    const row = (await db.journal.get([start.id, 1]))!;
    await db.journal.put({ ...row, ...damage } as never);
    const back = await load(start.id);
    expect(serializeDesign(back.design)).toBe(serializeDesign(one.design));
    expect(back.warning).toBe('The last step could not be brought back; everything before is as you left it.');
    // Said once, all that lay there put aside; work goes on from what is shown.
    await store.keepAside(back.aside!);
    expect(JSON.parse((await store.asides(start.id))[0].json).steps).toHaveLength(2);
    await store.append(
      record(back.design, 'Move 7', (d) =>
        moveNodes(d, back.design.pages[0], [back.design.pages[0].children[0]], 7, 0),
      )!.design,
      record(back.design, 'Move 7', (d) =>
        moveNodes(d, back.design.pages[0], [back.design.pages[0].children[0]], 7, 0),
      )!.entry,
      back.base + back.cursor,
    );
    const again = await load(start.id);
    expect(again.warning).toBeNull();
    expect(again.entries.map((e) => e.label)).toEqual(['Move 2', 'Move 7']);
    void two;
  });
  test('missing altogether', async () => {
    const start = sampleDesign();
    await store.add(start);
    const one = await step(start, 2);
    await step(one.design, 3);
    await db.journal.delete([start.id, 1]);
    const back = await load(start.id);
    expect(serializeDesign(back.design)).toBe(serializeDesign(one.design));
    expect(back.warning).toMatch(/could not be brought back/);
  });
});

test('an unknown design and one that is none are told apart; of the rest, what can be read is shown', async () => {
  expect(await store.load('nowhere')).toEqual({ ok: false, reason: 'unknown' });
  const start = sampleDesign();
  await store.add(start);
  await db.snapshots.update(start.id, { snapshot: 'gone' as never });
  expect(await store.load(start.id)).toEqual({ ok: false, reason: 'broken' });
  await db.snapshots.delete(start.id);
  expect(await store.load(start.id)).toEqual({ ok: false, reason: 'broken' });
  await db.snapshots.put({
    id: start.id,
    snapshot: { ...start, pages: [], swatches: [null, ...start.swatches] } as never,
  });
  const back = await load(start.id);
  // What lay on the page that went lies on the new one.
  expect(back.design.pages[0].children).toHaveLength(start.pages[0].children.length);
  expect(back.warning).toMatch(/^Some of this design could not be read and was left out\./);
  expect(JSON.parse(back.aside!.json).snapshot.pages).toEqual([]);
});

test('rows that an earlier release kept, not packed, open as they were and take further steps', async () => {
  const start = sampleDesign();
  await store.add(start);
  const one = await step(start, 2);
  await db.snapshots.put({ id: start.id, snapshot: start });
  const { entry } = record(start, 'Move 2', (d) => moveNodes(d, start.pages[0], [start.pages[0].children[0]], 2, 0))!;
  await db.journal.put({ label: 'Move 2', patches: entry.patches, inverse: entry.inverse, designId: start.id, seq: 0 });
  const back = await load(start.id);
  expect(back.warning).toBeNull();
  expect(serializeDesign(back.design)).toBe(serializeDesign(one.design));
  await step(back.design, 5);
  expect((await load(start.id)).entries.map((e) => e.label)).toEqual(['Move 2', 'Move 5']);
});

test('the shelf lists the last changed first; removing takes the steps too', async () => {
  const a = { ...sampleDesign(), modified: '2026-11-01T00:00:00.000Z' };
  const b = { ...sampleDesign(), modified: '2026-11-03T00:00:00.000Z' };
  await store.add(a);
  await store.add(b);
  await step(a);
  expect((await store.list()).map((r) => r.id)).toEqual([b.id, a.id]);
  await store.remove(a.id);
  expect(await db.journal.count()).toBe(0);
  await store.setSetting('x', { deep: [1] });
  expect(await store.setting('x')).toEqual({ deep: [1] });
});

test('a removed design comes back whole, steps and all', async () => {
  const start = sampleDesign();
  await store.add(start);
  const { design: after } = await step(start);
  const removed = await store.remove(start.id);
  expect(await store.has(start.id)).toBe(false);
  await store.putBack(removed!);
  const loaded = await store.load(start.id);
  expect(loaded.ok && loaded.value.design).toEqual(after);
  expect(loaded.ok && loaded.value.entries).toHaveLength(1);
  expect(await store.remove('nowhere')).toBeNull();
});

test('files that were brought and colours that were kept are there again, latest first', async () => {
  await store.addAsset('sha256-a.icc', Uint8Array.of(1, 2));
  expect(await store.asset('sha256-a.icc')).toEqual(Uint8Array.of(1, 2));
  expect(await store.asset('gone')).toBeNull();
  const row = (id: string, added: string) => ({
    id,
    name: `Set ${id}`,
    kind: 'palette' as const,
    added,
    swatches: [{ name: 'Dusk', colour: { cmyk: [1, 0.72, 0.08, 0.2] as const } }],
  });
  await store.addLibrary(row('a', '2026-11-01T00:00:00Z'));
  await store.addLibrary(row('b', '2026-11-02T00:00:00Z'));
  expect((await store.libraries()).map((l) => l.id)).toEqual(['b', 'a']);
  await store.removeLibrary('b');
  expect(await store.libraries()).toEqual([row('a', '2026-11-01T00:00:00Z')]);
});
