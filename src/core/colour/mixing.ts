import type { Mixing } from '../model/schema';
import { labToLch, lchToLab, oklabToSrgb, srgbToOklab } from './models';
import type { Triple } from './spaces';

/** Amounts 0…1, one a channel: C M Y K and then the design's spot inks in order; or R G B for a screen design. */
export type Mix = readonly number[];

/** Where two colours are mixed, with what is said about it. */
export const MIXINGS: Readonly<Record<Mixing, { readonly word: string; readonly says: string }>> = {
  ink: { word: 'Ink', says: 'the inks of both ends, part for part' },
  srgb: { word: 'sRGB', says: 'as screens mix light' },
  oklab: { word: 'OKLab', says: 'as the eye sees it, straight across' },
  oklch: { word: 'OKLCh', says: 'round the colour circle, always bright' },
};

/** A chroma under which OKLCh has no hue to speak of (as CSS Color 4 §12.2 treats such hues as missing). */
const NO_HUE = 4e-6;

/**
 * The colour at `t` between two sRGB colours, mixed in a space (CSS Color 4 §12). The result may lie outside 0…1 where
 * a screen cannot show it. OKLCh takes the shorter way round; a grey takes the other's hue.
 */
export function mixLooks(space: Exclude<Mixing, 'ink'>, a: Triple, b: Triple, t: number): Triple {
  const straight = (p: Triple, q: Triple): Triple => [
    p[0] + t * (q[0] - p[0]),
    p[1] + t * (q[1] - p[1]),
    p[2] + t * (q[2] - p[2]),
  ];
  if (space === 'srgb') return straight(a, b);
  const [p, q] = [srgbToOklab(a), srgbToOklab(b)];
  if (space === 'oklab') return oklabToSrgb(straight(p, q));
  const [from, to] = [labToLch(p), labToLch(q)];
  const h0 = from[1] < NO_HUE ? to[2] : from[2];
  const h1 = to[1] < NO_HUE ? h0 : to[2];
  const turn = ((h1 - h0 + 540) % 360) - 180;
  return oklabToSrgb(lchToLab(straight([from[0], from[1], h0], [to[0], to[1], h0 + turn])));
}

/**
 * How far the mixture is at `x` of the way, both 0…1, when half of it is reached at `midpoint`: the curve of a colour
 * hint (CSS Images 4 §3.5.4).
 */
export function eased(x: number, midpoint: number): number {
  return midpoint === 0.5 || x <= 0 || x >= 1 ? x : x ** (Math.LN2 / -Math.log(midpoint));
}

/** The way `x` at which the mixture is `y`: the inverse of `eased`. */
export function easedAt(y: number, midpoint: number): number {
  return midpoint === 0.5 || y <= 0 || y >= 1 ? y : y ** (-Math.log(midpoint) / Math.LN2);
}
