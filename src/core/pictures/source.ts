import type { PictureSpace } from '../model/pictureSchema';

/** A picture opened: eight bits a channel, rows from the top, samples of a pixel side by side. */
export interface Pixels {
  readonly width: number;
  readonly height: number;
  readonly space: PictureSpace;
  /** gray 1, rgb 3, cmyk 4 samples a pixel; light for gray and rgb, ink for cmyk. */
  readonly data: Uint8Array;
  /** How far each pixel covers, 255 fully; null: all do. */
  readonly alpha: Uint8Array | null;
  /** The profile that the file brings along. */
  readonly icc: Uint8Array | null;
  /** Pixels an inch that the file asks for. */
  readonly ppi: number | null;
}

export const SAMPLES: Readonly<Record<PictureSpace, number>> = { gray: 1, rgb: 3, cmyk: 4 };

/** A picture and the halves, quarters … of it that are looked at from afar; each is made when it is first wanted. */
export class PictureSource {
  private readonly levels: Pixels[];
  constructor(readonly full: Pixels) {
    this.levels = [full];
  }

  /** Level n has a 2ⁿth of the width and height; beyond a single pixel there is none, the last one is given. */
  level(n: number): Pixels {
    while (this.levels.length <= n) {
      const last = this.levels[this.levels.length - 1];
      if (last.width === 1 && last.height === 1) return last;
      this.levels.push(halve(last));
    }
    return this.levels[n];
  }

  /** The smallest level with no fewer pixels than asked for, if there is one. */
  levelWith(pixels: number): Pixels {
    let n = 0;
    for (let size = this.full.width * this.full.height; size / 4 >= pixels; size /= 4) n++;
    return this.level(n);
  }
}

/** Half the width and height: each pixel the mean of the four (fewer at odd edges) it stands for, weighed by their cover. */
export function halve(p: Pixels): Pixels {
  const n = SAMPLES[p.space];
  const width = Math.max(1, p.width >> 1);
  const height = Math.max(1, p.height >> 1);
  const data = new Uint8Array(width * height * n);
  const alpha = p.alpha ? new Uint8Array(width * height) : null;
  for (let y = 0; y < height; y++) {
    const y0 = Math.floor((y * p.height) / height);
    const y1 = Math.max(y0 + 1, Math.floor(((y + 1) * p.height) / height));
    for (let x = 0; x < width; x++) {
      const x0 = Math.floor((x * p.width) / width);
      const x1 = Math.max(x0 + 1, Math.floor(((x + 1) * p.width) / width));
      const at = y * width + x;
      if (!p.alpha && x1 - x0 === 2 && y1 - y0 === 2) {
        const a = (y0 * p.width + x0) * n;
        const b = a + p.width * n;
        for (let k = 0; k < n; k++)
          data[at * n + k] = (p.data[a + k] + p.data[a + n + k] + p.data[b + k] + p.data[b + n + k] + 2) >> 2;
        continue;
      }
      let cover = 0;
      let count = 0;
      const sums = [0, 0, 0, 0];
      for (let sy = y0; sy < y1; sy++)
        for (let sx = x0; sx < x1; sx++) {
          const from = sy * p.width + sx;
          const weight = p.alpha ? p.alpha[from] : 255;
          cover += weight;
          count++;
          for (let k = 0; k < n; k++) sums[k] += p.data[from * n + k] * weight;
        }
      // What covers nowhere still has a colour, for a cover that is made later.
      for (let k = 0; k < n; k++)
        data[at * n + k] = cover ? sums[k] / cover + 0.5 : p.data[(y0 * p.width + x0) * n + k];
      if (alpha) alpha[at] = cover / count + 0.5;
    }
  }
  return { ...p, width, height, data, alpha };
}
