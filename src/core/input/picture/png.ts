import { decode } from 'fast-png';
import type { Pixels } from '../../pictures/source';
import { sanePpi } from './exif';
import { PictureProblem, plausible, view, type PictureFormat } from './types';

const SIGNATURE = [0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a];

/** PNG (ISO 15948): 1 to 16 bits, grey, RGB or palette, alpha and transparent colours. */
export const PNG: PictureFormat = {
  name: 'PNG',
  ending: 'png',
  is: (b) => SIGNATURE.every((v, i) => b[i] === v),
  size: (b) => (b.length < 24 ? null : { width: view(b).getUint32(16), height: view(b).getUint32(20) }),
  opener: async () => decodePng,
};

function decodePng(bytes: Uint8Array): Pixels {
  // Deflate packs no more than 1032 to 1 (zlib's technical notes).
  const bits = bytes[24] * ([1, 1, 3, 1, 2, 1, 4][bytes[25]] ?? 4);
  const size = PNG.size(bytes)!;
  plausible(bytes.length, (size.width * bits * size.height) / 8, 1040);
  let png;
  try {
    png = decode(bytes);
  } catch (e) {
    throw new PictureProblem(`it is damaged (${e instanceof Error ? e.message : String(e)})`);
  }
  const { width, height, depth, channels } = png;
  const pixels = width * height;
  const facts = {
    width,
    height,
    icc: png.iccEmbeddedProfile?.profile ?? null,
    ppi: sanePpi(png.resolution?.unit === 1 ? png.resolution.x * 0.0254 : null),
  };
  if (png.palette) return fromPalette(png.data as Uint8Array, depth, png.palette, facts);
  const value = sampleReader(png.data, depth, width * channels);
  const colours = channels >= 3 ? 3 : 1;
  const data = new Uint8Array(pixels * colours);
  const clear = png.transparency;
  const alpha = channels === 2 || channels === 4 || clear ? new Uint8Array(pixels).fill(255) : null;
  const max = 2 ** depth - 1;
  for (let i = 0; i < pixels; i++) {
    let same = clear !== undefined;
    for (let k = 0; k < colours; k++) {
      const v = value(i * channels + k);
      data[i * colours + k] = (v * 255) / max + 0.5;
      if (same && v !== clear![k]) same = false;
    }
    if (channels === 2 || channels === 4) alpha![i] = (value(i * channels + channels - 1) * 255) / max + 0.5;
    else if (same) alpha![i] = 0;
  }
  return { ...facts, space: colours === 3 ? 'rgb' : 'gray', data, alpha };
}

/** Reads one sample. Under eight bits samples are packed, and rows begin on whole bytes. */
function sampleReader(data: ArrayLike<number>, depth: number, rowSamples: number): (i: number) => number {
  if (depth >= 8) return (i) => data[i];
  const rowBytes = Math.ceil((rowSamples * depth) / 8);
  const mask = 2 ** depth - 1;
  return (i) => {
    const row = Math.floor(i / rowSamples);
    const bit = (i - row * rowSamples) * depth;
    return (data[row * rowBytes + (bit >> 3)] >> (8 - depth - (bit & 7))) & mask;
  };
}

function fromPalette(
  data: Uint8Array,
  depth: number,
  palette: readonly (readonly number[])[],
  facts: Pick<Pixels, 'width' | 'height' | 'icc' | 'ppi'>,
): Pixels {
  const pixels = facts.width * facts.height;
  const value = sampleReader(data, depth, facts.width);
  const out = new Uint8Array(pixels * 3);
  const seeThrough = palette.some((c) => c.length > 3 && c[3] < 255);
  const alpha = seeThrough ? new Uint8Array(pixels) : null;
  for (let i = 0; i < pixels; i++) {
    const c = palette[value(i)] ?? [0, 0, 0, 255];
    for (let k = 0; k < 3; k++) out[i * 3 + k] = c[k];
    if (alpha) alpha[i] = c[3] ?? 255;
  }
  return { ...facts, space: 'rgb', data: out, alpha };
}
