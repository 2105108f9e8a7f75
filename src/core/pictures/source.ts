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

/** A picture seen this small, or smaller, is kept for as long as the picture is. */
const SMALL = 100_000;

/**
 * A picture and the halves, quarters … of it that are looked at from afar; each is made when it is first wanted. Where
 * it can be opened again, its large levels are let go of when others need the room.
 */
export class PictureSource {
  private readonly levels: (Pixels | undefined)[];
  readonly width: number;
  readonly height: number;
  readonly space: PictureSpace;

  /**
   * `again`: how it is opened once more, the very same; `room`: where its large levels are kept, with those of others.
   */
  constructor(
    first: Pixels,
    private readonly again: (() => Pixels) | null = null,
    private readonly room: PixelRoom | null = null,
  ) {
    this.levels = [first];
    ({ width: this.width, height: this.height, space: this.space } = first);
    this.take(0);
  }

  /** As it is. */
  get full(): Pixels {
    return this.level(0);
  }

  /** Level n has a 2ⁿth of the width and height; beyond a single pixel there is none, the last one is given. */
  level(n: number): Pixels {
    const wanted = Math.min(n, Math.floor(Math.log2(Math.max(this.width, this.height))));
    this.make(wanted);
    this.take(wanted);
    return this.levels[wanted]!;
  }

  /** The smallest level with no fewer pixels than asked for, if there is one. */
  levelWith(pixels: number): Pixels {
    let n = 0;
    for (let size = this.width * this.height; size / 4 >= pixels; size /= 4) n++;
    return this.level(n);
  }

  /** Another picture made from this one, which can be made once more. */
  derived(make: (full: Pixels) => Pixels): PictureSource {
    return new PictureSource(make(this.full), () => make(this.full), this.room);
  }

  /** It is not looked at any more. */
  close(): void {
    for (const level of this.levels) if (level) this.room?.forget(level);
  }

  private make(wanted: number): void {
    let from = wanted;
    while (from >= 0 && !this.levels[from]) from--;
    if (from < 0) {
      this.levels[0] = this.again!();
      this.take((from = 0));
    }
    for (; from < wanted; from++) {
      this.levels[from + 1] = halve(this.levels[from]!);
      this.take(from + 1);
    }
  }

  /** Says that a level has been used. */
  private take(n: number): void {
    if (!this.room || !this.again) return;
    const { width, height, data, alpha } = this.levels[n]!;
    if (width * height > SMALL) this.room.use(this.levels[n]!, data.length + (alpha?.length ?? 0), () => this.letGo(n));
  }

  private letGo(n: number): void {
    const level = this.levels[n]!;
    this.levels[n] = undefined;
    if (this.levels.some((l) => l)) return;
    // What is seen from afar stays.
    let small = level;
    let at = n;
    for (; small.width * small.height > SMALL; at++) small = halve(small);
    this.levels[at] = small;
  }
}

/** Room for the pixels of many pictures: when it is full, what was not used for the longest time is let go of. */
export class PixelRoom {
  private readonly held = new Map<Pixels, { readonly bytes: number; readonly letGo: () => void }>();
  private bytes = 0;

  /** `most`: bytes; what is used now is kept even if it alone is more. */
  constructor(private readonly most: number) {}

  use(pixels: Pixels, bytes: number, letGo: () => void): void {
    if (!this.held.delete(pixels)) this.bytes += bytes;
    this.held.set(pixels, { bytes, letGo });
    for (const [oldest, held] of this.held) {
      if (this.bytes <= this.most || oldest === pixels) break;
      this.forget(oldest);
      held.letGo();
    }
  }

  /** Its picture is gone. */
  forget(pixels: Pixels): void {
    this.bytes -= this.held.get(pixels)?.bytes ?? 0;
    this.held.delete(pixels);
  }
}

/**
 * Half the width and height: each pixel the mean of the four (fewer at odd edges) it stands for, weighed by their
 * cover.
 */
export function halve(p: Pixels): Pixels {
  const n = SAMPLES[p.space];
  const width = Math.max(1, p.width >> 1);
  const height = Math.max(1, p.height >> 1);
  const data = new Uint8Array(width * height * n);
  const alpha = p.alpha ? new Uint8Array(width * height) : null;
  if (!p.alpha && p.width === 2 * width && p.height === 2 * height) {
    for (let k = 0; k < n; k++) meanOfFour(p.data, data, width, height, n, k);
    return { ...p, width, height, data, alpha };
  }
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

/** Of one channel of `n`: each value of `out` is the mean of the four of `full` that lie there. */
function meanOfFour(full: Uint8Array, out: Uint8Array, width: number, height: number, n: number, k: number): void {
  const row = 2 * width * n;
  for (let y = 0; y < height; y++) {
    let above = 2 * y * row + k;
    let at = y * width * n + k;
    for (let x = 0; x < width; x++, above += 2 * n, at += n)
      out[at] = (full[above] + full[above + n] + full[above + row] + full[above + row + n] + 2) >> 2;
  }
}
