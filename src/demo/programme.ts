import { SPOT_LIBRARY } from '@/core/colour/spotLibrary';
import { newDesign, setupOf, type Making } from '@/core/model/defaults';
import { FIELD_MARK, type Colour, type Design, type Field, type Paint, type Paragraph } from '@/core/model/schema';
import { mm } from '@/core/units/length';
import { DesignBuilder, flat, tint } from './builder';
import { drawn } from './drawn';
import { linear, radial, stop, withGrain } from './gradients';
import { guildLantern } from './lantern';
import { programmePages } from './programmePages';

export const A5 = { w: mm(148), h: mm(210) };
export const BLEED = mm(3);
/** Where words begin and end on a page. */
export const SIDE = mm(15);

/** What the programme is made with. */
export type Kit = ReturnType<typeof kitOf>;

function kitOf(b: DesignBuilder) {
  b.swatchGroup('Walk');
  const colours = {
    quayNight: b.recipe('Quay Night', 100, 86, 38, 44),
    lowTide: b.recipe('Low Tide', 82, 46, 22, 6),
    paperGlow: b.recipe('Paper Glow', 2, 8, 34, 0),
    wick: b.recipe('Wick', 0, 36, 92, 0),
    slateWet: b.recipe('Slate Wet', 58, 44, 40, 24),
    ember: b.spot(SPOT_LIBRARY[0]),
  };
  const { quayNight, lowTide, paperGlow, wick, slateWet, ember } = colours;
  const ramps = {
    dusk: b.ramp('Dusk', [stop(0, quayNight), stop(0.6, quayNight), stop(1, lowTide)]),
    flame: b.ramp('Flame', [stop(0, paperGlow), stop(0.55, wick), stop(1, ember)]),
  };
  const body = b.look(
    'Body',
    { leading: 1.4, hyphenate: true },
    { face: 'source-serif-400', size: 10.8, fill: flat(quayNight) },
  );
  const label = b.look(
    'Label',
    { leading: 1.3 },
    { face: 'archivo-600', size: 9.4, tracking: 12, fill: flat(lowTide) },
  );
  const looks = {
    body,
    label,
    title: b.look('Title', { leading: 1.02 }, { face: 'bitter-700', size: 33, tracking: -8, fill: flat(lowTide) }),
    lead: b.look('Lead', { leading: 1.3 }, { face: 'bitter-500', size: 15, fill: flat(quayNight) }),
    small: b.look('Small', {}, { face: 'archivo-400', size: 8.4, fill: flat(slateWet) }, label),
  };
  /** Light that fades away round a middle. */
  const glow = (cx: number, cy: number, reach: number, strength: number): string =>
    b.shape(
      'Glow',
      'ellipse',
      { x: cx - reach, y: cy - reach, w: 2 * reach, h: 2 * reach },
      {
        fill: radial(
          { stops: [stop(0, wick, strength), stop(0.35, wick, strength * 0.45), stop(1, wick, 0)] },
          reach,
          reach,
          reach,
          reach,
        ),
      },
    );
  /** A lantern on a cord from beyond the head of the page. */
  const hung = (x: number, y: number, size: number, colour: Colour, flame: Colour = ember): string =>
    b.group('Hung lantern', [
      b.shape(
        'Cord',
        'rectangle',
        { x: x - mm(0.2), y: -BLEED, w: mm(0.4), h: y + BLEED + size * 0.03 },
        { fill: flat(colour) },
      ),
      guildLantern(b, x, y, size, colour, flame),
    ]);
  const line = (look: string, text: string, own: Partial<Paragraph> = {}): Paragraph => ({
    look,
    ...own,
    runs: [{ text }],
  });
  const words = (name: string, at: { x?: number; y: number; w?: number; h: number }, paragraphs: Paragraph[]): string =>
    b.textFrame(name, { x: SIDE, w: A5.w - 2 * SIDE, ...at }, paragraphs);
  /** The headline of a spread, its letters lit from their feet. */
  const headline = (text: string): string =>
    b.displayText('Headline', SIDE - mm(0.5), mm(38), [
      {
        look: looks.title,
        runs: [
          {
            text,
            fill: linear({ stops: [stop(0, lowTide), stop(0.6, lowTide), stop(1, ember)] }, [0, -mm(10)], [0, mm(2.5)]),
          },
        ],
      },
    ]);
  return { colours, ramps, looks, glow, hung, line, words, headline };
}

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
