import { unzlibSync } from 'fflate';
import { PictureProblem, view } from './types';

/** The directory of a picture: numbers by tag. */
export type Directory = ReadonlyMap<number, readonly number[]>;

/** Bytes of one value by type (TIFF 6.0, section 2); types that hold no plain numbers have none. */
const SIZES: readonly number[] = [0, 1, 1, 2, 4, 8, 1, 1, 2, 4, 8];
/** No tag that matters here has more values. */
const MOST_VALUES = 4_000_000;

export interface TiffFile {
  readonly little: boolean;
  readonly directory: Directory;
}

/** The first directory that has a picture's size. */
export function readDirectory(b: Uint8Array): TiffFile {
  const v = view(b);
  const little = b[0] === 0x49;
  const damaged = () => new PictureProblem('it is damaged: there is no picture in it');
  if (b.length < 8) throw damaged();
  const seen = new Set<number>();
  for (let at = v.getUint32(4, little); at && !seen.has(at) && seen.size < 64;) {
    seen.add(at);
    if (at + 2 > b.length) break;
    const entries = v.getUint16(at, little);
    const directory = new Map<number, number[]>();
    for (let i = 0; i < entries; i++) {
      const e = at + 2 + 12 * i;
      if (e + 12 > b.length) break;
      const [tag, type, count] = [v.getUint16(e, little), v.getUint16(e + 2, little), v.getUint32(e + 4, little)];
      const size = SIZES[type];
      if (!size || count > MOST_VALUES) continue;
      const from = count * size <= 4 ? e + 8 : v.getUint32(e + 8, little);
      if (from + count * size > b.length) continue;
      directory.set(
        tag,
        Array.from({ length: count }, (_, k) => {
          const p = from + k * size;
          if (type === 3) return v.getUint16(p, little);
          if (type === 4) return v.getUint32(p, little);
          if (type === 5) return v.getUint32(p, little) / v.getUint32(p + 4, little);
          if (type === 8) return v.getInt16(p, little);
          if (type === 9) return v.getInt32(p, little);
          if (type === 10) return v.getInt32(p, little) / v.getInt32(p + 4, little);
          return b[p];
        }),
      );
    }
    if (directory.has(256) && directory.has(257)) return { little, directory };
    const next = at + 2 + 12 * entries;
    at = next + 4 <= b.length ? v.getUint32(next, little) : 0;
  }
  throw damaged();
}

/** One strip or tile, unpacked to at most `length` bytes (sections 7, 9, 13; deflate by its later notes). */
export function unpackStrip(data: Uint8Array, compression: number, length: number): Uint8Array {
  switch (compression) {
    case 1:
      return data;
    case 5:
      return unpackLzw(data, length);
    case 8:
    case 32946:
      try {
        return unzlibSync(data, { out: new Uint8Array(length) });
      } catch (e) {
        throw new PictureProblem(`it is damaged (${e instanceof Error ? e.message : String(e)})`);
      }
    case 32773:
      return unpackBits(data, length);
    default:
      throw new PictureProblem(
        `it is packed in a way that is not read (kind ${compression}). Save it with LZW, deflate or no compression`,
      );
  }
}

function unpackBits(data: Uint8Array, length: number): Uint8Array {
  const out = new Uint8Array(length);
  for (let i = 0, at = 0; i < data.length && at < length;) {
    const n = (data[i++] << 24) >> 24;
    if (n >= 0) for (let k = 0; k <= n && at < length; k++) out[at++] = data[i++] ?? 0;
    else if (n !== -128) {
      const v = data[i++] ?? 0;
      for (let k = 0; k <= -n && at < length; k++) out[at++] = v;
    }
  }
  return out;
}

/** LZW, most significant bit first, code lengths changing one code early (section 13). */
function unpackLzw(data: Uint8Array, length: number): Uint8Array {
  const out = new Uint8Array(length);
  // Each code's last byte, the code before it, and how long it is.
  const [last, before, long] = [new Uint8Array(4096), new Int16Array(4096), new Uint16Array(4096)];
  for (let i = 0; i < 256; i++) {
    last[i] = i;
    before[i] = -1;
    long[i] = 1;
  }
  let [next, bits, previous, at, held, buffer] = [258, 9, -1, 0, 0, 0];
  for (let i = 0; ;) {
    while (held < bits) {
      if (i >= data.length) return out;
      buffer = ((buffer << 8) | data[i++]) & 0xffffff;
      held += 8;
    }
    const code = (buffer >> (held - bits)) & ((1 << bits) - 1);
    held -= bits;
    if (code === 257 || at >= length) return out;
    if (code === 256) {
      [next, bits, previous] = [258, 9, -1];
      continue;
    }
    if (code > next || (code === next && previous < 0)) return out; // damaged: what came before is kept
    const from = code < next ? code : previous;
    const n = long[from] + (code < next ? 0 : 1);
    let c = from;
    for (let k = long[from] - 1; k >= 0; k--) {
      if (at + k < length) out[at + k] = last[c];
      c = before[c];
    }
    const first = out[at];
    if (code >= next && at + n - 1 < length) out[at + n - 1] = first;
    at += n;
    if (previous >= 0 && next < 4096) {
      last[next] = first;
      before[next] = previous;
      long[next] = long[previous] + 1;
      next++;
      if (next === (1 << bits) - 1 && bits < 12) bits++;
    }
    previous = code;
  }
}
