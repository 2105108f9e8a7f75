import type { Palette } from '../colour/palette';
import { invert, multiply, scaling, translation, type Matrix } from '../geometry/matrix';
import type { PicturePaint } from '../model/pictureSchema';
import { SAMPLES, type Pixels } from '../pictures/source';
import type { Leaf } from '../scene/scene';
import type { Region } from './coverage';
import { pictureInk, type PictureInk } from './pictureInk';
import { cutSource } from './surround';

export interface PictureSampler {
  readonly ink: PictureInk;
  /** Does it cover fully wherever it is? */
  readonly solid: boolean;
  /** The channels and the cover of the pixels from..to of a row; nothing where the picture is not. */
  row(y: number, from: number, to: number, values: readonly Uint8Array[], cover: Uint8Array): void;
}

/**
 * A picture as a paint over a region. Seen larger than it is, a pixel is a square, as presses print it; seen smaller,
 * it is the mean of what falls together. Null where the file is not at hand or the picture has no extent.
 */
export function pictureSampler(
  item: Leaf,
  paint: PicturePaint,
  palette: Palette,
  region: Region,
): PictureSampler | null {
  const found = palette.pictureSource(paint.picture);
  const back = invert(multiply(item.matrix, paint.geometry));
  if (!found || !back) return null;
  const source = cutSource(found, paint.tone);
  const { width, height } = source;
  const toUnit = multiply(back, multiply(translation(region.x, region.y), scaling(1 / region.scale, 1 / region.scale)));
  // Pixels of the picture that fall on one of the region's.
  const apart = Math.sqrt(Math.abs(toUnit[0] * toUnit[3] - toUnit[1] * toUnit[2]) * width * height);
  const smaller = apart > 1.001;
  const level = source.level(smaller ? Math.max(0, Math.round(Math.log2(apart) - 0.25)) : 0);
  const ink = pictureInk(level, paint.tone, palette);
  const place = multiply(scaling(level.width, level.height), toUnit);
  const fold = paint.tile ? folder(level, paint.tile === 'mirror') : null;
  const lay = smaller ? smooth(level, place, fold) : square(level, place, fold);
  const n = palette.channels.length;
  const out = new Uint8Array(n);
  const samples = new Uint8Array(4 * region.width);
  const { map } = ink;
  return {
    ink,
    solid: paint.tile !== undefined && !level.alpha,
    row(y, from, to, values, cover) {
      lay(y, from, to, samples, cover);
      for (let x = from; x < to; x++) {
        if (cover[x] === 0) continue;
        map(samples, 4 * x, out);
        for (let i = 0; i < n; i++) values[i][x] = out[i];
      }
    },
  };
}

/** Lays the samples of the pixels from..to of a row, four bytes for each, and how far the picture covers them. */
type LayRow = (y: number, from: number, to: number, samples: Uint8Array, cover: Uint8Array) => void;
/** Takes a place beyond the picture back into it. */
type Fold = (p: { x: number; y: number }) => void;

/** The pixel that a place lies in. */
function square({ width, height, data, alpha, space }: Pixels, [a, b, c, d, e, f]: Matrix, fold: Fold | null): LayRow {
  const n = SAMPLES[space];
  const at = { x: 0, y: 0 };
  return (y, from, to, samples, cover) => {
    for (let x = from; x < to; x++) {
      at.x = a * (x + 0.5) + c * (y + 0.5) + e;
      at.y = b * (x + 0.5) + d * (y + 0.5) + f;
      if (fold) fold(at);
      else if (at.x < 0 || at.y < 0 || at.x >= width || at.y >= height) {
        cover[x] = 0;
        continue;
      }
      const i = Math.min(height - 1, at.y | 0) * width + Math.min(width - 1, at.x | 0);
      for (let s = 0; s < n; s++) samples[4 * x + s] = data[i * n + s];
      cover[x] = alpha ? alpha[i] : 255;
    }
  };
}

/** Between the four pixels round a place; their colours weigh by how far they cover. */
function smooth({ width, height, data, alpha, space }: Pixels, [a, b, c, d, e, f]: Matrix, fold: Fold | null): LayRow {
  const n = SAMPLES[space];
  const at = { x: 0, y: 0 };
  return (y, from, to, samples, cover) => {
    for (let x = from; x < to; x++) {
      let u = a * (x + 0.5) + c * (y + 0.5) + e;
      let v = b * (x + 0.5) + d * (y + 0.5) + f;
      if (fold) {
        [at.x, at.y] = [u, v];
        fold(at);
        [u, v] = [at.x, at.y];
      } else if (u < 0 || v < 0 || u >= width || v >= height) {
        cover[x] = 0;
        continue;
      }
      u = Math.min(width - 1, Math.max(0, u - 0.5));
      v = Math.min(height - 1, Math.max(0, v - 0.5));
      const i = Math.min(width - 1, u | 0);
      const j = Math.min(height - 1, v | 0);
      const fx = u - i;
      const fy = v - j;
      const first = j * width + i;
      const down = j < height - 1 ? width : 0;
      let wa = (1 - fx) * (1 - fy);
      let wb = fx * (1 - fy);
      let wc = (1 - fx) * fy;
      let wd = fx * fy;
      const pa = first * n;
      const pb = i < width - 1 ? pa + n : pa;
      const pc = pa + down * n;
      const pd = pb + down * n;
      const to4 = 4 * x;
      if (!alpha) {
        for (let s = 0; s < n; s++)
          samples[to4 + s] = wa * data[pa + s] + wb * data[pb + s] + wc * data[pc + s] + wd * data[pd + s] + 0.5;
        cover[x] = 255;
        continue;
      }
      wa *= alpha[pa / n] / 255;
      wb *= alpha[pb / n] / 255;
      wc *= alpha[pc / n] / 255;
      wd *= alpha[pd / n] / 255;
      const all = wa + wb + wc + wd;
      cover[x] = all * 255 + 0.5;
      if (all > 0)
        for (let s = 0; s < n; s++)
          samples[to4 + s] =
            (wa * data[pa + s] + wb * data[pb + s] + wc * data[pc + s] + wd * data[pd + s]) / all + 0.5;
    }
  };
}

/** Takes a place beyond the picture back into it: over again, or to and fro. */
function folder({ width, height }: Pixels, mirror: boolean): Fold {
  const wrap = (v: number, size: number) => {
    const r = v - Math.floor(v / size) * size;
    return r >= size ? 0 : r; // rounding can leave the size itself
  };
  const bounce = (v: number, size: number) => {
    const r = wrap(v, 2 * size);
    return r < size ? r : Math.max(0, 2 * size - r - 1e-9);
  };
  const one = mirror ? bounce : wrap;
  return (p) => {
    p.x = one(p.x, width);
    p.y = one(p.y, height);
  };
}
