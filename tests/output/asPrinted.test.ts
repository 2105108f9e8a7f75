import { Resvg } from '@resvg/resvg-js';
import { decode, encode } from 'fast-png';
import { SPOT_LIBRARY } from '@/core/colour/spotLibrary';
import { assetName } from '@/core/file/assets';
import { newDesign, setupOf } from '@/core/model/defaults';
import type { Design } from '@/core/model/schema';
import { writePng } from '@/core/output/png';
import { writeSvg } from '@/core/output/svg/write';
import { readSvg } from '@/core/input/svg/read';
import { asScreen, equip, openEngines, paletteOf } from '@/core/engines';
import { DesignBuilder, flat } from '@/demo/builder';
import { measured, FULL } from '../support/measured';
import { cmyk, making } from '../support/sample';
import { testEngines } from '../support/engines';

/** A picture of strong screen colours, and groups that blend with tints and with it. */
async function page(): Promise<{ design: Design; asset: (name: string) => Promise<Uint8Array> }> {
  const [w, h] = [90, 60];
  const data = new Uint8Array(w * h * 3);
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) data.set([(x * 255) / w, (y * 255) / h, 255 - (x * 255) / w], 3 * (y * w + x));
  const bytes = encode({ width: w, height: h, data, channels: 3, depth: 8 });
  const file = await assetName(bytes, 'png');
  const b = new DesignBuilder(newDesign('Looks', setupOf(300, 200, { bleed: 0 }), making), making);
  const ember = b.spot(SPOT_LIBRARY[0]);
  const picture = b.picture({ name: 'Strong', file, width: w, height: h, space: 'rgb' });
  b.place(0, [
    b.shape('Tint', 'rectangle', { x: 0, y: 100, w: 300, h: 100 }, { fill: flat(cmyk(40, 10, 0, 0)) }),
    b.shape(
      'Frame',
      'rectangle',
      { x: 20, y: 20, w: 180, h: 120 },
      { fill: { kind: 'picture', picture, geometry: [180, 0, 0, 120, 0, 0], overprint: false } },
    ),
    b.together(
      b.group('Multiplied', [b.shape('Disc', 'ellipse', { x: 140, y: 60, w: 120, h: 120 }, { fill: flat(ember) })]),
      { blend: 'multiply' },
    ),
    b.together(b.shape('Lit', 'rectangle', { x: 40, y: 90, w: 70, h: 90 }, { fill: flat(cmyk(0, 60, 90, 10)) }), {
      blend: 'screen',
      opacity: 0.8,
    }),
  ]);
  const engines = await testEngines();
  return { design: b.done(), asset: async (name) => (name.endsWith(file) ? bytes : engines.env.asset(name)) };
}

test.each(FULL ? (['as printed', 'as they came'] as const) : (['as they came'] as const))(
  'SVG and PNG look the same, %s',
  async (which) => {
    const { design, asset } = await page();
    const { env } = await testEngines();
    const engines = await openEngines({ ...env, asset, lcmsGlue: env.lcmsGlue });
    const shown = which === 'as printed' ? design : asScreen(design);
    await equip(engines, shown);
    const palette = paletteOf(shown, engines);
    const scene = engines.builder.build(shown, shown.pages[0]);
    const { svg, approximations } = await writeSvg(scene, palette, 'Looks', asset);
    const ours = decode(writePng(scene, palette, 72));
    const theirs = new Resvg(svg).render();
    const drawn = new Resvg(svg, { fitTo: { mode: 'width', value: ours.width } }).render().pixels;
    expect([theirs.width > 0, ours.channels]).toEqual([true, 3]);
    let [sum, far] = [0, 0];
    for (let i = 0; i < ours.width * ours.height; i++) {
      let most = 0;
      for (let c = 0; c < 3; c++) {
        const off = Math.abs(ours.data[3 * i + c] - drawn[4 * i + c]);
        sum += off;
        most = Math.max(most, off);
      }
      if (most > 6) far++;
    }
    const mean = sum / (ours.width * ours.height * 3);
    measured(
      `our SVG by resvg against our PNG, pictures and blends ${which}`,
      `mean ${mean.toFixed(3)}/255`,
      '≤ 0.6/255',
      '@resvg/resvg-js',
    );
    expect(mean).toBeLessThanOrEqual(0.6);
    // Edges are smoothed differently; whole parts must not differ.
    expect(far / (ours.width * ours.height)).toBeLessThan(0.02);
    // What is only near is said.
    if (which === 'as printed')
      expect(approximations).toEqual(
        expect.arrayContaining([
          expect.stringMatching(/^Blended parts are pictures/),
          expect.stringMatching(/^Pictures are shown as they print/),
        ]),
      );
    // For our reader the parts themselves stand there, not their pictures.
    const back = await readSvg(new TextEncoder().encode(svg), 'Looks', { ...engines.env, asset, fonts: engines.fonts });
    const names = Object.values(back.clip.nodes).flatMap((n) => (n.blend ? [n.blend] : []));
    expect(names.toSorted()).toEqual(['multiply', 'screen']);
  },
);
