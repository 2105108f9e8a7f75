import { SPOT_LIBRARY } from '@/core/colour/spotLibrary';
import { newDesign, outlineOf, setupOf, type Making } from '@/core/model/defaults';
import type { Colour, Design, Paragraph, Run } from '@/core/model/schema';
import { mm } from '@/core/units/length';
import { DesignBuilder, flat, tint } from './builder';

const SIZE = { w: mm(150), h: mm(65) };
const BLEED = mm(3);
/** Where the stub begins. */
const STUB = mm(108);

/** The supper ticket with its numbered stub, flat: the tear line comes with dashed lines. */
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
    b.look(name, { leading: 1.2 }, { size, face, fill: flat(colour) }, on);
  const title = look('Title', 23, 'alfa-slab-400', lowTide);
  const body = look('Body', 10.5, 'archivo-400', black);
  const strong = b.look('Body, strong', {}, { face: 'archivo-600' }, body);
  const number = look('Number', 22, 'archivo-800', black);
  const line = (style: string, text: string, own: Partial<Run> = {}): Paragraph => ({
    look: style,
    runs: [{ text, ...own }],
  });
  const bowl = b.group('Bowl', [
    b.shape(
      'Steam left',
      'ellipse',
      { x: mm(82), y: mm(11), w: mm(2.4), h: mm(10) },
      { fill: flat(tint(lowTide, 0.4)) },
    ),
    b.shape(
      'Steam right',
      'ellipse',
      { x: mm(89), y: mm(8), w: mm(2.4), h: mm(12) },
      { fill: flat(tint(lowTide, 0.4)) },
    ),
    b.shape('Crock', 'ellipse', { x: mm(72), y: mm(22), w: mm(30), h: mm(33) }, { fill: flat(lowTide) }),
    b.shape(
      'Rim',
      'ellipse',
      { x: mm(71), y: mm(26), w: mm(32), h: mm(9) },
      { fill: flat(wick), outline: outlineOf(flat(lowTide), 1.5) },
    ),
    b.shape('Soup', 'ellipse', { x: mm(75), y: mm(27.6), w: mm(24), h: mm(5.8) }, { fill: flat(ember) }),
    b.shape('Lantern star', 'star', { x: mm(82.5), y: mm(39), w: mm(9), h: mm(9) }, { fill: flat(paperGlow) }),
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
    bowl,
    b.displayText('Title', mm(8), mm(21), [line(title, 'Lantern Supper')]),
    b.textFrame('When', { x: mm(8), y: mm(28), w: mm(58), h: mm(24) }, [
      line(strong, 'After the walk, in the Net Loft'),
      line(body, 'Saturday 21 November, from eight'),
      line(body, 'Fish stew, seed bread, plum tart'),
    ]),
    b.displayText('Price', mm(8), mm(58), [line(number, 'One seat', { size: 12, fill: flat(ember) })]),
    b.displayText('Stub words', mm(114), mm(20), [line(title, 'Supper', { size: 17 })]),
    b.displayText('Number', mm(114), mm(42), [line(number, 'No. 001')]),
    b.displayText('Stub foot', mm(114), mm(56), [line(strong, 'Keep this part', { size: 9 })]),
  ]);
  return b.done();
}
