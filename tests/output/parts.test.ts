import { decode } from 'fast-png';
import { Resvg } from '@resvg/resvg-js';
import { encodePng, rgbaOf, writePng } from '@/core/output/png';
import { cutsOf } from '@/core/output/parts';
import { writeSvg } from '@/core/output/svg/write';
import { newDesign, setupOf } from '@/core/model/defaults';
import type { Design } from '@/core/model/schema';
import { asScreen, paletteOf, prepare, type Engines } from '@/core/engines';
import { newShadow, setShadow } from '@/core/edit/effects';
import { tryOut } from '@/core/edit/history';
import { DesignBuilder, flat } from '@/demo/builder';
import { cmyk, making } from '../support/sample';
import { testEngines } from '../support/engines';

let engines: Engines;
beforeAll(async () => {
  engines = await testEngines();
});

/** Three buttons on a ground, two of one name; the last one hangs over the edge. */
function buttons(): { design: Design; ids: string[]; ground: string } {
  const b = new DesignBuilder(newDesign('Buttons', setupOf(300, 100, { bleed: 0 }), making), making);
  const ground = b.shape('Ground', 'rectangle', { x: 0, y: 0, w: 300, h: 100 }, { fill: flat(cmyk(20, 0, 0, 0)) });
  const one = (name: string, x: number, ink: [number, number, number, number]) =>
    b.group(name, [
      b.shape('Face', 'ellipse', { x, y: 30, w: 60, h: 40 }, { fill: flat(cmyk(...ink)) }),
      b.shape('Mark', 'rectangle', { x: x + 20, y: 45, w: 20, h: 10 }, { fill: flat(cmyk(0, 0, 0, 0)) }),
    ]);
  const ids = [one('Quay', 30, [100, 60, 0, 0]), one('Fog', 130, [0, 80, 90, 0]), one('quay', 260, [0, 0, 0, 100])];
  b.place(0, [ground, ...ids]);
  return { design: b.done(), ids, ground };
}

test('each under its own name, cut at what is seen of it, without what lies below or beside', async () => {
  const { design, ids } = buttons();
  const palette = await prepare(engines, design);
  const page = design.pages[0];
  const scene = engines.builder.build(design, page);
  const cuts = cutsOf(design, page, scene, [...ids, design.nodes[ids[0]].id], true);
  expect(cuts.map((c) => c.name)).toEqual(['Quay', 'Fog', 'quay 2']);
  expect(cuts.map((c) => [c.box.x0, c.box.y0, c.box.x1, c.box.y1])).toEqual([
    [30, 30, 90, 70],
    [130, 30, 190, 70],
    // What hangs over the edge of the sheet is not there.
    [260, 30, 300, 70],
  ]);
  const alone = rgbaOf(cuts[0].scene, palette, 144, { transparent: true, box: cuts[0].box });
  expect([alone.width, alone.height]).toEqual([120, 80]);
  const pixel = (x: number, y: number) => [...alone.data.slice(4 * (y * 120 + x), 4 * (y * 120 + x) + 4)];
  // Clear at the corner, whole in the face, white and whole in the mark, which takes away the face and not the ground.
  expect(pixel(1, 1)[3]).toBe(0);
  expect(pixel(20, 40)[3]).toBe(255);
  expect(pixel(60, 40)[3]).toBe(255);
  expect(pixel(60, 40)[0]).toBeGreaterThan(230);
  // The same colour as on the page itself.
  const whole = decode(writePng(scene, palette, 144));
  const at = 3 * (100 * whole.width + 80);
  expect(pixel(20, 40).slice(0, 3)).toEqual([...whole.data.slice(at, at + 3)]);
  const png = decode(encodePng(alone, 144, true));
  expect([png.width, png.height, png.channels]).toEqual([120, 80, 4]);
});

test('together; with its shadow; nothing of what cannot be seen', async () => {
  const { design, ids, ground } = buttons();
  await prepare(engines, design);
  const page = design.pages[0];
  const both = cutsOf(design, page, engines.builder.build(design, page), ids.slice(0, 2), false);
  expect(both.map((c) => [c.name, c.box])).toEqual([['Buttons', { x0: 30, y0: 30, x1: 190, y1: 70 }]]);
  const shadowed = tryOut(design, (d) => setShadow(d, [ids[1]], {}, () => newShadow(design, 20)));
  const [cut] = cutsOf(shadowed, page, engines.builder.build(shadowed, page), [ids[1]], true);
  expect(cut.box.y1).toBeGreaterThan(71);
  const hidden = tryOut(design, (d) => void (d.nodes[ground].hidden = true));
  expect(cutsOf(hidden, page, engines.builder.build(hidden, page), [ground], true)).toEqual([]);
});

// Second witness: resvg (rsvg’s and browsers’ reading of SVG 1.1) draws the file as our own pixels are.
test('as SVG: as large as the object, without the paper, drawn by another program as we draw it', async () => {
  const { design, ids } = buttons();
  await prepare(engines, design);
  const light = paletteOf(asScreen(design), engines);
  const page = design.pages[0];
  const [cut] = cutsOf(design, page, engines.builder.build(design, page), [ids[1]], true);
  const { svg } = await writeSvg(cut.scene, light, cut.name, () => Promise.reject(new Error('none')), {
    box: cut.box,
    bare: true,
  });
  expect(svg).toContain('width="60pt" height="40pt" viewBox="130 30 60 40"');
  const drawn = new Resvg(svg, { fitTo: { mode: 'width', value: 240 } }).render();
  const ours = rgbaOf(cut.scene, light, 288, { transparent: true, box: cut.box });
  expect([drawn.width, drawn.height]).toEqual([ours.width, ours.height]);
  const theirs = drawn.pixels;
  let sum = 0;
  for (let i = 0; i < ours.data.length; i += 4) {
    const alpha = ours.data[i + 3];
    for (let c = 0; c < 3; c++) sum += Math.abs((ours.data[i + c] * alpha) / 255 - theirs[i + c]);
    sum += Math.abs(alpha - theirs[i + 3]);
  }
  expect(sum / ours.data.length).toBeLessThan(0.3);
});
