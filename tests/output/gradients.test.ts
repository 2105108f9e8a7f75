import { newDesign, outlineOf, setupOf } from '@/core/model/defaults';
import type { Design, GradientPaint, Stop } from '@/core/model/schema';
import type { Engines } from '@/core/engines';
import { checkX4 } from '../support/checkX4';
import { faults } from '../support/faults';
import { separate } from '../support/ghostscript';
import { GRADIENT_KINDS, gradientPage } from '../support/gradients';
import { DesignBuilder } from '@/demo/builder';
import { pdfOf, platesOf } from '../support/press';
import { unpacked } from '../support/qpdf';
import { cmyk, linear, making, radial } from '../support/sample';
import { testEngines } from '../support/engines';

const DPI = 100;
let engines: Engines;
beforeAll(async () => {
  engines = await testEngines();
});

const both = async (design: Design) => ({
  ours: await platesOf(engines, design, DPI),
  pdf: await pdfOf(engines, design, { marks: true }),
});

// Oracle: Ghostscript tiffsep, the rule as tests/support/agree.ts states it; meshes within 3/255 (the plan's
// tolerance).
describe('gradients on our plates and on those of our PDF', () => {
  // Every kind in the full run; here one shading.
  test.each((process.env.HOLVET_FULL ? GRADIENT_KINDS : (['radial'] as const)).map((k) => [k]))('%s', async (kind) => {
    const { ours, pdf } = await both(gradientPage(kind));
    const mesh = kind === 'box' || kind === 'pools' || kind === 'along' || kind === 'across';
    expect(faults(ours, separate(pdf, DPI)[0], `gradients: ${kind}`, mesh ? 3 : 2)).toEqual([]);
    // Our checker of the rules of PDF/X-4 (from memory of ISO 15930-7), and qpdf.
    expect(await checkX4(pdf)).toEqual([]);
    // Shadings stay shadings: no picture of a gradient is in the file.
    expect(unpacked(pdf)).not.toMatch(/\/Subtype \/Image/);
  });

  test('grain, as squares of the same two tones', async () => {
    const b = new DesignBuilder(newDesign('Grain', setupOf(400, 300, { bleed: 0 }), making), making);
    // A ramp that lets something through has no grain, here or there.
    const fading: Stop[] = [
      { offset: 0, colour: cmyk(80, 60, 0, 20) },
      { offset: 1, colour: cmyk(0, 60, 80, 0), opacity: 0.3 },
    ];
    const stops = [
      { offset: 0, colour: cmyk(80, 60, 0, 20) },
      { offset: 1, colour: cmyk(60, 40, 0, 0) },
    ];
    b.place(0, [
      b.shape(
        'Sky',
        'rectangle',
        { x: 0, y: 0, w: 400, h: 300 },
        { fill: { ...(linear(stops, [0, 300, -300, 0, 0, 0]) as GradientPaint), grain: 0.08 } },
      ),
      b.shape(
        'Fading',
        'rectangle',
        { x: 300, y: 200, w: 80, h: 80 },
        { fill: { ...(linear(fading, [80, 0, 0, 80, 0, 0]) as GradientPaint), grain: 0.2 } },
      ),
      b.shape(
        'Line',
        'ellipse',
        { x: 60, y: 60, w: 200, h: 160 },
        { outline: outlineOf({ ...(radial(stops, [180, 0, 0, 180, 100, 80]) as GradientPaint), grain: 0.1 }, 40) },
      ),
    ]);
    const { ours, pdf } = await both(b.done());
    expect(faults(ours, separate(pdf, DPI)[0], 'gradients: grain', 3)).toEqual([]);
    // Two tones lie side by side where there would be one.
    const { data, width } = ours.get('Cyan')!;
    expect(new Set(data.slice(width * 20, width * 21)).size).toBeGreaterThan(1);
    expect(unpacked(pdf)).toMatch(/\/PatternType 1\b/);
    expect(await checkX4(pdf)).toEqual([]);
  });
});
