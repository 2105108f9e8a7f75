import type { Colour, Mixing, Stop } from '../model/schema';
import { eased, easedAt, mixLooks, type Mix } from './mixing';
import { clip01, labToSrgb, srgbToLab, type Triple } from './spaces';

/**
 * A gradient's ramp as all painters use it: straight pieces between offsets that never fall, each end with its mix and
 * opacity.
 */
export interface ResolvedRamp {
  readonly stops: readonly RampPoint[];
  /** The channels that any stop inks. */
  readonly used: readonly boolean[];
  /** Every stop hides fully what lies below. */
  readonly solid: boolean;
}
export interface RampPoint {
  readonly offset: number;
  readonly mix: Mix;
  readonly opacity: number;
}
export interface RampSource {
  readonly stops: readonly Stop[];
  /** Absent: ink. */
  readonly mixing?: Mixing;
}

/** What a ramp must know of the colours it is made of; a palette knows it. */
export interface RampInks {
  readonly screen: boolean;
  readonly channels: readonly string[];
  mix(colour: Colour): Mix;
  /** Lab, relative to the paper, of a mix of inks. */
  labOfMix(mix: Mix): Triple;
  /** Process inks 0…1 that print a Lab colour. */
  cmykOf(colour: { readonly lab: Triple }): readonly number[];
}

/** Rounds in which a mixture is brought to its look; after the fourth ΔE00 is under 2 for all that can be printed. */
const CORRECTIONS = 4;

/** Pieces that a curved span is cut into: their ends are exact, and between them no plate is off by half a level. */
const PIECES = 32;

/**
 * Turns stops into straight pieces in ink. Spans that are mixed as light, or whose midpoint is off the middle, become
 * many: the ink mixture is moved by what the profile's separation of the wanted look differs from that of its own, so
 * that both ends keep their own recipe to the last percent. Spot inks can only be mixed as ink.
 */
export function resolveRamp(source: RampSource, inks: RampInks): ResolvedRamp {
  const sorted = [...source.stops].sort((a, b) => a.offset - b.offset);
  const points: RampPoint[] = sorted.map((s) => ({
    offset: s.offset,
    mix: inks.mix(s.colour),
    opacity: s.opacity ?? 1,
  }));
  const out: RampPoint[] = [points[0]];
  for (let i = 1; i < points.length; i++) {
    const [a, b] = [points[i - 1], points[i]];
    const midpoint = sorted[i - 1].midpoint ?? 0.5;
    if (b.offset > a.offset) {
      const light = lightBetween(a.mix, b.mix, source.mixing, inks);
      if (light || midpoint !== 0.5)
        out.push(...needed([a, ...cuts(midpoint).map((x) => between(a, b, x, eased(x, midpoint), light)), b]));
    }
    out.push(b);
  }
  return {
    stops: out,
    used: inks.channels.map((_, i) => out.some((s) => s.mix[i] > 0)),
    solid: out.every((s) => s.opacity >= 1),
  };
}

type Light = (t: number) => Mix;

/** How two mixes are mixed as light; null where ink is mixed with ink, or nothing changes. */
function lightBetween(a: Mix, b: Mix, mixing: Mixing | undefined, inks: RampInks): Light | null {
  if (a.every((v, i) => v === b[i])) return null;
  if (inks.screen) {
    // A screen has no inks: there ink means its own lights.
    if (!mixing || mixing === 'ink' || mixing === 'srgb') return null;
    return (t) => mixLooks(mixing, [a[0], a[1], a[2]], [b[0], b[1], b[2]], t).map(clip01);
  }
  if (!mixing || mixing === 'ink' || hasSpot(a) || hasSpot(b)) return null;
  const [la, lb] = [labToSrgb(inks.labOfMix(a)), labToSrgb(inks.labOfMix(b))];
  return (t) => {
    const wanted = inks.cmykOf({ lab: srgbToLab(mixLooks(mixing, la, lb, t)) });
    let mix: Mix = a.map((v, i) => v + t * (b[i] - v));
    for (let k = 0; k < CORRECTIONS; k++) {
      const is = inks.cmykOf({ lab: inks.labOfMix(mix) });
      mix = mix.map((v, i) => (i < 4 ? clip01(v + wanted[i] - is[i]) : 0));
    }
    return mix;
  };
}

