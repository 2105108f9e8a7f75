import { mapTuple } from '../units/tuple';
import { clip01, decodeSrgb, encodeSrgb, times, type Triple } from './spaces';

type Matrix3 = readonly [Triple, Triple, Triple];

/**
 * How a picture is seen by others. Matrices for linear sRGB at full severity: Machado, Oliveira, Fernandes 2009, table
 * of severity 1.0; grey by the luminance of WCAG 2.2.
 */
export const VISIONS = [
  { id: 'all', name: 'Everyone', says: 'as it is', matrix: null },
  {
    id: 'protan',
    name: 'Without red',
    says: 'protanopia, about 1 man in 100',
    matrix: [
      [0.152286, 1.052583, -0.204868],
      [0.114503, 0.786281, 0.099216],
      [-0.003882, -0.048116, 1.051998],
    ],
  },
  {
    id: 'deutan',
    name: 'Without green',
    says: 'deuteranopia, about 1 man in 100',
    matrix: [
      [0.367322, 0.860646, -0.227968],
      [0.280085, 0.672501, 0.047413],
      [-0.01182, 0.04294, 0.968881],
    ],
  },
  {
    id: 'tritan',
    name: 'Without blue',
    says: 'tritanopia, rare',
    matrix: [
      [1.255528, -0.076749, -0.178779],
      [-0.078411, 0.930809, 0.147602],
      [0.004733, 0.691367, 0.3039],
    ],
  },
  {
    id: 'grey',
    name: 'Grey copy',
    says: 'as a photocopier sees it',
    matrix: [
      [0.2126, 0.7152, 0.0722],
      [0.2126, 0.7152, 0.0722],
      [0.2126, 0.7152, 0.0722],
    ],
  },
] as const satisfies readonly { id: string; name: string; says: string; matrix: Matrix3 | null }[];
export type VisionId = (typeof VISIONS)[number]['id'];

/** An sRGB colour as it is seen. */
export function seenBy(id: VisionId, rgb: Triple): Triple {
  const matrix: Matrix3 | null = VISIONS.find((v) => v.id === id)?.matrix ?? null;
  return matrix ? mapTuple(times(matrix, mapTuple(rgb, decodeSrgb)), (v) => encodeSrgb(clip01(v))) : rgb;
}

/** The same as the values of an SVG `feColorMatrix` in linearRGB. */
export function filterMatrix(id: VisionId): string | null {
  const matrix: Matrix3 | null = VISIONS.find((v) => v.id === id)?.matrix ?? null;
  return matrix ? `${matrix.map((row) => `${row.join(' ')} 0 0`).join(' ')} 0 0 0 1 0` : null;
}
