import { newDesign, setupOf, type Making } from '@/core/model/defaults';
import type { Design, Paragraph } from '@/core/model/schema';
import { mm } from '@/core/units/length';
import { DesignBuilder, flat, tint } from './builder';
import { drawn } from './drawn';
import { guildLantern } from './lantern';

const A4 = { w: mm(297), h: mm(210) };

/** A sign at the quay: where to go, to be read across the harbour. */
export function quaySign(make: Making): Design {
  const m = mm(18);
  const base = newDesign('Quay sign', setupOf(A4.w, A4.h, { margins: { top: m, right: m, bottom: m, left: m } }), make);
  const b = new DesignBuilder({ ...base, id: 'quay-sign', swatches: [base.swatches[0]] }, make);
  b.swatchGroup('Sign');
  const quayNight = b.recipe('Quay Night', 100, 86, 38, 44);
  const lowTide = b.recipe('Low Tide', 82, 46, 22, 6);
  const paperGlow = b.recipe('Paper Glow', 2, 8, 34, 0);
  const wick = b.recipe('Wick', 0, 36, 92, 0);
  const line = (text: string, size: number): Paragraph => ({
    leading: 1.04,
    runs: [{ text, face: 'bitter-700', size, tracking: -8, fill: flat(paperGlow) }],
  });
  b.pageFacts(0, { ground: flat(quayNight) });
  b.place(0, [
    b.path('Tide', drawn('M-3 176C40 168 90 168 148 176C206 184 250 184 300 174L300 213L-3 213Z'), {
      fill: flat(lowTide),
    }),
    b.displayText('Where', m, mm(62), [line('Harbour', 92), line('Light', 92)]),
    b.displayText('How far', m, mm(124), [
      { runs: [{ text: 'Along the quay, ten minutes', face: 'archivo-600', size: 27, fill: flat(wick) }] },
    ]),
    b.shape('Arrow', 'arrow', { x: mm(192), y: mm(36), w: mm(87), h: mm(74) }, { fill: flat(wick) }),
    guildLantern(b, mm(26.5), mm(181), mm(21), paperGlow, wick),
    b.displayText('Of', mm(39), mm(195), [
      { runs: [{ text: 'Marrowick Lantern Walk', face: 'archivo-600', size: 17, fill: flat(tint(paperGlow, 1)) }] },
    ]),
  ]);
  return b.done();
}
