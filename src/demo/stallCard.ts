import { SPOT_LIBRARY } from '@/core/colour/spotLibrary';
import { newDesign, setupOf, type Making } from '@/core/model/defaults';
import type { Design, Paragraph } from '@/core/model/schema';
import { mm } from '@/core/units/length';
import { DesignBuilder, flat, tint } from './builder';
import { drawn } from './drawn';
import { radial, stop } from './gradients';
import { guildLantern } from './lantern';

const CARD = { w: mm(85), h: mm(55) };
const M = mm(6);

/** The card of the guild's stall, front and back, each on a ground of its own. */
export function stallCard(make: Making): Design {
  const base = newDesign(
    'Stall card',
    setupOf(CARD.w, CARD.h, { bleed: mm(3), margins: { top: M, right: M, bottom: M, left: M } }),
    make,
  );
  const b = new DesignBuilder({ ...base, id: 'stall-card', swatches: [base.swatches[0]] }, make);
  b.swatchGroup('Stall');
  const quayNight = b.recipe('Quay Night', 100, 86, 38, 44);
  const lowTide = b.recipe('Low Tide', 82, 46, 22, 6);
  const paperGlow = b.recipe('Paper Glow', 2, 8, 34, 0);
  const wick = b.recipe('Wick', 0, 36, 92, 0);
  const ember = b.spot(SPOT_LIBRARY[0]);
  const title = b.look(
    'Title',
    { leading: 1 },
    { face: 'bitter-700', size: 18.5, tracking: -8, fill: flat(paperGlow) },
  );
  const body = b.look('Body', { leading: 1.42 }, { face: 'archivo-400', size: 8.6, fill: flat(quayNight) });
  const strong = b.look('Body, strong', {}, { face: 'archivo-600' }, body);
  const line = (look: string, text: string, own: Partial<Paragraph> = {}): Paragraph => ({
    look,
    ...own,
    runs: [{ text }],
  });
  const reach = mm(44);
  b.pageFacts(0, { ground: flat(quayNight) });
  b.place(
    0,
    [
      b.shape(
        'Glow',
        'ellipse',
        { x: mm(69) - reach, y: mm(31) - reach, w: 2 * reach, h: 2 * reach },
        {
          fill: radial(
            { stops: [stop(0, wick, 0.55), stop(0.4, wick, 0.2), stop(1, wick, 0)] },
            reach,
            reach,
            reach,
            reach,
          ),
        },
      ),
      // It stands on the foot of the card and hangs over its head.
      guildLantern(b, mm(69), mm(-7), mm(69), paperGlow, ember),
      b.displayText('Headline', M, mm(19), [
        line(title, 'Lanterns'),
        line(title, 'made while'),
        line(title, 'you wait'),
      ]),
      b.displayText('Guild', M, CARD.h - M, [
        { runs: [{ text: 'Marrowick Lantern Guild', face: 'archivo-600', size: 8.4, fill: flat(paperGlow) }] },
      ]),
    ],
    'Front',
  );
  b.pageFacts(1, { ground: flat(tint(paperGlow, 0.55)) });
  b.place(
    1,
    [
      b.path('Tide', drawn('M-3 47C10 44.4 24 44.4 42 47C60 49.6 74 49.6 88 46.4L88 58L-3 58Z'), {
        fill: flat(lowTide),
      }),
      b.displayText('Where', M, mm(14), [
        { runs: [{ text: 'Stall 14, Rope Quay', face: 'bitter-700', size: 14.5, tracking: -6, fill: flat(lowTide) }] },
      ]),
      b.textFrame('When', { x: M, y: mm(18), w: mm(50), h: mm(24) }, [
        line(strong, 'Every Saturday in November'),
        line(body, 'from ten until it is dark enough'),
        line(body, 'guild@marrowick.example', { spaceBefore: mm(2) }),
        line(body, 'Thursdays from dusk: the Net Loft'),
      ]),
      guildLantern(b, mm(69), mm(11), mm(29), quayNight, ember),
    ],
    'Back',
  );
  return b.done();
}
