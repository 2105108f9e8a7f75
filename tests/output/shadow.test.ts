import { Resvg } from '@resvg/resvg-js';
import { decode } from 'fast-png';
import { SPOT_LIBRARY } from '@/core/colour/spotLibrary';
import { pasteClip } from '@/core/edit/clip';
import { record } from '@/core/edit/history';
import { readSvg } from '@/core/input/svg/read';
import { newDesign, outlineOf, runOf, setupOf } from '@/core/model/defaults';
import type { Colour, Design, DesignNode, Shadow } from '@/core/model/schema';
import { writePng } from '@/core/output/png';
import { writeSvg } from '@/core/output/svg/write';
import { compositePlates } from '@/core/render/composite';
import { rasterPlates } from '@/core/render/plates';
import { regionOf } from '@/core/render/region';
import { erf } from '@/core/scene/effects/gaussian';
import { trimRect } from '@/core/scene/scene';
import { mapLeaves, withContent } from '@/core/scene/walk';
import { prepare, type Engines } from '@/core/engines';
import { DesignBuilder, flat } from '@/demo/builder';
import { checkX4 } from '../support/checkX4';
import { faults } from '../support/faults';
import { separate } from '../support/ghostscript';
import { measured } from '../support/measured';
import { pdfOf, platesOf } from '../support/press';
import { meanDifference, quick } from '../support/quick';
import { cmyk, making } from '../support/sample';
import { testEngines } from '../support/engines';

const DPI = 144;
let engines: Engines;
beforeAll(async () => {
  engines = await testEngines();
});

const shadow = (colour: Colour, change: Partial<Shadow> & { overprint?: boolean } = {}): Shadow => {
  const { overprint = true, ...rest } = change;
  return { kind: 'shadow', paint: { kind: 'colour', colour, overprint }, opacity: 0.6, dx: 6, dy: 5, blur: 8, ...rest };
};
const BLACK = cmyk(0, 0, 0, 100);

function changed(d: Design, changes: Readonly<Record<string, Partial<DesignNode>>>): Design {
  return {
    ...d,
    nodes: Object.fromEntries(
      Object.entries(d.nodes).map(([id, n]) => [id, { ...n, ...changes[n.name] }]),
    ) as Design['nodes'],
  };
}

