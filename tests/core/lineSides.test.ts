import { transformPath } from '@/core/geometry/path';
import { prepare, type Engines } from '@/core/engines';
import { newDesign, outlineOf, setupOf } from '@/core/model/defaults';
import type { Outline } from '@/core/model/schema';
import { verifyDesign } from '@/core/model/verify';
import type { Leaf } from '@/core/scene/scene';
import { walk } from '@/core/scene/walk';
import { DesignBuilder, flat } from '@/demo/builder';
import { areaOf } from '../support/area';
import { faults } from '../support/faults';
import { separate } from '../support/ghostscript';
import { pdfOf, platesOf } from '../support/press';
import { cmyk, making } from '../support/sample';
import { testEngines } from '../support/engines';

let engines: Engines;
beforeAll(async () => {
  engines = await testEngines();
});

const line = (more: Partial<Outline>, width = 6): Outline => ({
  ...outlineOf(flat(cmyk(90, 20, 0, 0)), width),
  ...more,
});

function lined(shape: string, outline: Outline, w = 100, h = 100): Leaf {
  const b = new DesignBuilder(newDesign('Sides', setupOf(200, 200, { bleed: 0 }), making), making);
  b.place(0, [b.shape('Shape', shape, { x: 50, y: 50, w, h }, { outline })]);
  const d = b.done();
  expect(verifyDesign(d)).toMatchObject({ ok: true });
  const found: Leaf[] = [];
  walk(engines.builder.build(d, d.pages[0]).root, (leaf) => void found.push(leaf));
  return found[0];
}
const drawn = (leaf: Leaf): number =>
  areaOf({
    path: transformPath(leaf.placed.own, leaf.placed.toPage),
    rule: leaf.type === 'fill' ? leaf.rule : 'nonZero',
  });

// Closed forms of plane geometry: of a square of side 100, and of a circle of radius 50, with a line of 6.
test.each([
  ['inside a square, whatever its corners', 'rectangle', line({ side: 'inside', join: 'round' }), 100 ** 2 - 88 ** 2],
  ['outside a square, pointed', 'rectangle', line({ side: 'outside' }), 112 ** 2 - 100 ** 2],
  ['outside a square, round', 'rectangle', line({ side: 'outside', join: 'round' }), 4 * 100 * 6 + Math.PI * 36],
  ['outside a square, cut', 'rectangle', line({ side: 'outside', join: 'bevel' }), 4 * 100 * 6 + 4 * 18],
  ['inside, wider than there is room', 'rectangle', line({ side: 'inside' }, 70), 100 ** 2],
  [
    'inside in dashes',
    'rectangle',
    line({ side: 'inside', dashes: [20, 20], dashOffset: 10 }),
    2 * (2 * 10 * 6 - 36) + 8 * 20 * 6,
  ],
] as const)('%s: the area is that of its closed form', (_, shape, outline, expected) => {
  expect(Math.abs(drawn(lined(shape, outline)) / expected - 1)).toBeLessThan(1e-4);
});

test('inside and outside a circle are rings', () => {
  // Curves stray from a circle by 2.7e-4 of its radius, and are cut into pieces that stray by a hundredth of a point.
  expect(drawn(lined('ellipse', line({ side: 'inside' }))) / (Math.PI * (50 ** 2 - 44 ** 2))).toBeCloseTo(1, 2);
  expect(drawn(lined('ellipse', line({ side: 'outside' }))) / (Math.PI * (56 ** 2 - 50 ** 2))).toBeCloseTo(1, 2);
});

test('open lines have no side; a gradient that follows the line runs along its middle', () => {
  expect(lined('arcLine', line({ side: 'inside' })).type).toBe('stroke');
  const along = lined(
    'rectangle',
    line({
      side: 'inside',
      paint: {
        kind: 'gradient',
        gradient: 'linear',
        ramp: {
          stops: [
            { offset: 0, colour: cmyk(100, 0, 0, 0) },
            { offset: 1, colour: cmyk(0, 100, 0, 0) },
          ],
        },
        geometry: [100, 0, 0, 100, 0, 0],
        overprint: false,
        strokeMapping: 'along',
      },
    }),
  );
  expect(along.type).toBe('stroke');
  expect(along.placed.bounds.x0).toBeCloseTo(53, 4);
  expect(along.placed.bounds.y1).toBeCloseTo(147, 4);
});

// Oracle: Ghostscript tiffsep of our PDF, the rule as tests/support/agree.ts states it.
test('lines inside and outside: plates agree', async () => {
  const b = new DesignBuilder(newDesign('Sides', setupOf(300, 200, { bleed: 9 }), making), making);
  const fill = flat(cmyk(0, 30, 80, 0));
  b.place(0, [
    b.shape('Inside', 'star', { x: 20, y: 30, w: 90, h: 90 }, { fill, outline: line({ side: 'inside' }) }),
    b.shape(
      'Outside',
      'star',
      { x: 120, y: 30, w: 80, h: 80 },
      { fill, outline: line({ side: 'outside', join: 'round' }) },
    ),
    b.shape(
      'Dashes',
      'ellipse',
      { x: 210, y: 40, w: 70, h: 110 },
      { fill, outline: line({ side: 'inside', dashes: [12, 8] }, 9) },
    ),
  ]);
  const d = b.done();
  await prepare(engines, d);
  expect(faults(await platesOf(engines, d, 300), separate(await pdfOf(engines, d), 300)[0], 'sides of lines')).toEqual(
    [],
  );
});
