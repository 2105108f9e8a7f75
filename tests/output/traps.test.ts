import { newDesign, outlineOf, runOf, setupOf } from '@/core/model/defaults';
import type { Colour, Design } from '@/core/model/schema';
import { SPOT_LIBRARY } from '@/core/colour/spotLibrary';
import { prepare, type Engines } from '@/core/engines';
import { marked } from '@/core/render/plateLooks';
import { rasterPlates, trapCover, type Plates } from '@/core/render/plates';
import { regionOf } from '@/core/render/region';
import { overprints } from '@/core/scene/overprints';
import { bleedRect } from '@/core/scene/scene';
import { trapsOf } from '@/core/scene/traps';
import { walk } from '@/core/scene/walk';
import { DesignBuilder, flat } from '@/demo/builder';
import { cmyk, making } from '../support/sample';
import { testEngines } from '../support/engines';
import { faults } from '../support/faults';
import { separate } from '../support/ghostscript';
import { FULL } from '../support/measured';
import { unpacked } from '../support/qpdf';
import { pdfOf, platesOf } from '../support/press';

let engines: Engines;
beforeAll(async () => {
  engines = await testEngines();
});
const MM = 72 / 25.4;
const TRAP = 0.3 * MM;

const make = (draw: (b: DesignBuilder) => string[], plates: Design['plates']): Design => {
  const b = new DesignBuilder(newDesign('Traps', setupOf(144, 144, { bleed: 9 }), making), making);
  b.place(0, draw(b));
  return { ...b.done(), ...(plates && { plates }) };
};
const box = (b: DesignBuilder, x: number, y: number, w: number, h: number, colour: Colour, overprint = false) =>
  b.shape('Box', 'rectangle', { x, y, w, h }, { fill: flat(colour, overprint) });
const disc = (b: DesignBuilder, x: number, y: number, r: number, colour: Colour) =>
  b.shape('Disc', 'ellipse', { x: x - r, y: y - r, w: 2 * r, h: 2 * r }, { fill: flat(colour) });

async function opened(d: Design, dpi = 600) {
  const palette = await prepare(engines, d);
  const scene = engines.builder.build(d, d.pages[0]);
  const region = regionOf(bleedRect(scene), dpi);
  return { palette, scene, region, plates: rasterPlates(scene, palette, region)! };
}

/**
 * Abutting inks that share none: side by side, one in another, a line on an area, a spot on process, three at one
 * corner.
 */
function abutting(b: DesignBuilder): string[] {
  const spot = { ...b.spot(SPOT_LIBRARY[3]), tint: 1 } as Colour;
  const ground = box(b, -9, -9, 162, 162, cmyk(0, 0, 100, 0));
  return [
    ground,
    box(b, 10, 10, 30, 30, cmyk(100, 0, 0, 0)),
    box(b, 40, 10, 30, 30, cmyk(0, 100, 0, 0)),
    disc(b, 100, 30, 20, cmyk(0, 100, 0, 0)),
    disc(b, 100, 30, 9, cmyk(100, 0, 0, 0)),
    box(b, 10, 60, 60, 60, spot),
    disc(b, 40, 90, 18, cmyk(80, 20, 0, 0)),
    b.shape('Ring', 'ellipse', { x: 85, y: 75, w: 40, h: 40 }, { outline: outlineOf(flat(cmyk(0, 0, 0, 100)), 6) }),
  ];
}

/** The plates with one of them moved: the least ink in all at any pixel well inside. */
function leastInk({ data, region }: Plates, moved: number, dx: number, dy: number): number {
  const { width, height, scale } = region;
  const inside = Math.ceil((9 + 2) * scale);
  let least = Infinity;
  for (let y = inside; y < height - inside; y++)
    for (let x = inside; x < width - inside; x++) {
      let sum = 0;
      for (let c = 0; c < data.length; c++) sum += data[c][c === moved ? (y - dy) * width + x - dx : y * width + x];
      if (sum < least) least = sum;
    }
  return least / 255;
}

test('whichever plate lies aside by the trap, in any direction: no paper shows where inks abut; without traps it does', async () => {
  const on = await opened(make(abutting, { trap: TRAP }));
  const off = await opened(make(abutting, undefined));
  // A hair less than the trap: pixels have a size.
  const by = Math.floor(TRAP * on.region.scale) - 1;
  expect(by).toBeGreaterThanOrEqual(5);
  // Sixteen of them in the full run.
  const count = FULL ? 16 : 5;
  const ways = Array.from({ length: count }, (_, i) => (i * 2 * Math.PI) / count);
  for (let plate = 0; plate < on.plates.data.length; plate++) {
    const worst = (p: Plates) =>
      Math.min(...ways.map((a) => leastInk(p, plate, Math.round(by * Math.cos(a)), Math.round(by * Math.sin(a)))));
    expect(worst(on.plates)).toBeGreaterThan(0.5);
    if (plate < 3) expect(worst(off.plates)).toBeLessThan(0.1);
  }
});

