import { withAngle, firstGradient } from './gradient';
import { firstPools } from './pools';
import { faint, rolesOf, type Roles } from './roles';
import { colourPaint } from '../model/defaults';
import type { Colour, Design, Paint, Pattern, Stop } from '../model/schema';

/** A set of grounds to choose from, each made of the design's own swatches. */
export interface GroundChoice {
  readonly id: string;
  readonly name: string;
  readonly family: 'Flat' | 'Gradient' | 'Pools' | 'Pattern';
  readonly paint: Paint;
  readonly pattern: Pattern | null;
}

type Make = (r: Roles) => { readonly paint: Paint; readonly pattern?: Pattern };
const UNIT = { x0: 0, y0: 0, x1: 1, y1: 1 };

const linear = (angle: number, ...colours: Colour[]): Paint =>
  withAngle(firstGradient('linear', UNIT, stopsOf(colours), false), angle);
const radial = (...colours: Colour[]): Paint => {
  const made = firstGradient('radial', UNIT, stopsOf(colours), false);
  // To the corners, as light falls.
  return { ...made, geometry: [0.75, 0, 0, 0.75, 0.5, 0.45] };
};
const pools = (...colours: Colour[]): Paint => firstPools(UNIT, stopsOf(colours), false);
const stopsOf = (colours: readonly Colour[]): Stop[] =>
  colours.map((colour, i) => ({ offset: i / (colours.length - 1), colour }));
const over = (
  base: Colour,
  kind: Pattern['kind'],
  size: number,
  cover: number,
  angle: number,
  ...colours: Colour[]
): ReturnType<Make> => ({
  paint: colourPaint(base),
  pattern: { kind, size, cover, angle, paints: colours.map((c) => colourPaint(c) as Pattern['paints'][number]) },
});

/** Sizes are points of an A4 sheet; they grow with the page. */
const ROWS: readonly (readonly [id: string, name: string, family: GroundChoice['family'], make: Make])[] = [
  ['light', 'Light', 'Flat', (r) => ({ paint: colourPaint(r.light) })],
  ['hint', 'A hint', 'Flat', (r) => ({ paint: colourPaint(faint(r.accent, 0.15)) })],
  ['accent', 'Bright', 'Flat', (r) => ({ paint: colourPaint(r.accent) })],
  ['dark', 'Dark', 'Flat', (r) => ({ paint: colourPaint(r.dark) })],
  ['nightfall', 'Nightfall', 'Gradient', (r) => ({ paint: linear(90, r.dark, r.middle) })],
  ['afterglow', 'Afterglow', 'Gradient', (r) => ({ paint: linear(90, r.dark, r.middle, r.accent) })],
  ['morning', 'Morning', 'Gradient', (r) => ({ paint: linear(270, r.accent, r.light) })],
  ['haze', 'Haze', 'Gradient', (r) => ({ paint: linear(90, faint(r.middle, 0.35), r.light) })],
  ['slope', 'Slope', 'Gradient', (r) => ({ paint: linear(45, r.accent, r.other) })],
  ['edge', 'Lit edge', 'Gradient', (r) => ({ paint: linear(0, r.light, r.light, r.accent) })],
  ['lamp', 'Lamp', 'Gradient', (r) => ({ paint: radial(r.accent, r.dark) })],
  ['window', 'Lit window', 'Gradient', (r) => ({ paint: radial(r.light, faint(r.middle, 0.5)) })],
  ['mingle', 'Mingled', 'Pools', (r) => ({ paint: pools(r.accent, r.middle, r.other) })],
  ['calm', 'Calm water', 'Pools', (r) => ({ paint: pools(r.dark, r.middle, r.dark) })],
  ['breath', 'Breath', 'Pools', (r) => ({ paint: pools(r.light, faint(r.accent, 0.4), r.light) })],
  ['specks', 'Specks', 'Pattern', (r) => over(r.light, 'dots', 14, 0.05, 0, r.middle)],
  ['dots', 'Round dots', 'Pattern', (r) => over(r.light, 'dots', 40, 0.22, 0, faint(r.accent, 0.6))],
  ['pearls', 'Two by two', 'Pattern', (r) => over(r.light, 'dots', 30, 0.18, 45, r.accent, r.other)],
  ['lanes', 'Thin lanes', 'Pattern', (r) => over(r.light, 'stripes', 14, 0.08, 90, r.middle)],
  ['awning', 'Awning', 'Pattern', (r) => over(r.light, 'stripes', 60, 0.5, 90, r.accent)],
  ['slant', 'Slanting', 'Pattern', (r) => over(faint(r.accent, 0.2), 'stripes', 36, 0.4, 45, faint(r.accent, 0.45))],
  ['cloth', 'Tablecloth', 'Pattern', (r) => over(r.light, 'checks', 30, 0.5, 0, faint(r.accent, 0.55))],
  ['tiles', 'Tiles', 'Pattern', (r) => over(r.dark, 'checks', 44, 0.42, 45, r.middle)],
  ['ripples', 'Ripples', 'Pattern', (r) => over(r.light, 'waves', 18, 0.12, 0, r.middle)],
  ['tide', 'Tide', 'Pattern', (r) => over(r.dark, 'waves', 64, 0.4, 0, r.middle)],
  ['streamers', 'Scattered', 'Pattern', (r) => over(r.light, 'confetti', 34, 0.1, 0, r.accent, r.other, r.middle)],
  ['sparks', 'Sparks', 'Pattern', (r) => over(r.dark, 'confetti', 30, 0.03, 0, r.accent, r.light)],
  ['paper', 'Squared paper', 'Pattern', (r) => over(r.light, 'grid', 20, 0.06, 0, faint(r.middle, 0.5))],
  ['trellis', 'Trellis', 'Pattern', (r) => over(r.light, 'grid', 48, 0.14, 45, faint(r.other, 0.6))],
  ['woven', 'Woven', 'Pattern', (r) => over(r.light, 'grid', 40, 0.6, 0, faint(r.accent, 0.35), faint(r.other, 0.35))],
];

/** An A4 sheet's mean side, points: for it the sizes are. */
const BASE = Math.sqrt(595 * 842);

/** The grounds that a design's swatches make; `lab` tells how a colour looks. */
export function groundSet(
  d: Design,
  setup: Design['setup'],
  lab: (c: Colour) => readonly [number, number, number],
): GroundChoice[] {
  const roles = rolesOf(d, lab);
  const by = Math.max(0.2, Math.sqrt(setup.width * setup.height) / BASE);
  return ROWS.map(([id, name, family, make]) => {
    const { paint, pattern } = make(roles);
    return {
      id,
      name,
      family,
      paint,
      pattern: pattern ? { ...pattern, size: Math.min(4000, Math.max(2, pattern.size * by)) } : null,
    };
  });
}
