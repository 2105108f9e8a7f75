import { SAMPLES, type Pixels } from '../../pictures/source';

/**
 * The picture as its Exif orientation wants it seen (Exif 2.3: 2 mirrored, 3 upside down, 6 and 8 a quarter turn …).
 */
export function turned(p: Pixels, orientation: number): Pixels {
  if (orientation <= 1 || orientation > 8) return p;
  const swap = orientation >= 5;
  const n = SAMPLES[p.space];
  const [width, height] = swap ? [p.height, p.width] : [p.width, p.height];
  const data = new Uint8Array(p.data.length);
  const alpha = p.alpha && new Uint8Array(p.alpha.length);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      let [sx, sy] = swap ? [y, x] : [x, y];
      if (orientation === 2 || orientation === 3 || orientation === 7 || orientation === 8) sx = p.width - 1 - sx;
      if (orientation === 3 || orientation === 4 || orientation === 6 || orientation === 7) sy = p.height - 1 - sy;
      const from = sy * p.width + sx;
      const to = y * width + x;
      for (let k = 0; k < n; k++) data[to * n + k] = p.data[from * n + k];
      if (alpha) alpha[to] = p.alpha![from];
    }
  return { ...p, width, height, data, alpha };
}
