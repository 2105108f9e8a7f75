import { converter, fixupHueShorter, interpolate } from 'culori';
import fc from 'fast-check';
import { cleanest, middles } from '@/core/colour/clean';
import { deltaE00 } from '@/core/colour/compare';
import { eased, easedAt, mixLooks } from '@/core/colour/mixing';
import type { Palette } from '@/core/colour/palette';
import { mixAt, pointAt, shiftedRamp, thereAndBack } from '@/core/colour/ramp';
import { labToSrgb, srgbToLab, type Triple } from '@/core/colour/spaces';
import { SPOT_LIBRARY } from '@/core/colour/spotLibrary';
import {
  firmnessOf,
  insertStop,
  matchedStops,
  moveStop,
  reverseStops,
  setMidpoint,
  setStopOpacity,
  spreadEvenly,
  withFirmness,
} from '@/core/edit/gradient';
import { newDesign, setupOf } from '@/core/model/defaults';
import type { Colour, Stop } from '@/core/model/schema';
import { prepare } from '@/core/engines';
import { cmyk, making } from '../support/sample';
import { testEngines } from '../support/engines';

let palette: Palette;
let screen: Palette;
beforeAll(async () => {
  const engines = await testEngines();
  const design = { ...newDesign('Gradients', setupOf(100, 100), making), inks: [{ ...SPOT_LIBRARY[0], id: 'ember' }] };
  palette = await prepare(engines, design);
  screen = await prepare(engines, { ...design, setup: { ...design.setup, medium: 'screen' } });
});

const two = (a: Colour, b: Colour): Stop[] => [
  { offset: 0, colour: a },
  { offset: 1, colour: b },
];
const triple = fc.tuple(
  fc.double({ min: 0, max: 1, noNaN: true }),
  fc.double({ min: 0, max: 1, noNaN: true }),
  fc.double({ min: 0, max: 1, noNaN: true }),
);

describe('mixing', () => {
  // Oracle: culori (interpolation after CSS Color 4 §12), 1e-4.
  test.each(['oklab', 'oklch', 'srgb'] as const)('%s as culori mixes it', (space) => {
    const toRgb = converter('rgb');
    fc.assert(
      fc.property(triple, triple, fc.double({ min: 0, max: 1, noNaN: true }), (a, b, t) => {
        const rgb = ([r, g, bl]: readonly [number, number, number]) => ({ mode: 'rgb' as const, r, g, b: bl });
        const [ka, kb] = [converter('oklch')(rgb(a))!, converter('oklch')(rgb(b))!];
        // Two hues right across from each other may be joined either way round; a grey's hue is noise.
        fc.pre(
          space !== 'oklch' ||
            (ka.c > 0.01 && kb.c > 0.01 && Math.abs(Math.abs((ka.h ?? 0) - (kb.h ?? 0)) - 180) > 0.01),
        );
        const theirs = toRgb(
          interpolate(
            [rgb(a), rgb(b)],
            space === 'srgb' ? 'rgb' : space,
            space === 'oklch' ? { h: { fixup: fixupHueShorter } } : {},
          )(t),
        )!;
        const ours = mixLooks(space, a, b, t);
        [theirs.r, theirs.g, theirs.b].forEach((v, i) => expect(Math.abs(v - ours[i])).toBeLessThan(1e-4));
      }),
      { numRuns: 300, seed: 4 },
    );
  });
  // CSS Images 4 §3.5.4: the colour hint. C = P^(log ½ / log H).
  test('a midpoint is where half is done, by the curve of a colour hint', () => {
    for (const h of [0.1, 0.25, 0.5, 0.7, 0.9]) {
      expect(eased(h, h)).toBeCloseTo(0.5, 12);
      expect(eased(0.3, h)).toBeCloseTo(0.3 ** (Math.log(0.5) / Math.log(h)), 12);
      expect(easedAt(eased(0.37, h), h)).toBeCloseTo(0.37, 12);
      expect([eased(0, h), eased(1, h)]).toEqual([0, 1]);
    }
  });
});

