import { SAMPLES, type Pixels } from '../../pictures/source';
import { sanePpi } from './exif';
import { readDirectory, unpackStrip, type Directory } from './tiffData';
import { turned } from './turn';
import { PictureProblem, plausible, type PictureFormat } from './types';

const first = (d: Directory, tag: number, otherwise: number): number => d.get(tag)?.[0] ?? otherwise;

/**
 * TIFF 6.0: grey, RGB, palette and CMYK, 1 to 16 bits, plain, LZW, deflate or packed, in strips or tiles; the first
 * picture.
 */
export const TIFF: PictureFormat = {
  name: 'TIFF',
  ending: 'tif',
  is: (b) =>
    (b[0] === 0x49 && b[1] === 0x49 && b[2] === 42 && b[3] === 0) ||
    (b[0] === 0x4d && b[1] === 0x4d && b[2] === 0 && b[3] === 42),
  size(b) {
    const { directory: d } = readDirectory(b);
    const [width, height] = [first(d, 256, 0), first(d, 257, 0)];
    return first(d, 274, 1) >= 5 ? { width: height, height: width } : { width, height };
  },
  opener: async () => decodeTiff,
};

function decodeTiff(bytes: Uint8Array): Pixels {
  const { directory: d, little } = readDirectory(bytes);
  const [width, height] = [first(d, 256, 0), first(d, 257, 0)];
  const [bits, photometric, samples] = [first(d, 258, 1), first(d, 262, 1), first(d, 277, 1)];
  if (![1, 2, 4, 8, 16].includes(bits)) throw new PictureProblem(`it has ${bits} bits a channel; up to 16 can be read`);
  if (first(d, 339, 1) === 3)
    throw new PictureProblem('its values are floating-point numbers; whole numbers can be read');
  if (![0, 1, 2, 3, 5].includes(photometric))
    throw new PictureProblem('its colours are of a kind that is not read; grey, RGB, palette and CMYK are');
  const space = photometric === 5 ? 'cmyk' : photometric === 2 || photometric === 3 ? 'rgb' : 'gray';
  const own = photometric === 3 ? 1 : SAMPLES[space];
  if (samples < own || samples > 16)
    throw new PictureProblem(`it is damaged: ${samples} channels cannot be ${space.toUpperCase()}`);
  if (samples > 1 && first(d, 284, 1) === 2)
    throw new PictureProblem('its channels lie one after the other; save it with interleaved channels');
  const values = readSamples(bytes, d, little, width, height, samples, bits);
  const unit = first(d, 296, 2);
  const resolution = first(d, 282, 0);
  const icc = d.get(34675);
  const extra = first(d, 338, 0);
  const made = unpack(
    values,
    {
      width,
      height,
      space,
      icc: icc?.length ? Uint8Array.from(icc) : null,
      ppi: sanePpi(unit === 3 ? resolution * 2.54 : unit === 2 ? resolution : null),
    },
    { bits, photometric, samples, own, extra, map: d.get(320) ?? [] },
  );
  return turned(made, first(d, 274, 1));
}

/** All samples, row by row, side by side; of sixteen bits the upper eight and the lower are put together. */
function readSamples(
  bytes: Uint8Array,
  d: Directory,
  little: boolean,
  width: number,
  height: number,
  samples: number,
  bits: number,
): Uint8Array | Uint16Array {
  const tiled = d.has(322);
  const [w, h] = tiled ? [first(d, 322, 0), first(d, 323, 0)] : [width, Math.min(height, first(d, 278, height))];
  if (!(w > 0) || !(h > 0) || w > 65_536 || w * h * samples > 500_000_000)
    throw new PictureProblem('it is damaged: the size of its parts cannot be right');
  const offsets = d.get(tiled ? 324 : 273) ?? [];
  const counts = d.get(tiled ? 325 : 279) ?? [];
  const across = Math.ceil(width / w);
  if (offsets.length < across * Math.ceil(height / h))
    throw new PictureProblem('it is cut off: parts of it are missing');
  const compression = first(d, 259, 1);
  const predictor = first(d, 317, 1);
  if (predictor !== 1 && predictor !== 2)
    throw new PictureProblem(`it is packed in a way that is not read (predictor ${predictor})`);
  const out = bits === 16 ? new Uint16Array(width * height * samples) : new Uint8Array(width * height * samples);
  const rowBytes = Math.ceil((w * samples * bits) / 8);
  const mask = 2 ** bits - 1;
  const row = new Uint16Array(w * samples);
  for (let part = 0; part < across * Math.ceil(height / h); part++) {
    const [x0, y0] = [(part % across) * w, Math.floor(part / across) * h];
    const rows = tiled ? h : Math.min(h, height - y0);
    const from = offsets[part];
    const to = Math.min(bytes.length, from + (counts[part] ?? bytes.length));
    if (from >= to) throw new PictureProblem('it is cut off: its end is missing');
    // Neither LZW nor deflate nor packed bits come near that.
    plausible(to - from, rowBytes * rows, compression === 1 ? 1 : 3000);
    const raw = unpackStrip(bytes.subarray(from, to), compression, rowBytes * rows);
    if (raw.length < rowBytes * rows) throw new PictureProblem('it is cut off: its end is missing');
    for (let y = 0; y < rows && y0 + y < height; y++) {
      const base = y * rowBytes;
      for (let i = 0; i < w * samples; i++) {
        if (bits === 8) row[i] = raw[base + i];
        else if (bits === 16)
          row[i] = little
            ? raw[base + 2 * i] | (raw[base + 2 * i + 1] << 8)
            : (raw[base + 2 * i] << 8) | raw[base + 2 * i + 1];
        else row[i] = (raw[base + ((i * bits) >> 3)] >> (8 - bits - ((i * bits) & 7))) & mask;
        // Each sample as what it is more than the one before it (section 14).
        if (predictor === 2 && i >= samples) row[i] = (row[i] + row[i - samples]) & mask;
      }
      const count = Math.min(w, width - x0) * samples;
      out.set(row.subarray(0, count), ((y0 + y) * width + x0) * samples);
    }
  }
  return out;
}

interface Layout {
  readonly bits: number;
  readonly photometric: number;
  readonly samples: number;
  /** Samples that are colour; what follows is cover or of no matter. */
  readonly own: number;
  readonly extra: number;
  readonly map: readonly number[];
}

function unpack(
  values: Uint8Array | Uint16Array,
  facts: Omit<Pixels, 'data' | 'alpha'>,
  { bits, photometric, samples, own, extra, map }: Layout,
): Pixels {
  const { width, height, space } = facts;
  const max = 2 ** bits - 1;
  const colours = SAMPLES[space];
  const data = new Uint8Array(width * height * colours);
  const alpha = samples > own && (extra === 1 || extra === 2) ? new Uint8Array(width * height) : null;
  for (let i = 0; i < width * height; i++) {
    const cover = alpha ? (values[i * samples + own] * 255) / max : 255;
    if (alpha) alpha[i] = cover + 0.5;
    if (photometric === 3) {
      for (let k = 0; k < 3; k++) data[i * 3 + k] = (map[k * (max + 1) + values[i * samples]] ?? 0) >> 8;
      continue;
    }
    for (let k = 0; k < own; k++) {
      let v = (values[i * samples + k] * 255) / max;
      // Associated alpha: the colours were multiplied by it.
      if (alpha && extra === 1 && cover > 0) v = Math.min(255, (v * 255) / cover);
      data[i * own + k] = (photometric === 0 ? 255 - v : v) + 0.5;
    }
  }
  return { ...facts, data, alpha };
}
