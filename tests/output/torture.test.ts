import { SPOT_LIBRARY } from '@/core/colour/spotLibrary';
import { newDesign, runOf, setupOf } from '@/core/model/defaults';
import { BLENDS, type Colour, type Design, type DesignNode, type Effect, type Paint } from '@/core/model/schema';
import { verifyDesign } from '@/core/model/verify';
import type { Engines } from '@/core/engines';
import { DesignBuilder, flat } from '@/demo/builder';
import { faults } from '../support/faults';
import { separate } from '../support/ghostscript';
import { pdfOf, platesOf } from '../support/press';
import { cmyk, making } from '../support/sample';
import { testEngines } from '../support/engines';

let engines: Engines;
beforeAll(async () => {
  engines = await testEngines();
});

const [CELL, ACROSS] = [84, 7];
const DPI = 150;
const KINDS = ['shape', 'path', 'combination', 'textFrame', 'displayText', 'group', 'repeat'] as const;
type Kind = (typeof KINDS)[number];

/** An object of a kind in a cell, in one paint. */
function objectOf(b: DesignBuilder, kind: Kind, x: number, y: number, paint: Paint): string {
  const ring = (dx: number, dy: number, r: number) =>
    b.shape('Disc', 'ellipse', { x: x + dx, y: y + dy, w: 2 * r, h: 2 * r }, { fill: paint });
  const words = (size: number) => [
    { align: 'left' as const, leading: 1, runs: [runOf('Quay', size, paint, 'archivo-800')] },
  ];
  switch (kind) {
    case 'shape':
      return b.shape('Star', 'star', { x: x + 14, y: y + 12, w: 56, h: 58 }, { fill: paint });
    case 'path':
      return b.path(
        'Path',
        [0, x + 14, y + 66, 2, x + 20, y - 10, x + 60, y + 90, x + 70, y + 14, 1, x + 66, y + 66, 3],
        { fill: paint },
      );
    case 'combination':
      return b.combination('Cut', 'subtract', [ring(14, 14, 28), ring(30, 30, 16)], { fill: paint });
    case 'textFrame':
      return b.textFrame('Frame', { x: x + 10, y: y + 24, w: 70, h: 40 }, words(26));
    case 'displayText':
      return b.displayText('Words', x + 10, y + 54, words(28));
    case 'group':
      return b.group('Group', [ring(12, 16, 20), ring(32, 26, 20)]);
    case 'repeat':
      return b.repeat('Row', { kind: 'row', count: 3, step: { x: 16, y: 8 }, about: { x: 0, y: 0 } }, [
        ring(12, 14, 14),
      ]);
  }
}

const shadow = (colour: Colour, overprint = false): Effect => ({
  kind: 'shadow',
  paint: { kind: 'colour', colour, overprint },
  opacity: 0.7,
  dx: 5,
  dy: 4,
  blur: 6,
});

/**
 * A page of one kind of object: every blend, with and without opacity; effects, overprint and soft masks, alone and
 * together.
 */
function page(kind: Kind): Design {
  const b = new DesignBuilder(
    newDesign(`Torture ${kind}`, setupOf(ACROSS * CELL, 5 * CELL, { bleed: 0 }), making),
    making,
  );
  const spot = { ...b.spot(SPOT_LIBRARY[0]), tint: 1 } as Colour;
  const art = cmyk(40, 20, 0, 20);
  const parts: string[] = [];
  let n = 0;
  const cell = (make: (x: number, y: number) => string) => {
    const [x, y] = [(n % ACROSS) * CELL, Math.floor(n / ACROSS) * CELL];
    n++;
    // Tints that are whole levels of 255: blends that divide make much of how others are rounded.
    const ground = (dx: number, w: number, c: Colour) =>
      b.shape('Ground', 'rectangle', { x: x + dx, y, w, h: CELL }, { fill: flat(c) });
    parts.push(
      ground(0, 30, cmyk(0, 60, 20, 0)),
      ground(30, 28, { ...spot, tint: 0.6 } as Colour),
      ground(58, 26, cmyk(20, 0, 40, 0)),
    );
    parts.push(make(x, y));
  };
  const whole = (id: string, facts: Partial<DesignNode>) => b.together(id, facts as never);
  BLENDS.forEach((blend, i) =>
    cell((x, y) =>
      whole(objectOf(b, kind, x, y, flat(i % 2 ? spot : art)), { blend, ...(i % 3 === 0 && { opacity: 0.6 }) }),
    ),
  );
  cell((x, y) => whole(objectOf(b, kind, x, y, flat(art)), { opacity: 0.5 }));
  cell((x, y) => whole(objectOf(b, kind, x, y, flat(spot)), { opacity: 0.35 }));
  cell((x, y) => objectOf(b, kind, x, y, flat(art, true)));
  cell((x, y) => objectOf(b, kind, x, y, flat(spot, true)));
  cell((x, y) => objectOf(b, kind, x, y, flat(cmyk(0, 0, 0, 100), true)));
  cell((x, y) => whole(objectOf(b, kind, x, y, flat(art)), { effects: [shadow(cmyk(0, 0, 0, 100))] }));
  cell((x, y) => whole(objectOf(b, kind, x, y, flat(spot)), { effects: [shadow(spot, true)], opacity: 0.8 }));
  cell((x, y) =>
    whole(objectOf(b, kind, x, y, flat(art)), { effects: [shadow(cmyk(60, 0, 0, 0), true)], blend: 'multiply' }),
  );
  // Soft masks: by outline, by how far a fading thing covers, by how light it is.
  for (const maskMode of ['outline', 'opacity', 'light'] as const)
    for (const more of [{}, { opacity: 0.6, blend: 'multiply' as const }])
      cell((x, y) => {
        const fade: Paint = {
          kind: 'gradient',
          gradient: 'linear',
          ramp: {
            mixing: 'ink',
            stops: [
              { offset: 0, colour: cmyk(0, 0, 0, 0), ...(maskMode === 'opacity' && { opacity: 1 }) },
              { offset: 1, colour: cmyk(0, 0, 0, 90), ...(maskMode === 'opacity' && { opacity: 0 }) },
            ],
          },
          geometry: [60, 0, 0, 60, 0, 0],
          overprint: false,
        } as never;
        const mask = whole(b.shape('Mask', 'ellipse', { x: x + 8, y: y + 8, w: 66, h: 66 }, { fill: fade }), {
          maskMode,
        });
        return whole(b.group('Masked', [objectOf(b, kind, x, y, flat(maskMode === 'light' ? spot : art)), mask]), more);
      });
  b.place(0, parts);
  return b.done();
}

// All kinds in the full run; two of them else.
const some = process.env.HOLVET_FULL ? KINDS : (['shape', 'group'] as const);

// Oracle: Ghostscript tiffsep, the rule as tests/support/agree.ts states it.
test.each(some)('plates agree on every blend, opacity, effect, overprint and soft mask of a %s', async (kind) => {
  const design = page(kind);
  expect(verifyDesign(design)).toMatchObject({ ok: true });
  expect(
    faults(
      await platesOf(engines, design, DPI),
      separate(await pdfOf(engines, design), DPI)[0],
      `torture, ${kind}, ${DPI} dpi`,
    ),
  ).toEqual([]);
});