describe('a ramp', () => {
  test('in ink is straight from recipe to recipe', () => {
    const ramp = palette.ramp({ stops: two(cmyk(100, 0, 0, 0), cmyk(0, 100, 50, 0)) });
    expect(ramp.stops).toHaveLength(2);
    expect(mixAt(ramp, 0.25)).toEqual([0.75, 0.25, 0.125, 0, 0]);
  });
  test.each(['srgb', 'oklab', 'oklch'] as const)(
    'in %s keeps the recipes of its ends, and its middles look as asked where they can be printed',
    (mixing) => {
      for (const [from, to] of [
        [cmyk(80, 40, 10, 5), cmyk(10, 50, 70, 0)],
        [cmyk(0, 0, 0, 100), cmyk(0, 0, 0, 10)],
        [cmyk(20, 10, 60, 0), cmyk(60, 10, 20, 0)],
      ] as const) {
        const ramp = palette.ramp({ stops: two(from, to), mixing });
        mixAt(ramp, 0).forEach((v, i) => expect(v).toBeCloseTo(palette.mix(from)[i], 9));
        mixAt(ramp, 1).forEach((v, i) => expect(v).toBeCloseTo(palette.mix(to)[i], 9));
        const [a, b] = [labToSrgb(palette.labOf(from)), labToSrgb(palette.labOf(to))];
        for (const t of [0.25, 0.5, 0.75]) {
          const wanted = srgbToLab(mixLooks(mixing, a, b, t) as Triple);
          // Where no ink can print it, nothing is promised; the panel says so.
          const nearest = deltaE00(wanted, palette.labOf({ cmyk: palette.cmykOf({ lab: wanted }) }));
          if (nearest < 1) expect(deltaE00(wanted, palette.labOfMix(mixAt(ramp, t)))).toBeLessThan(2);
        }
      }
    },
  );
  test('with a spot ink is mixed as ink whatever is asked', () => {
    const stops = two({ ink: 'ember', tint: 1 }, cmyk(100, 0, 0, 0));
    expect(mixAt(palette.ramp({ stops, mixing: 'oklab' }), 0.5)).toEqual([0.5, 0, 0, 0, 0.5]);
  });
  test('fades by the opacity of its stops, and bends at its midpoints', () => {
    const ramp = palette.ramp({
      stops: [
        { offset: 0, colour: cmyk(100, 0, 0, 0), midpoint: 0.25 },
        { offset: 1, colour: cmyk(0, 0, 0, 0), opacity: 0.2 },
      ],
    });
    expect(ramp.solid).toBe(false);
    expect(pointAt(ramp, 0.25).mix[0]).toBeCloseTo(0.5, 2);
    expect(pointAt(ramp, 0.25).opacity).toBeCloseTo(0.6, 2);
    expect(pointAt(ramp, 1).opacity).toBe(0.2);
    // The pieces follow the curve within half a level.
    for (let x = 0.01; x < 1; x += 0.01)
      expect(Math.abs(pointAt(ramp, x).mix[0] - (1 - eased(x, 0.25)))).toBeLessThan(0.5 / 255);
  });
  test('there and back begins as it ends; shifted it shows what lay before', () => {
    const ramp = palette.ramp({ stops: two(cmyk(100, 0, 0, 0), cmyk(0, 0, 100, 0)) });
    const loop = thereAndBack(ramp);
    expect(mixAt(loop, 0)).toEqual(mixAt(loop, 1));
    expect(mixAt(loop, 0.5)).toEqual(mixAt(ramp, 1));
    expect(mixAt(loop, 0.75)).toEqual(mixAt(loop, 0.25));
    for (const t of [0, 0.1, 0.5, 0.95, 1])
      mixAt(shiftedRamp(ramp, 0.1), t).forEach((v, i) => expect(v).toBeCloseTo(mixAt(ramp, t - 0.1)[i], 9));
  });
  test('of a screen design is mixed in light', () => {
    const stops = two({ rgb: [1, 0, 0] }, { rgb: [0, 0, 1] });
    expect(mixAt(screen.ramp({ stops }), 0.5)).toEqual([0.5, 0, 0.5]);
    const ok = mixAt(screen.ramp({ stops, mixing: 'oklab' }), 0.5);
    mixLooks('oklab', [1, 0, 0], [0, 0, 1], 0.5).forEach((v, i) =>
      expect(ok[i]).toBeCloseTo(Math.min(1, Math.max(0, v)), 2),
    );
  });
});

describe('the cleanest middle', () => {
  const advised = (a: Colour, b: Colour) => cleanest(middles(two(a, b), palette));
  test('stays in ink where ink does as well as anything', () => {
    expect(advised(cmyk(0, 0, 0, 100), cmyk(0, 0, 0, 10)).mixing).toBe('ink');
    expect(advised(cmyk(100, 60, 0, 0), cmyk(40, 10, 0, 0)).mixing).toBe('ink');
  });
  test('is never duller than ink, and within reach', () => {
    for (const [a, b] of [
      [cmyk(0, 100, 90, 0), cmyk(100, 40, 0, 0)],
      [cmyk(0, 0, 100, 0), cmyk(90, 80, 0, 0)],
      [cmyk(80, 0, 90, 0), cmyk(0, 90, 60, 0)],
    ]) {
      const list = middles(two(a, b), palette);
      const best = cleanest(list);
      expect(best.dull).toBeLessThanOrEqual(list.find((m) => m.mixing === 'ink')!.dull);
      expect(best.beyond).toBeLessThanOrEqual(3);
    }
  });
  test('does not go round the colour circle through colours that nobody chose', () => {
    expect(advised(cmyk(0, 100, 90, 0), cmyk(90, 0, 60, 0)).mixing).not.toBe('oklch');
  });
  test('with a spot ink there is only ink', () =>
    expect(middles(two({ ink: 'ember', tint: 1 }, cmyk(100, 0, 0, 0)), palette).map((m) => m.mixing)).toEqual(['ink']));
});

