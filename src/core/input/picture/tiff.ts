import UTIF from 'utif2';
import { SAMPLES, type Pixels } from '../../pictures/source';
import { sanePpi } from './exif';
import { turned } from './turn';
import { PictureProblem, type PictureFormat } from './types';

type Ifd = Record<string, unknown> & { width?: number; height?: number; data?: Uint8Array };
const numbers = (ifd: Ifd, tag: number): number[] => (ifd[`t${tag}`] as number[] | undefined) ?? [];
const first = (ifd: Ifd, tag: number, otherwise: number): number => numbers(ifd, tag)[0] ?? otherwise;

function open(bytes: Uint8Array): { buffer: ArrayBuffer; ifd: Ifd } {
  const buffer = bytes.slice().buffer;
  const ifds = UTIF.decode(buffer) as Ifd[];
  const ifd = ifds.find((i) => numbers(i, 256).length && numbers(i, 257).length);
  if (!ifd) throw new PictureProblem('it is damaged: there is no picture in it');
  return { buffer, ifd };
}

/** TIFF 6.0: grey, RGB, palette and CMYK, 1 to 16 bits, plain, LZW, deflate or packed; the first picture. */
export const TIFF: PictureFormat = {
  name: 'TIFF',
  ending: 'tif',
  is: (b) => (b[0] === 0x49 && b[1] === 0x49 && b[2] === 42 && b[3] === 0) || (b[0] === 0x4d && b[1] === 0x4d && b[2] === 0 && b[3] === 42),
  size(b) {
    try {
      const { ifd } = open(b);
      const turn = first(ifd, 274, 1) >= 5;
      const [w, h] = [first(ifd, 256, 0), first(ifd, 257, 0)];
      return turn ? { width: h, height: w } : { width: w, height: h };
    } catch {
      return null;
    }
  },
  async read(bytes) {
    let ifd: Ifd;
    try {
      const opened = open(bytes);
      ifd = opened.ifd;
      check(ifd, bytes.length);
      UTIF.decodeImage(opened.buffer, ifd as never);
    } catch (e) {
      if (e instanceof PictureProblem) throw e;
      throw new PictureProblem(`it is damaged or of a kind that is not read (${e instanceof Error ? e.message : String(e)})`);
    }
    const unit = first(ifd, 296, 2);
    const resolution = first(ifd, 282, 0);
    const pixels = unpack(ifd, ifd.data!, {
      icc: numbers(ifd, 34675).length ? Uint8Array.from(numbers(ifd, 34675)) : null,
      ppi: sanePpi(unit === 3 ? resolution * 2.54 : unit === 2 ? resolution : null),
    });
    return turned(pixels, first(ifd, 274, 1));
  },
};

const READ: Readonly<Record<number, true>> = { 1: true, 5: true, 8: true, 32773: true, 32946: true };

/** Refuses what cannot be read rightly, before anything large is set aside for it. */
function check(ifd: Ifd, size: number): void {
  const compression = first(ifd, 259, 1);
  if (!READ[compression]) throw new PictureProblem(`it is packed in a way that is not read (kind ${compression}). Save it with LZW, deflate or no compression`);
  const [bits, photometric, planes] = [first(ifd, 258, 1), first(ifd, 262, 1), first(ifd, 284, 1)];
  if (![1, 2, 4, 8, 16].includes(bits)) throw new PictureProblem(`it has ${bits} bits a channel; up to 16 can be read`);
  if (first(ifd, 339, 1) === 3) throw new PictureProblem('its values are floating-point numbers; whole numbers can be read');
  if (![0, 1, 2, 3, 5].includes(photometric)) throw new PictureProblem('its colours are of a kind that is not read; grey, RGB, palette and CMYK are');
  if (planes === 2 && first(ifd, 277, 1) > 1) throw new PictureProblem('its channels lie one after the other; save it with interleaved channels');
  if (compression === 1 && first(ifd, 256, 0) * first(ifd, 257, 0) * first(ifd, 277, 1) * bits > size * 8 + 8) throw new PictureProblem('it is cut off: its end is missing');
}

function unpack(ifd: Ifd, raw: Uint8Array, facts: Pick<Pixels, 'icc' | 'ppi'>): Pixels {
  const [width, height] = [first(ifd, 256, 0), first(ifd, 257, 0)];
  const [bits, photometric, samples] = [first(ifd, 258, 1), first(ifd, 262, 1), first(ifd, 277, 1)];
  const space = photometric === 5 ? 'cmyk' : photometric === 2 || photometric === 3 ? 'rgb' : 'gray';
  const n = photometric === 3 ? 1 : SAMPLES[space];
  if (samples < n) throw new PictureProblem(`it is damaged: ${samples} channels cannot be ${space.toUpperCase()}`);
  const rowBytes = Math.ceil((width * samples * bits) / 8);
  if (raw.length < rowBytes * height) throw new PictureProblem('it is cut off: its end is missing');
  const little = (ifd as { isLE?: boolean }).isLE === true;
  const max = 2 ** bits - 1;
  const value = (y: number, i: number): number => {
    if (bits === 8) return raw[y * rowBytes + i];
    if (bits === 16) return little ? raw[y * rowBytes + 2 * i] | (raw[y * rowBytes + 2 * i + 1] << 8) : (raw[y * rowBytes + 2 * i] << 8) | raw[y * rowBytes + 2 * i + 1];
    const bit = i * bits;
    return (raw[y * rowBytes + (bit >> 3)] >> (8 - bits - (bit & 7))) & max;
  };
  const map = numbers(ifd, 320);
  const data = new Uint8Array(width * height * SAMPLES[space]);
  const extra = first(ifd, 338, 0);
  const alpha = samples > n && (extra === 1 || extra === 2) ? new Uint8Array(width * height) : null;
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const at = y * width + x;
      const cover = alpha ? (value(y, x * samples + n) * 255) / max : 255;
      if (alpha) alpha[at] = cover + 0.5;
      if (photometric === 3) {
        const v = value(y, x * samples);
        for (let k = 0; k < 3; k++) data[at * 3 + k] = (map[k * (max + 1) + v] ?? 0) >> 8;
        continue;
      }
      for (let k = 0; k < n; k++) {
        let v = (value(y, x * samples + k) * 255) / max;
        // Associated alpha: the colours were multiplied by it.
        if (alpha && extra === 1 && cover > 0) v = Math.min(255, (v * 255) / cover);
        data[at * n + k] = (photometric === 0 ? 255 - v : v) + 0.5;
      }
    }
  return { ...facts, width, height, space, data, alpha };
}
