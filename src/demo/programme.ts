import { newDesign, setupOf, type Making } from '@/core/model/defaults';
import { FIELD_MARK, type Design, type Field, type Paint, type Paragraph } from '@/core/model/schema';
import { mm } from '@/core/units/length';
import { DesignBuilder, flat, tint } from './builder';
import { drawn } from './drawn';
import { linear, withGrain } from './gradients';
import { A5, BLEED, kitOf, SIDE } from './programmeKit';
import { programmePages } from './programmePages';

/** The programme of the walk: twelve pages of A5 that face each other, a cover, five spreads and a back. */
export function walkProgramme(make: Making): Design {
  const base = newDesign(
    'Walk programme',
    setupOf(A5.w, A5.h, {
      bleed: BLEED,
      facing: 'right',
      margins: { top: mm(20), right: SIDE, bottom: mm(24), left: SIDE },
    }),
    make,
  );
  const b = new DesignBuilder({ ...base, id: 'walk-programme', swatches: [base.swatches[0]] }, make);
  const kit = kitOf(b);
  const { colours, ramps, looks } = kit;
  const { lowTide, paperGlow } = colours;

  // Masters: paper with a tide at its foot; numbers at the outer edge, right and left; the night of the covers.
  /** From edge to edge; it leaves each side as it came in, so that it runs on over the fold. */
  const tide = (y: number, lift: number): number[] =>
    drawn(
      `M-3 ${y}L0 ${y}C27 ${y - lift} 47 ${y - lift} 74 ${y}C101 ${y + lift} 121 ${y + lift} 148 ${y}L151 ${y}L151 213L-3 213Z`,
    );
  const paper = b.master(
    'Paper',
    [
      b.path('Far tide', tide(197.5, -2), { fill: flat(tint(lowTide, 0.3)) }),
      b.path('Near tide', tide(201, 1.6), { fill: flat(lowTide) }),
    ],
    { ground: flat(tint(paperGlow, 0.3)) },
  );
  const field = (look: string, what: Field, align: 'left' | 'right'): Paragraph => ({
    look,
    align,
    runs: [{ text: FIELD_MARK, field: what }],
  });
  const outer = (side: 'left' | 'right', other: 'left' | 'right') => {
    const [x, far] = side === 'left' ? [SIDE, A5.w - SIDE] : [A5.w - SIDE, SIDE];
    return [
      b.displayText('Section', x, mm(12), [field(looks.label, 'section', side)]),
      b.displayText('Walk', far, mm(12), [{ look: looks.small, align: other, runs: [{ text: 'Lantern Walk' }] }]),
      b.displayText('Page number', x, mm(206.8), [
        {
          look: looks.label,
          align: side,
          runs: [{ text: FIELD_MARK, field: 'page', size: 10.5, fill: flat(paperGlow) }],
        },
      ]),
    ];
  };
  const left = b.master('Left', outer('left', 'right'), { master: paper });
  const ordinary = b.master('Ordinary', outer('right', 'left'), { master: paper, onLeft: left });
  // So long a ground has tones wide enough to be seen as bands: grain breaks them up.
  const night: Paint = withGrain(linear({ swatch: ramps.dusk }, [0, 0], [0, 1]), 0.02);
  const cover = b.master('Cover', [], { ground: night });
  for (let page = 0; page < 12; page++) b.pageFacts(page, { master: page % 11 ? ordinary : cover });
  for (const [page, section] of [
    [1, 'Welcome'],
    [3, 'The route'],
    [5, 'The evening'],
    [7, 'Make a lantern'],
    [9, 'Supper'],
  ] as const)
    b.pageFacts(page, { numbering: { start: page + 1, style: 'decimal', section } });
  programmePages(b, kit);
  return b.done();
}