// Oracle: Ghostscript tiffsep of our PDF, the rule as tests/support/agree.ts states it.
describe('shadows on our plates and on those of our PDF', () => {
  test('process and spot ink, printed over and knocked out, sharp and soft, turned, scaled, of words, of what is cut and half seen', async () => {
    const b = new DesignBuilder(newDesign('Shadows', setupOf(460, 470, { bleed: 9 }), making), making);
    const ember = b.spot(SPOT_LIBRARY[0]);
    const kelp = b.spot(SPOT_LIBRARY[1]);
    const box = (name: string, x: number, y: number, colour: Colour = cmyk(0, 70, 80, 0)) =>
      b.shape(name, 'rectangle', { x, y, w: 60, h: 46 }, { fill: flat(colour) });
    // Ghostscript makes what is faint darker where something faint is printed over it on bare paper (its page is an
    // isolated group, and it keeps the colour of what is not inked, not its amount; ISO 32000-1 11.7.4.3 keeps the
    // amount): kept apart.
    b.place(0, [
      b.shape('Sea', 'rectangle', { x: -9, y: 60, w: 478, h: 40 }, { fill: flat(cmyk(70, 20, 0, 0)) }),
      b.shape('Band', 'rectangle', { x: -9, y: 180, w: 478, h: 40 }, { fill: flat(kelp) }),
      box('Process', 20, 40),
      box('Knocked out', 110, 40),
      box('Spot', 200, 40),
      box('Sharp', 290, 40),
      box('Wide', 290, 395),
      b.group('Turned', [
        b.shape(
          'Star',
          'star',
          { x: 20, y: 150, w: 80, h: 80 },
          { fill: flat(ember), outline: outlineOf(flat(BLACK), 3) },
        ),
      ]),
      b.displayText('Words', 130, 215, [
        { align: 'left', leading: 1, runs: [runOf('Loft', 52, flat(cmyk(100, 60, 0, 20)), 'alfa-slab-400')] },
      ]),
      b.group('Half', [box('Left', 270, 150), box('Right', 300, 175, kelp)]),
      b.group('Cut', [
        box('Held', 380, 150),
        b.shape('Hole', 'ellipse', { x: 376, y: 156, w: 50, h: 50 }, { fill: flat(BLACK) }),
      ]),
      b.shape('Edge', 'ellipse', { x: 400, y: 260, w: 90, h: 60 }, { fill: flat(cmyk(0, 0, 90, 0)) }),
      b.group('Masked', [
        box('Under', 30, 262),
        b.shape('Veil', 'ellipse', { x: 24, y: 258, w: 60, h: 60 }, { fill: flat(BLACK) }),
      ]),
      b.shape('Out of sight', 'rectangle', { x: 20, y: 485, w: 120, h: 30 }, { fill: flat(BLACK) }),
    ]);
    const turned = b.done();
    const star = Object.values(turned.nodes).find((n) => n.name === 'Turned')!;
    const design = changed(turned, {
      Process: { effects: [shadow(BLACK)] },
      'Knocked out': { effects: [shadow(cmyk(0, 100, 0, 0), { overprint: false })] },
      Spot: { effects: [shadow(ember, { opacity: 1 })] },
      Sharp: { effects: [shadow(BLACK, { blur: 0, dx: 7.3, dy: 6.4 })] },
      Wide: { effects: [shadow(kelp, { blur: 40, dx: -10, dy: 14, opacity: 0.9 })] },
      // Half as large again, and turned by 20°.
      Turned: {
        transform: [1.0335, 0.3762, -0.3762, 1.0335, star.transform[4] + 70, star.transform[5] - 25],
        effects: [shadow(kelp)],
      },
      Words: { effects: [shadow(BLACK, { dx: 2, dy: 2, blur: 3 })] },
      Half: { opacity: 0.5, effects: [shadow(BLACK)] },
      Hole: { maskMode: 'outline' },
      Cut: { effects: [shadow(BLACK)] },
      Edge: { effects: [shadow(BLACK, { dx: 8, dy: 8 })] },
      Veil: { maskMode: 'opacity', opacity: 0.7 },
      Masked: { effects: [shadow(ember)] },
      'Out of sight': { effects: [shadow(BLACK, { dx: 0, dy: -30, blur: 16 })] },
    });
    const ours = await platesOf(engines, design, DPI);
    const pdf = await pdfOf(engines, design);
    expect(faults(ours, separate(pdf, DPI)[0], 'shadows')).toEqual([]);
    expect(await checkX4(pdf)).toEqual([]);
    // The plates hold them: without, there is less black.
    const bare = await platesOf(
      engines,
      {
        ...design,
        nodes: Object.fromEntries(
          Object.entries(design.nodes).map(([id, { effects: _, ...n }]) => [id, n]),
        ) as Design['nodes'],
      },
      DPI,
    );
    const ink = (p: typeof ours) => p.get('Black')!.data.reduce((sum, v) => sum + 255 - v, 0);
    expect(ink(ours)).toBeGreaterThan(1.2 * ink(bare));
  });
});

/**
 * The share of a half plane, of a strip or a box that a Gaussian of deviation `s` leaves at a place: closed forms by
 * erf.
 */
const upTo = (x: number, s: number): number => 0.5 * (1 + erf(x / (s * Math.SQRT2)));
const within = (x: number, from: number, to: number, s: number): number => upTo(x - from, s) - upTo(x - to, s);

