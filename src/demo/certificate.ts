import { SPOT_LIBRARY } from '@/core/colour/spotLibrary';
import { newDesign, outlineOf, runOf, setupOf, type Making } from '@/core/model/defaults';
import type { Colour, Design, Paragraph } from '@/core/model/schema';
import { mm } from '@/core/units/length';
import { DesignBuilder, flat, tint } from './builder';
import { guildLantern } from './lantern';

const A4 = { w: mm(297), h: mm(210) };
const BLEED = mm(3);

/**
 * The workshop certificate: an edge of two lines with ringed corners, a name, what it is for, and the guild's seal with
 * words round it.
 */
export function workshopCertificate(make: Making): Design {
  const m = mm(24);
  const base = newDesign(
    'Workshop certificate',
    setupOf(A4.w, A4.h, { bleed: BLEED, margins: { top: m, right: m, bottom: m, left: m } }),
    make,
  );
  const b = new DesignBuilder(
    { ...base, id: 'workshop-certificate', swatches: [base.swatches[0], base.swatches[1]] },
    make,
  );
  b.swatchGroup('Certificate');
  const quayNight = b.recipe('Quay Night', 100, 86, 38, 44);
  const lowTide = b.recipe('Low Tide', 82, 46, 22, 6);
  const paperGlow = b.recipe('Paper Glow', 2, 8, 34, 0);
  const slateWet = b.recipe('Slate Wet', 58, 44, 40, 24);
  const ember = b.spot(SPOT_LIBRARY[0]);

  const title = b.look(
    'Title',
    { align: 'middle' },
    { face: 'cinzel-600', size: 34, tracking: 90, fill: flat(quayNight) },
  );
  const body = b.look(
    'Body',
    { align: 'middle', leading: 1.45 },
    { face: 'eb-garamond-400', size: 17, fill: flat(slateWet) },
  );
  const name = b.look('Name', {}, { face: 'great-vibes-400', size: 62, fill: flat(quayNight) }, body);
  const small = b.look('Small', { align: 'middle' }, { face: 'eb-garamond-400i', size: 13.5, fill: flat(slateWet) });
  const words = (look: string, ...lines: string[]): Paragraph[] => lines.map((text) => ({ look, runs: [{ text }] }));

  /** The edge: a broad line, a thin one inside, and where they meet a ring in each corner. */
  const frame = (inset: number) => ({ x: inset, y: inset, w: A4.w - 2 * inset, h: A4.h - 2 * inset });
  const corners = [
    [mm(14), mm(14)],
    [A4.w - mm(14), mm(14)],
    [A4.w - mm(14), A4.h - mm(14)],
    [mm(14), A4.h - mm(14)],
  ].flatMap(([x, y], i) => [
    b.shape(
      `Corner ${i + 1}`,
      'ellipse',
      { x: x - mm(5), y: y - mm(5), w: mm(10), h: mm(10) },
      {
        fill: flat(tint(paperGlow, 0.45)),
        outline: outlineOf(flat(lowTide), mm(0.9)),
      },
    ),
    b.shape(`Light ${i + 1}`, 'ellipse', { x: x - mm(2), y: y - mm(2), w: mm(4), h: mm(4) }, { fill: flat(ember) }),
  ]);
  const edge = b.group('Edge', [
    b.shape('Broad line', 'rectangle', frame(mm(11)), { outline: outlineOf(flat(lowTide), mm(1.6)) }),
    b.shape('Thin line', 'rectangle', frame(mm(14)), { outline: outlineOf(flat(tint(lowTide, 0.7)), mm(0.35)) }),
    ...corners,
  ]);

  const c = { x: A4.w / 2, y: mm(161) };
  const round = (text: string, below: boolean) => {
    const id = b.displayText(below ? 'Seal, below' : 'Seal, above', c.x, c.y, [
      {
        align: 'middle',
        leading: 1,
        runs: [{ ...runOf(text, 8.6, flat(paperGlow), 'archivo-800'), tracking: below ? 160 : 110 }],
      },
    ]);
    return b.along(id, {
      line: { radius: mm(14.1) },
      at: below ? 0.5 : 0,
      ...(below && { reversed: true }),
      touches: 'middle',
    });
  };
  const disc = (name: string, r: number, fill: Colour) =>
    b.shape(name, 'ellipse', { x: c.x - r, y: c.y - r, w: 2 * r, h: 2 * r }, { fill: flat(fill) });
  const seal = b.group('Seal', [
    b.shape(
      'Scallops',
      'seal',
      { x: c.x - mm(21), y: c.y - mm(21), w: mm(42), h: mm(42) },
      { fill: flat(ember), knobs: { scallops: 30, swell: 0.5 } },
    ),
    disc('Band', mm(17.4), quayNight),
    disc('Middle', mm(10.9), paperGlow),
    guildLantern(b, c.x, c.y - mm(8.2), mm(16), quayNight, ember),
    round('MARROWICK LANTERN GUILD', false),
    round('MADE BY HAND', true),
  ]);

  const rule = (x: number, w: number) =>
    b.shape('Line', 'rectangle', { x, y: mm(170), w, h: mm(0.3) }, { fill: flat(slateWet) });
  b.place(0, [
    b.lock(
      b.shape(
        'Paper',
        'rectangle',
        { x: -BLEED, y: -BLEED, w: A4.w + 2 * BLEED, h: A4.h + 2 * BLEED },
        { fill: flat(tint(paperGlow, 0.45)) },
      ),
    ),
    edge,
    b.displayText('Title', A4.w / 2, mm(49), words(title, 'WORKSHOP CERTIFICATE')),
    b.displayText('Over the name', A4.w / 2, mm(64), words(small, 'The Guild is glad to say that')),
    b.displayText('Name', A4.w / 2, mm(92), words(name, 'Tessaly Orrin')),
    b.shape(
      'Under the name',
      'rectangle',
      { x: mm(78), y: mm(99), w: mm(141), h: mm(0.3) },
      { fill: flat(tint(ember, 0.9)) },
    ),
    b.textFrame('Citation', { x: mm(60), y: mm(106), w: mm(177), h: mm(24) }, [
      ...words(body, 'made a barrel lantern of paper, willow and patience,'),
      ...words(body, 'and carried it alight from the Net Loft to the harbour light.'),
    ]),
    rule(mm(44), mm(66)),
    rule(A4.w - mm(110), mm(66)),
    b.displayText('For the day', mm(77), mm(176), words(small, 'Marrowick, the day of the workshop')),
    b.displayText('For the hand', A4.w - mm(77), mm(176), words(small, 'for the Marrowick Lantern Guild')),
    seal,
  ]);
  return b.done();
}
