import { SPOT_LIBRARY } from '@/core/colour/spotLibrary';
import { CLOSE, CUBIC, LINE, MOVE } from '@/core/geometry/path';
import { newDesign, setupOf, type Making } from '@/core/model/defaults';
import type { Design, Paragraph } from '@/core/model/schema';
import { mm } from '@/core/units/length';
import { DesignBuilder, flat, tint } from './builder';
import { guildLantern } from './lantern';

const A4 = { w: mm(210), h: mm(297) };
const BLEED = mm(3);

/** The guild's letterhead: a wave at head and foot, two inks of its own, black for the words. */
export function guildLetterhead(make: Making): Design {
  const base = newDesign(
    'Guild letterhead',
    setupOf(A4.w, A4.h, { bleed: BLEED, margins: { top: mm(46), right: mm(22), bottom: mm(34), left: mm(22) } }),
    make,
  );
  const b = new DesignBuilder(
    { ...base, id: 'guild-letterhead', swatches: [base.swatches[0], base.swatches[1]] },
    make,
  );
  b.swatchGroup('Guild');
  const kelp = b.spot(SPOT_LIBRARY[1]);
  const ember = b.spot(SPOT_LIBRARY[0]);
  b.swatchGroup('Paper tones');
  const slateWet = b.recipe('Slate Wet', 58, 44, 40, 24);
  const paperGlow = b.recipe('Paper Glow', 2, 8, 34, 0);

  const [l, r] = [-BLEED, A4.w + BLEED];
  const third = (r - l) / 3;
  /** From one side to the other along a wave, then along an edge of the sheet. */
  const wave = (y: number, lift: number, edge: number): number[] => [
    MOVE,
    l,
    edge,
    LINE,
    l,
    y,
    CUBIC,
    l + third * 0.6,
    y - lift,
    l + third * 1.1,
    y - lift,
    l + third * 1.5,
    y,
    CUBIC,
    l + third * 1.9,
    y + lift,
    l + third * 2.5,
    y + lift,
    r,
    y - lift * 0.4,
    LINE,
    r,
    edge,
    CLOSE,
  ];
  const head = b.group('Head', [
    b.path('Head swell', wave(mm(27), mm(9), -BLEED), { fill: flat(tint(kelp, 0.35)) }),
    b.path('Head wave', wave(mm(21), mm(7), -BLEED), { fill: flat(kelp) }),
  ]);
  const foot = b.group('Foot', [
    b.path('Foot swell', wave(mm(279), mm(-6), A4.h + BLEED), { fill: flat(tint(ember, 0.4)) }),
    b.path('Foot wave', wave(mm(285), mm(-5), A4.h + BLEED), { fill: flat(kelp) }),
  ]);
  const mark = guildLantern(b, mm(181), mm(33.5), mm(26), kelp, ember);
  const small = b.look('Small', { leading: 1.35 }, { face: 'archivo-400', size: 10.5, fill: flat(slateWet) });
  const name = b.look('Guild name', { leading: 1.35 }, { face: 'eb-garamond-600', size: 25, fill: flat(kelp) });
  const foot9 = b.look('Foot', { align: 'right' }, { face: 'archivo-600', fill: flat(paperGlow) }, small);
  const line = (look: string, text: string): Paragraph => ({ look, runs: [{ text }] });
  b.place(0, [
    head,
    foot,
    mark,
    b.displayText('Guild name', mm(22), mm(44), [line(name, 'Marrowick Lantern Guild')]),
    b.textFrame('Address', { x: mm(22), y: mm(48.5), w: mm(120), h: mm(14) }, [
      line(small, 'The Net Loft, Rope Quay, Marrowick'),
      line(small, 'guild@marrowick.example · open Thursdays from dusk'),
    ]),
    b.shape(
      'Fold mark',
      'rectangle',
      { x: mm(5), y: mm(105), w: mm(4), h: mm(0.2) },
      { fill: flat(tint(slateWet, 0.6)) },
    ),
    b.displayText('Foot words', A4.w - mm(22), mm(290.5), [
      line(foot9, 'Paper lanterns, made by hand, walked by all.'),
    ]),
  ]);
  return b.done();
}
