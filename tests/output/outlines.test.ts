import { Resvg } from '@resvg/resvg-js';
import { SPOT_LIBRARY } from '@/core/colour/spotLibrary';
import { copyNodes, pasteClip } from '@/core/edit/clip';
import { putOnCircle, setBend } from '@/core/edit/display';
import { record, redoEntry, tryOut, undoEntry } from '@/core/edit/history';
import { aimedNodes, lineAt, paintAt } from '@/core/edit/aims';
import { addOutline, removeOutline, setColour, setOutlineStyle, setPaint } from '@/core/edit/paint';
import { IDENTITY } from '@/core/geometry/matrix';
import { makePlain } from '@/core/edit/plain';
import { newDesign, outlineOf, runOf, setupOf } from '@/core/model/defaults';
import type { Colour, Design, NodeOf, Outline } from '@/core/model/schema';
import { verifyDesign } from '@/core/model/verify';
import { writeSvg } from '@/core/output/svg/write';
import type { Leaf } from '@/core/scene/scene';
import { walk } from '@/core/scene/walk';
import { prepare, type Engines } from '@/core/engines';
import { DesignBuilder, flat } from '@/demo/builder';
import { checkX4 } from '../support/checkX4';
import { faults } from '../support/faults';
import { separate } from '../support/ghostscript';
import { FULL } from '../support/measured';
import { pdfOf, platesOf } from '../support/press';
import { words } from '../support/qpdf';
import { cmyk, making } from '../support/sample';
import { testEngines } from '../support/engines';

let engines: Engines;
beforeAll(async () => {
  engines = await testEngines();
});
let n = 0;
const newId = () => `line${n++}`;
const line = (colour: Colour, width: number, more: Partial<Outline> = {}): Outline => ({
  ...outlineOf(flat(colour), width),
  join: 'round',
  behind: true,
  ...more,
});

/** Words straight, round and bent, a frame and a shape, each with lines behind it, over it and away from it. */
function page(): { design: Design; ids: Record<'straight' | 'round' | 'bent' | 'frame' | 'star', string> } {
  const b = new DesignBuilder(newDesign('Lines', setupOf(420, 360, { bleed: 9 }), making), making);
  const ember = b.spot(SPOT_LIBRARY[0]);
  const say = (text: string, x: number, y: number, size = 40, face = 'archivo-800') =>
    b.displayText(text, x, y, [{ align: 'left', runs: [runOf(text, size, flat(cmyk(0, 0, 90, 0)), face)] }]);
  const ids = {
    straight: say('Lantern', 24, 70),
    round: say('Quays at dusk', 40, 160, 20),
    bent: say('Walk', 250, 80, 48),
    frame: b.textFrame('Frame', { x: 220, y: 150, w: 180, h: 80 }, [
      { runs: [runOf('Boats and stalls, and soup', 20, flat(cmyk(100, 60, 0, 0)), 'bitter-500')] },
    ]),
    star: b.shape('Star', 'star', { x: 250, y: 250, w: 90, h: 90 }, { fill: flat(cmyk(0, 60, 0, 0)) }),
  };
  const sea = b.shape('Sea', 'rectangle', { x: -9, y: 30, w: 438, h: 90 }, { fill: flat(cmyk(40, 0, 10, 0)) });
  b.place(0, [sea, ...Object.values(ids)]);
  const { fonts } = engines;
  let design = b.done();
  design = tryOut(design, (d) => {
    putOnCircle(d, ids.round, fonts);
    setBend(d, [ids.bent], { kind: 'arch', strength: 0.3 });
    for (const id of [ids.straight, ids.round, ids.bent, ids.frame]) {
      const big = id === ids.straight || id === ids.bent;
      addOutline(d, [id], line(cmyk(0, 0, 0, 0), big ? 6 : 3));
      addOutline(d, [id], line(ember, big ? 4 : 3, { away: big ? 6 : 3.5 }));
    }
    addOutline(d, [ids.straight], line(cmyk(80, 0, 40, 0), 2.5, { behind: false, join: 'miter', away: -1.5 }));
    addOutline(d, [ids.star], line(ember, 4, { away: 6, join: 'miter' }));
    addOutline(d, [ids.star], line(cmyk(90, 10, 0, 0), 4, { away: 12, join: 'round' }));
  });
  return { design, ids };
}

const leavesOf = (design: Design, id: string): Leaf[] => {
  const found: Leaf[] = [];
  walk(engines.builder.build(design, design.pages[0]).root, (leaf) => void (leaf.node === id && found.push(leaf)));
  return found;
};

