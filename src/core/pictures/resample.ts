import { SAMPLES, type Pixels } from './source';

/**
 * A picture with fewer pixels: each is the mean of the area that it stands for, weighed by its cover. Never more than
 * it has.
 */
export function resampled(p: Pixels, wanted: number): Pixels {
  const width = Math.max(1, Math.min(p.width, Math.round(wanted)));
  const height = Math.max(1, Math.min(p.height, Math.round((p.height * width) / p.width)));
  if (width === p.width && height === p.height) return p;
  const n = SAMPLES[p.space];
  const [across, down] = [shares(p.width, width), shares(p.height, height)];
  const data = new Uint8Array(width * height * n);
  const alpha = p.alpha ? new Uint8Array(width * height) : null;
  const sums = new Float64Array(n);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      sums.fill(0);
      let [cover, area] = [0, 0];
      for (const [sy, wy] of down[y])
        for (const [sx, wx] of across[x]) {
          const from = sy * p.width + sx;
          const weight = wx * wy;
          const covered = weight * (p.alpha ? p.alpha[from] / 255 : 1);
          area += weight;
          cover += covered;
          for (let k = 0; k < n; k++) sums[k] += p.data[from * n + k] * covered;
        }
      const at = y * width + x;
      const [[sy], [sx]] = [down[y][0], across[x][0]];
      // What covers nowhere still has a colour.
      for (let k = 0; k < n; k++)
        data[at * n + k] = cover > 0 ? sums[k] / cover + 0.5 : p.data[(sy * p.width + sx) * n + k];
      if (alpha) alpha[at] = (cover / area) * 255 + 0.5;
    }
  return { ...p, width, height, data, alpha };
}

/** Of each of `to` pixels in a row of `from`: which it takes, and how much of each. */
function shares(from: number, to: number): (readonly [at: number, weight: number])[][] {
  const by = from / to;
  return Array.from({ length: to }, (_, i) => {
    const [start, end] = [i * by, (i + 1) * by];
    const row: (readonly [number, number])[] = [];
    for (let at = Math.floor(start); at < Math.min(from, Math.ceil(end - 1e-9)); at++)
      row.push([at, Math.min(at + 1, end) - Math.max(at, start)]);
    return row;
  });
}
