import { SPOT_LIBRARY } from '@/core/colour/spotLibrary';
import { newDesign, outlineOf, setupOf, type Making } from '@/core/model/defaults';
import { LINE, MOVE } from '@/core/geometry/path';
import type { Colour, Design, Outline, Paragraph, Run } from '@/core/model/schema';
import { mm } from '@/core/units/length';
import { DesignBuilder, flat, tint } from './builder';
import { drawn } from './drawn';
import { guildLantern } from './lantern';

const SIZE = { w: mm(150), h: mm(65) };
const BLEED = mm(3);
/** Where the stub begins. */
const STUB = mm(108);

/** The supper ticket with its numbered stub, and pills and dots to tear along. */
export function supperTicket(make: Making): Design {
  const m = mm(6);
  const base = newDesign(
    'Supper ticket',
    setupOf(SIZE.w, SIZE.h, { bleed: BLEED, margins: { top: m, right: m, bottom: m, left: m } }),
    make,
  );
  const b = new DesignBuilder({ ...base, id: 'supper-ticket', swatches: [base.swatches[0], base.swatches[1]] }, make);
  b.swatchGroup('Supper');
  const lowTide = b.recipe('Low Tide', 82, 46, 22, 6);
  const paperGlow = b.recipe('Paper Glow', 2, 8, 34, 0);
  const wick = b.recipe('Wick', 0, 36, 92, 0);
  const ember = b.spot(SPOT_LIBRARY[0]);
  const black: Colour = { swatch: base.swatches[1].id, tint: 1 };

  const look = (name: string, size: number, face: string, colour: Colour, on?: string) =>
    b.look(
      name,
      { leading: face === 'alfa-slab-400' ? 0.98 : 1.25 },
      { size, face, fill: flat(colour, colour === black) },
      on,
    );
  const title = look('Title', 23, 'alfa-slab-400', lowTide);
  const body = look('Body', 10.5, 'archivo-400', black);
  const strong = b.look('Body, strong', {}, { face: 'archivo-600' }, body);
  const number = look('Number', 22, 'archivo-800', black);
  const line = (style: string, text: string, own: Partial<Run> = {}): Paragraph => ({
    look: style,
    runs: [{ text, ...own }],
  });
  const steam = (name: string, x: number, y: number) =>
    b.path(name, drawn(`M${x} ${y}C${x - 3.4} ${y - 3.4} ${x + 3.4} ${y - 6.6} ${x} ${y - 10}`), {
      outline: { ...outlineOf(flat(tint(lowTide, 0.55)), mm(1.1)), cap: 'round' },
    });
  const bowl = b.group('Bowl', [
    steam('Steam, left', 76.5, 22),
    steam('Steam, middle', 84, 19.5),
    steam('Steam, right', 91.5, 22),
    b.path('Foot', drawn('M77.5 50L90.5 50L92.5 56.5L75.5 56.5Z'), { fill: flat(lowTide) }),
    b.path('Bowl', drawn('M64.5 28.5C64.5 43 73 52.5 84 52.5C95 52.5 103.5 43 103.5 28.5Z'), { fill: flat(lowTide) }),
    b.shape(
      'Rim',
      'ellipse',
      { x: mm(64), y: mm(24), w: mm(40), h: mm(9) },
      { fill: flat(wick), outline: outlineOf(flat(lowTide), mm(0.7)) },
    ),
    b.shape('Soup', 'ellipse', { x: mm(67), y: mm(25.4), w: mm(34), h: mm(6.2) }, { fill: flat(ember) }),
    guildLantern(b, mm(84), mm(35.6), mm(13.6), paperGlow, ember),
  ]);
  b.place(0, [
    b.lock(
      b.shape(
        'Ground',
        'rectangle',
        { x: -BLEED, y: -BLEED, w: STUB + BLEED, h: SIZE.h + 2 * BLEED },
        { fill: flat(paperGlow) },
      ),
    ),
    b.lock(
      b.shape(
        'Stub',
        'rectangle',
        { x: STUB, y: -BLEED, w: SIZE.w - STUB + BLEED, h: SIZE.h + 2 * BLEED },
        { fill: flat(wick) },
      ),
    ),
    b.path('Tear line', [MOVE, STUB, -BLEED, LINE, STUB, SIZE.h + BLEED], {
      outline: {
        ...outlineOf(flat(lowTide), mm(1.5)),
        cap: 'round',
        dashes: [mm(2.6), mm(2.6), 0, mm(2.6)],
        between: flat({ swatch: base.swatches[0].id, tint: 1 }) as Outline['between'],
      },
    }),
    bowl,
    b.displayText('Title', mm(8), mm(17.5), [
      line(title, 'Lantern', { size: 30 }),
      line(title, 'Supper', { size: 30 }),
    ]),
    b.textFrame('When', { x: mm(8), y: mm(34), w: mm(57), h: mm(18) }, [
      line(strong, 'After the walk, in the Net Loft'),
      line(body, 'Saturday 21 November, at eight'),
      line(body, 'Fish stew, seed bread, plum tart'),
    ]),
    b.displayText('Price', mm(8), mm(58), [line(number, 'One seat', { size: 13, fill: flat(lowTide) })]),
    b.displayText('Stub words', mm(114), mm(20), [line(title, 'Supper', { size: 17 })]),
    b.displayText('Number', mm(114), mm(42), [line(number, 'No. 001')]),
    b.displayText('Stub foot', mm(114), mm(56), [line(strong, 'Keep this part', { size: 9 })]),
  ]);
  return b.done();
}
