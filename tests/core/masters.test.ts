import { SPOT_LIBRARY } from '@/core/colour/spotLibrary';
import { firstGradient } from '@/core/edit/gradient';
import { record, redoEntry, tryOut, undoEntry } from '@/core/edit/history';
import {
  addMaster,
  giveBack,
  masterFromPage,
  removeMaster,
  setGround,
  setMaster,
  takeable,
  takeOver,
  wouldRing,
} from '@/core/edit/masters';
import { addPage, duplicatePage } from '@/core/edit/pages';
import { moveNodes } from '@/core/edit/place';
import { usersOfSwatches } from '@/core/edit/swatches';
import { newDesign, runOf, setupOf } from '@/core/model/defaults';
import { salvageDesign } from '@/core/model/salvage';
import type { Design, Page, Paint } from '@/core/model/schema';
import { followersOf, groundOf, mastersOf, pageById } from '@/core/model/tree';
import { verifyChange, verifyDesign } from '@/core/model/verify';
import { hitAll, nodesIn } from '@/core/scene/hit';
import type { Group } from '@/core/scene/scene';
import { prepare, type Engines } from '@/core/engines';
import { DesignBuilder, flat } from '@/demo/builder';
import { cmyk, making } from '../support/sample';
import { testEngines } from '../support/engines';

let engines: Engines;
beforeAll(async () => {
  engines = await testEngines();
});
let n = 0;
const newId = () => `m${n++}`;
const sea = flat(cmyk(70, 20, 0, 0));

/** Three pages: the first with a band and a line of words that become a master's, all standing on it. */
async function three(): Promise<{ d: Design; band: string; words: string; own: string }> {
  const b = new DesignBuilder(newDesign('Pages', setupOf(300, 200, { bleed: 9 }), making), making);
  const ember = b.spot(SPOT_LIBRARY[0]);
  const band = b.shape('Band', 'rectangle', { x: 0, y: 0, w: 300, h: 30 }, { fill: flat(ember) });
  const words = b.displayText('Line', 20, 180, [{ runs: [runOf('Lantern Walk', 14)] }]);
  b.place(0, [band, words]);
  let d = b.done();
  const first = d.pages[0].id;
  let own = '';
  d = tryOut(d, (x) => {
    masterFromPage(x, first, { id: 'ordinary', name: 'Ordinary' });
    const second = addPage(x, first, newId);
    addPage(x, second, newId);
    setGround(x, 'ordinary', sea);
    own = newId();
  });
  await prepare(engines, d);
  return { d, band, words, own };
}
const sceneOf = (d: Design, i: number) => engines.builder.build(d, d.pages[i]);
const groupsOf = (d: Design, i: number) =>
  sceneOf(d, i).root.content.filter((p): p is Group => p.type === 'group' && p.fixed === true);

test('what a page was is its master’s, the same on all that stand on it; nothing of it is met by the pointer', async () => {
  const { d, band } = await three();
  expect(verifyDesign(d)).toMatchObject({ ok: true });
  expect(d.pages.map((p) => [p.children.length, p.master])).toEqual([
    [0, 'ordinary'],
    [0, 'ordinary'],
    [0, 'ordinary'],
  ]);
  expect(followersOf(d, 'ordinary')).toHaveLength(3);
  const [group] = groupsOf(d, 0);
  expect(group.content).toHaveLength(2);
  // By identity: one form in a PDF, one raster.
  expect(groupsOf(d, 1)[0]).toBe(group);
  expect(groupsOf(d, 2)[0]).toBe(group);
  expect(sceneOf(d, 1).root.content[0]).toMatchObject({
    fixed: true,
    inkBounds: { x0: -9, y0: -9, x1: 309, y1: 209 },
  });
  expect(hitAll(sceneOf(d, 1), { x: 100, y: 15 }, 2)).toEqual([]);
  expect(nodesIn(sceneOf(d, 1), { x0: -20, y0: -20, x1: 400, y1: 400 }, false)).toEqual([]);
  // On the master itself they are.
  const master = engines.builder.build(d, pageById(d, 'ordinary')!);
  expect(hitAll(master, { x: 100, y: 15 }, 2).map((h) => h.node)).toEqual([band]);
});

test('a ground: the page’s own before its master’s; one page changed changes no other; undone and done again', async () => {
  const { d } = await three();
  const [first, second] = d.pages;
  expect(groundOf(d, first)).toMatchObject({ paint: sea, of: { id: 'ordinary' } });
  const dusk: Paint = firstGradient(
    'linear',
    { x0: 0, y0: 0, x1: 1, y1: 1 },
    [
      { offset: 0, colour: cmyk(100, 80, 0, 20) },
      { offset: 1, colour: cmyk(0, 40, 60, 0) },
    ],
    false,
  );
  const step = record(d, 'Ground', (x) => setGround(x, first.id, dusk))!;
  const after = step.design;
  expect(verifyChange(d, after)).toBeNull();
  expect(groundOf(after, after.pages[0])?.paint).toEqual(dusk);
  expect(sceneOf(after, 1)).toBe(sceneOf(d, 1));
  expect(sceneOf(after, 0)).not.toBe(sceneOf(d, 0));
  expect(undoEntry(after, step.entry)).toEqual(d);
  expect(redoEntry(d, step.entry)).toEqual(after);
  // None is a ground too: the master's is not shown then.
  const bare = tryOut(d, (x) => setGround(x, second.id, { kind: 'none' }));
  expect(sceneOf(bare, 1).root.content.some((p) => p.type === 'fill' && p.fixed)).toBe(false);
  expect(
    groundOf(
      tryOut(bare, (x) => setGround(x, second.id, null)),
      d.pages[1],
    )?.of.id,
  ).toBe('ordinary');
});

