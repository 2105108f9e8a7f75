import type { WebPModule as WebpModule } from '@jsquash/webp/codec/dec/webp_dec.js';
import type { Env } from '../../env';
import { fromRgba } from './gif';
import { ascii, PictureProblem, view, type PictureFormat } from './types';

/** Its decoder, once it is there. */
let decoder: Promise<WebpModule> | null = null;

async function load(env: Pick<Env, 'asset'>): Promise<WebpModule> {
  const [{ default: make }, { initEmscriptenModule }, wasm] = await Promise.all([
    import('@jsquash/webp/codec/dec/webp_dec.js'),
    import('@jsquash/webp/utils.js'),
    env.asset('wasm/webp_dec.wasm'),
  ]);
  return initEmscriptenModule(make, await WebAssembly.compile(wasm as BufferSource));
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
  async opener(_, env) {
    decoder ??= load(env);
    const engine = await decoder.catch((e: unknown) => {
      decoder = null; // tried again with the next picture
      throw e;
    });
    return (bytes) => {
      try {
        const image = engine.decode(bytes.slice().buffer);
        if (!image) throw new Error('there is no picture in it');
        return fromRgba(image.width, image.height, image.data, null);
      } catch (e) {
        throw new PictureProblem(`it is damaged or moving (${e instanceof Error ? e.message : String(e)})`);
      }
    };
  },
};
