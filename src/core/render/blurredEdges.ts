/** Levels within which two pixels are of one flat colour. */
const FLAT = 3;
/** Sum of differences from which a pixel is neither of the colours beside it. */
const OTHER = 12;
const WAYS = [
  [1, 0],
  [0, 1],
  [1, 1],
  [1, -1],
] as const;

/**
 * Makes the smoothed pixels at the edges of flat areas clear, in place: they are mixtures of what lies on both sides,
 * and colours of nothing. Pixels of pictures and gradients, whose neighbours are not flat, stay. RGBA.
 */
export function clearBlurredEdges(pixels: Uint8ClampedArray, width: number, height: number): void {
  const mixed: number[] = [];
  const same = (i: number, j: number) =>
    Math.abs(pixels[i] - pixels[j]) <= FLAT &&
    Math.abs(pixels[i + 1] - pixels[j + 1]) <= FLAT &&
    Math.abs(pixels[i + 2] - pixels[j + 2]) <= FLAT;
  const away = (i: number, j: number) =>
    Math.abs(pixels[i] - pixels[j]) +
      Math.abs(pixels[i + 1] - pixels[j + 1]) +
      Math.abs(pixels[i + 2] - pixels[j + 2]) >=
    OTHER;
  const between = (i: number, a: number, b: number) => {
    for (let c = 0; c < 3; c++) {
      const [p, q, r] = [pixels[i + c], pixels[a + c], pixels[b + c]];
      if (p < Math.min(q, r) - FLAT || p > Math.max(q, r) + FLAT) return false;
    }
    return true;
  };
  /** A flat place one or two pixels from here; slanted edges are smoothed over two. */
  const flatAt = (x: number, y: number, dx: number, dy: number): number => {
    for (let k = 1; k <= 2; k++) {
      const [fx, fy] = [x + (k + 1) * dx, y + (k + 1) * dy];
      if (fx < 0 || fy < 0 || fx >= width || fy >= height) return -1;
      const near = 4 * ((y + k * dy) * width + x + k * dx);
      if (same(near, 4 * (fy * width + fx))) return near;
    }
    return -1;
  };
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const i = 4 * (y * width + x);
      // Most pixels lie in areas: their neighbour to the right and below is the same.
      if (x + 1 < width && y + 1 < height && same(i, i + 4) && same(i, i + 4 * width)) continue;
      for (const [dx, dy] of WAYS) {
        const a = flatAt(x, y, dx, dy);
        const b = a < 0 ? -1 : flatAt(x, y, -dx, -dy);
        if (b < 0 || !away(i, a) || !away(i, b) || !between(i, a, b)) continue;
        mixed.push(i);
        break;
      }
    }
  for (const i of mixed) pixels[i + 3] = 0;
}
