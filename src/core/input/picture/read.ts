import type { Env } from '../../env';
import { MAX_PIXELS, tooManyPixels, type Picture } from '../../model/pictureSchema';
import type { Pixels } from '../../pictures/source';
import { GIF } from './gif';
import { JPEG } from './jpeg';
import { PNG } from './png';
import { TIFF } from './tiff';
import { DecoderGone, PictureProblem, type PictureFormat } from './types';
import { WEBP } from './webp';

/** The formats that are read everywhere; a new one is a file and a place here. */
const PICTURE_FORMATS: readonly PictureFormat[] = [PNG, JPEG, GIF, WEBP, TIFF];
/** Sides beyond which no picture is meant. */
const MAX_SIDE = 100_000;
const MAX_FILE = 512 * 1024 * 1024;

/** The kind of a picture file by its first bytes; null for none that is read. */
export const pictureFormat = (bytes: Uint8Array): PictureFormat | null =>
  bytes.length < 12 ? null : (PICTURE_FORMATS.find((f) => f.is(bytes)) ?? null);

/** A file that a browser may know and we do not: an ISO media file with pictures in the AVIF manner. */
export const isAvif = (b: Uint8Array): boolean =>
  b.length > 12 &&
  String.fromCharCode(...b.subarray(4, 8)) === 'ftyp' &&
  /avi[fs]/.test(String.fromCharCode(...b.subarray(8, Math.min(b.length, 40))));

/** A picture opened, and what opens it again when its pixels have been let go of. */
export interface OpenedPicture {
  readonly pixels: Pixels;
  readonly again: () => Pixels;
}

/**
 * Opens a picture's bytes. Throws a PictureProblem whose text follows the file's name: “boats.png cannot be used: it is
 * damaged …”. Where its bytes can be had once more, at once, by `reread`, they are not held: many pictures are more
 * than there is room for.
 */
export async function openPicture(
  bytes: Uint8Array,
  env: Pick<Env, 'asset'>,
  reread?: () => Uint8Array,
): Promise<OpenedPicture> {
  if (bytes.length > MAX_FILE)
    throw new PictureProblem(`it is too large (${Math.round(bytes.length / 1048576)} MB; the most is 512 MB)`);
  const format = pictureFormat(bytes);
  if (!format) throw new PictureProblem('it is no picture of a kind that is read: PNG, JPEG, WebP, GIF, TIFF or SVG');
  const size = sizeOf(format, bytes);
  if (!size || size.width < 1 || size.height < 1) throw new PictureProblem('it is damaged: its size cannot be read');
  const tooMany = tooManyPixels(size.width, size.height);
  if (tooMany) throw new PictureProblem(tooMany);
  if (size.width > MAX_SIDE || size.height > MAX_SIDE)
    throw new PictureProblem(
      `it has ${size.width} × ${size.height} pixels; ${MAX_SIDE} a side are the most. Make a smaller copy`,
    );
  const opened = await firstTime(format, bytes, env, reread ?? (() => bytes));
  if (opened.pixels.width * opened.pixels.height > MAX_PIXELS)
    throw new PictureProblem('it is damaged: it is larger than it says');
  return opened;
}

async function firstTime(
  format: PictureFormat,
  bytes: Uint8Array,
  env: Pick<Env, 'asset'>,
  reread: () => Uint8Array,
): Promise<OpenedPicture> {
  for (;;) {
    const open = await format.opener(bytes, env);
    try {
      return { pixels: open(bytes), again: () => open(reread()) };
    } catch (e) {
      if (!(e instanceof DecoderGone)) throw e;
    }
  }
}

/** The pixels of a picture's bytes; throws as `openPicture` does. */
export const readPicture = async (bytes: Uint8Array, env: Pick<Env, 'asset'>): Promise<Pixels> =>
  (await openPicture(bytes, env)).pixels;

function sizeOf(format: PictureFormat, bytes: Uint8Array): { width: number; height: number } | null {
  try {
    return format.size(bytes);
  } catch {
    return null;
  }
}

/** What a design keeps of a picture that has been opened. */
export function pictureFacts(pixels: Pixels): Pick<Picture, 'width' | 'height' | 'space' | 'ppi' | 'alpha'> {
  return {
    width: pixels.width,
    height: pixels.height,
    space: pixels.space,
    ...(pixels.ppi && { ppi: pixels.ppi }),
    ...(pixels.alpha && { alpha: true }),
  };
}
