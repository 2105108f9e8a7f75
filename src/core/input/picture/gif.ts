import { ascii, PictureProblem, view, type PictureFormat } from './types';

/** GIF (version 89a of its specification): the first of its pictures, on its whole canvas. */
export const GIF: PictureFormat = {
  name: 'GIF',
  ending: 'gif',
  is: (b) => /^GIF8[79]a$/.test(ascii(b, 0, 6)),
  size: (b) => (b.length < 10 ? null : { width: view(b).getUint16(6, true), height: view(b).getUint16(8, true) }),
  async opener(bytes) {
    const { width, height } = this.size(bytes)!;
    return (b) => fromRgba(width, height, firstPicture(b, width, height), null);
  },
};

const damaged = (): PictureProblem => new PictureProblem('it is damaged: its first picture cannot be found');

function firstPicture(b: Uint8Array, width: number, height: number): Uint8Array {
  const v = view(b);
  let at = 13;
  let common: Uint8Array | null = null;
  if (b[10] & 0x80) {
    common = b.subarray(at, at + 3 * 2 ** ((b[10] & 7) + 1));
    at += 3 * 2 ** ((b[10] & 7) + 1);
  }
  let clear = -1;
  while (at < b.length) {
    const kind = b[at++];
    if (kind === 0x21) {
      // An extension: a graphic control says which colour is clear.
      if (b[at] === 0xf9 && b[at + 1] === 4 && b[at + 2] & 1) clear = b[at + 5];
      at = afterBlocks(b, at + 1);
    } else if (kind === 0x2c) {
      if (at + 9 > b.length) throw damaged();
      const [x, y, w, h] = [
        v.getUint16(at, true),
        v.getUint16(at + 2, true),
        v.getUint16(at + 4, true),
        v.getUint16(at + 6, true),
      ];
      const flags = b[at + 8];
      at += 9;
      if (!w || !h || x + w > width || y + h > height) throw damaged();
      let palette = common;
      if (flags & 0x80) {
        palette = b.subarray(at, at + 3 * 2 ** ((flags & 7) + 1));
        at += 3 * 2 ** ((flags & 7) + 1);
      }
      if (!palette?.length || at >= b.length) throw damaged();
      const indexes = unpackLzw(joined(b, at + 1), b[at], w * h);
      const out = new Uint8Array(width * height * 4);
      for (let i = 0; i < w * h; i++) {
        const row = Math.floor(i / w);
        const to = 4 * ((y + (flags & 0x40 ? interlaced(row, h) : row)) * width + x + (i % w));
        const c = indexes[i];
        if (c === clear) continue;
        out.set(palette.subarray(3 * c, 3 * c + 3), to);
        out[to + 3] = 255;
      }
      return out;
    } else throw damaged();
  }
  throw damaged();
}

/** Where a row of an interlaced picture belongs: every eighth, then those between, by halves. */
function interlaced(row: number, height: number): number {
  let n = row;
  for (const [first, step] of [
    [0, 8],
    [4, 8],
    [2, 4],
    [1, 2],
  ]) {
    const rows = Math.max(0, Math.ceil((height - first) / step));
    if (n < rows) return first + n * step;
    n -= rows;
  }
  return height - 1;
}

function afterBlocks(b: Uint8Array, from: number): number {
  let at = from;
  while (at < b.length && b[at]) at += b[at] + 1;
  return at + 1;
}

/** The blocks of data from a place on, as one. */
function joined(b: Uint8Array, from: number): Uint8Array {
  const out: number[] = [];
  for (let at = from; at < b.length && b[at]; at += b[at] + 1)
    for (const v of b.subarray(at + 1, at + 1 + b[at])) out.push(v);
  return Uint8Array.from(out);
}

/** LZW, least significant bit first; what is damaged ends there, the rest stays colour 0. */
function unpackLzw(data: Uint8Array, least: number, length: number): Uint8Array {
  if (least < 1 || least > 11) throw damaged();
  const out = new Uint8Array(length);
  const [last, before, long] = [new Uint8Array(4096), new Int16Array(4096), new Uint16Array(4096)];
  const clear = 1 << least;
  for (let i = 0; i < clear; i++) {
    last[i] = i;
    long[i] = 1;
    before[i] = -1;
  }
  let [next, bits, previous, at, held, buffer] = [clear + 2, least + 1, -1, 0, 0, 0];
  for (let i = 0; at < length;) {
    while (held < bits) {
      if (i >= data.length) return out;
      buffer |= data[i++] << held;
      held += 8;
    }
    const code = buffer & ((1 << bits) - 1);
    buffer >>>= bits;
    held -= bits;
    if (code === clear) {
      [next, bits, previous] = [clear + 2, least + 1, -1];
      continue;
    }
    if (code === clear + 1 || code > next || (code === next && previous < 0)) return out;
    const known = code < next;
    const from = known ? code : previous;
    let c = from;
    for (let k = long[from] - 1; k >= 0; k--) {
      if (at + k < length) out[at + k] = last[c];
      c = before[c];
    }
    const first = out[at];
    if (!known && at + long[from] < length) out[at + long[from]] = first;
    at += long[from] + (known ? 0 : 1);
    if (previous >= 0 && next < 4096) {
      last[next] = first;
      before[next] = previous;
      long[next] = long[previous] + 1;
      next++;
      if (next === 1 << bits && bits < 12) bits++;
    }
    previous = code;
  }
  return out;
}

/** Pixels of red, green, blue and cover; where all cover fully, none is kept. */
export function fromRgba(width: number, height: number, rgba: ArrayLike<number>, ppi: number | null) {
  const pixels = width * height;
  const data = new Uint8Array(pixels * 3);
  const alpha = new Uint8Array(pixels);
  let solid = true;
  for (let i = 0; i < pixels; i++) {
    data[3 * i] = rgba[4 * i];
    data[3 * i + 1] = rgba[4 * i + 1];
    data[3 * i + 2] = rgba[4 * i + 2];
    alpha[i] = rgba[4 * i + 3];
    if (alpha[i] !== 255) solid = false;
  }
  return { width, height, space: 'rgb' as const, data, alpha: solid ? null : alpha, icc: null, ppi };
}