describe('a shadow is a Gaussian of what throws it', () => {
  test.each([[1.2], [2], [5], [12], [31], [60]])(
    'a box, blurred by %s pt, at 3 pixels a point: within 1/255 of the closed form everywhere',
    async (blur) => {
      const b = new DesignBuilder(newDesign('Box', setupOf(160, 130, { bleed: 0 }), making), making);
      b.place(0, [b.shape('Box', 'rectangle', { x: 40, y: 30, w: 70, h: 60 }, { fill: flat(cmyk(0, 0, 100, 0)) })]);
      const design = changed(b.done(), { Box: { effects: [shadow(BLACK, { blur, dx: 5.3, dy: 3.1, opacity: 1 })] } });
      const palette = await prepare(engines, design);
      const scale = 3;
      const plates = rasterPlates(engines.builder.build(design, design.pages[0]), palette, {
        x: 0,
        y: 0,
        scale,
        width: 480,
        height: 390,
      })!;
      let worst = 0;
      for (let y = 0; y < 390; y++)
        for (let x = 0; x < 480; x++) {
          // Where the box itself lies, its own paint has taken the black away.
          if (x >= 119 && x <= 331 && y >= 89 && y <= 271) continue;
          const [u, v] = [(x + 0.5) / scale - 5.3, (y + 0.5) / scale - 3.1];
          // A pixel shows its mean: the variance of a square's side is a twelfth.
          const s = Math.sqrt((blur / 2) ** 2 + 1 / 12 / scale ** 2);
          worst = Math.max(
            worst,
            Math.abs(plates.data[3][y * 480 + x] - Math.round(255 * within(u, 40, 110, s) * within(v, 30, 90, s))),
          );
        }
      expect(worst).toBeLessThanOrEqual(1);
    },
  );

  test('far enlarged, a wide one asks for no more memory than there is, and is still what it was', async () => {
    const b = new DesignBuilder(newDesign('Near', setupOf(1600, 1600, { bleed: 0 }), making), making);
    b.place(0, [b.shape('Wall', 'rectangle', { x: 0, y: 0, w: 800, h: 1600 }, { fill: flat(cmyk(0, 0, 100, 0)) })]);
    const design = changed(b.done(), { Wall: { effects: [shadow(BLACK, { blur: 400, dx: 0, dy: 0, opacity: 1 })] } });
    const palette = await prepare(engines, design);
    const scene = engines.builder.build(design, design.pages[0]);
    const { data } = rasterPlates(scene, palette, { x: 900, y: 800, scale: 60, width: 40, height: 20 })!;
    for (const i of [0, 39])
      expect(Math.abs(data[3][10 * 40 + i] - 255 * upTo(800 - 900 - i / 60, 200))).toBeLessThanOrEqual(1.5);
  });

  test('drawn in parts it is the same as drawn at once: no tile and no bleed cuts it', async () => {
    const b = new DesignBuilder(newDesign('Parts', setupOf(160, 130, { bleed: 9 }), making), making);
    b.place(0, [
      b.shape('Star', 'star', { x: 20, y: 20, w: 80, h: 80 }, { fill: flat(cmyk(0, 0, 100, 0)) }),
      b.shape('Outside', 'rectangle', { x: 171, y: 20, w: 30, h: 90 }, { fill: flat(BLACK) }),
    ]);
    const design = changed(b.done(), {
      Star: { effects: [shadow(BLACK, { blur: 22 })] },
      Outside: { effects: [shadow(BLACK, { blur: 30, dx: -20 })] },
    });
    const palette = await prepare(engines, design);
    const scene = engines.builder.build(design, design.pages[0]);
    const at = (x: number, y: number, width: number, height: number) =>
      rasterPlates(scene, palette, { x: x / 2 - 9, y: y / 2 - 9, scale: 2, width, height })!.data[3];
    const [W, H] = [356, 296];
    const whole = at(0, 0, W, H);
    let shown = 0;
    for (let y = 0; y < H; y += 37)
      for (let x = 0; x < W; x += 89) {
        const tile = at(x, y, 89, 37);
        for (let j = 0; j < 37; j++)
          for (let i = 0; i < 89; i++) if (Math.abs(tile[j * 89 + i] - whole[(y + j) * W + x + i]) > 1) shown++;
      }
    expect(shown).toBe(0);
    // Thrown onto the page from beyond its bleed.
    expect(whole[100 * W + W - 2]).toBeGreaterThan(40);
  });
});

