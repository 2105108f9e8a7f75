import { groundSet } from '@/core/edit/groundSet';
import { tryOut } from '@/core/edit/history';
import { setGround } from '@/core/edit/masters';
import { flatten } from '@/core/geometry/path';
import { newDesign, setupOf } from '@/core/model/defaults';
import { PATTERNS } from '@/core/model/groundSchema';
import type { Pattern } from '@/core/model/schema';
import { verifyDesign } from '@/core/model/verify';
import { hitAll } from '@/core/scene/hit';
import { patternPaths } from '@/core/shapes/groundPatterns';
import { prepare, type Engines } from '@/core/engines';
import { DesignBuilder, flat } from '@/demo/builder';
import { checkX4 } from '../support/checkX4';
import { faults } from '../support/faults';
import { separate } from '../support/ghostscript';
import { pdfOf, platesOf } from '../support/press';
import { cmyk, making } from '../support/sample';
import { testEngines } from '../support/engines';

let engines: Engines;
beforeAll(async () => {
  engines = await testEngines();
});
const black = flat(cmyk(0, 0, 0, 100)) as Pattern['paints'][number];
const pattern = (kind: Pattern['kind'], more: Partial<Pattern> = {}): Pattern => ({
  kind,
  paints: [black],
  size: 20,
  angle: 0,
  cover: 0.2,
  ...more,
});
const page = (w = 400, h = 300) => {
  const b = new DesignBuilder(newDesign('Ground', setupOf(w, h, { bleed: 9 }), making), making);
  b.place(0, [b.shape('One', 'rectangle', { x: 10, y: 10, w: 10, h: 10 }, {})]);
  return b.done();
};

// Closed form: the share of the ground that is inked is the one that was asked for.
test.each(PATTERNS.flatMap((kind) => [0.1, 0.35].map((cover) => [kind, cover] as const)))(
  '%s cover %d of the ground, straight and turned',
  async (kind, cover) => {
    for (const angle of [0, 30]) {
      const design = tryOut(page(), (d) =>
        setGround(d, d.pages[0].id, { kind: 'none' }, pattern(kind, { cover, angle, size: 10 })),
      );
      await prepare(engines, design);
      const plate = (await platesOf(engines, design, 72)).get('Black')!;
      const ink = plate.data.reduce((sum, v) => sum + (255 - v), 0) / (255 * plate.data.length);
      // Confetti overlaps itself a little, and is thrown.
      expect(Math.abs(ink - cover)).toBeLessThan(kind === 'confetti' ? 0.05 : 0.02);
    }
  },
);

test('a pattern takes its paints in turns, the same for the same throw, and no more marks than can be drawn', () => {
  const box = { x0: 0, y0: 0, x1: 400, y1: 300 };
  const paints = [black, black, black];
  for (const kind of PATTERNS) {
    const paths = patternPaths(pattern(kind, { paints }), box);
    expect(paths).toHaveLength(3);
    expect(paths.filter((p) => p.length > 0).length).toBeGreaterThanOrEqual(kind === 'grid' ? 2 : 3);
    expect(patternPaths(pattern(kind, { paints }), box)).toEqual(paths);
    expect(paths.flat().every(Number.isFinite)).toBe(true);
  }
  expect(patternPaths(pattern('confetti', { seed: 1 }), box)).not.toEqual(patternPaths(pattern('confetti'), box));
  const huge = patternPaths(pattern('dots', { size: 2 }), { x0: 0, y0: 0, x1: 20_000, y1: 20_000 });
  expect(flatten(huge[0], 10).length).toBeLessThan(25_000);
});

test('thirty grounds of the design’s own swatches: sound, each another one, never met by the pointer', async () => {
  const d = page();
  const palette = await prepare(engines, d);
  const set = groundSet(d, d.setup, (c) => palette.labOf(c));
  expect(set).toHaveLength(30);
  expect(new Set(set.map((g) => g.id)).size).toBe(30);
  expect(new Set(set.map((g) => g.name)).size).toBe(30);
  for (const g of set) {
    const made = tryOut(d, (x) => setGround(x, x.pages[0].id, g.paint, g.pattern));
    expect([g.id, verifyDesign(made)]).toMatchObject([g.id, { ok: true }]);
    const scene = engines.builder.build(made, made.pages[0]);
    expect(scene.root.content.length).toBeGreaterThanOrEqual(g.pattern ? 2 : 1);
    expect(hitAll(scene, { x: 200, y: 200 }, 3)).toEqual([]);
    // Another ground takes the pattern away, or brings its own.
    const next = tryOut(made, (x) => setGround(x, x.pages[0].id, g.paint, null));
    expect(next.pages[0].pattern).toBeUndefined();
  }
});

// Oracle: Ghostscript tiffsep of our PDF, the rule as tests/support/agree.ts states it.
test('patterns of every kind, cut at the bleed: plates agree', async () => {
  for (const [i, kind] of PATTERNS.entries()) {
    const design = tryOut(page(300, 200), (d) =>
      setGround(
        d,
        d.pages[0].id,
        flat(cmyk(20, 0, 30, 0)),
        pattern(kind, {
          size: 70,
          cover: 0.3,
          angle: i % 2 ? 30 : 0,
          paints: [black, flat(cmyk(80, 0, 0, 0), true) as Pattern['paints'][number]],
        }),
      ),
    );
    await prepare(engines, design);
    const pdf = await pdfOf(engines, design);
    expect([kind, faults(await platesOf(engines, design, 144), separate(pdf, 144)[0], `ground of ${kind}`)]).toEqual([
      kind,
      [],
    ]);
    expect(await checkX4(pdf)).toEqual([]);
  }
});
