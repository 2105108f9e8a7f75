import { keepLibrary, removeLibrary } from '@/bench/session/libraries';
import { sampleTool } from '@/bench/tools/sample';
import { applyColour } from '@/bench/tools/colouring';
import type { Colour, Design } from '@/core/model/schema';
import { outlineOf, newDesign, setupOf } from '@/core/model/defaults';
import { SPOT_LIBRARY } from '@/core/colour/spotLibrary';
import { DesignBuilder, flat, tint } from '@/demo/builder';
import { openBench, type TestBench } from '../support/bench';
import { cmyk, linear, making } from '../support/sample';

function page(): Design {
  const b = new DesignBuilder(newDesign('Sampling', setupOf(300, 120, { bleed: 0 }), making), making);
  const tide = b.recipe('Tide', 82, 46, 22, 6);
  const ember = b.spot(SPOT_LIBRARY[0]);
  b.place(0, [
    b.shape(
      'From',
      'rectangle',
      { x: 10, y: 20, w: 80, h: 80 },
      { fill: flat(tint(tide, 0.5)), outline: outlineOf(flat(ember), 6) },
    ),
    b.shape(
      'Ramp',
      'rectangle',
      { x: 110, y: 20, w: 80, h: 80 },
      {
        fill: linear(
          [
            { offset: 0, colour: ember },
            { offset: 1, colour: cmyk(0, 0, 100, 0) },
          ],
          [80, 0, 0, 80, 0, 0],
        ),
      },
    ),
    b.shape('To', 'rectangle', { x: 210, y: 20, w: 80, h: 80 }, { fill: flat(cmyk(0, 0, 0, 20)) }),
  ]);
  return b.done();
}
let b: TestBench;
beforeEach(async () => {
  b = await openBench(page());
});
afterEach(async () => {
  await b.session.settled();
  b.session.dispose();
});
const id = (name: string) => Object.values(b.session.design.nodes).find((n) => n.name === name)!.id;
const fill = (name: string): Colour | null => {
  const n = b.session.design.nodes[id(name)];
  return 'fills' in n && n.fills[0].kind === 'colour' ? n.fills[0].colour : null;
};
const choose = (name: string, change: Partial<TestBench['session']['state']> = {}) =>
  b.session.select([id(name)], { ...change });
const swatch = (name: string) => b.session.design.swatches.find((s) => s.name === name)!.id;

test('as it looks, to the fill of what is chosen; the choice stays', () => {
  choose('To');
  b.click(sampleTool, 50, 60);
  expect(fill('To')).toEqual({ cmyk: [0.41, 0.23, 0.11, 0.03] });
  expect(b.session.state.selection).toEqual([id('To')]);
  b.session.undo();
  expect(fill('To')).toEqual(cmyk(0, 0, 0, 20));
});

test('the exact paint: inside the fill with its swatch and tint, at the edge the outline', () => {
  choose('To', { sample: { take: 'exact', give: 'aim' } });
  b.click(sampleTool, 50, 60);
  expect(fill('To')).toEqual({ swatch: swatch('Tide'), tint: 0.5 });
  b.click(sampleTool, 90, 60);
  expect(fill('To')).toEqual({ swatch: swatch('Ember 66-43'), tint: 1 });
});

test('of a gradient the nearest stop; and into a stop that is chosen', () => {
  choose('To', { sample: { take: 'exact', give: 'aim' } });
  b.click(sampleTool, 180, 60);
  expect(fill('To')).toEqual(cmyk(0, 0, 100, 0));
  choose('Ramp', { stop: 1 });
  b.click(sampleTool, 50, 60);
  const n = b.session.design.nodes[id('Ramp')];
  const paint = 'fills' in n ? n.fills[0] : null;
  expect(paint?.kind === 'gradient' && 'stops' in paint.ramp && paint.ramp.stops[1].colour).toEqual({
    swatch: swatch('Tide'),
    tint: 0.5,
  });
});

test('to a new swatch, named by its numbers; what is in the tray already is not put there twice', () => {
  b.session.set({ sample: { take: 'look', give: 'swatch' } });
  b.click(sampleTool, 250, 60);
  expect(b.session.design.swatches.at(-1)).toMatchObject({ name: 'K20', colour: { cmyk: [0, 0, 0, 0.2] } });
  const before = b.session.design.swatches.length;
  b.session.set({ sample: { take: 'exact', give: 'swatch' } });
  b.click(sampleTool, 90, 60);
  expect(b.session.design.swatches).toHaveLength(before);
  expect(b.session.state.message?.text).toBe('Ember 66-43 is in the tray already.');
  b.click(sampleTool, 50, 60);
  expect(b.session.state.message?.text).toMatch(/tint of a swatch.*Recent/);
});

test('it is said at the pointer before it is taken; off all paint the exact tool says what to do', () => {
  sampleTool.cursor(b.at(250, 60), b.context);
  expect(b.said.at(-1)).toBe('K20\nas it looks');
  b.session.set({ sample: { take: 'exact', give: 'aim' } });
  sampleTool.cursor(b.at(50, 60), b.context);
  expect(b.said.at(-1)).toBe('Tide 50 %\nfill of From');
  b.click(sampleTool, 100, 5);
  expect(b.session.state.message?.text).toMatch(/no paint under the pointer/);
});

test('colours given last are at hand, newest first, without doubles, and are there again after a reload', async () => {
  const give = (c: Colour) => applyColour(b.session, c, 'x');
  choose('To');
  for (let i = 0; i < 12; i++) give(cmyk(i, 0, 0, 0));
  give(cmyk(5, 0, 0, 0));
  expect(b.session.state.recent).toHaveLength(10);
  expect(b.session.state.recent.slice(0, 2)).toEqual([cmyk(5, 0, 0, 0), cmyk(11, 0, 0, 0)]);
  await new Promise((done) => setTimeout(done, 20));
  expect(await b.store.setting(`recent:${b.session.design.id}`)).toEqual(b.session.state.recent);
});

test('with nothing chosen a colour waits under Recent', () => {
  b.session.select([]);
  b.click(sampleTool, 250, 60);
  expect(b.session.state.recent[0]).toEqual({ cmyk: [0, 0, 0, 0.2] });
  expect(b.session.state.message?.text).toMatch(/Choose an object first.*Recent/);
});

test('kept palettes are for every design, and can be put back when thrown away', async () => {
  const kept = await keepLibrary(b.session, 'palette', 'Harbour', [
    { name: 'Tide', colour: { cmyk: [0.82, 0.46, 0.22, 0.06] } },
  ]);
  expect(b.session.state.libraries.map((l) => l.name)).toEqual(['Harbour']);
  await removeLibrary(b.session, kept!);
  expect(b.session.state.libraries).toEqual([]);
  b.session.state.message!.actions![0].run();
  await new Promise((done) => setTimeout(done, 20));
  expect((await b.store.libraries()).map((l) => l.name)).toEqual(['Harbour']);
});

test('trying out another recipe leaves the scene as it is: only looks change', () => {
  const scene = b.session.scene();
  b.session.preview((d) => void (d.swatches.find((s) => s.name === 'Tide')!.name = 'Other'));
  expect(b.session.scene()).toBe(scene);
  b.session.preview(null);
});
