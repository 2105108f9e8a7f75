import { encode } from 'fast-png';
import type { Palette } from '../colour/palette';
import { compositePlates } from '../render/composite';
import type { Rect } from '../geometry/rect';
import type { Region } from '../render/coverage';
import { rasterGroup, rasterPlates, type Plates } from '../render/plates';
import { regionOf } from '../render/region';
import { bleedRect, trimRect, type Scene } from '../scene/scene';

/** A picture larger than this would not fit in memory with its plates. */
const MOST_PIXELS = 300_000_000;

/** A sentence where a page at a resolution has more pixels than can be made; null where it has not. */
export function tooManyPixels(scene: Scene, dpi: number, box?: Rect): string | null {
  const r = regionOf(box ?? bleedRect(scene), dpi);
  const pixels = r.width * r.height;
  return pixels > MOST_PIXELS
    ? `At ${Math.round(dpi)} dpi ${box ? 'it' : 'this page'} has ${Math.round(pixels / 1e6)} million pixels; the most is ${MOST_PIXELS / 1e6} million. Choose fewer dpi.`
    : null;
}

/** Pixels, four bytes each (red, green, blue, alpha, not premultiplied). */
export interface Rgba {
  readonly width: number;
  readonly height: number;
  readonly data: Uint8ClampedArray<ArrayBuffer>;
}

/** What lies in a box of the page, at first the page as it is cut: as it will look on paper, or without the paper. */
export function rgbaOf(
  scene: Scene,
  palette: Palette,
  dpi: number,
  { transparent = false, box = trimRect(scene) }: { readonly transparent?: boolean; readonly box?: Rect } = {},
): Rgba {
  const region = regionOf(box, dpi);
  const { width, height } = region;
  const data = transparent
    ? withoutGround(scene, palette, region, box)
    : compositePlates(edged(rasterPlates(scene, palette, region)!, box), palette);
  return { width, height, data };
}

/** The page cut at the trim, as it will look on paper, with its resolution written in. */
export const writePng = (scene: Scene, palette: Palette, dpi: number, transparent = false): Uint8Array =>
  encodePng(rgbaOf(scene, palette, dpi, { transparent }), dpi, transparent);

/** Pixels as a PNG file; what is clear in them stays so where `transparent` is on. */
export function encodePng({ width, height, data }: Rgba, dpi: number, transparent: boolean): Uint8Array {
  const bytes = transparent ? new Uint8Array(data.buffer, data.byteOffset, data.length) : opaque(data, width * height);
  const png = encode({ width, height, data: bytes, channels: transparent ? 4 : 3, depth: 8 });
  return withChunks(png, [srgbChunk(), physChunk(dpi)]);
}

/**
 * The art without the paper: what covers nothing is clear, what covers in part lets a ground through (not
 * premultiplied).
 */
function withoutGround(scene: Scene, palette: Palette, region: Region, box: Rect): Uint8ClampedArray<ArrayBuffer> {
  const { plates, alpha } = rasterGroup(scene, palette, region);
  edged({ ...plates, data: [...plates.data, alpha] }, box);
  // The plates hold what is put down times its cover: full strength is what a pixel would print were it all covered.
  const full = plates.data.map((plate) =>
    plate.map((v, i) => (alpha[i] ? Math.min(255, Math.round((v * 255) / alpha[i])) : v)),
  );
  const rgba = compositePlates({ ...plates, data: full }, palette);
  for (let i = 0; i < alpha.length; i++) rgba[4 * i + 3] = alpha[i];
  // What is clear has no colour: a program that forgets about clearness shows white.
  for (let i = 0; i < alpha.length; i++) if (!alpha[i]) rgba.fill(255, 4 * i, 4 * i + 3);
  return rgba;
}

/** Relative colorimetric sRGB (PNG 3rd edition 11.3.2.5). */
const srgbChunk = (): Uint8Array => chunk('sRGB', Uint8Array.of(1));

