import { SPOT_LIBRARY } from '@/core/colour/spotLibrary';
import { multiply, translation, type Matrix } from '@/core/geometry/matrix';
import { CLOSE, CUBIC, LINE, MOVE } from '@/core/geometry/path';
import { newDesign, outlineOf, runOf, setupOf, type Making } from '@/core/model/defaults';
import type { Design, Outline, Paint, GradientPaint } from '@/core/model/schema';
import { mm } from '@/core/units/length';
import { DesignBuilder, flat, tint } from './builder';
import { linear, radial, stop, withGrain } from './gradients';

const A2 = { w: mm(420), h: mm(594) };
const BLEED = mm(3);

/** Edge to edge of a line. */
const across = (ramp: GradientPaint['ramp']): Paint => ({
  kind: 'gradient',
  gradient: 'linear',
  ramp,
  geometry: [1, 0, 0, 1, 0, 0],
  overprint: false,
  strokeMapping: 'across',
});
/** Given for a shape of its own, seen from the space round it. */
const movedPaint = (p: Paint, x: number, y: number): Paint =>
  p.kind === 'gradient' ? { ...p, geometry: multiply(translation(x, y), p.geometry) } : p;

/** The Lantern Walk poster in its first state: A2 upright, one spot ink that glows. */
export function lanternWalkPoster(make: Making): Design {
  const base = newDesign(
    'Lantern Walk poster',
    setupOf(A2.w, A2.h, { bleed: BLEED, margins: { top: mm(24), right: mm(24), bottom: mm(24), left: mm(24) } }),
    make,
  );
  const b = new DesignBuilder({ ...base, id: 'lantern-walk-poster', swatches: [base.swatches[0]] }, make);

  const quayNight = b.recipe('Quay Night', 100, 86, 38, 44);
  const lowTide = b.recipe('Low Tide', 82, 46, 22, 6);
  const paperGlow = b.recipe('Paper Glow', 2, 8, 34, 0);
  const wick = b.recipe('Wick', 0, 36, 92, 0);
  const rope = b.recipe('Rope', 28, 34, 52, 10);
  const slateWet = b.recipe('Slate Wet', 58, 44, 40, 24);
  const ember = b.spot(SPOT_LIBRARY[0]);
  const kelp = b.spot(SPOT_LIBRARY[1]);
  const night = b.ramp('Night', [stop(0, quayNight), stop(0.62, quayNight), stop(1, lowTide)]);
  const emberGlow = b.ramp('Ember glow', [stop(0, tint(ember, 0.25)), stop(0.6, ember), stop(1, ember)]);
  const wickGlow = b.ramp('Wick glow', [stop(0, paperGlow), stop(0.75, wick), stop(1, wick)]);
  const kelpGlow = b.ramp('Kelp glow', [stop(0, paperGlow), stop(0.8, kelp), stop(1, kelp)]);
  const moonGlow = b.ramp('Moon', [stop(0, tint(paperGlow, 0.55)), stop(1, paperGlow)]);

  const full = { x: -BLEED, y: -BLEED, w: A2.w + 2 * BLEED, h: A2.h + 2 * BLEED };
  // So long a sky has tones wide enough to be seen as bands: grain breaks them up.
  const sky = b.lock(
    b.shape('Night sky', 'rectangle', full, { fill: withGrain(linear({ swatch: night }, [0, 0], [0, full.h]), 0.02) }),
  );
  const wave = (y: number, lift: number): number[] => {
    const [l, r] = [-BLEED, A2.w + BLEED];
    const w = (r - l) / 2;
    return [
      MOVE,
      l,
      y,
      CUBIC,
      l + w * 0.35,
      y - lift,
      l + w * 0.65,
      y - lift,
      l + w,
      y,
      CUBIC,
      l + w * 1.35,
      y + lift,
      l + w * 1.65,
      y + lift,
      r,
      y,
      LINE,
      r,
      A2.h + BLEED,
      LINE,
      l,
      A2.h + BLEED,
      CLOSE,
    ];
  };
  const photo = b.picture({
    name: 'Harbour water',
    file: 'harbour-water.jpg',
    width: 4000,
    height: 1400,
    space: 'rgb',
  });
  const wide = A2.w + 2 * BLEED;
  const ripples = b.together(
    b.path('Ripples', wave(mm(534), mm(-8)), {
      fill: {
        kind: 'picture',
        picture: photo,
        overprint: false,
        geometry: [wide, 0, 0, (wide * 1400) / 4000, -BLEED, mm(505)],
        tone: {
          inks: [
            {
              colour: quayNight,
              curve: [
                [0, 0],
                [0.35, 0.25],
                [0.75, 0.8],
                [1, 1],
              ],
            },
          ],
        },
      },
    }),
    { opacity: 0.55 },
  );
  const water = b.group('Water', [
    b.path('Far water', wave(mm(520), mm(6)), {
      fill: linear({ stops: [stop(0, slateWet), stop(1, lowTide)] }, [0, mm(514)], [0, mm(537)]),
    }),
    b.path('Near water', wave(mm(534), mm(-8)), {
      fill: {
        kind: 'pools',
        overprint: false,
        geometry: [A2.w + 2 * BLEED, 0, 0, mm(70), -BLEED, mm(527)] as Matrix,
        pools: [
          { x: 0.05, y: 0.4, colour: quayNight, reach: 0.4 },
          { x: 0.5, y: 0.3, colour: lowTide, reach: 0.25 },
          { x: 0.95, y: 0.4, colour: quayNight, reach: 0.4 },
          { x: 0.5, y: 1.1, colour: quayNight, reach: 0.35 },
        ],
      },
    }),
    // Ripples: a picture from the drawer in the night's own recipe, half seen over the pools.
    ripples,
    // The middle lantern in the water: the spot ink fades away into what lies below.
    b.shape(
      'Ember in the water',
      'ellipse',
      { x: mm(165), y: mm(536), w: mm(90), h: mm(46) },
      { fill: radial({ stops: [stop(0, ember, 0.5), stop(1, ember, 0)] }, mm(45), mm(20), mm(45), mm(23)) },
    ),
  ]);

  // The moon's light fades out over the sky.
  const halo = b.shape(
    'Light of the moon',
    'ellipse',
    { x: mm(254), y: mm(-6), w: mm(170), h: mm(170) },
    {
      fill: radial(
        { stops: [stop(0, paperGlow, 0.55), { ...stop(0.45, paperGlow, 0.4), midpoint: 0.35 }, stop(1, lowTide, 0)] },
        mm(85),
        mm(85),
        mm(85),
        mm(85),
      ),
    },
  );
  const moon = b.shape(
    'Moon',
    'ellipse',
    { x: mm(300), y: mm(40), w: mm(78), h: mm(78) },
    { fill: withGrain(radial({ swatch: moonGlow }, mm(39), mm(39), mm(39), mm(39), false, [-0.3, -0.35]), 0.04) },
  );

  // Twenty rays: a long and a short one, 18° apart, ten times round the lantern's middle.
  const middle = { x: mm(210), y: mm(374) };
  const ray = (name: string, tip: number, length: number, turn: number) =>
    b.shape(
      name,
      'polygon',
      { x: middle.x - mm(4.5), y: middle.y - mm(tip), w: mm(9), h: mm(length), turn, about: middle },
      { fill: flat(tint(ember, 0.8)), knobs: { sides: 3 } },
    );
  const rays = b.repeat(
    'Rays',
    { kind: 'ring', count: 10, step: 36, centre: middle, about: { x: middle.x, y: middle.y - mm(95) } },
    [ray('Long ray', 106, 32, 0), ray('Short ray', 94, 20, 18)],
  );

  const line = [MOVE, -BLEED, mm(250), CUBIC, mm(120), mm(306), mm(300), mm(306), A2.w + BLEED, mm(250)];
  /** How high the rope hangs over a place of the sheet. */
  const ropeAt = (x: number): number => {
    let [lo, hi] = [0, 1];
    const of = (t: number, a: number, b1: number, c: number, d: number) =>
      a * (1 - t) ** 3 + 3 * b1 * t * (1 - t) ** 2 + 3 * c * t * t * (1 - t) + d * t ** 3;
    for (let i = 0; i < 40; i++) {
      const t = (lo + hi) / 2;
      if (of(t, -BLEED, mm(120), mm(300), A2.w + BLEED) < x) lo = t;
      else hi = t;
    }
    return of(lo, mm(250), mm(306), mm(306), mm(250));
  };
  const ropeLine = b.path('Rope', line, {
    outline: {
      ...outlineOf(flat(rope), mm(2)),
      dashes: [mm(4), mm(2.4)],
      between: flat(slateWet) as Outline['between'],
      wobble: { strength: mm(0.7), wave: mm(16), passes: 1, seed: 21 },
    },
  });

  const lantern = (
    name: string,
    cx: number,
    top: number,
    w: number,
    h: number,
    papers: { name: string; fill: Paint }[],
  ): string => {
    const body = { x: cx - w / 2, y: top + h * 0.08, w, h: h * 0.84 };
    const rib = (share: number) =>
      b.shape(
        'Rib',
        'ellipse',
        { x: cx - (w * share) / 2, y: body.y, w: w * share, h: body.h },
        { outline: outlineOf(flat(slateWet), mm(0.5)) },
      );
    const capShape = (label: string, y: number, share: number) =>
      b.shape(
        label,
        'rectangle',
        { x: cx - (w * share) / 2, y, w: w * share, h: h * 0.08 },
        { fill: flat(rope), knobs: { topLeft: mm(2), topRight: mm(2), bottomRight: mm(2), bottomLeft: mm(2) } },
      );
    return b.group(name, [
      b.shape(
        'Cord',
        'rectangle',
        { x: cx - mm(0.6), y: ropeAt(cx), w: mm(1.2), h: top - ropeAt(cx) + h * 0.05 },
        { fill: flat(rope) },
      ),
      // A rim that is lit from within: its colours run from the outer edge of the line to where the paper covers it.
      b.shape('Rim', 'ellipse', body, {
        outline: outlineOf(
          across({ stops: [stop(0, slateWet), stop(0.2, rope), stop(0.5, paperGlow), stop(1, paperGlow)] }),
          mm(3.2),
        ),
      }),
      // Papers end flat under cap and foot: an ellipse, and the box that it is kept to.
      ...papers.map((p) =>
        b.combination(
          p.name,
          'intersect',
          [
            b.shape('Paper’s round', 'ellipse', body, { fill: p.fill }),
            b.shape(
              'Paper’s height',
              'rectangle',
              { x: body.x, y: body.y + body.h * 0.02, w: body.w, h: body.h * 0.96 },
              { fill: p.fill },
            ),
          ],
          { fill: movedPaint(p.fill, body.x, body.y) },
        ),
      ),
      rib(0.38),
      rib(0.72),
      b.combination(
        'Fittings',
        'union',
        [capShape('Cap', top + h * 0.03, 0.46), capShape('Foot', top + h * 0.88, 0.4)],
        { fill: flat(rope) },
      ),
    ]);
  };
  const glow = (ramp: string, w: number, h: number, overprint = false) =>
    radial({ swatch: ramp }, w / 2, h * 0.46, w * 0.62, h * 0.52, overprint);
  const lanterns = b.group('Lanterns', [
    lantern('Lantern, left', mm(76), mm(320), mm(50), mm(84), [
      { name: 'Paper', fill: glow(wickGlow, mm(50), mm(84)) },
    ]),
    lantern('Lantern, right', mm(344), mm(320), mm(50), mm(84), [
      { name: 'Paper', fill: glow(kelpGlow, mm(50), mm(84)) },
    ]),
    // Ember prints over warm paper: the spot ink glows, the plates below stay as they are.
    lantern('Lantern, middle', mm(210), mm(314), mm(76), mm(126), [
      { name: 'Paper', fill: flat(paperGlow) },
      { name: 'Ember over paper', fill: glow(emberGlow, mm(76), mm(126), true) },
    ]),
  ]);

  // On an arch over the rope, as the lanterns hang under it.
  const arch = mm(760);
  const headline = b.along(
    b.displayText('Headline', mm(210), mm(198) + arch, [
      {
        align: 'middle',
        leading: 0.95,
        runs: [{ ...runOf('Lantern Walk', 168, flat(paperGlow), 'bitter-500'), tracking: -10 }],
      },
    ]),
    { line: { radius: arch }, at: 0 },
  );
  const dateLine = b.textFrame('Date line', { x: mm(34), y: mm(525), w: mm(352), h: mm(60) }, [
    { align: 'middle', leading: 1.2, runs: [runOf('Saturday 21 November', 80, flat(paperGlow), 'bitter-700')] },
    {
      align: 'middle',
      leading: 1.3,
      runs: [runOf('Marrowick quays, from dusk', 48, flat(paperGlow), 'archivo-600')],
    },
  ]);
  b.place(0, [sky, halo, moon, water, rays, ropeLine, lanterns, headline, dateLine]);
  return b.done();
}