describe('shadows on the screen and in SVG', () => {
  const light = (r: number, g: number, b: number): Colour => ({ rgb: [r, g, b] });
  const page = (): Design => {
    const b = new DesignBuilder(newDesign('Screen', setupOf(300, 200, { medium: 'screen', bleed: 0 }), making), making);
    b.place(0, [
      b.shape('Ground', 'rectangle', { x: 0, y: 70, w: 300, h: 60 }, { fill: flat(light(0.7, 0.85, 0.6)) }),
      b.shape(
        'Star',
        'star',
        { x: 20, y: 20, w: 90, h: 90 },
        { fill: flat(light(0.9, 0.3, 0.2)), outline: outlineOf(flat(light(0.1, 0.1, 0.4)), 3) },
      ),
      b.group('Half', [
        b.shape('a', 'ellipse', { x: 130, y: 40, w: 60, h: 60 }, { fill: flat(light(1, 0.8, 0)) }),
        b.shape('b', 'rectangle', { x: 160, y: 60, w: 60, h: 60 }, { fill: flat(light(0, 0.4, 0.8)) }),
      ]),
      b.group('Cut', [
        b.shape('c', 'rectangle', { x: 230, y: 40, w: 50, h: 90 }, { fill: flat(light(0.5, 0.2, 0.6)) }),
        b.shape('Hole', 'ellipse', { x: 225, y: 50, w: 60, h: 50 }, { fill: flat(light(0, 0, 0)) }),
      ]),
      b.displayText('Words', 30, 170, [
        { align: 'left', leading: 1, runs: [runOf('Lantern', 40, flat(light(0.1, 0.2, 0.4)), 'alfa-slab-400')] },
      ]),
    ]);
    const black = light(0, 0, 0);
    return changed(b.done(), {
      Star: { effects: [shadow(black, { overprint: false })] },
      Half: { opacity: 0.6, effects: [shadow(light(0.5, 0, 0.3), { overprint: false, dx: -8, blur: 14 })] },
      Hole: { maskMode: 'outline' },
      Cut: { effects: [shadow(black, { overprint: false, blur: 3, opacity: 1 })] },
      Words: { effects: [shadow(black, { overprint: false, dx: 2, dy: 2, blur: 2 })] },
    });
  };
  const built = async (design: Design) => ({
    palette: await prepare(engines, design),
    scene: engines.builder.build(design, design.pages[0]),
  });
  const noFiles = async (file: string): Promise<Uint8Array> => {
    throw new Error(`no ${file} here`);
  };

  // Our own plates are the truth; a canvas blurs by Gaussians of its own.
  test('the quick painter stays near the plates: mean within 0.8/255, whole and in parts', async () => {
    const { scene, palette } = await built(page());
    const truth = compositePlates(rasterPlates(scene, palette, regionOf(trimRect(scene), 72))!, palette);
    const mean = meanDifference(quick(scene, palette, 1), truth);
    measured('quick painter against plates, shadows', `mean ${mean.toFixed(3)}/255`, '≤ 0.8/255', 'our own plates');
    expect(mean).toBeLessThanOrEqual(0.8);
    const bare = quick(
      withContent(
        scene,
        mapLeaves(
          scene.root.content,
          (leaf) => leaf,
          () => [],
        ),
      ),
      palette,
      1,
    );
    expect(meanDifference(bare, truth)).toBeGreaterThan(3);
  });

  // Outside witness: resvg draws the filters (where offsets are whole pixels: it cuts off the rest of others).
  test('SVG drawn by resvg looks as our PNG: mean within 0.5/255; what it holds are shadows again', async () => {
    const design = page();
    const { scene, palette } = await built(design);
    const { svg } = await writeSvg(scene, palette, 'Shadows', noFiles);
    const theirs = new Resvg(svg, { dpi: 72 }).render();
    const mean = meanDifference(theirs.pixels, decode(writePng(scene, palette, 72)).data, 4, 3);
    measured(
      'our SVG by resvg against our PNG, shadows',
      `mean ${mean.toFixed(3)}/255`,
      '≤ 0.5/255',
      '@resvg/resvg-js',
    );
    expect(mean).toBeLessThanOrEqual(0.5);
    const read = await readSvg(new TextEncoder().encode(svg), 'page', { ...engines.env, fonts: engines.fonts });
    const effects = (nodes: Design['nodes']) => Object.values(nodes).flatMap((n) => n.effects ?? []);
    expect(effects(read.clip.nodes)).toEqual(effects(design.nodes));
    const base = { ...newDesign('Back', design.setup, making), profile: design.profile };
    const back = record(
      base,
      'Place',
      (d) => void pasteClip(d, base.pages[0].id, read.clip, making.newId, [1, 0, 0, 1, 0, 0]),
    )!.design;
    const again = await built(back);
    expect(
      meanDifference(
        decode(writePng(again.scene, again.palette, 72)).data,
        decode(writePng(scene, palette, 72)).data,
        3,
        3,
      ),
    ).toBeLessThanOrEqual(0.05);
  });
});
