import { decode } from 'fast-png';
import { newDesign, setupOf } from '@/core/model/defaults';
import { pagePlates, writePng } from '@/core/output/png';
import { prepare } from '@/core/engines';
import { DesignBuilder, flat } from '@/demo/builder';
import { cmyk, making } from '../support/sample';
import { testEngines } from '../support/engines';

describe('pages whose size is no whole number of pixels', () => {
  // 200.4 × 149.7 pixels at 72 dpi: rounded up one way and down the other; no bleed, so the art ends with the page.
  const page = (w: number, h: number) => {
    const b = new DesignBuilder(newDesign('Odd', setupOf(w, h, { bleed: 0 }), making), making);
    b.place(0, [b.shape('All', 'rectangle', { x: 0, y: 0, w, h }, { fill: flat(cmyk(100, 0, 0, 0)) })]);
    return b.done();
  };
  test.each([
    [200.4, 149.7],
    [200.6, 149.2],
    [199.5, 150.5],
  ])('%d × %d: the outermost rows and columns are as full as all others', async (w, h) => {
    const engines = await testEngines();
    const design = page(w, h);
    const palette = await prepare(engines, design);
    const scene = engines.builder.build(design, design.pages[0]);
    const { data } = pagePlates(scene, palette, 72);
    expect(new Set(data[0])).toEqual(new Set([255]));
    const png = decode(writePng(scene, palette, 72));
    const looks = new Set<string>();
    for (let i = 0; i < png.width * png.height; i++) looks.add(png.data.slice(3 * i, 3 * i + 3).join());
    expect(looks.size).toBe(1);
    const clear = decode(writePng(scene, palette, 72, true));
    expect(new Set(Array.from({ length: clear.width * clear.height }, (_, i) => clear.data[4 * i + 3]))).toEqual(
      new Set([255]),
    );
  });
});

describe('a picture with a transparent ground', () => {
  test('clear where nothing is, in part where something shows through; laid on paper it is the page again', async () => {
    const engines = await testEngines();
    const b = new DesignBuilder(newDesign('Clear', setupOf(120, 80, { bleed: 0 }), making), making);
    const disc = b.shape('Disc', 'ellipse', { x: 10, y: 10, w: 60, h: 60 }, { fill: flat(cmyk(0, 80, 90, 0)) });
    b.place(0, [
      disc,
      b.together(b.shape('Veil', 'rectangle', { x: 50, y: 20, w: 60, h: 40 }, { fill: flat(cmyk(80, 40, 0, 0)) }), {
        opacity: 0.5,
      }),
      b.shape(
        'Over',
        'rectangle',
        { x: 20, y: 30, w: 30, h: 20 },
        { fill: { kind: 'colour', colour: cmyk(60, 0, 0, 0), overprint: true } },
      ),
    ]);
    const design = b.done();
    const palette = await prepare(engines, design);
    const scene = engines.builder.build(design, design.pages[0]);
    const clear = decode(writePng(scene, palette, 144, true));
    const solid = decode(writePng(scene, palette, 144));
    expect([clear.channels, clear.width, clear.height]).toEqual([4, 240, 160]);
    const at = (x: number, y: number) => [...clear.data.slice(4 * (y * 240 + x), 4 * (y * 240 + x) + 4)];
    expect(at(2, 2)[3]).toBe(0);
    expect(at(60, 40)[3]).toBe(255);
    expect(Math.abs(at(200, 80)[3] - 128)).toBeLessThanOrEqual(1);
    // Solid parts are the very colours of the page; those that let it through come near (ink on paper is not light on
    // white).
    let worst = 0;
    let sum = 0;
    for (let i = 0; i < 240 * 160; i++) {
      const a = clear.data[4 * i + 3] / 255;
      for (let c = 0; c < 3; c++) {
        const paper = solid.data[c];
        const off = Math.abs(clear.data[4 * i + c] * a + paper * (1 - a) - solid.data[3 * i + c]);
        if (a === 1) worst = Math.max(worst, off);
        sum += off;
      }
    }
    expect(worst).toBeLessThanOrEqual(1);
    expect(sum / (240 * 160 * 3)).toBeLessThan(3);
  });
});
