import { Resvg } from '@resvg/resvg-js';
import { smallerSvg } from '@/core/output/svg/smaller';
import { writeSvg } from '@/core/output/svg/write';
import { prepare, type Engines } from '@/core/engines';
import { demoDesigns } from '@/demo/demos';
import type { Design } from '@/core/model/schema';
import { FULL } from '../support/measured';
import { drawnDesign, sampleDesign } from '../support/sample';
import { testEngines } from '../support/engines';

let engines: Engines;
beforeAll(async () => {
  engines = await testEngines();
});
const DESIGNS: readonly (readonly [string, () => Design])[] = [
  ['sample', sampleDesign],
  ['drawn', drawnDesign],
  ['ticket', () => demoDesigns().find((d) => d.file.includes('ticket'))!.design],
  ['poster', () => demoDesigns()[0].design],
];
const drawn = (svg: string) => new Resvg(svg, { fitTo: { mode: 'width', value: 600 } }).render().pixels;

// Witness: resvg draws both.
test.each(FULL ? DESIGNS : DESIGNS.slice(0, 3))(
  '%s: as small as can be looks the same, and nothing of ours is left in it',
  async (_, make) => {
    const design = make();
    const palette = await prepare(engines, design);
    const { svg } = await writeSvg(engines.builder.build(design, design.pages[0]), palette, design.name, (f) =>
      engines.env.asset(f),
    );
    const small = await smallerSvg(svg);
    expect(small.length).toBeLessThan(svg.length * 0.9);
    expect(small).not.toMatch(/[ <]ink:/);
    expect(small).toContain('<title>');
    const [a, b] = [drawn(svg), drawn(small)];
    expect(b.length).toBe(a.length);
    let sum = 0;
    for (let i = 0; i < a.length; i++) sum += Math.abs(a[i] - b[i]);
    expect(sum / a.length).toBeLessThan(0.15);
  },
);
