import { SPOT_LIBRARY } from '@/core/colour/spotLibrary';
import type { Colour, Paragraph } from '@/core/model/schema';
import { mm } from '@/core/units/length';
import { flat, type DesignBuilder } from './builder';
import { linear, radial, stop } from './gradients';
import { guildLantern } from './lantern';

export const A5 = { w: mm(148), h: mm(210) };
export const BLEED = mm(3);
/** Where words begin and end on a page. */
export const SIDE = mm(15);

/** What the programme is made with. */
export type Kit = ReturnType<typeof kitOf>;

/** Colours, looks and what is drawn several times in the programme. */
export function kitOf(b: DesignBuilder) {
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