// Oracle: Ghostscript tiffsep of our PDF, the rule as tests/support/agree.ts states it; poppler for the words.
test('lines behind, over and away from letters and shapes: plates agree, words are found once, the SVG is drawn', async () => {
  const { design } = page();
  await prepare(engines, design);
  expect(verifyDesign(design)).toMatchObject({ ok: true });
  const ours = await platesOf(engines, design, 300);
  const pdf = await pdfOf(engines, design);
  expect(faults(ours, separate(pdf, 300)[0], 'several outlines')).toEqual([]);
  expect(await checkX4(pdf)).toEqual([]);
  const said = words(pdf);
  for (const word of ['Lantern', 'Quays at dusk', 'Walk', 'Boats and stalls']) expect(said.split(word)).toHaveLength(2);
  const palette = await prepare(engines, design);
  const { svg } = await writeSvg(engines.builder.build(design, design.pages[0]), palette, 'Lines', (f) =>
    engines.env.asset(f),
  );
  expect(new Resvg(svg).render().width).toBeGreaterThan(400);
  // The control: without the lines it is another print.
  if (!FULL) return;
  const bare = tryOut(design, (d) => {
    for (const node of Object.values(d.nodes)) if ('letterOutlines' in node) delete node.letterOutlines;
  });
  expect(faults(ours, separate(await pdfOf(engines, bare), 300)[0])).not.toEqual([]);
});

test('what lies behind lies below all letters, the lowest first; what lies over comes last', async () => {
  const { design, ids } = page();
  await prepare(engines, design);
  const kinds = leavesOf(design, ids.straight).map((l) => (l.type === 'stroke' ? `line ${l.stroke.width}` : l.type));
  expect(kinds).toEqual(['line 4', 'line 6', 'glyphs', 'line 2.5']);
  // A move keeps the edge that was made.
  const again = tryOut(design, (d) => void (d.nodes[ids.straight].transform = [1, 0, 0, 1, 30, 90]));
  const own = (d: Design) => leavesOf(d, ids.straight)[0].placed.own;
  expect(own(again)).toBe(own(design));
  const box = leavesOf(design, ids.star).find((l) => l.type === 'stroke')!.inkBounds;
  expect(box.x0).toBeLessThan(250 - 12 + 1);
});

test('each line has its aim: coloured, set and taken away by itself, of letters and of shapes; undone and done again', async () => {
  const { design, ids } = page();
  await prepare(engines, design);
  expect(aimedNodes(design, [ids.straight, ids.star], 'outline3')).toEqual([ids.straight, ids.star]);
  expect(aimedNodes(design, [ids.frame], 'outline4')).toEqual([]);
  const teal = cmyk(80, 0, 40, 0);
  const step = record(design, 'Lines', (d) => {
    setColour(d, [ids.straight, ids.star], 'outline3', teal);
    setOutlineStyle(d, [ids.star], 'outline2', { width: 9 }, flat(teal));
    setPaint(d, [ids.frame], 'outline2', () => ({ kind: 'none' }));
    removeOutline(d, [ids.round, ids.bent], 'outline2');
    removeOutline(d, [ids.bent], 'outline2');
  })!;
  const after = step.design;
  expect(verifyDesign(after)).toMatchObject({ ok: true });
  expect(paintAt(after, ids.straight, 'outline3')).toEqual(flat(teal));
  expect(paintAt(after, ids.star, 'outline3')).toEqual(flat(teal));
  expect(lineAt(after.nodes[ids.star], 'outline2')?.width).toBe(9);
  expect(paintAt(after, ids.star, 'outline')).toEqual(paintAt(design, ids.star, 'outline'));
  expect((after.nodes[ids.round] as NodeOf<'displayText'>).letterOutlines).toHaveLength(1);
  expect('letterOutlines' in after.nodes[ids.bent]).toBe(false);
  expect(leavesOf(after, ids.frame).filter((l) => l.type === 'stroke')).toHaveLength(1);
  expect(undoEntry(after, step.entry)).toEqual(design);
  expect(redoEntry(design, step.entry)).toEqual(after);
  // No more than can be aimed at.
  const many = tryOut(design, (d) => {
    for (let i = 0; i < 20; i++) addOutline(d, [ids.straight, ids.star], line(teal, i + 1));
  });
  expect((many.nodes[ids.straight] as NodeOf<'displayText'>).letterOutlines).toHaveLength(4);
  expect((many.nodes[ids.star] as NodeOf<'shape'>).outlines).toHaveLength(5);
  expect(verifyDesign(many)).toMatchObject({ ok: true });
});

test('as shapes they print as they did; copied into another design they bring their ink', async () => {
  const { design, ids } = page();
  const before = await platesOf(engines, design, 100);
  const made = tryOut(design, (d) => void makePlain(d, design.pages[0], Object.values(ids), newId, engines.fonts));
  expect(verifyDesign(made)).toMatchObject({ ok: true });
  const after = await platesOf(engines, made, 100);
  for (const [ink, grey] of before) {
    const theirs = after.get(ink)!.data;
    let off = 0;
    for (let i = 0; i < theirs.length; i++) if (Math.abs(theirs[i] - grey.data[i]) > 24) off++;
    expect([ink, off / theirs.length < 2e-4]).toEqual([ink, true]);
  }
  const empty = newDesign('Other', setupOf(300, 300), making);
  const clip = copyNodes(design, design.pages[0], [ids.round])!;
  const pasted = tryOut(empty, (d) => void pasteClip(d, empty.pages[0].id, clip, newId, IDENTITY));
  expect(pasted.inks).toHaveLength(1);
  expect(verifyDesign(pasted)).toMatchObject({ ok: true });
});
