import type { PDFObject } from '@cantoo/pdf-lib';
import type { Objects } from './objects';

/**
 * The largest value of each colour of a mesh of triangles (ISO 32000-1 8.7.4.5.5–6), whose numbers stand on whole
 * bytes; null for others.
 */
export function meshReach(o: Objects, shading: PDFObject | undefined, components: number): number[] | null {
  const kind = o.number(o.get(shading, 'ShadingType'));
  const place = o.number(o.get(shading, 'BitsPerCoordinate'));
  const depth = o.number(o.get(shading, 'BitsPerComponent'));
  const decode = o.numbers(o.get(shading, 'Decode'));
  if ((kind !== 4 && kind !== 5) || !place || place % 8 || (depth !== 8 && depth !== 16)) return null;
  const flag = kind === 4 ? (o.number(o.get(shading, 'BitsPerFlag')) ?? 8) : 0;
  if (flag % 8) return null;
  const data = o.data(shading);
  const [skip, step] = [(flag + 2 * place) / 8, depth / 8];
  const size = skip + components * step;
  const most = Array.from({ length: components }, () => 0);
  for (let at = 0; at + size <= data.length; at += size)
    for (let k = 0; k < components; k++) {
      const i = at + skip + k * step;
      const v = step === 1 ? data[i] / 255 : (data[i] * 256 + data[i + 1]) / 65535;
      const [low, high] = [decode[4 + 2 * k] ?? 0, decode[5 + 2 * k] ?? 1];
      most[k] = Math.max(most[k], low + v * (high - low));
    }
  return most;
}
