import { readFileSync } from 'node:fs';
import { strToU8, zipSync } from 'fflate';
import { parseClip } from '@/core/edit/clip';
import { redoEntry, undoEntry } from '@/core/edit/history';
import { unpackDesign } from '@/core/file/archive';
import { verifyDesign } from '@/core/model/verify';
import { HolvetDatabase, type JournalRow, type WholeRow } from '@/store/database';
import { DesignStore } from '@/store/designs';

/**
 * What version 2 wrote, byte for byte: a design in the store with four steps of which three are in force, and a clip of
 * it.
 */
const kept = JSON.parse(readFileSync('tests/data/version-2/kept.json', 'utf8')) as {
  row: WholeRow;
  steps: JournalRow[];
  design: object;
  last: object;
  clip: object;
};

test('a design kept by version 2 opens as it was, with every step there and back; its files and clips too', async () => {
  const db = new HolvetDatabase('version-2');
  const store = new DesignStore(db);
  await store.putBack(structuredClone(kept));
  const loaded = await store.load(kept.row.id);
  if (!loaded.ok) throw new Error(loaded.reason);
  const { design, entries, cursor, warning, aside } = loaded.value;
  expect([warning, aside, entries.length, cursor]).toEqual([null, null, 4, 3]);
  expect(design).toEqual({ ...kept.design, format: 'holvet/3' });
  const after = redoEntry(design, entries[3]);
  expect(after).toEqual({ ...kept.last, format: 'holvet/3' });
  let back = after;
  for (const entry of [...entries].reverse()) {
    back = undoEntry(back, entry);
    expect(verifyDesign(back).ok).toBe(true);
  }
  expect(entries.reduce(redoEntry, back)).toEqual(after);
  const file = unpackDesign(zipSync({ 'design.json': strToU8(JSON.stringify(kept.last)) }));
  expect(file).toMatchObject({ ok: true, design: { ...kept.last, format: 'holvet/3' } });
  expect(parseClip(JSON.stringify(kept.clip))).toEqual({ ok: true, clip: { ...kept.clip, format: 'holvet-clip/3' } });
  await db.delete();
});
