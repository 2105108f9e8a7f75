import { refuse, type SwatchesRead } from '../../colour/exchange';
import { readCgats } from './cgats';
import { readCxf } from './cxf';
import { readIccNamed } from './iccNamed';
import { readTokens } from './tokens';

/** A larger list of colours is no list of colours. */
const MAX_BYTES = 32 * 1024 * 1024;
const MAX_SWATCHES = 5000;

/** Reads a swatch file of any kind we know; the kind is told from what the file begins with, not from its name. */
export function readSwatchFile(bytes: Uint8Array): SwatchesRead {
  if (bytes.length > MAX_BYTES)
    return refuse(null, `it is too large (${Math.round(bytes.length / 1048576)} MB; the most is 32 MB).`);
  if (bytes.length === 0) return refuse(null, 'it is empty.');
  const read =
    bytes.length > 40 && String.fromCharCode(...bytes.subarray(36, 40)) === 'acsp'
      ? readIccNamed(bytes)
      : readText(decode(bytes));
  if (!read.ok) return read;
  const found = read.swatches.length + read.ramps.length;
  if (!found) return refuse(null, `no colours were found in it.${read.notes.length ? ` ${read.notes[0]}` : ''}`);
  if (found > MAX_SWATCHES) return refuse(null, `it holds ${found} colours; a design bears ${MAX_SWATCHES}.`);
  return read;
}

function readText(text: string): SwatchesRead {
  const start = text.slice(0, 4000).trimStart();
  if (start.startsWith('<')) return readCxf(text);
  if (start.startsWith('{') || start.startsWith('[')) return readTokens(text);
  if (/BEGIN_DATA|NUMBER_OF|^CGATS|^IT8|^CTI3/m.test(text.slice(0, 100_000))) return readCgats(text);
  return refuse(
    1,
    'this is not a swatch file that can be read. CGATS text, CxF3, design tokens (JSON) and ICC named colours can.',
  );
}

/** UTF-8 where it is valid, Latin-1 (as older tables are) where it is not. */
function decode(bytes: Uint8Array): string {
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    return new TextDecoder('latin1').decode(bytes);
  }
}
