import { encode } from 'fast-png';
import type { Matrix } from '../../geometry/matrix';
import { draw, type PathData } from '../../geometry/path';
import type { Bitmap } from '../../render/bitmap';

/** Numbers, paths, maps and bytes as the text of an SVG. */

/** A number as SVG has it. Throws on what is none. */
export const num = (x: number, digits = 3): string => {
  if (!Number.isFinite(x)) throw new Error(`not a number for an SVG: ${x}`);
  return String(Number(x.toFixed(digits)));
};
/** A map as SVG’s transform. */
export const matrixText = (m: Matrix): string => `matrix(${m.map((v) => num(v, 6)).join(' ')})`;

/** A path as SVG’s path data. */
export function pathText(path: PathData): string {
  let d = '';
  draw(path, {
    moveTo: (x, y) => void (d += `M${num(x)} ${num(y)}`),
    lineTo: (x, y) => void (d += `L${num(x)} ${num(y)}`),
    curveTo: (a, b, c, e, x, y) => void (d += `C${num(a)} ${num(b)} ${num(c)} ${num(e)} ${num(x)} ${num(y)}`),
    close: () => void (d += 'Z'),
  });
  return d;
}

/** Bytes as base64 (RFC 4648). */
export function base64(bytes: Uint8Array): string {
  let text = '';
  for (let i = 0; i < bytes.length; i += 0x8000) text += String.fromCharCode(...bytes.subarray(i, i + 0x8000));
  return btoa(text);
}

/** A picture inside the file, for paints that SVG 1.1 has no words for. */
export const bitmapUri = ({ width, height, data }: Bitmap): string =>
  `data:image/png;base64,${base64(encode({ width, height, data, channels: 4, depth: 8 }))}`;
