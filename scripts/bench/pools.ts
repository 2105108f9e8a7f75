// Runs in Node: eight pools over a megapixel against one linear gradient, both on the plates.
import { newDesign, setupOf } from '../../src/core/model/defaults';
import type { Colour, Design, Paint } from '../../src/core/model/schema';
import { rasterPlates } from '../../src/core/render/plates';
import { prepare, type Engines } from '../../src/core/engines';
import { DesignBuilder } from '../../src/demo/builder';
import { inTurns, measured, type Measured } from './measure';

const cmyk = (c: number, m: number, y: number, k: number): Colour => ({ cmyk: [c, m, y, k] });

/** A square page of 1,000 points filled with one paint. */
function page(paint: Paint): Design {
  let n = 0;
  const making = { newId: () => `p${n++}`, now: () => '2026-11-21T18:00:00.000Z' };
  const b = new DesignBuilder(newDesign('Bench', setupOf(1000, 1000, { bleed: 0 }), making), making);
  b.place(0, [b.shape('All', 'rectangle', { x: 0, y: 0, w: 1000, h: 1000 }, { fill: paint })]);
  return b.done();
}

export async function poolsBench(engines: Engines): Promise<Measured> {
  const colour = (i: number) => cmyk(((i * 30) % 100) / 100, ((i * 50) % 100) / 100, ((i * 70) % 100) / 100, 0.05);
  const pools = page({
    kind: 'pools',
    geometry: [1000, 0, 0, 1000, 0, 0],
    overprint: false,
    pools: Array.from({ length: 8 }, (_, i) => ({
      x: (5 + ((i * 37) % 90)) / 100,
      y: (5 + ((i * 61) % 90)) / 100,
      colour: colour(i + 1),
      reach: 0.3,
    })),
  });
  const linear = page({
    kind: 'gradient',
    gradient: 'linear',
    overprint: false,
    geometry: [800, 300, -300, 800, 100, 100],
    ramp: {
      stops: [
        { offset: 0, colour: colour(1) },
        { offset: 1, colour: colour(4) },
      ],
    },
  });
  const region = { x: 0, y: 0, scale: 1, width: 1000, height: 1000 };
  const run = async (design: Design) => {
    const palette = await prepare(engines, design);
    const scene = engines.builder.build(design, design.pages[0]);
    return () => rasterPlates(scene, palette, region);
  };
  const [ours, reference] = await inTurns(15, 2, await run(pools), await run(linear));
  return measured(ours, reference);
}
