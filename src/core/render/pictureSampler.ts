import type { Palette } from '../colour/palette';
import { invert, multiply, scaling, translation } from '../geometry/matrix';
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
 * A picture as a paint over a region. Seen larger than it is, a pixel is a square, as presses print it; seen smaller, it is
 * the mean of what falls together. Null where the file is not at hand or the picture has no extent.
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
  const read = smaller ? smooth(level) : square(level);
  const [a, b, c, d, e, f] = multiply(scaling(level.width, level.height), toUnit);
  const fold = paint.tile ? folder(level, paint.tile === 'mirror') : null;
  const n = palette.channels.length;
  const out = new Uint8Array(n);
  const at = { x: 0, y: 0 };
  return {
    ink,
    solid: paint.tile !== undefined && !level.alpha,
    row(y, from, to, values, cover) {
      for (let x = from; x < to; x++) {
        const u = a * (x + 0.5) + c * (y + 0.5) + e;
        const v = b * (x + 0.5) + d * (y + 0.5) + f;
        at.x = u;
        at.y = v;
        if (fold) fold(at);
        else if (u < 0 || v < 0 || u >= level.width || v >= level.height) {
          cover[x] = 0;
          continue;
        }
        cover[x] = read(at.x, at.y, ink.map, out);
        for (let i = 0; i < n; i++) values[i][x] = out[i];
      }
    },
  };
}

type Read = (u: number, v: number, map: PictureInk['map'], out: Uint8Array) => number;

/** The pixel that a place lies in. */
function square({ width, height, data, alpha, space }: Pixels): Read {
  const n = SAMPLES[space];
  return (u, v, map, out) => {
    const i = Math.min(height - 1, v | 0) * width + Math.min(width - 1, u | 0);
    map(data, i * n, out);
    return alpha ? alpha[i] : 255;
  };
}

/** Between the four pixels round a place; their colours weigh by how far they cover. */
function smooth({ width, height, data, alpha, space }: Pixels): Read {
  const n = SAMPLES[space];
  const mixed = new Uint8Array(4);
  return (u, v, map, out) => {
    const x = Math.min(width - 1, Math.max(0, u - 0.5));
    const y = Math.min(height - 1, Math.max(0, v - 0.5));
    const i = Math.min(width - 1, x | 0);
    const j = Math.min(height - 1, y | 0);
    const fx = x - i;
    const fy = y - j;
    const a = j * width + i;
    const b = i < width - 1 ? a + 1 : a;
    const down = j < height - 1 ? width : 0;
    const c = a + down;
    const d = b + down;
    let wa = (1 - fx) * (1 - fy);
    let wb = fx * (1 - fy);
    let wc = (1 - fx) * fy;
    let wd = fx * fy;
    let cover = 1;
    if (alpha) {
      wa *= alpha[a] / 255;
      wb *= alpha[b] / 255;
      wc *= alpha[c] / 255;
      wd *= alpha[d] / 255;
      cover = wa + wb + wc + wd;
      if (cover <= 0) return 0;
    }
    for (let s = 0; s < n; s++)
      mixed[s] =
        (wa * data[a * n + s] + wb * data[b * n + s] + wc * data[c * n + s] + wd * data[d * n + s]) / cover + 0.5;
    map(mixed, 0, out);
    return cover * 255 + 0.5;
  };
}

/** Takes a place beyond the picture back into it: over again, or to and fro. */
function folder({ width, height }: Pixels, mirror: boolean): (p: { x: number; y: number }) => void {
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
