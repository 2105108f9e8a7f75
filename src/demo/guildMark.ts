import { SPOT_LIBRARY } from '@/core/colour/spotLibrary';
import { newDesign, runOf, setupOf, type Making } from '@/core/model/defaults';
import type { Colour, Design, Paragraph } from '@/core/model/schema';
import { mm } from '@/core/units/length';
import { DesignBuilder, flat } from './builder';
import { guildLantern } from './lantern';

const SIDE = mm(90);
const BLEED = mm(3);

/** The guild's mark in three versions, a page each: in colour, in one ink, reversed out of a dark ground. */
export function guildMark(make: Making): Design {
  const m = mm(8);
  const base = newDesign(
    'Guild mark',
    setupOf(SIDE, SIDE, { bleed: BLEED, margins: { top: m, right: m, bottom: m, left: m } }),
    make,
  );
  const b = new DesignBuilder({ ...base, id: 'guild-mark', swatches: [base.swatches[0], base.swatches[1]] }, make);
  b.swatchGroup('Guild');
  const quayNight = b.recipe('Quay Night', 100, 86, 38, 44);
  const paperGlow = b.recipe('Paper Glow', 2, 8, 34, 0);
  const ember = b.spot(SPOT_LIBRARY[0]);
  const black: Colour = { swatch: base.swatches[1].id, tint: 1 };
  const words = (text: string, size: number, colour: Colour): Paragraph[] => [
    { align: 'middle', leading: 1.1, runs: [{ ...runOf(text, size, flat(colour), 'cinzel-600'), tracking: 60 }] },
  ];
  const version = (page: number, name: string, ink: Colour, flame: Colour | null, ground: Colour | null) =>
    b.place(
      page,
      [
        ...(ground
          ? [
              b.lock(
                b.shape(
                  'Ground',
                  'rectangle',
                  { x: -BLEED, y: -BLEED, w: SIDE + 2 * BLEED, h: SIDE + 2 * BLEED },
                  { fill: flat(ground) },
                ),
              ),
            ]
          : []),
        guildLantern(b, SIDE / 2, mm(9), mm(50), ink, flame),
        b.displayText('Name', SIDE / 2, mm(70), words('Marrowick', 20, ink)),
        b.displayText('Guild', SIDE / 2, mm(78), words('Lantern Guild', 12.5, ink)),
      ],
      name,
    );
  version(0, 'Colour', quayNight, ember, null);
  version(1, 'One ink', black, black, null);
  version(2, 'Reversed', paperGlow, ember, quayNight);
  return b.done();
}
