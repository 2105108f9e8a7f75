import { SPOT_LIBRARY } from '@/core/colour/spotLibrary';
import { EDGE_INKS } from '@/core/edit/offsetShape';
import { newDesign, outlineOf, runOf, setupOf, type Making } from '@/core/model/defaults';
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
  const cutLine = b.spot(EDGE_INKS.cutLine);
  const c = { x: SIDE / 2, y: SIDE / 2 };
  /** Words in the ring, above or below, both upright. */
  const round = (name: string, text: string, below: boolean) =>
    b.along(
      b.displayText(name, c.x, c.y, [
        {
          align: 'middle',
          leading: 1,
          runs: [{ ...runOf(text, 8.4, flat(paperGlow), 'archivo-800'), tracking: below ? 90 : 60 }],
        },
      ]),
      { line: { radius: mm(19) }, at: below ? 0.5 : 0, ...(below && { reversed: true }), touches: 'middle' },
    );
  const ray = b.shape(
    'Ray',
    'triangle',
    { x: c.x - mm(1.2), y: c.y - mm(22.7), w: mm(2.4), h: mm(2) },
    { fill: flat(wick) },
  );
  b.place(0, [
    b.lock(
      b.shape(
        'White edge',
        'ellipse',
        { x: -BLEED, y: -BLEED, w: SIDE + 2 * BLEED, h: SIDE + 2 * BLEED },
        { fill: flat({ swatch: base.swatches[0].id, tint: 1 }) },
      ),
    ),
    b.lock(
      b.shape(
        'Ground',
        'ellipse',
        { x: c.x - mm(23.2), y: c.y - mm(23.2), w: mm(46.4), h: mm(46.4) },
        { fill: flat(quayNight) },
      ),
    ),
    b.repeat('Rays', { kind: 'ring', count: 24, step: 15, centre: c, about: { x: c.x, y: c.y - mm(12) } }, [ray]),
    b.shape(
      'Band',
      'ellipse',
      { x: c.x - mm(19.2), y: c.y - mm(19.2), w: mm(38.4), h: mm(38.4) },
      { outline: { paint: flat(quayNight), width: mm(5.4), cap: 'butt', join: 'round', miterLimit: 10 } },
    ),
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
    round('Guild', 'MARROWICK LANTERN GUILD', false),
    round('Year', 'WALKED BY ALL · 2026', true),
    b.lock(
      b.shape(
        'Cut line',
        'ellipse',
        { x: 0, y: 0, w: SIDE, h: SIDE },
        { outline: { ...outlineOf(flat(cutLine, true), mm(0.25)), dashes: [mm(2), mm(1)], dashFit: true } },
      ),
    ),
  ]);
  return b.done();
}