test('the lighter ink is laid over the darker by the width, as area; nothing else changes', async () => {
  const draw = (b: DesignBuilder) => [
    box(b, 20, 20, 40, 100, cmyk(0, 0, 100, 0)),
    box(b, 60, 20, 40, 100, cmyk(100, 60, 0, 0)),
  ];
  const on = await opened(make(draw, { trap: TRAP }));
  const off = await opened(make(draw, undefined));
  const ink = (p: Plates, c: number) => p.data[c].reduce((sum, v) => sum + v, 0) / 255 / on.region.scale ** 2;
  // A strip as long as the edge, as wide as the trap.
  expect(ink(on.plates, 2) - ink(off.plates, 2)).toBeCloseTo(TRAP * 100, 0);
  for (const c of [0, 1, 3]) expect(ink(on.plates, c)).toBe(ink(off.plates, c));
});

test('inks that share enough, a tint beside bare paper, what overprints, and what is faded are left alone', async () => {
  const none = async (draw: (b: DesignBuilder) => string[]) => {
    const { scene, palette } = await opened(make(draw, { trap: TRAP }), 72);
    return trapsOf(scene, palette).parts.length;
  };
  expect(await none((b) => [box(b, 0, 0, 50, 50, cmyk(20, 0, 60, 0)), box(b, 50, 0, 50, 50, cmyk(60, 0, 60, 0))])).toBe(
    0,
  );
  expect(await none((b) => [box(b, 0, 0, 50, 50, cmyk(100, 0, 0, 0)), box(b, 10, 10, 9, 9, cmyk(0, 0, 0, 0))])).toBe(0);
  expect(
    await none((b) => [box(b, 0, 0, 50, 50, cmyk(0, 0, 100, 0)), box(b, 9, 9, 9, 9, cmyk(100, 0, 0, 0), true)]),
  ).toBe(0);
  expect(
    await none((b) => {
      const seen = b.together(box(b, 9, 9, 9, 9, cmyk(100, 0, 0, 0)), { opacity: 0.5 });
      return [box(b, 0, 0, 50, 50, cmyk(0, 0, 100, 0)), seen];
    }),
  ).toBe(0);
});

test('what lies over an edge hides its trap; the map of traps points it out', async () => {
  const draw = (b: DesignBuilder) => [
    box(b, 20, 20, 40, 100, cmyk(0, 0, 100, 0)),
    box(b, 60, 20, 40, 100, cmyk(100, 60, 0, 0)),
    box(b, 50, 40, 20, 60, cmyk(0, 0, 0, 0)),
  ];
  const { scene, palette, region, plates } = await opened(make(draw, { trap: TRAP }), 300);
  const cover = trapCover(scene, palette, region);
  const at = (x: number, y: number) =>
    Math.round((y - region.y) * region.scale) * region.width + Math.round((x - region.x) * region.scale);
  expect(cover[at(60.4, 30)]).toBe(255);
  expect(cover[at(60.4, 70)]).toBe(0);
  const map = marked(plates, cover);
  expect([map[4 * at(60.4, 30)], map[4 * at(60.4, 30) + 1]]).toEqual([214, 40]);
  // Away from it the page is pale, and grey.
  const far = 4 * at(90, 30);
  expect(map[far]).toBe(map[far + 1]);
  expect(map[far]).toBeGreaterThan(150);
});

test('traps are vectors in the PDF: Ghostscript’s plates are ours, and the file says it is trapped', async () => {
  const d = make(abutting, { trap: TRAP });
  const pdf = await pdfOf(engines, d, { marks: false });
  expect(unpacked(pdf)).toContain('/Trapped /True');
  expect(faults(await platesOf(engines, d, 400), separate(pdf, 400)[0], 'traps, 400 dpi')).toEqual([]);
}, 60_000);

describe('small black', () => {
  const words = (size: number) => (b: DesignBuilder) => [
    box(b, 0, 0, 144, 144, cmyk(40, 0, 0, 0)),
    b.displayText('Words', 20, 60, [
      { align: 'left', leading: 1, runs: [runOf('lamp', size, flat(cmyk(0, 0, 0, 100)), 'archivo-800')] },
    ]),
  ];
  const over = async (d: Design) => {
    const { scene, palette } = await opened(d, 72);
    let found = false;
    walk(scene.root, (leaf) => void (leaf.type === 'glyphs' && overprints(leaf, palette) && (found = true)));
    return found;
  };
  test('overprints unless told otherwise; large letters and other colours do not', async () => {
    expect(await over(make(words(10), undefined))).toBe(true);
    expect(await over(make(words(17.9), undefined))).toBe(true);
    expect(await over(make(words(18), undefined))).toBe(false);
    expect(await over(make(words(10), { smallBlack: 0 }))).toBe(false);
    expect(await over(make(words(24), { smallBlack: 30 }))).toBe(true);
  });
});
