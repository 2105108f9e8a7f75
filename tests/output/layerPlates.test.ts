import { SPOT_LIBRARY } from '@/core/colour/spotLibrary';
import { newDesign, outlineOf, runOf, setupOf } from '@/core/model/defaults';
import { BLENDS, type Blend, type Design, type DesignNode } from '@/core/model/schema';
import type { Engines } from '@/core/engines';
import { DesignBuilder, flat } from '@/demo/builder';
import { checkX4 } from '../support/checkX4';
import { faults } from '../support/faults';
import { separate } from '../support/ghostscript';
import { pdfOf, platesOf } from '../support/press';
import { cmyk, linear, making } from '../support/sample';
import { testEngines } from '../support/engines';

const DPI = 144;
let engines: Engines;
beforeAll(async () => {
  engines = await testEngines();
});

const both = async (design: Design) => ({
  ours: await platesOf(engines, design, DPI),
  pdf: await pdfOf(engines, design),
});

/** The same design with changes to its nodes by name. */
function changed(
  d: Design,
  changes: Readonly<Record<string, Partial<Pick<DesignNode, 'opacity' | 'blend' | 'maskMode'>>>>,
): Design {
  return {
    ...d,
    nodes: Object.fromEntries(
      Object.entries(d.nodes).map(([id, n]) => [id, { ...n, ...changes[n.name] }]),
    ) as Design['nodes'],
  };
}