const grey = (offset: number, g = offset): Stop => ({ offset, colour: { gray: g } });
/** Ramps of two to six different colours, in order. */
const ramps = fc.array(fc.integer({ min: 1, max: 40 }), { minLength: 2, maxLength: 6 }).map((gaps) => {
  const total = gaps.slice(1).reduce((a, b) => a + b, 0);
  let at = 0;
  return gaps.map((g, i): Stop => grey((at += i ? g : 0) / total, i / 10));
});

describe('firm and soft', () => {
  test('a two-tone pennant: pairs of equal stops, up to a hard edge in the middle', () => {
    const soft = [grey(0, 0), grey(1, 1)];
    expect(firmnessOf(soft)).toBe(0);
    expect(withFirmness(soft, 0.8).map((s) => Math.round(s.offset * 100))).toEqual([0, 40, 60, 100]);
    const hard = withFirmness(soft, 1);
    expect(hard.map((s) => s.offset)).toEqual([0, 0.5, 0.5, 1]);
    expect(withFirmness(hard, 0)).toEqual(soft);
  });
  test('any ramp: what is set is what is read, and soft again is what it was', () => {
    fc.assert(
      fc.property(ramps, fc.integer({ min: 0, max: 95 }), (stops, percent) => {
        const firm = withFirmness(stops, percent / 100);
        expect(firmnessOf(firm)).toBeCloseTo(percent / 100, 6);
        expect(firm.every((s, i) => i === 0 || s.offset >= firm[i - 1].offset - 1e-9)).toBe(true);
        const back = withFirmness(firm, 0);
        expect(back).toHaveLength(stops.length);
        back.forEach((s, i) => expect(s.offset).toBeCloseTo(stops[i].offset, 6));
      }),
      { numRuns: 200, seed: 11 },
    );
  });
});

describe('stops', () => {
  test('reversed twice they are as they were, midpoints too', () => {
    const stops: Stop[] = [
      { ...grey(0), midpoint: 0.3 },
      { ...grey(0.4), opacity: 0.5 },
      { ...grey(0.7), midpoint: 0.8 },
      grey(1),
    ];
    const once = reverseStops(stops);
    expect(once.map((s) => s.midpoint)).toEqual([expect.closeTo(0.2, 9), undefined, expect.closeTo(0.7, 9), undefined]);
    reverseStops(once).forEach((s, i) =>
      expect(s).toEqual({
        ...stops[i],
        offset: expect.closeTo(stops[i].offset, 9),
        ...(stops[i].midpoint && { midpoint: expect.closeTo(stops[i].midpoint, 9) }),
      }),
    );
  });
  test('evenly spread, moved between neighbours, faded, given a midpoint', () => {
    expect(spreadEvenly([grey(0), grey(0.9), grey(0.95), grey(1)]).map((s) => Math.round(s.offset * 300))).toEqual([
      0, 100, 200, 300,
    ]);
    expect(moveStop([grey(0), grey(0.5), grey(1)], 1, 2)[1].offset).toBe(1);
    expect(setStopOpacity([grey(0), grey(1)], 1, 0.4)[1].opacity).toBe(0.4);
    expect('opacity' in setStopOpacity([{ ...grey(0), opacity: 0.2 }, grey(1)], 0, 1)[0]).toBe(false);
    expect(setMidpoint([grey(0), grey(1)], 0, 5)[0].midpoint).toBe(0.98);
    expect('midpoint' in setMidpoint([grey(0), grey(1)], 0, 0.501)[0]).toBe(false);
    expect(insertStop([grey(0), grey(1)], 0.3, { gray: 0.77 })).toEqual({
      index: 1,
      stops: [grey(0), { offset: 0.3, colour: { gray: 0.77 } }, grey(1)],
    });
  });
  test('the end of one becomes the start of another, as far as that start is held', () => {
    const giving: Stop[] = [grey(0, 0.1), { ...grey(1, 0.6), opacity: 0.5 }];
    const taking: Stop[] = [{ ...grey(0, 0.9), opacity: 0.8 }, { ...grey(0.3, 0.9), opacity: 0.8 }, grey(1, 0.2)];
    expect(matchedStops(giving, taking)).toEqual([
      { offset: 0, colour: { gray: 0.6 }, opacity: 0.5 },
      { offset: 0.3, colour: { gray: 0.6 }, opacity: 0.5 },
      grey(1, 0.2),
    ]);
  });
});