test('masters on masters: the furthest lies lowest, a ring is refused, one that goes leaves its base behind', async () => {
  const { d } = await three();
  const two = tryOut(d, (x) => {
    addMaster(x, { id: 'all', name: 'All' });
    setMaster(x, ['ordinary'], 'all');
    addMaster(x, { id: 'cover', name: 'Cover' });
    setMaster(x, ['cover', x.pages[0].id], 'all');
    setMaster(x, [x.pages[0].id], 'cover');
  });
  expect(verifyDesign(two)).toMatchObject({ ok: true });
  expect(mastersOf(two, two.pages[0]).map((m) => m.id)).toEqual(['all', 'cover']);
  expect(mastersOf(two, two.pages[1]).map((m) => m.id)).toEqual(['all', 'ordinary']);
  expect(followersOf(two, 'all')).toHaveLength(3);
  expect(wouldRing(two, 'all', 'ordinary')).toBe(true);
  expect(wouldRing(two, 'ordinary', 'cover')).toBe(false);
  expect(() => tryOut(two, (x) => setMaster(x, ['all'], 'ordinary'))).toThrow('stand on itself');
  expect(() => tryOut(two, (x) => setMaster(x, ['all'], 'all'))).toThrow('stand on itself');
  const without = tryOut(two, (x) => removeMaster(x, 'ordinary'));
  expect(verifyDesign(without)).toMatchObject({ ok: true });
  expect(mastersOf(without, without.pages[1]).map((m) => m.id)).toEqual(['all']);
  expect(Object.keys(without.nodes)).toEqual([]);
});

test('taken over, changed here alone, and given back: the same design again', async () => {
  const { d, band, words } = await three();
  const page = d.pages[1];
  expect(takeable(d, page)).toEqual([band, words]);
  let copy = '';
  const step = record(d, 'Take over', (x) => void (copy = takeOver(x, page.id, band, newId)))!;
  const mine = step.design;
  expect(verifyChange(d, mine)).toBeNull();
  expect(verifyDesign(mine)).toMatchObject({ ok: true });
  expect(takeable(mine, mine.pages[1])).toEqual([words]);
  expect(groupsOf(mine, 1)[0].content).toHaveLength(1);
  expect(groupsOf(mine, 0)[0]).toBe(groupsOf(d, 0)[0]);
  expect(hitAll(sceneOf(mine, 1), { x: 100, y: 15 }, 2).map((h) => h.node)).toEqual([copy]);
  // Moved here it moves nowhere else; the master's own change goes on everywhere else.
  const moved = tryOut(mine, (x) => moveNodes(x, mine.pages[1] as Page, [copy], 0, 50));
  expect(sceneOf(moved, 0)).toBe(sceneOf(d, 0));
  const master = tryOut(moved, (x) => moveNodes(x, pageById(moved, 'ordinary') as Page, [band], 0, 9));
  expect(sceneOf(master, 0)).not.toBe(sceneOf(moved, 0));
  expect(groupsOf(master, 1)[0]).toBe(groupsOf(moved, 1)[0]);
  const back = tryOut(mine, (x) => giveBack(x, page.id, band));
  expect({ ...back, modified: '' }).toEqual({ ...d, modified: '' });
  expect(undoEntry(mine, step.entry)).toEqual(d);
  // A copy of the page has its own copy in its place.
  const twice = tryOut(mine, (x) => void duplicatePage(x, page.id, newId));
  expect(verifyDesign(twice)).toMatchObject({ ok: true });
  const { takenOver, children } = twice.pages[2];
  expect(takenOver).toEqual({ [band]: children[0] });
  expect(children[0]).not.toBe(copy);
});

test('colours of grounds are counted and follow; a broken master, ring or ground is mended, and nothing else goes', async () => {
  const { d, band } = await three();
  const swatch = d.swatches.find((s) => s.kind === 'colour')!;
  const used = tryOut(d, (x) => setGround(x, x.pages[0].id, flat({ swatch: swatch.id, tint: 1 })));
  expect((usersOfSwatches(used).get(swatch.id) ?? 0) - (usersOfSwatches(d).get(swatch.id) ?? 0)).toBe(1);
  const broken = JSON.parse(JSON.stringify(used)) as {
    pages: Record<string, unknown>[];
    masters: Record<string, unknown>[];
  };
  broken.pages[0].ground = { kind: 'colour', colour: { swatch: 'nowhere', tint: 1 }, overprint: false };
  broken.pages[1].master = 'nowhere';
  broken.masters[0].master = 'ordinary';
  expect(verifyDesign(broken)).toMatchObject({ ok: false });
  const mended = salvageDesign(broken, used)!.design;
  expect(mended.pages[0].ground).toBeUndefined();
  expect(mended.pages[1].master).toBeUndefined();
  expect(mended.masters![0].master).toBeUndefined();
  expect(mended.masters![0].children).toContain(band);
  expect(Object.keys(mended.nodes)).toEqual(Object.keys(used.nodes));
});
