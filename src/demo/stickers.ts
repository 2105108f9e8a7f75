import { SPOT_LIBRARY } from '@/core/colour/spotLibrary';
import { newDesign, runOf, setupOf, type Making } from '@/core/model/defaults';
import type { Design } from '@/core/model/schema';
import { mm } from '@/core/units/length';
import { DesignBuilder, flat, tint } from './builder';
import { guildLantern } from './lantern';

const SIDE = mm(50);
const BLEED = mm(2);

/** The artwork of the lantern stickers, a round label: rays in a ring behind the guild's lantern. */
export function lanternStickers(make: Making): Design {
  const m = mm(3);
  const base = newDesign(
    'Lantern stickers',
    setupOf(SIDE, SIDE, { round: true, bleed: BLEED, margins: { top: m, right: m, bottom: m, left: m } }),
    make,
  );
  const b = new DesignBuilder(
    { ...base, id: 'lantern-stickers', swatches: [base.swatches[0], base.swatches[1]] },
    make,
  );
  b.swatchGroup('Stickers');
  const quayNight = b.recipe('Quay Night', 100, 86, 38, 44);
  const paperGlow = b.recipe('Paper Glow', 2, 8, 34, 0);
  const wick = b.recipe('Wick', 0, 36, 92, 0);
  const ember = b.spot(SPOT_LIBRARY[0]);
  const c = { x: SIDE / 2, y: SIDE / 2 };
  const ray = b.shape(
    'Ray',
    'triangle',
    { x: c.x - mm(1.5), y: c.y - mm(24), w: mm(3), h: mm(24) },
    { fill: flat(wick) },
  );
  b.place(0, [
    b.lock(
      b.shape(
        'Ground',
        'ellipse',
        { x: -BLEED, y: -BLEED, w: SIDE + 2 * BLEED, h: SIDE + 2 * BLEED },
        { fill: flat(quayNight) },
      ),
    ),
    b.repeat('Rays', { kind: 'ring', count: 24, step: 15, centre: c, about: { x: c.x, y: c.y - mm(12) } }, [ray]),
    b.shape('Disc', 'ellipse', { x: c.x - mm(15), y: c.y - mm(15), w: mm(30), h: mm(30) }, { fill: flat(paperGlow) }),
    b.shape(
      'Scalloped rim',
      'seal',
      { x: c.x - mm(15.5), y: c.y - mm(15.5), w: mm(31), h: mm(31) },
      {
        outline: { paint: flat(tint(ember, 0.9)), width: mm(1), cap: 'butt', join: 'round', miterLimit: 10 },
        knobs: { scallops: 24, swell: 0.6 },
      },
    ),
    guildLantern(b, c.x, c.y - mm(12.5), mm(21), quayNight, ember),
    b.displayText('Year', c.x, c.y + mm(12.6), [
      { align: 'middle', leading: 1, runs: [{ ...runOf('2026', 7, flat(quayNight), 'archivo-800'), tracking: 120 }] },
    ]),
  ]);
  return b.done();
}
