import { Resvg } from '@resvg/resvg-js';
import { SPOT_LIBRARY } from '@/core/colour/spotLibrary';
import { depthToShapes, newDepth, setDepth } from '@/core/edit/depth';
import { record, undoEntry } from '@/core/edit/history';
import { makePlain } from '@/core/edit/plain';
import { asScreen, prepare, type Engines } from '@/core/engines';
import { openAsDesign } from '@/core/input/asDesign';
import { newDesign, runOf, setupOf } from '@/core/model/defaults';
import { visitPaints } from '@/core/model/paints';
import type { Depth, Design, NodeOf } from '@/core/model/schema';
import { verifyDesign } from '@/core/model/verify';
import { writePng } from '@/core/output/png';
import { writeSvg } from '@/core/output/svg/write';
import { DesignBuilder, flat } from '@/demo/builder';
import { linear } from '@/demo/gradients';
import { decode } from 'fast-png';
import { checkX4 } from '../support/checkX4';
import { faults } from '../support/faults';
import { separate } from '../support/ghostscript';
import { pdfOf, platesOf } from '../support/press';
import { words as wordsIn } from '../support/qpdf';
import { cmyk, making } from '../support/sample';
import { testEngines } from '../support/engines';

let engines: Engines;
beforeAll(async () => {
  engines = await testEngines();
});
let n = 0;
/** Where shades meet the other program shifts them by a dot. */
const DPI = 450;
const newId = () => `made-${++n}`;

/**
 * Words, shapes and a combination, pushed by one way and to a point, shaded, edged, in a spot, with a gradient, as a
 * shadow.
 */
function page(bleed = 9): { design: Design; ids: Record<string, string> } {
  const b = new DesignBuilder(newDesign('Depth', setupOf(460, 330, { bleed }), making), making);
  const ember = b.spot(SPOT_LIBRARY[0]);
  const face = flat(cmyk(0, 36, 92, 0));
  const ids = {
    words: b.displayText('Words', 20, 80, [{ runs: [runOf('WALK', 70, face, 'alfa-slab-400')] }]),
    star: b.shape('Star', 'star', { x: 270, y: 16, w: 90, h: 90 }, { fill: face }),
    ring: b.shape('Ring', 'ring', { x: 30, y: 140, w: 90, h: 90 }, { fill: face }),
    both: b.combination(
      'Both',
      'union',
      [
        b.shape('A', 'rectangle', { x: 170, y: 140, w: 60, h: 40 }, { fill: face }),
        b.shape('B', 'ellipse', { x: 200, y: 160, w: 60, h: 60 }, { fill: face }),
      ],
      { fill: face },
    ),
    disc: b.shape('Disc', 'ellipse', { x: 310, y: 150, w: 50, h: 50 }, { fill: face }),
  };
  b.place(0, Object.values(ids));
  const plain = b.done();
  const put = (d: Design, id: string, depth: Depth): Design => ({
    ...d,
    nodes: { ...d.nodes, [id]: { ...d.nodes[id], depth } as Design['nodes'][string] },
  });
  const depth = (more: Partial<Depth> = {}): Depth => ({
    kind: 'solid',
    angle: 40,
    length: 22,
    side: flat(cmyk(60, 86, 38, 30)),
    shade: 0.8,
    light: -100,
    ...more,
  });
  let design = put(plain, ids.words, depth());
  design = put(
    design,
    ids.star,
    depth({ side: flat(ember), edge: { paint: flat(cmyk(0, 0, 0, 90)) as never, width: 1.5 } }),
  );
  design = put(design, ids.ring, depth({ vanish: { x: 230, y: 290, share: 0.4 } }));
  design = put(
    design,
    ids.both,
    depth({
      side: linear(
        {
          stops: [
            { offset: 0, colour: cmyk(90, 0, 0, 0) },
            { offset: 1, colour: cmyk(0, 90, 0, 0) },
          ],
        },
        [170, 0],
        [280, 0],
      ),
    }),
  );
  design = put(design, ids.disc, depth({ kind: 'shadow', length: 80, fades: true }));
  return { design, ids };
}