// Oracle: Ghostscript tiffsep, the rule as tests/support/agree.ts states it.
describe('what is drawn by itself first, on our plates and on those of our PDF', () => {
  test('opacity of objects and groups, over process and spot inks', async () => {
    const b = new DesignBuilder(newDesign('Opacity', setupOf(400, 240, { bleed: 0 }), making), making);
    const ember = b.spot(SPOT_LIBRARY[0]);
    const pair = (name: string, x: number) =>
      b.group(name, [
        b.shape(`${name} a`, 'ellipse', { x, y: 30, w: 90, h: 90 }, { fill: flat(cmyk(0, 80, 20, 0)) }),
        b.shape(
          `${name} b`,
          'rectangle',
          { x: x + 40, y: 60, w: 80, h: 80 },
          { fill: flat(ember), outline: outlineOf(flat(cmyk(0, 0, 0, 100)), 6) },
        ),
      ]);
    b.place(0, [
      b.shape('Sea', 'rectangle', { x: 0, y: 80, w: 400, h: 50 }, { fill: flat(cmyk(80, 40, 0, 0)) }),
      b.shape('Glow', 'rectangle', { x: 0, y: 150, w: 400, h: 50 }, { fill: flat(ember) }),
      pair('Half', 20),
      pair('Whole', 150),
      b.shape(
        'Faint',
        'star',
        { x: 270, y: 20, w: 120, h: 200 },
        {
          fill: linear(
            [
              { offset: 0, colour: cmyk(0, 0, 90, 0) },
              { offset: 1, colour: cmyk(0, 90, 0, 0), opacity: 0.3 },
            ],
            [120, 0, 0, 120, 0, 0],
          ),
        },
      ),
      b.displayText('Words', 20, 225, [
        { align: 'left', leading: 1, runs: [runOf('Marrowick', 40, flat(cmyk(100, 60, 0, 20)), 'alfa-slab-400')] },
      ]),
    ]);
    const { ours, pdf } = await both(
      changed(b.done(), {
        Half: { opacity: 0.5 },
        'Whole a': { opacity: 0.6 },
        Faint: { opacity: 0.7 },
        Words: { opacity: 0.4 },
      }),
    );
    expect(faults(ours, separate(pdf, DPI)[0], 'layers: opacity')).toEqual([]);
    expect(await checkX4(pdf)).toEqual([]);
  });

  test('every blend over process and spot inks', async () => {
    const b = new DesignBuilder(newDesign('Blends', setupOf(500, 240, { bleed: 0 }), making), making);
    const ember = b.spot(SPOT_LIBRARY[0]);
    const kelp = b.spot(SPOT_LIBRARY[1]);
    const grounds: string[] = [];
    const tops: string[] = [];
    const changes: Record<string, { blend: Blend; opacity?: number }> = {};
    BLENDS.forEach((blend, i) => {
      const [x, y] = [8 + (i % 5) * 98, 6 + Math.floor(i / 5) * 78];
      grounds.push(
        b.shape(
          `Ground ${blend}`,
          'rectangle',
          { x, y, w: 84, h: 30 },
          {
            fill: linear(
              [
                { offset: 0, colour: cmyk(90, 30, 0, 0) },
                { offset: 1, colour: cmyk(0, 60, 90, 20) },
              ],
              [84, 0, 0, 84, 0, 0],
            ),
          },
        ),
        b.shape(`Spot ${blend}`, 'rectangle', { x, y: y + 36, w: 84, h: 30 }, { fill: flat(ember) }),
      );
      tops.push(
        b.group(blend, [
          b.shape(
            `a ${blend}`,
            'rectangle',
            { x: x + 8, y: y + 4, w: 30, h: 58 },
            { fill: flat(cmyk(20, 70, 40, 10)) },
          ),
          b.shape(`b ${blend}`, 'rectangle', { x: x + 44, y: y + 4, w: 30, h: 58 }, { fill: flat(kelp) }),
        ]),
      );
      changes[blend] = { blend, ...(i % 3 === 0 && { opacity: 0.75 }) };
    });
    b.place(0, [...grounds, ...tops]);
    const { ours, pdf } = await both(changed(b.done(), changes));
    expect(faults(ours, separate(pdf, DPI)[0], 'layers: blends')).toEqual([]);
    expect(await checkX4(pdf)).toEqual([]);
  });

  test('cut by an outline, by several, by how far something covers', async () => {
    const b = new DesignBuilder(newDesign('Cuts', setupOf(400, 200, { bleed: 0 }), making), making);
    const ember = b.spot(SPOT_LIBRARY[0]);
    const stripes = (name: string, x: number) =>
      Array.from({ length: 6 }, (_, i) =>
        b.shape(
          `${name} ${i}`,
          'rectangle',
          { x, y: 10 + i * 30, w: 120, h: 18 },
          { fill: flat(i % 2 ? ember : cmyk(80, 0, 60, 0)) },
        ),
      );
    const soft = linear(
      [
        { offset: 0, colour: cmyk(0, 0, 0, 100), opacity: 0 },
        { offset: 1, colour: cmyk(0, 0, 0, 100) },
      ],
      [120, 0, 0, 120, 0, 0],
    );
    b.place(0, [
      b.shape('Ground', 'rectangle', { x: 0, y: 60, w: 400, h: 60 }, { fill: flat(cmyk(0, 0, 50, 0)) }),
      b.group('By a star', [
        ...stripes('s', 5),
        b.shape('Star', 'star', { x: 5, y: 10, w: 120, h: 170 }, { fill: flat(ember) }),
      ]),
      b.group('By two', [
        ...stripes('t', 135),
        b.shape('Round', 'ellipse', { x: 135, y: 10, w: 110, h: 170 }, {}),
        b.shape('Ring', 'ring', { x: 145, y: 40, w: 110, h: 140 }, {}),
      ]),
      b.group('By a fade', [
        ...stripes('u', 270),
        b.shape('Fade', 'rectangle', { x: 270, y: 10, w: 120, h: 170 }, { fill: soft }),
      ]),
    ]);
    const { ours, pdf } = await both(
      changed(b.done(), {
        Star: { maskMode: 'outline' },
        Round: { maskMode: 'outline' },
        Ring: { maskMode: 'outline' },
        Fade: { maskMode: 'opacity' },
        'By two': { opacity: 0.8 },
      }),
    );
    expect(faults(ours, separate(pdf, DPI)[0], 'layers: cuts')).toEqual([]);
    expect(await checkX4(pdf)).toEqual([]);
  });
});