/** Pixels a metre (PNG 3rd edition 11.3.4.3). */
function physChunk(dpi: number): Uint8Array {
  const data = new Uint8Array(9);
  const view = new DataView(data.buffer);
  const perMetre = Math.round(dpi / 0.0254);
  view.setUint32(0, perMetre);
  view.setUint32(4, perMetre);
  data[8] = 1;
  return chunk('pHYs', data);
}

function chunk(type: string, data: Uint8Array): Uint8Array {
  const out = new Uint8Array(12 + data.length);
  const view = new DataView(out.buffer);
  view.setUint32(0, data.length);
  out.set(new TextEncoder().encode(type), 4);
  out.set(data, 8);
  view.setUint32(8 + data.length, crc32(out.subarray(4, 8 + data.length)));
  return out;
}

/** CRC-32 of ISO 3309, as PNG wants it. */
function crc32(bytes: Uint8Array): number {
  let c = 0xffffffff;
  for (const b of bytes) {
    c ^= b;
    for (let k = 0; k < 8; k++) c = c & 1 ? 0xedb88320 ^ (c >>> 1) : c >>> 1;
  }
  return (c ^ 0xffffffff) >>> 0;
}

/** Puts chunks right behind the header, which is always 8 + 25 bytes long. */
function withChunks(png: Uint8Array, chunks: readonly Uint8Array[]): Uint8Array {
  const extra = chunks.reduce((n, c) => n + c.length, 0);
  const out = new Uint8Array(png.length + extra);
  out.set(png.subarray(0, 33));
  let at = 33;
  for (const c of chunks) {
    out.set(c, at);
    at += c.length;
  }
  out.set(png.subarray(33), at);
  return out;
}

function opaque(rgba: Uint8ClampedArray, pixels: number): Uint8Array {
  const rgb = new Uint8Array(pixels * 3);
  for (let i = 0; i < pixels; i++) {
    rgb[3 * i] = rgba[4 * i];
    rgb[3 * i + 1] = rgba[4 * i + 1];
    rgb[3 * i + 2] = rgba[4 * i + 2];
  }
  return rgb;
}

/**
 * A page as a small picture, its longer side so many pixels: as a shelf shows it, and as it goes into a design's file.
 */
export const thumbnail = (scene: Scene, palette: Palette, largest = 320): Uint8Array =>
  writePng(scene, palette, (72 * largest) / Math.max(scene.width, scene.height));

/**
 * The plates of trim plus bleed. Whole pixels count from the lower left, as a PDF's do, so that plates can be laid over
 * those that another program makes of the file.
 */
export function pagePlates(scene: Scene, palette: Palette, dpi: number): Plates {
  const box = bleedRect(scene);
  const region = regionOf(box, dpi);
  return edged(rasterPlates(scene, palette, { ...region, y: box.y1 - region.height / region.scale })!, box);
}

/**
 * A page's size is seldom a whole number of pixels: where the outermost row or column of a raster hangs over its edge,
 * it is half empty. It gets what its neighbour has. Changes the plates in place, and answers them.
 */
function edged(plates: Plates, box: Rect): Plates {
  const { x, y, scale, width, height } = plates.region;
  const over = (hang: number) => hang * scale > 1e-6;
  const row = (to: number, from: number) => {
    for (const plate of plates.data) plate.copyWithin(to * width, from * width, (from + 1) * width);
  };
  const column = (to: number, from: number) => {
    for (const plate of plates.data) for (let i = 0; i < height; i++) plate[i * width + to] = plate[i * width + from];
  };
  if (height > 1 && over(box.y0 - y)) row(0, 1);
  if (height > 1 && over(y + height / scale - box.y1)) row(height - 1, height - 2);
  if (width > 1 && over(box.x0 - x)) column(0, 1);
  if (width > 1 && over(x + width / scale - box.x1)) column(width - 1, width - 2);
  return plates;
}

/** One plate as a grey picture: white = no ink; with its resolution where that is given. */
export function platePng(plates: Plates, channel: number, dpi?: number): Uint8Array {
  const { width, height } = plates.region;
  const png = encode({ width, height, data: plates.data[channel].map((v) => 255 - v), channels: 1, depth: 8 });
  return dpi ? withChunks(png, [physChunk(dpi)]) : png;
}
