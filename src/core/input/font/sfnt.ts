import { FontProblem } from './problem';

/** A table of a font: four letters and its bytes (OpenType 1.9, the table directory). */
export interface Table {
  readonly tag: string;
  readonly bytes: Uint8Array;
}
/** A font as its tables. */
export interface Sfnt {
  /** Its first four bytes: 0x00010000, `true` or `OTTO`. */
  readonly flavour: number;
  readonly tables: readonly Table[];
}

const MOST_TABLES = 256;
const cutOff = () => new FontProblem('it is cut off or damaged: a table lies beyond its end');

/** Big-endian numbers of a file; beyond its end it is cut off. */
export function viewOf(bytes: Uint8Array): DataView {
  return new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
}
/** Four letters as they stand in a file. */
export const tagAt = (v: DataView, at: number): string =>
  String.fromCharCode(v.getUint8(at), v.getUint8(at + 1), v.getUint8(at + 2), v.getUint8(at + 3));

/** Where the fonts of a file begin: one at its start, or those that a collection names (TTC, OpenType 1.9). */
export function fontsIn(bytes: Uint8Array): readonly number[] {
  const v = viewOf(bytes);
  if (bytes.length < 12) throw new FontProblem('it is too short to be a font');
  if (tagAt(v, 0) !== 'ttcf') return [0];
  const count = v.getUint32(8);
  if (count < 1 || count > 64 || 12 + count * 4 > bytes.length) throw cutOff();
  return Array.from({ length: count }, (_, i) => v.getUint32(12 + i * 4));
}

/** The tables of the font that begins at a place of a file. Throws a FontProblem where they do not lie within it. */
export function readSfnt(bytes: Uint8Array, at = 0): Sfnt {
  const v = viewOf(bytes);
  if (at + 12 > bytes.length) throw cutOff();
  const count = v.getUint16(at + 4);
  if (count < 1 || count > MOST_TABLES || at + 12 + count * 16 > bytes.length) throw cutOff();
  const tables: Table[] = [];
  for (let i = 0; i < count; i++) {
    const row = at + 12 + i * 16;
    const [offset, length] = [v.getUint32(row + 8), v.getUint32(row + 12)];
    if (offset + length > bytes.length) throw cutOff();
    tables.push({ tag: tagAt(v, row), bytes: bytes.subarray(offset, offset + length) });
  }
  if (new Set(tables.map((t) => t.tag)).size !== count) throw new FontProblem('it is damaged: it has a table twice');
  return { flavour: v.getUint32(at), tables };
}

/** A file of one font: tables sorted by tag, each padded to four bytes, with the sums that the standard asks for. */
export function writeSfnt({ flavour, tables }: Sfnt): Uint8Array {
  const sorted = [...tables].sort((a, b) => (a.tag < b.tag ? -1 : 1));
  const padded = (n: number) => (n + 3) & ~3;
  const head = 12 + sorted.length * 16;
  const out = new Uint8Array(head + sorted.reduce((n, t) => n + padded(t.bytes.length), 0));
  const v = viewOf(out);
  const steps = Math.floor(Math.log2(sorted.length));
  v.setUint32(0, flavour);
  v.setUint16(4, sorted.length);
  v.setUint16(6, 2 ** steps * 16);
  v.setUint16(8, steps);
  v.setUint16(10, sorted.length * 16 - 2 ** steps * 16);
  let at = head;
  let headAt = -1;
  for (const [i, { tag, bytes }] of sorted.entries()) {
    out.set(bytes, at);
    if (tag === 'head' && bytes.length >= 12) {
      headAt = at;
      v.setUint32(at + 8, 0);
    }
    const row = 12 + i * 16;
    for (let c = 0; c < 4; c++) out[row + c] = tag.charCodeAt(c);
    v.setUint32(row + 4, sumOf(v, at, padded(bytes.length)));
    v.setUint32(row + 8, at);
    v.setUint32(row + 12, bytes.length);
    at += padded(bytes.length);
  }
  if (headAt >= 0) v.setUint32(headAt + 8, (0xb1b0afba - sumOf(v, 0, out.length)) >>> 0);
  return out;
}

function sumOf(v: DataView, at: number, length: number): number {
  let sum = 0;
  for (let i = at; i < at + length; i += 4) sum = (sum + v.getUint32(i)) >>> 0;
  return sum;
}
