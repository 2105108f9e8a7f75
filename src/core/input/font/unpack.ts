import { Inflate } from 'fflate';
import { fontFormat } from './format';
import { FontProblem } from './problem';
import { fromWoff2, type FontEnv } from './woff2';
import { fontsIn, readSfnt, tagAt, viewOf, writeSfnt, type Sfnt, type Table } from './sfnt';

/** No font that people set words in is larger. */
const MOST_BYTES = 64 * 1024 * 1024;
const MOST_MB = MOST_BYTES / 1048576;

/**
 * The fonts of a TTF, OTF, WOFF, WOFF2 or TTC file, each as a file of its own. Throws a FontProblem that says why there
 * are none.
 */
export async function unpackFonts(bytes: Uint8Array, env: FontEnv): Promise<Uint8Array[]> {
  const format = fontFormat(bytes);
  if (!format) throw new FontProblem('it is no font of a kind that is read: TTF, OTF, WOFF, WOFF2 or TTC');
  if (bytes.length > MOST_BYTES) throw new FontProblem(tooLarge(bytes.length));
  try {
    const whole =
      format === 'woff'
        ? writeSfnt(fromWoff(bytes))
        : format === 'woff2'
          ? await fromWoff2(bytes, env, MOST_BYTES)
          : bytes;
    const fonts = fontsIn(whole).map((at) => readSfnt(whole, at));
    const total = fonts.reduce((n, f) => n + f.tables.reduce((m, t) => m + t.bytes.length, 0), 0);
    if (total > MOST_BYTES) throw new FontProblem(tooLarge(total));
    // Written anew even where it is one already: nothing lies between its tables, and its sums are right.
    return fonts.map(writeSfnt);
  } catch (e) {
    throw e instanceof FontProblem ? e : new FontProblem('it is damaged and cannot be unpacked');
  }
}

const tooLarge = (n: number) => `it is too large (${Math.ceil(n / 1048576)} MB; the most is ${MOST_MB} MB)`;

/** WOFF 1.0 (W3C): the tables of a font, each deflated by itself. */
function fromWoff(bytes: Uint8Array): Sfnt {
  const v = viewOf(bytes);
  const count = v.getUint16(12);
  if (count < 1 || 44 + count * 20 > bytes.length) throw new FontProblem('it is cut off');
  let total = 0;
  const tables: Table[] = [];
  for (let i = 0; i < count; i++) {
    const row = 44 + i * 20;
    const [offset, packed, length] = [v.getUint32(row + 4), v.getUint32(row + 8), v.getUint32(row + 12)];
    if (offset + packed > bytes.length || packed > length) throw new FontProblem('it is cut off or damaged');
    total += length;
    if (total > MOST_BYTES) throw new FontProblem(tooLarge(total));
    const part = bytes.subarray(offset, offset + packed);
    tables.push({ tag: tagAt(v, row), bytes: packed === length ? part : inflated(part, length) });
  }
  return { flavour: v.getUint32(4), tables };
}

/** A zlib stream (RFC 1950) that must hold so many bytes; one that goes on is stopped there. */
function inflated(part: Uint8Array, length: number): Uint8Array {
  const out = new Uint8Array(length);
  let at = 0;
  const inflate = new Inflate((piece) => {
    if (at + piece.length > length) throw new FontProblem('it is damaged: a table is longer than it says');
    out.set(piece, at);
    at += piece.length;
  });
  // Two bytes of head, and the sum at the end, are zlib's own.
  const body = part.subarray(2, -4);
  for (let i = 0; i < body.length; i += 65_536) inflate.push(body.subarray(i, i + 65_536), i + 65_536 >= body.length);
  if (at !== length) throw new FontProblem('it is damaged: a table is shorter than it says');
  return out;
}
