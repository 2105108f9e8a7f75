import { refusalOf, type SwatchesRead } from '@/core/colour/exchange';
import { opening } from '../session/opening';
import type { Session } from '../session/session';

/**
 * Reads a chosen file, beside the page; what is wrong with it is told to `refused` (null: nothing), and then there are
 * no swatches.
 */
export async function readSwatches(
  s: Session,
  f: File,
  refused: (why: string | null) => void,
): Promise<Extract<SwatchesRead, { ok: true }> | null> {
  refused(null);
  const read = await opening(s, f.name, s.pictureWorker.swatches(new Uint8Array(await f.arrayBuffer())));
  refused(read.ok ? null : refusalOf(read, f.name));
  return read.ok ? read : null;
}
