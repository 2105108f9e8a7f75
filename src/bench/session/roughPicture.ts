import type { Env } from '@/core/env';
import type { QuickPicture } from '@/core/render/quickTools';

/** The most pixels that a picture may have for it. */
const MOST = 40_000_000;
const TYPES = new Map([
  ['png', 'image/png'],
  ['jpg', 'image/jpeg'],
  ['webp', 'image/webp'],
  ['gif', 'image/gif'],
]);

/**
 * A picture as the browser opens it, without its profile or the paper: seen at once, with so many pixels, until its
 * true look comes. Null for kinds that browsers do not open.
 */
export async function roughPicture(
  env: Pick<Env, 'asset'>,
  file: string,
  { width, height }: { readonly width: number; readonly height: number },
  pixels: number,
): Promise<QuickPicture | null> {
  const type = TYPES.get(file.split('.').pop() ?? '');
  if (!type || typeof createImageBitmap === 'undefined' || width * height > MOST) return null;
  const k = Math.min(1, Math.sqrt(pixels / (width * height)));
  const resizeWidth = Math.max(1, Math.round(width * k));
  const resizeHeight = Math.max(1, Math.round(height * k));
  const image = await createImageBitmap(new Blob([(await env.asset(`pictures/${file}`)) as BlobPart], { type }), {
    resizeWidth,
    resizeHeight,
  });
  return { image, width: image.width, height: image.height };
}
