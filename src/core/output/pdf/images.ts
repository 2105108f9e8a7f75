import type { PDFRef } from '@cantoo/pdf-lib';
import type { Palette } from '../../colour/palette';
import type { Env } from '../../env';
import { jpegFacts } from '../../input/picture/jpeg';
import type { PictureSpace } from '../../model/pictureSchema';
import type { PicturePaint } from '../../model/schema';
import { resampled } from '../../pictures/resample';
import { SAMPLES, type Pixels, type PictureSource } from '../../pictures/source';
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
    /** The most pixels across that a picture has, by its id; what is not named has all. */
    private readonly most: ReadonlyMap<string, number> = new Map(),
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
    const own = await this.ownBytes(paint, found, spaces);
    if (own) return { key: this.add(own), across: 1 };
    const whole = cutSource(found, paint.tone).full;
    const pixels = resampled(whole, this.most.get(paint.picture) ?? whole.width);
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
      const asIs = await this.asIs(pixels, size, mask, spread);
      if (asIs) return { key: this.add(asIs), across };
    }
    const ink = pictureInk(pixels, tone, this.palette);
    const { space, channels } = await spaces.inkSpace(ink.used, paint.overprint);
    const out = new Uint8Array(this.palette.channels.length);
    const samples = channels?.length ?? 1;
    const data = new Uint8Array(width * height * samples);
    const n = SAMPLES[pixels.space];
    for (let i = 0, at = 0; i < width * height; i++) {
      ink.map(pixels.data, i * n, out);
      if (channels) for (let c = 0; c < samples; c++) data[at++] = out[channels[c]];
      else data[at++] = 255 - out[3];
    }
    return {
      key: this.add(await this.file.stream({ ...size, ...mask, ColorSpace: space }, spread(data, samples))),
      across,
    };
  }

  /** A JPEG whose own numbers print, whole: its bytes go in as they are, and it is not opened. */
  private async ownBytes(paint: PicturePaint, source: PictureSource, spaces: ColourSpaces): Promise<PDFRef | null> {
    const { file } = this.palette.picture(paint.picture);
    if (!/\.jpe?g$/.test(file) || paint.tile || paint.tone || paint.overprint || spaces.grey) return null;
    if ((this.most.get(paint.picture) ?? source.width) < source.width) return null;
    if (source.space === 'gray' || (source.space === 'rgb' && !this.keepRgb)) return null;
    const bytes = await this.env.asset(`pictures/${file}`);
    const facts = jpegFacts(bytes);
    // A picture that its file turns, and kinds that readers of PDF do not all know, are written out.
    if (facts?.orientation !== 1 || !facts.plain || facts.components !== SAMPLES[source.space]) return null;
    const space = await this.keptSpace(source.space, facts.icc);
    if (!space) return null;
    return this.file.stream(
      {
        Type: name('XObject'),
        Subtype: name('Image'),
        Width: source.width,
        Height: source.height,
        BitsPerComponent: 8,
        ColorSpace: space,
        Filter: name('DCTDecode'),
        ...(source.space === 'cmyk' && facts.adobe && { Decode: [1, 0, 1, 0, 1, 0, 1, 0] }),
      },
      bytes,
      false,
    );
  }

  /**
   * The space of numbers that print as they are: RGB that stays tagged, or inks for this paper; null where they are
   * converted.
   */
  private async keptSpace(space: PictureSpace, icc: Uint8Array | null): Promise<Value | null> {
    if (space === 'rgb' && this.keepRgb) return this.spaces.taggedRgb(icc && isRgb(icc) ? icc : null);
    return space === 'cmyk' && this.palette.pictureTable('cmyk', icc) === null ? name('DeviceCMYK') : null;
  }

  /** A picture whose own numbers print. */
  private async asIs(
    pixels: Pixels,
    size: Record<string, Value>,
    mask: Record<string, Value>,
    spread: (p: Uint8Array, n: number) => Uint8Array,
  ): Promise<PDFRef | null> {
    const space = await this.keptSpace(pixels.space, pixels.icc);
    if (!space) return null;
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
