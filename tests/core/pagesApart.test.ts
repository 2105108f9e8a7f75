import { record, redoEntry, tryOut, undoEntry, type Recipe } from '@/core/edit/history';
import { addMaster, giveBack, setGround, setMaster, takeable, takeOver, wouldRing } from '@/core/edit/masters';
import { addPage } from '@/core/edit/pages';
import { moveNodes, scaleNodes } from '@/core/edit/place';
import { deleteNodes } from '@/core/edit/remove';
import { duplicateInto } from '../support/pagesApart';
import { prepare, type Engines } from '@/core/engines';
import { newDesign, setupOf } from '@/core/model/defaults';
import type { Design, Page } from '@/core/model/schema';
import { mastersOf, pageById, sheetsOf } from '@/core/model/tree';
import { verifyChange } from '@/core/model/verify';
import type { Scene } from '@/core/scene/scene';
import { DesignBuilder, flat } from '@/demo/builder';
import { FULL } from '../support/measured';
import { random } from '../support/random';
import { cmyk, making } from '../support/sample';
import { testEngines } from '../support/engines';

const STEPS = FULL ? 400 : 160;
let engines: Engines;
beforeAll(async () => {
  engines = await testEngines();
});

/** Six pages and three masters, one on another, with some shapes on each. */
function book(newId: () => string): Design {
  const b = new DesignBuilder(newDesign('Book', setupOf(300, 200, { bleed: 9 }), making), making);
  const shapes = (n: number) =>
    Array.from({ length: n }, (_, i) =>
      b.shape(`S${i}`, 'ellipse', { x: 20 * i, y: 10 * i, w: 40, h: 30 }, { fill: flat(cmyk(10 * i, 50, 0, 0)) }),
    );
  const lists = Array.from({ length: 9 }, () => shapes(4));
  return tryOut(b.done(), (d) => {
    for (let i = 1; i < 6; i++) addPage(d, d.pages[i - 1].id, newId);
    for (const name of ['A', 'B', 'C']) addMaster(d, { id: name, name });
    setMaster(d, ['B'], 'A');
    for (const [i, sheet] of [...d.pages, ...d.masters!].entries()) {
      sheet.children = lists[i];
      if (i < 6 && i % 3) setMaster(d, [sheet.id], i % 3 === 1 ? 'A' : 'B');
    }
  });
}

/** A change of one sheet, at random. */
function change(d: Design, sheet: Page, r: () => number, newId: () => string): Recipe {
  const pick = <T>(list: readonly T[]): T => list[Math.floor(r() * list.length)];
  const some = sheet.children.length ? pick(sheet.children) : null;
  const kinds: Recipe[] = [
    (x) => setGround(x, sheet.id, r() < 0.3 ? null : flat(cmyk(Math.round(100 * r()), 0, 40, 0))),
    (x) => duplicateInto(x, sheet.id, newId),
    (x) => some && moveNodes(x, sheet, [some], 30 * r(), 30 * r()),
    (x) => some && scaleNodes(x, sheet, [some], [1 + r(), 0, 0, 1 + r(), 0, 0]),
    (x) => some && deleteNodes(x, sheet, [some]),
    (x) => {
      const p = pageById(x, sheet.id)!;
      p.children = [...p.children].reverse();
    },
    (x) => {
      const free = takeable(d, sheet);
      if (free.length && d.pages.includes(sheet)) takeOver(x, sheet.id, pick(free), newId);
    },
    (x) => {
      const taken = Object.keys(sheet.takenOver ?? {});
      if (taken.length) giveBack(x, sheet.id, pick(taken));
    },
    (x) => {
      const to = pick([null, 'A', 'B', 'C']);
      if (to === null || !wouldRing(d, sheet.id, to)) setMaster(x, [sheet.id], to);
    },
  ];
  return pick(kinds);
}

test('random changes: a page’s reaches no other page, a master’s only those that stand on it; undone, all is as it was', async () => {
  let n = 0;
  const newId = () => `x${n++}`;
  const r = random(20261129);
  let d = book(newId);
  await prepare(engines, d);
  const scenes = (of: Design): Map<string, Scene> => new Map(of.pages.map((p) => [p.id, engines.builder.build(of, p)]));
  let changed = 0;
  let spared = 0;
  for (let step = 0; step < STEPS; step++) {
    const sheet = sheetsOf(d)[Math.floor(r() * sheetsOf(d).length)];
    const before = scenes(d);
    const made = record(d, 'Change', change(d, sheet, r, newId));
    if (!made) continue;
    changed++;
    expect(verifyChange(d, made.design)).toBeNull();
    const stands = (of: Design, p: Page) => mastersOf(of, p).some((m) => m.id === sheet.id);
    for (const [i, page] of made.design.pages.entries()) {
      const touched = page.id === sheet.id || stands(d, d.pages[i]) || stands(made.design, page);
      if (touched) continue;
      spared++;
      // The very same scene: nothing of it is painted anew.
      expect([step, engines.builder.build(made.design, page) === before.get(page.id)]).toEqual([step, true]);
    }
    if (step % 20 === 0) {
      expect(undoEntry(made.design, made.entry)).toEqual(d);
      expect(redoEntry(d, made.entry)).toEqual(made.design);
    }
    d = made.design;
  }
  expect(changed).toBeGreaterThan(0.6 * STEPS);
  expect(spared).toBeGreaterThan(2 * STEPS);
});
