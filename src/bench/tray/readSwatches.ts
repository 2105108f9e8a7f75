import { refusalOf, type SwatchesRead } from '@/core/colour/exchange';
import { readSwatchFile } from '@/core/input/swatches/read';

/** Reads a chosen file; what is wrong with it is told to `refused` (null: nothing), and then there are no swatches. */
export async function readSwatches(f: File, refused: (why: string | null) => void): Promise<Extract<SwatchesRead, { ok: true }> | null> {
  const read = readSwatchFile(new Uint8Array(await f.arrayBuffer()));
  refused(read.ok ? null : refusalOf(read, f.name));
  return read.ok ? read : null;
}
