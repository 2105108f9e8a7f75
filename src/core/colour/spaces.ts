import { mapTuple } from '../units/tuple';

/** Colour spaces as plain triples. XYZ and Lab are D50 (the ICC connection space) unless a name says otherwise. */
export type Triple = readonly [number, number, number];

/**
 * D50 from its chromaticity x 0.3457, y 0.3585 (CSS Color 4 §10), to which the matrices below belong. The four digits
 * of ICC.1:2022 7.2.16 (0.9642, 0.8249) are the same white, rounded; Lab is relative, so either keeps neutrals neutral.
 */
export const D50: Triple = [0.3457 / 0.3585, 1, (1 - 0.3457 - 0.3585) / 0.3585];

const EPSILON = 216 / 24389; // (6/29)³, CIE 15:2004 8.2.1.1
const KAPPA = 24389 / 27; // (29/3)³

/** The CIE lightness function f (CIE 15:2004 8.2.1.1). */
export const cieF = (t: number): number => (t > EPSILON ? Math.cbrt(t) : (KAPPA * t + 16) / 116);
const cieInverse = (f: number): number => (f * f * f > EPSILON ? f * f * f : (116 * f - 16) / KAPPA);

/** Lab (D50) as XYZ of Y = 1 (CIE 15). */
export function labToXyz([l, a, b]: Triple): Triple {
  const fy = (l + 16) / 116;
  return [D50[0] * cieInverse(fy + a / 500), D50[1] * cieInverse(fy), D50[2] * cieInverse(fy - b / 200)];
}

/** XYZ (D50, Y = 1) as Lab (CIE 15). */
export function xyzToLab([x, y, z]: Triple): Triple {
  const fx = cieF(x / D50[0]);
  const fy = cieF(y / D50[1]);
  const fz = cieF(z / D50[2]);
  return [116 * fy - 16, 500 * (fx - fy), 200 * (fy - fz)];
}

type Matrix3 = readonly [Triple, Triple, Triple];
/** A matrix times a vector. */
export const times = (m: Matrix3, v: Triple): Triple => [
  m[0][0] * v[0] + m[0][1] * v[1] + m[0][2] * v[2],
  m[1][0] * v[0] + m[1][1] * v[1] + m[1][2] * v[2],
  m[2][0] * v[0] + m[2][1] * v[1] + m[2][2] * v[2],
];
const product = (a: Matrix3, b: Matrix3): Matrix3 => {
  const col = (j: 0 | 1 | 2): Triple => times(a, [b[0][j], b[1][j], b[2][j]]);
  const [x, y, z] = [col(0), col(1), col(2)];
  return [
    [x[0], y[0], z[0]],
    [x[1], y[1], z[1]],
    [x[2], y[2], z[2]],
  ];
};
function inverse3(m: Matrix3): Matrix3 {
  const [[a, b, c], [d, e, f], [g, h, i]] = m;
  const det = a * (e * i - f * h) - b * (d * i - f * g) + c * (d * h - e * g);
  return [
    [(e * i - f * h) / det, (c * h - b * i) / det, (b * f - c * e) / det],
    [(f * g - d * i) / det, (a * i - c * g) / det, (c * d - a * f) / det],
    [(d * h - e * g) / det, (b * g - a * h) / det, (a * e - b * d) / det],
  ];
}

// Bradford adaptation D50 → D65 and the primaries of Rec. 2020 and sRGB, as in CSS Color 4 §17 (sample code).
// prettier-ignore
const D50_TO_D65: Matrix3 = [
  [ 0.9554734527042182,   -0.023098536874261423, 0.0632593086610217  ],
  [-0.028369706963208136,  1.0099954580058226,   0.021041398966943008],
  [ 0.012314001688319899, -0.020507696433477912, 1.3303659366080753  ],
];
// prettier-ignore
const XYZ65_TO_REC2020: Matrix3 = [
  [ 1.7166511879712674,  -0.35567078377639233, -0.25336628137365974],
  [-0.6666843518324892,   1.6164812366349395,   0.01576854581391113],
  [ 0.017639857445310783, -0.042770613257808524, 0.9421031212354738],
];
// prettier-ignore
export const REC2020_TO_SRGB: Matrix3 = [
  [ 1.6604910021084345,   -0.5876411387885495, -0.07284986331988485 ],
  [-0.12455047452159074,   1.1328998971259602, -0.008349422604369487],
  [-0.018150763354905303, -0.1005788980080075,  1.1187296613629127  ],
];

/** Linear Rec. 2020 adapted to D50: the space in which inks multiply. */
export const XYZ_TO_REC2020: Matrix3 = product(XYZ65_TO_REC2020, D50_TO_D65);
export const REC2020_TO_XYZ: Matrix3 = inverse3(XYZ_TO_REC2020);
const SRGB_TO_REC2020: Matrix3 = inverse3(REC2020_TO_SRGB);

/** sRGB transfer curve (IEC 61966-2-1), both ways, odd-symmetric outside 0…1. */
export function encodeSrgb(linear: number): number {
  const v = Math.abs(linear);
  return Math.sign(linear) * (v <= 0.0031308 ? 12.92 * v : 1.055 * v ** (1 / 2.4) - 0.055);
}
/** A channel of sRGB as linear light (IEC 61966-2-1); negative ones mirrored. */
export function decodeSrgb(encoded: number): number {
  const v = Math.abs(encoded);
  return Math.sign(encoded) * (v <= 0.04045 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4);
}

/** sRGB (0…1) as Lab (D50). */
export function srgbToLab(rgb: Triple): Triple {
  const linear: Triple = [decodeSrgb(rgb[0]), decodeSrgb(rgb[1]), decodeSrgb(rgb[2])];
  return xyzToLab(times(REC2020_TO_XYZ, times(SRGB_TO_REC2020, linear)));
}

/** sRGB of a Lab colour; channels outside 0…1 mean that a screen cannot show it. */
export function labToSrgb(lab: Triple): Triple {
  const linear = times(REC2020_TO_SRGB, times(XYZ_TO_REC2020, labToXyz(lab)));
  return [encodeSrgb(linear[0]), encodeSrgb(linear[1]), encodeSrgb(linear[2])];
}

/** A number kept within 0…1. */
export const clip01 = (x: number): number => (x <= 0 ? 0 : x >= 1 ? 1 : x);

/** sRGB (0…1) as #rrggbb. */
export function hexOf(rgb: Triple): string {
  return `#${rgb
    .map((v) =>
      Math.round(clip01(v) * 255)
        .toString(16)
        .padStart(2, '0'),
    )
    .join('')}`;
}

/** `#rgb` or `#rrggbb` (CSS Color 4 §5.2), with or without the sign; null for anything else. */
export function parseHex(text: string): Triple | null {
  const m = /^#?([0-9a-f]{3}|[0-9a-f]{6})$/i.exec(text.trim());
  if (!m) return null;
  const full = m[1].length === 3 ? [...m[1]].map((c) => c + c).join('') : m[1];
  return mapTuple([0, 2, 4] as Triple, (i) => parseInt(full.slice(i, i + 2), 16) / 255);
}
