import { mapTuple } from '../units/tuple';
import { decodeSrgb, encodeSrgb, times, type Triple } from './spaces';

/** HSB: hue in degrees 0…360, saturation and brightness 0…1 (Smith 1978, the hexcone model). sRGB 0…1. */
export function rgbToHsb([r, g, b]: Triple): Triple {
  const max = Math.max(r, g, b);
  const chroma = max - Math.min(r, g, b);
  if (chroma === 0) return [0, 0, max];
  const sector = max === r ? ((g - b) / chroma + 6) % 6 : max === g ? (b - r) / chroma + 2 : (r - g) / chroma + 4;
  return [sector * 60, chroma / max, max];
}

/** Hue (degrees), saturation and brightness (0…1) as RGB. */
export function hsbToRgb([h, s, v]: Triple): Triple {
  const f = (n: number) => {
    const k = (n + h / 60) % 6;
    return v - v * s * Math.max(0, Math.min(k, 4 - k, 1));
  };
  return [f(5), f(3), f(1)];
}

/** LCh: the polar form of Lab, hue in degrees 0…360 (CIE 15:2004 8.2.1.2). */
export function labToLch([l, a, b]: Triple): Triple {
  return [l, Math.hypot(a, b), ((Math.atan2(b, a) * 180) / Math.PI + 360) % 360];
}

/** Lightness, chroma and hue (degrees) as Lab. */
export function lchToLab([l, c, h]: Triple): Triple {
  const rad = (h * Math.PI) / 180;
  return [l, c * Math.cos(rad), c * Math.sin(rad)];
}

// OKLab from linear sRGB, and back, as in CSS Color 4 §17 (sample code, products of its matrices).
// prettier-ignore
const SRGB_TO_LMS = [
  [0.4122214694707630, 0.5363325372617349, 0.0514459932675022],
  [0.2119034958178252, 0.6806995506452344, 0.1073969535369406],
  [0.0883024591900564, 0.2817188391361215, 0.6299787016738222],
] as const;
// prettier-ignore
const LMS_TO_OKLAB = [
  [0.2104542683093140,  0.7936177747023054, -0.0040720430116193],
  [1.9779985324311684, -2.4285922420485799,  0.4505937096174110],
  [0.0259040424655478,  0.7827717124575296, -0.8086757549230774],
] as const;
// prettier-ignore
const OKLAB_TO_LMS = [
  [1.0,  0.3963377773761749,  0.2158037573099136],
  [1.0, -0.1055613458156586, -0.0638541728258133],
  [1.0, -0.0894841775298119, -1.2914855480194092],
] as const;
// prettier-ignore
const LMS_TO_SRGB = [
  [ 4.0767416360759583, -3.3077115392580629,  0.2309699031821043],
  [-1.2684379732850315,  2.6097573492876882, -0.3413193760026570],
  [-0.0041960761386756, -0.7034186179359362,  1.7076146940746117],
] as const;

/** sRGB as OKLab (CSS Color 4, §17). */
export function srgbToOklab(rgb: Triple): Triple {
  const linear = mapTuple(rgb, decodeSrgb);
  return times(LMS_TO_OKLAB, mapTuple(times(SRGB_TO_LMS, linear), Math.cbrt));
}

/** sRGB of an OKLab colour; channels outside 0…1 mean that a screen cannot show it. */
export function oklabToSrgb(oklab: Triple): Triple {
  const lms = mapTuple(times(OKLAB_TO_LMS, oklab), (v) => v * v * v);
  return mapTuple(times(LMS_TO_SRGB, lms), encodeSrgb);
}

/** Relative luminance of sRGB (WCAG 2.2, “relative luminance”). */
export function luminance(rgb: Triple): number {
  const [r, g, b] = mapTuple(rgb, decodeSrgb);
  return 0.2126 * r + 0.7152 * g + 0.0722 * b;
}

/** Contrast ratio 1…21 of two luminances (WCAG 2.2, “contrast ratio”). */
export function contrastRatio(a: number, b: number): number {
  return (Math.max(a, b) + 0.05) / (Math.min(a, b) + 0.05);
}

/** Black or white, whichever reads better on a colour. */
export function lettersOn(rgb: Triple): '#000' | '#fff' {
  const y = luminance(rgb);
  return contrastRatio(y, 0) >= contrastRatio(y, 1) ? '#000' : '#fff';
}
