import type { Env } from '../../env';
import type { Pixels } from '../../pictures/source';

/** Why a picture cannot be opened: a sentence that names what is wrong, to be put after the file's name. */
export class PictureProblem extends Error {}

/** The decoder ended at another picture: to be tried again with a new opener. */
export class DecoderGone extends Error {}

/** Opens one picture from its bytes: its pixels. */
export type PictureOpener = (bytes: Uint8Array) => Pixels;

export interface PictureFormat {
  /** What people call it. */
  readonly name: string;
  /** File name ending. */
  readonly ending: string;
  /** Does a file begin like this format? */
  is(bytes: Uint8Array): boolean;
  /** Width and height in pixels without opening it whole; null where the file does not say. */
  size(bytes: Uint8Array): { readonly width: number; readonly height: number } | null;
  /**
   * Makes ready to open the picture (the first, where there are several). What it answers opens it from the same bytes,
   * at once and as often as it is asked, and does not hold them. Both throw a PictureProblem.
   */
  opener(bytes: Uint8Array, env: Pick<Env, 'asset'>): Promise<PictureOpener>;
}

/** Refuses a file that is too short for what it says it holds, before anything large is set aside for it. */
export function plausible(bytes: number, unpacked: number, most: number): void {
  if (unpacked > bytes * most) throw new PictureProblem('it is damaged: it is far too short for its size');
}

/** Bytes to be read as numbers. */
export const view = (b: Uint8Array): DataView => new DataView(b.buffer, b.byteOffset, b.byteLength);
/** Bytes as the letters they stand for. */
export const ascii = (b: Uint8Array, from: number, length: number): string =>
  String.fromCharCode(...b.subarray(from, from + length));
