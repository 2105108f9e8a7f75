import { checkDesign } from '@/core/check/check';
import { localBox } from '@/core/derive/box';
import { driftedSets } from '@/core/derive/drift';
import { record, tryOut, undoEntry } from '@/core/edit/history';
import { addAllRound } from '@/core/edit/offsetShape';
import { GROWING, scaleNodes } from '@/core/edit/place';
import { sameSize } from '@/core/edit/sameSize';
import { prepare, type Engines } from '@/core/engines';
import { scaling } from '@/core/geometry/matrix';
import { centre } from '@/core/geometry/rect';
import { newDesign, outlineOf, runOf, setupOf } from '@/core/model/defaults';
import { pageMatrix } from '@/core/model/tree';
import type { Design, NodeOf, Outline } from '@/core/model/schema';
import { verifyDesign } from '@/core/model/verify';
import { apply } from '@/core/geometry/matrix';
import { DesignBuilder, flat } from '@/demo/builder';
import { linear } from '@/demo/gradients';
import { cmyk, making } from '../support/sample';
import { testEngines } from '../support/engines';

let engines: Engines;
beforeAll(async () => {
  engines = await testEngines();
});
const fill = flat(cmyk(80, 20, 0, 0));

/** Five buttons of which some have drifted, by so many points of width. */
function buttons(widths: readonly number[]): { design: Design; ids: readonly string[] } {
  const b = new DesignBuilder(newDesign('Buttons', setupOf(400, 300, { bleed: 0 }), making), making);
  const ids = widths.map((w, i) =>
    b.shape(
      `Button ${i + 1}`,
      'star',
      { x: 20 + 75 * i, y: 40, w, h: 40, turn: i === 2 ? 30 : 0 },
      { fill, knobs: { points: 5 } },
    ),
  );
  b.place(0, [...ids]);
  return { design: b.done(), ids };
}

test('objects become as large as one of them, about their own middles and along their own sides, with its knobs and corners', () => {
  const { design, ids } = buttons([60, 62, 57, 60, 90]);
  const changed: Design = {
    ...design,
    nodes: {
      ...design.nodes,
      [ids[0]]: {
        ...(design.nodes[ids[0]] as NodeOf<'shape'>),
        knobs: { points: 7 },
        corners: { all: { radius: 2, kind: 'cut' } },
      },
    },
  };
  const page = changed.pages[0];
  const { design: after, entry } = record(changed, 'Same size', sameSize(changed, page, ids, ids[0], engines.fonts))!;
  expect(verifyDesign(after)).toMatchObject({ ok: true });
  for (const id of ids) {
    expect(after.nodes[id]).toMatchObject({ knobs: { points: 7 }, corners: { all: { radius: 2, kind: 'cut' } } });
    const [was, now] = [changed, after].map((d) =>
      apply(pageMatrix(d, page, id), { x: (d.nodes[id] as NodeOf<'shape'>).width / 2, y: 20 }),
    );
    expect(Math.hypot(was.x - now.x, was.y - now.y)).toBeLessThan(1e-6);
    expect((after.nodes[id] as NodeOf<'shape'>).width).toBeCloseTo(60, 9);
  }
  expect(undoEntry(after, entry)).toEqual(changed);
});

test('words and groups become as wide and high as well', async () => {
  const b = new DesignBuilder(newDesign('Mixed', setupOf(400, 300, { bleed: 0 }), making), making);
  const like = b.shape('Box', 'rectangle', { x: 10, y: 10, w: 120, h: 40 }, { fill });
  const group = b.group('Two', [
    b.shape('A', 'ellipse', { x: 200, y: 100, w: 30, h: 30 }, { fill }),
    b.shape('B', 'ellipse', { x: 250, y: 120, w: 30, h: 30 }, { fill }),
  ]);
  const words = b.displayText('Words', 20, 200, [{ runs: [runOf('WALK', 30, fill, 'archivo-800')] }]);
  b.place(0, [like, group, words]);
  const design = b.done();
  await prepare(engines, design);
  const after = tryOut(design, sameSize(design, design.pages[0], [like, group, words], like, engines.fonts));
  for (const id of [group, words]) {
    const box = localBox(after, after.nodes[id], engines.fonts);
    const was = localBox(design, design.nodes[id], engines.fonts);
    expect(box.x1 - box.x0).toBeCloseTo(120, 4);
    expect(box.y1 - box.y0).toBeCloseTo(40, 4);
    const [m, n] = [
      apply(pageMatrix(after, after.pages[0], id), centre(box)),
      apply(pageMatrix(design, design.pages[0], id), centre(was)),
    ];
    expect(Math.hypot(m.x - n.x, m.y - n.y)).toBeLessThan(1e-3);
  }
});