// Oracle: Ghostscript tiffsep of our PDF, the rule as tests/support/agree.ts states it.
test('pushed-back words, shapes and combinations: plates agree, the words are words still', async () => {
  const { design } = page();
  expect(verifyDesign(design)).toMatchObject({ ok: true });
  await prepare(engines, design);
  const pdf = await pdfOf(engines, design);
  expect(faults(await platesOf(engines, design, DPI), separate(pdf, DPI)[0], 'depth')).toEqual([]);
  expect(await checkX4(pdf)).toEqual([]);
  expect(wordsIn(pdf)).toContain('WALK');
});

const svgOf = async (design: Design) => {
  const palette = await prepare(engines, design);
  return writeSvg(engines.builder.build(design, design.pages[0]), palette, design.name, (f) => engines.env.asset(f));
};

// Oracle: resvg.
test('the SVG looks as the page does; read again it has the same plates', async () => {
  const { design } = page(0);
  const light = asScreen(design);
  const palette = await prepare(engines, light);
  const ours = decode(writePng(engines.builder.build(light, light.pages[0]), palette, 144));
  const theirs = new Resvg((await svgOf(light)).svg, {
    fitTo: { mode: 'width', value: ours.width },
    background: 'white',
  }).render();
  const { pixels } = theirs;
  let sum = 0;
  for (let i = 0; i < ours.width * ours.height; i++)
    for (let c = 0; c < 3; c++) sum += Math.abs(Number(ours.data[i * ours.channels + c]) - pixels[i * 4 + c]);
  expect(sum / (ours.width * ours.height * 3)).toBeLessThan(0.3);
  const read = await openAsDesign(new TextEncoder().encode((await svgOf(design)).svg), 'again.svg', {
    ...engines.env,
    fonts: engines.fonts,
  });
  if (!read.ok) throw new Error(read.why);
  await prepare(engines, design);
  await prepare(engines, read.design);
  expect(faults(await platesOf(engines, design, 150), await platesOf(engines, read.design, 150))).toEqual([]);
});

test('given, changed, taken away and undone; its paints are met like any other', () => {
  const { design, ids } = page();
  const bare = record(design, 'Flat', (d) => setDepth(d, [ids.star], null))!;
  expect('depth' in bare.design.nodes[ids.star]).toBe(false);
  expect(undoEntry(bare.design, bare.entry)).toEqual(design);
  const again = record(bare.design, 'Depth', (d) =>
    setDepth(d, [ids.star], { angle: 10 }, () => newDepth(design, 90)),
  )!;
  expect(again.design.nodes[ids.star]).toMatchObject({ depth: { kind: 'solid', angle: 10 } });
  expect(verifyDesign(again.design)).toMatchObject({ ok: true });
  const met: unknown[] = [];
  visitPaints(design, (p) => void met.push(p));
  const { depth } = design.nodes[ids.star] as NodeOf<'shape'>;
  expect(met).toContain(depth!.side);
  expect(met).toContain(depth!.edge!.paint);
  for (const bad of [{ length: -1 }, { shade: 2 }, { kind: 'other' }, { vanish: { x: 0, y: 0, share: 3 } }]) {
    const broken = {
      ...design,
      nodes: { ...design.nodes, [ids.star]: { ...design.nodes[ids.star], depth: { ...depth!, ...bad } } },
    };
    expect(verifyDesign(broken)).toMatchObject({ ok: false });
  }
});

test('made shapes of, it looks as before; made plain, a shape keeps its depth', async () => {
  const { design, ids } = page();
  await prepare(engines, design);
  const before = await platesOf(engines, design, 150);
  const all = [ids.words, ids.star, ids.ring, ids.both, ids.disc];
  const { design: after, entry } = record(design, 'Depth to shapes', (d) => {
    depthToShapes(d, design.pages[0], all, newId, engines.fonts);
  })!;
  expect(verifyDesign(after)).toMatchObject({ ok: true });
  expect(Object.values(after.nodes).some((x) => 'depth' in x)).toBe(false);
  expect(undoEntry(after, entry)).toEqual(design);
  await prepare(engines, after);
  expect(faults(before, await platesOf(engines, after, 150))).toEqual([]);
  const { design: plain } = record(
    design,
    'Make plain',
    (d) => void makePlain(d, design.pages[0], [ids.star, ids.both], newId, engines.fonts),
  )!;
  await prepare(engines, plain);
  expect(faults(before, await platesOf(engines, plain, 150))).toEqual([]);
});
