import { encodePng, type Rgba } from '@/core/output/png';

export type PictureKind = 'png' | 'jpeg' | 'webp';
const QUALITY = 0.92;

/** Pixels as a file: PNG by the press, JPEG and WebP by the browser's own encoders. */
export async function encodePicture(
  pixels: Rgba,
  kind: PictureKind,
  dpi: number,
  transparent: boolean,
): Promise<Uint8Array> {
  if (kind === 'png') return encodePng(pixels, dpi, transparent);
  const canvas = new OffscreenCanvas(pixels.width, pixels.height);
  const ctx = canvas.getContext('2d');
  if (!ctx) throw new Error('This browser gives no room for so large a picture. Choose fewer dpi.');
  ctx.putImageData(new ImageData(pixels.data, pixels.width, pixels.height), 0, 0);
  const blob = await canvas.convertToBlob({ type: `image/${kind}`, quality: QUALITY });
  // A browser that cannot make the one kind makes another without a word.
  if (blob.type !== `image/${kind}`)
    throw new Error(`This browser cannot make ${kind === 'webp' ? 'WebP' : 'JPEG'} files. Choose PNG.`);
  return new Uint8Array(await blob.arrayBuffer());
}
