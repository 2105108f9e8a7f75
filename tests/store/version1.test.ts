import { readFileSync } from 'node:fs';
import { strToU8, zipSync } from 'fflate';
import { parseClip } from '@/core/edit/clip';
import { record, redoEntry, undoEntry } from '@/core/edit/history';
import { moveNodes } from '@/core/edit/place';
import { unpackDesign } from '@/core/file/archive';
import { readSvg } from '@/core/input/svg/read';
import type { Design, DesignNode } from '@/core/model/schema';
import { verifyDesign } from '@/core/model/verify';
import { HolvetDatabase, type JournalRow, type WholeRow } from '@/store/database';
import { DesignStore } from '@/store/designs';
import { named } from '../support/drawing';
import { testEngines } from '../support/engines';

/**
 * What the first version wrote, byte for byte: a design in the store with ten steps of which nine are in force,
 * what they came to, the same objects as a clip and as a drawing.
 */
const text = (file: string) => readFileSync(`tests/data/version-1/${file}`, 'utf8');
const kept = JSON.parse(text('kept.json')) as {
  row: WholeRow;
  steps: JournalRow[];
  design: unknown;
  last: unknown;
  clip: unknown;
};
/** Its words in ours, by another way than the one under test: as text. */
const inOurWords = (value: unknown): unknown =>
  JSON.parse(
    JSON.stringify(value)
      .replaceAll('"cuts":', '"maskMode":')
      .replaceAll('"turned":', '"reversed":')
      .replaceAll(/"line":"(along|across)"/g, '"strokeMapping":"$1"')
      .replaceAll('"holvet/1"', '"holvet/3"')
      .replaceAll('"holvet-clip/1"', '"holvet-clip/3"'),
  );

let db: HolvetDatabase;
let store: DesignStore;
let n = 0;
beforeEach(async () => {
  db = new HolvetDatabase(`version-1-${n++}`);
  store = new DesignStore(db);
  await store.putBack(structuredClone(kept));
});
afterEach(() => db.delete());

const load = async () => {
  const r = await store.load(kept.row.id);
  if (!r.ok) throw new Error(r.reason);
  return r.value;
};
const river = (d: Design) => (named(d, 'River') as Extract<DesignNode, { kind: 'shape' }>).outlines[0].paint;

test('a design kept by version 1 opens as it was, with every step there and back', async () => {
  const { design, entries, cursor, warning, aside } = await load();
  expect([warning, aside, entries.length, cursor]).toEqual([null, null, 10, 9]);
  expect(design).toEqual(inOurWords(kept.design));
  const after = redoEntry(design, entries[9]);
  expect(after).toEqual(inOurWords(kept.last));
  expect(river(after)).toMatchObject({ strokeMapping: 'along', thereAndBack: true });
  const mask: unknown[] = [];
  const course: unknown[] = [];
  let back = after;
  for (const entry of [...entries].reverse()) {
    back = undoEntry(back, entry);
    expect(verifyDesign(back).ok).toBe(true);
    mask.push(named(back, 'Veil').maskMode);
    course.push((river(back) as { strokeMapping?: string }).strokeMapping);
  }
  expect(mask.slice(4)).toEqual([undefined, 'outline', 'opacity', 'opacity', 'opacity', 'opacity']);
  expect(course).toEqual([undefined, 'across', 'along', ...Array<string>(7).fill('across')]);
  expect(entries.reduce(redoEntry, back)).toEqual(after);
});

test('opening writes nothing; the next step rewrites all of it in our words, in one go', async () => {
  const { design } = await load();
  expect(await store.raw(design.id)).toEqual({ row: kept.row, steps: kept.steps });
  const page = design.pages[0];
  const { entry, ...next } = record(design, 'Move', (d) => moveNodes(d, page, [page.children[0]], 5, 0))!;
  await expect(store.append(next.design, entry, 9)).rejects.toThrow('earlier version');
  await expect(store.moveCursor(design, 8)).rejects.toThrow('earlier version');
  const { entries } = await load();
  const all = [...entries.slice(0, 9), entry];
  const start = [...entries].reverse().reduce(undoEntry, redoEntry(design, entries[9]));
  await store.keepWhole({ design: next.design, start, base: 0, entries: all, cursor: 10 });
  const again = await load();
  expect([again.design, again.warning, again.entries.length]).toEqual([next.design, null, 10]);
  await store.moveCursor(design, 9);
  expect((await load()).design).toEqual(design);
});

test('a damaged step of version 1 ends the way there, and is said', async () => {
  await db.journal.update([kept.row.id, 5], { patches: '[{"op":"replace","path":5}]' });
  const { entries, warning } = await load();
  expect([entries.length, warning]).toEqual([5, expect.stringContaining('The last 5 steps could not be brought back')]);
});

test('files, clips and drawings of version 1 open; those of a version to come say so', async () => {
  const zip = (design: unknown) => zipSync({ 'design.json': strToU8(JSON.stringify(design)) });
  expect(unpackDesign(zip(kept.last))).toMatchObject({ ok: true, design: inOurWords(kept.last) });
  expect(unpackDesign(zip({ ...(kept.last as object), format: 'holvet/99' }))).toEqual({
    ok: false,
    code: 'newer',
    version: '99',
  });
  const clip = (c: unknown) => parseClip(JSON.stringify(c));
  expect(clip(kept.clip)).toEqual({ ok: true, clip: inOurWords(kept.clip) });
  expect(clip({ ...(kept.clip as object), format: 'holvet-clip/99' })).toEqual({
    ok: false,
    why: expect.stringContaining('newer version'),
  });
  const engines = await testEngines();
  const drawing = await readSvg(strToU8(text('drawing.svg')), 'Old', { ...engines.env, fonts: engines.fonts });
  const painted = Object.values(drawing.clip.nodes).filter((x) =>
    JSON.stringify(x).includes('"strokeMapping":"along"'),
  );
  expect([painted.length, drawing.notes]).toEqual([1, []]);
});

test('what is nested without end, and objects that are called like a field, are no trouble on the way', async () => {
  const deep = `${'['.repeat(60_000)}${']'.repeat(60_000)}`;
  const text = JSON.stringify({ ...(kept.last as object), more: 0 }).replace('"more":0', `"more":${deep}`);
  expect(unpackDesign(zipSync({ 'design.json': strToU8(text) }))).toMatchObject({ ok: false, code: 'broken' });
  const clip = JSON.stringify({ ...(kept.clip as object), more: 0 }).replace('"more":0', `"more":${deep}`);
  expect(parseClip(clip).ok).toBe(true);
  // Two objects by the names of fields: their map is no object.
  const named = JSON.parse(
    JSON.stringify(kept.last).replaceAll('"s7"', '"cuts"').replaceAll('"combined"', '"transform"'),
  ) as Design;
  const opened = unpackDesign(zipSync({ 'design.json': strToU8(JSON.stringify(named)) }));
  expect(opened.ok && Object.keys(opened.design.nodes)).toEqual(expect.arrayContaining(['cuts', 'transform']));
});
