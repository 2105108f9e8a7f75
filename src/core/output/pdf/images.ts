import type { PDFRef } from '@cantoo/pdf-lib';
import type { Palette } from '../../colour/palette';
import type { Env } from '../../env';
import { jpegFacts } from '../../input/picture/jpeg';
import type { PicturePaint } from '../../model/schema';
import { SAMPLES, type Pixels } from '../../pictures/source';
import { pictureInk } from '../../render/pictureInk';
import { cutSource } from '../../render/surround';
import type { ColourSpaces } from './colour';
import { name, type PdfFile, type Value } from './file';

/** Pixels of the block that small tiles are laid together to, so that a page of them stays small. */
const BLOCK_PIXELS = 250_000;

export interface PlacedImage {
  readonly key: string;
  /** How many tiles it has a side; 1 for a picture that is no tile. */
  readonly across: number;
}

/** The pictures and forms of one file, each written once. */
export class Images {
  readonly resources: Record<string, Value> = {};
  private readonly known = new Map<string, PlacedImage | null>();

  constructor(
    private readonly file: PdfFile,
    private readonly palette: Palette,
    private readonly spaces: ColourSpaces,
    private readonly env: Pick<Env, 'asset'>,
    /** RGB pictures without a tone stay as they are, tagged. */
    private readonly keepRgb: boolean,
  ) {}

  add(ref: PDFRef): string {
    const key = `X${Object.keys(this.resources).length + 1}`;
    this.resources[key] = ref;
    return key;
  }

  /** The picture of a paint as an image; null where its file is not at hand. */
  async of(paint: PicturePaint, spaces: ColourSpaces): Promise<PlacedImage | null> {
    const key = JSON.stringify([paint.picture, paint.tone ?? null, paint.overprint, paint.tile ?? null, spaces.grey]);
    let image = this.known.get(key);
    if (image === undefined) this.known.set(key, (image = await this.write(paint, spaces)));
    return image;
  }

  private async write(paint: PicturePaint, spaces: ColourSpaces): Promise<PlacedImage | null> {
    const found = this.palette.pictureSource(paint.picture);
    if (!found) return null;
    const pixels = cutSource(found, paint.tone).full;
    const { width, height } = pixels;
    const across = paint.tile ? tilesAcross(width * height) : 1;
    const spread = (plane: Uint8Array, samples: number) =>
      across === 1 ? plane : tiled(plane, width, height, samples, across, paint.tile === 'mirror');
    const size = {
      Type: name('XObject'),
      Subtype: name('Image'),
      Width: width * across,
      Height: height * across,
      BitsPerComponent: 8,
    };
    const mask: Record<string, Value> = pixels.alpha
      ? { SMask: await this.file.stream({ ...size, ColorSpace: name('DeviceGray') }, spread(pixels.alpha, 1)) }
      : {};
    const { tone, ...untoned } = paint;
    const plain = !tone || Object.keys(tone).every((k) => k === 'surround');
    if (plain && !untoned.overprint && !spaces.grey) {
      const asIs = await this.asIs(paint, pixels, size, mask, spread);
      if (asIs) return { key: this.add(asIs), across };
    }
    const ink = pictureInk(pixels, tone, this.palette);
    const { space, values } = await spaces.inkSpace(ink.used, paint.overprint);
    const out = new Uint8Array(this.palette.channels.length);
    const mix = new Float64Array(out.length);
    const samples = values(mix).length;
    const data = new Uint8Array(width * height * samples);
    const n = SAMPLES[pixels.space];
    for (let i = 0, at = 0; i < width * height; i++) {
      ink.map(pixels.data, i * n, out);
      for (let c = 0; c < out.length; c++) mix[c] = out[c] / 255;
      for (const v of values(mix)) data[at++] = v * 255 + 0.5;
    }
    return {
      key: this.add(await this.file.stream({ ...size, ...mask, ColorSpace: space }, spread(data, samples))),
      across,
    };
  }

  /** A picture whose own numbers print: RGB that stays tagged, or inks for this paper. A JPEG's bytes go in as they are. */
  private async asIs(
    paint: PicturePaint,
    pixels: Pixels,
    size: Record<string, Value>,
    mask: Record<string, Value>,
    spread: (p: Uint8Array, n: number) => Uint8Array,
  ): Promise<PDFRef | null> {
    const rgb = pixels.space === 'rgb' && this.keepRgb;
    const cmyk = pixels.space === 'cmyk' && this.palette.pictureTable('cmyk', pixels.icc) === null;
    if (!rgb && !cmyk) return null;
    const space = rgb
      ? await this.spaces.taggedRgb(pixels.icc && isRgb(pixels.icc) ? pixels.icc : null)
      : name('DeviceCMYK');
    if (!paint.tile && !paint.tone) {
      const { file } = this.palette.picture(paint.picture);
      const bytes = /\.jpe?g$/.test(file) ? await this.env.asset(`pictures/${file}`) : null;
      const facts = bytes && jpegFacts(bytes);
      // A picture that its file turns, and kinds that readers of PDF do not all know, are written out.
      if (bytes && facts && facts.orientation === 1 && facts.plain && facts.components === SAMPLES[pixels.space])
        return this.file.stream(
          {
            ...size,
            ...mask,
            ColorSpace: space,
            Filter: name('DCTDecode'),
            ...(cmyk && facts.adobe && { Decode: [1, 0, 1, 0, 1, 0, 1, 0] }),
          },
          bytes,
          false,
        );
    }
    return this.file.stream({ ...size, ...mask, ColorSpace: space }, spread(pixels.data, SAMPLES[pixels.space]));
  }
}

/** A profile for red, green and blue (ICC.1:2022, 7.2.6). */
const isRgb = (icc: Uint8Array): boolean => icc.length > 128 && String.fromCharCode(...icc.subarray(16, 20)) === 'RGB ';

/** An even number of tiles a side (so that mirrors close), as many as fit a block. */
function tilesAcross(pixels: number): number {
  return Math.max(2, 2 * Math.floor(Math.sqrt(BLOCK_PIXELS / pixels) / 2));
}

function tiled(
  data: Uint8Array,
  width: number,
  height: number,
  samples: number,
  across: number,
  mirror: boolean,
): Uint8Array {
  const out = new Uint8Array(data.length * across * across);
  for (let y = 0, at = 0; y < height * across; y++) {
    const sy = mirror && Math.floor(y / height) % 2 ? height - 1 - (y % height) : y % height;
    for (let x = 0; x < width * across; x++) {
      const sx = mirror && Math.floor(x / width) % 2 ? width - 1 - (x % width) : x % width;
      for (let k = 0; k < samples; k++) out[at++] = data[(sy * width + sx) * samples + k];
    }
  }
  return out;
}
