import type { Env } from '../../env';
import { fromRgba } from './gif';
import { ascii, PictureProblem, view, type PictureFormat } from './types';

type Decode = (bytes: ArrayBuffer) => Promise<{ width: number; height: number; data: Uint8ClampedArray }>;
let decoder: Promise<Decode> | null = null;

async function load(env: Pick<Env, 'asset'>): Promise<Decode> {
  const [{ default: decode, init }, wasm] = await Promise.all([
    import('@jsquash/webp/decode.js'),
    env.asset('wasm/webp_dec.wasm'),
  ]);
  // Its types know only the options; a compiled module is taken as well.
  await init((await WebAssembly.compile(wasm as BufferSource)) as never);
  return decode as unknown as Decode;
}

/** WebP (RFC 9649), lossy and lossless, with alpha. */
export const WEBP: PictureFormat = {
  name: 'WebP',
  ending: 'webp',
  is: (b) => ascii(b, 0, 4) === 'RIFF' && ascii(b, 8, 4) === 'WEBP',
  size(b) {
    if (b.length < 30) return null;
    const v = view(b);
    const u24 = (at: number) => v.getUint16(at, true) | (b[at + 2] << 16);
    switch (ascii(b, 12, 4)) {
      case 'VP8X':
        return { width: u24(24) + 1, height: u24(27) + 1 };
      case 'VP8L': {
        const bits = v.getUint32(21, true);
        return { width: (bits & 0x3fff) + 1, height: ((bits >>> 14) & 0x3fff) + 1 };
      }
      case 'VP8 ':
        return { width: v.getUint16(26, true) & 0x3fff, height: v.getUint16(28, true) & 0x3fff };
      default:
        return null;
    }
  },
  async read(bytes, env) {
    decoder ??= load(env);
    const decode = await decoder.catch((e: unknown) => {
      decoder = null; // tried again with the next picture
      throw e;
    });
    try {
      const { width, height, data } = await decode(bytes.slice().buffer);
      return fromRgba(width, height, data, null);
    } catch (e) {
      throw new PictureProblem(`it is damaged or moving (${e instanceof Error ? e.message : String(e)})`);
    }
  },
};