test('a set that has drifted is found: which are odd, by how much; equal ones, clearly other ones and two are no finding', async () => {
  const { design, ids } = buttons([60, 61, 60, 58.5, 90]);
  const [set] = driftedSets(design, design.pages[0]);
  expect(set.all).toEqual(ids.slice(0, 4));
  expect(set.odd.map((o) => [o.id, Math.round(o.wider * 100) / 100])).toEqual([
    [ids[1], 1],
    [ids[3], -1.5],
  ]);
  expect(set.like).toBe(ids[0]);
  const palette = await prepare(engines, design);
  const found = checkDesign(design, engines.builder, palette).filter((f) => f.code === 'size.drift');
  expect(found.map((f) => f.message)).toEqual([
    'Button 2 is 0.35 mm wider than 3 others like it.',
    'Button 4 is 0.53 mm narrower than 3 others like it.',
  ]);
  const equal = tryOut(design, sameSize(design, design.pages[0], set.all, set.like, engines.fonts));
  expect(driftedSets(equal, equal.pages[0])).toEqual([]);
  for (const widths of [
    [60, 60, 60],
    [60, 61],
    [60, 75, 90],
  ]) {
    const other = buttons(widths).design;
    expect(driftedSets(other, other.pages[0])).toEqual([]);
  }
});

test('what grows with an object: weights and all lengths of lines, radii, gradients, shadows, each only if told', async () => {
  const b = new DesignBuilder(newDesign('Growing', setupOf(400, 300, { bleed: 0 }), making), making);
  const outline: Outline = {
    ...outlineOf(fill, 4),
    dashes: [6, 2],
    dashOffset: 1,
    away: 3,
    wobble: { strength: 1, wave: 10, passes: 1, seed: 1 },
  };
  const box = b.shape(
    'Box',
    'rectangle',
    { x: 20, y: 20, w: 60, h: 60 },
    {
      fill: linear(
        {
          stops: [
            { offset: 0, colour: cmyk(90, 0, 0, 0) },
            { offset: 1, colour: cmyk(0, 90, 0, 0) },
          ],
        },
        [0, 0],
        [60, 0],
      ),
      outline,
      knobs: { topLeft: 5, topRight: 5, bottomRight: 5, bottomLeft: 5 },
    },
  );
  const words = b.displayText('Words', 120, 80, [
    { runs: [{ ...runOf('W', 30, fill, 'archivo-800'), outline: outlineOf(fill, 2) }] },
  ]);
  b.place(0, [box, words]);
  const plain = b.done();
  const design: Design = {
    ...plain,
    nodes: {
      ...plain.nodes,
      [box]: {
        ...plain.nodes[box],
        effects: [{ kind: 'shadow', paint: flat(cmyk(0, 0, 0, 100)) as never, opacity: 1, dx: 2, dy: 2, blur: 4 }],
      } as NodeOf<'shape'>,
    },
  };
  await prepare(engines, design);
  const sized = (change: Partial<typeof GROWING>) => {
    const d = tryOut(design, (x) =>
      scaleNodes(x, design.pages[0], [box, words], scaling(2, 2), { ...GROWING, ...change }),
    );
    const node = d.nodes[box] as NodeOf<'shape'>;
    const [line] = node.outlines;
    const run = d.stories[(d.nodes[words] as NodeOf<'displayText'>).story].paragraphs[0].runs[0];
    return {
      width: line.width,
      dashes: line.dashes,
      away: line.away,
      strays: line.wobble!.strength,
      corner: node.knobs.topLeft,
      gradient: (node.fills[0] as { geometry: readonly number[] }).geometry[0],
      blur: node.effects![0].blur,
      letters: run.outline!.width,
    };
  };
  const kept = { width: 4, dashes: [6, 2], away: 3, strays: 1, corner: 5, gradient: 120, blur: 4, letters: 2 };
  expect(sized({})).toEqual(kept);
  expect(sized({ lines: true })).toEqual({ ...kept, width: 8, dashes: [12, 4], away: 6, strays: 2, letters: 4 });
  expect(sized({ corners: true })).toEqual({ ...kept, corner: 10 });
  expect(sized({ paints: false })).toEqual({ ...kept, gradient: 60 });
  expect(sized({ effects: true })).toEqual({ ...kept, blur: 8 });
});

test('a cut line on the trim is no art that stops short; the same line in ink is', async () => {
  const b = new DesignBuilder(newDesign('Label', setupOf(200, 200, { bleed: 9 }), making), making);
  const art = b.shape('Art', 'rectangle', { x: 20, y: 20, w: 160, h: 160 }, { fill });
  b.place(0, [art]);
  const first = b.done();
  let line: string | null = null;
  const design = tryOut(first, (d) => {
    line = addAllRound(
      d,
      first.pages[0],
      [art],
      { by: 20, join: 'miter', fillHoles: true, use: 'cutLine', colour: cmyk(0, 0, 0, 0) },
      making.newId,
      engines.fonts,
    );
  });
  const bleedOf = async (d: Design) =>
    checkDesign(d, engines.builder, await prepare(engines, d))
      .filter((f) => f.code === 'bleed.missing')
      .map((f) => f.node);
  expect(await bleedOf(design)).toEqual([]);
  const inInk: Design = {
    ...design,
    nodes: { ...design.nodes, [line!]: { ...(design.nodes[line!] as NodeOf<'path'>), outlines: [outlineOf(fill, 1)] } },
  };
  expect(await bleedOf(inInk)).toEqual([line]);
});