/** Is there any spot ink in a mix? */
export const hasSpot = (mix: Mix): boolean => mix.slice(4).some((v) => v > 0);

/** Places along a span, closer together where its curve bends most. */
function cuts(midpoint: number): number[] {
  const xs = new Set<number>();
  for (let k = 1; k < PIECES; k++) {
    xs.add(k / PIECES);
    if (midpoint !== 0.5) xs.add(easedAt(k / PIECES, midpoint));
  }
  return [...xs].sort((p, q) => p - q);
}

/** The inner points that are needed for the rest to lie on straight lines between them, within a fifth of a level. */
function needed(points: readonly RampPoint[]): RampPoint[] {
  const out: RampPoint[] = [];
  let from = 0;
  for (let to = 2; to < points.length; to++) {
    const straight = points.slice(from + 1, to).every((p) => {
      const line = between(
        points[from],
        points[to],
        (p.offset - points[from].offset) / (points[to].offset - points[from].offset),
      );
      return near(p.opacity, line.opacity) && p.mix.every((v, i) => near(v, line.mix[i]));
    });
    if (straight) continue;
    from = to - 1;
    out.push(points[from]);
  }
  return out;
}
const near = (a: number, b: number): boolean => Math.abs(a - b) < 0.2 / 255;

/** The point `x` of the way between two, where `t` of the change is done. */
function between(a: RampPoint, b: RampPoint, x: number, t: number = x, light: Light | null = null): RampPoint {
  return {
    offset: a.offset + x * (b.offset - a.offset),
    mix: light ? light(t) : a.mix.map((v, j) => v + t * (b.mix[j] - v)),
    opacity: a.opacity + t * (b.opacity - a.opacity),
  };
}

/** The point at `t` of a ramp: straight between stops, flat outside. */
export function pointAt(ramp: ResolvedRamp, t: number): RampPoint {
  const { stops } = ramp;
  if (t <= stops[0].offset) return stops[0];
  for (let i = 1; i < stops.length; i++) {
    if (t >= stops[i].offset) continue;
    const [a, b] = [stops[i - 1], stops[i]];
    const f = (t - a.offset) / (b.offset - a.offset);
    return {
      offset: t,
      mix: a.mix.map((v, j) => v + f * (b.mix[j] - v)),
      opacity: a.opacity + f * (b.opacity - a.opacity),
    };
  }
  return stops[stops.length - 1];
}

/** The inks (or light) of a ramp at a place 0…1. */
export const mixAt = (ramp: ResolvedRamp, t: number): Mix => pointAt(ramp, t).mix;

/** The ramp taken `by` later (or, below 0, earlier): at t it shows what it showed at t − by. */
export function shiftedRamp(ramp: ResolvedRamp, by: number): ResolvedRamp {
  const inner = ramp.stops.map((s) => ({ ...s, offset: s.offset + by })).filter((s) => s.offset > 0 && s.offset < 1);
  return { ...ramp, stops: [{ ...pointAt(ramp, -by), offset: 0 }, ...inner, { ...pointAt(ramp, 1 - by), offset: 1 }] };
}

/**
 * There and back: the first half is the ramp, the second half the ramp backwards, so that a closed line has no seam.
 */
export function thereAndBack(ramp: ResolvedRamp): ResolvedRamp {
  const there = ramp.stops.map((s) => ({ ...s, offset: s.offset / 2 }));
  const back = ramp.stops.map((s) => ({ ...s, offset: 1 - s.offset / 2 })).reverse();
  return { ...ramp, stops: [...there, ...back] };
}
