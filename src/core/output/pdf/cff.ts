/** Adobe Technical Note 5176 (The Compact Font Format), as far as the numbers of glyphs go. */

/** Operators of a Top DICT: `charset` 15; `ROS` 12 30, which says that glyphs have numbers (CIDs) instead of names. */
const CHARSET = 15;
const ROS = 1230;

/**
 * In an OpenType font whose glyphs have numbers of their own, makes each one's number its place, in place: so that what
 * was shaped is what a PDF names (ISO 32000-1 9.7.4.2). Any other is left as it is. A font that is not whole is left
 * too.
 */
export function glyphsByNumber(font: Uint8Array): void {
  const v = new DataView(font.buffer, font.byteOffset, font.byteLength);
  const table = tableOf(v, 'CFF ');
  if (table === null) return;
  // Header, then the indexes of names and of Top DICTs.
  const names = indexAt(v, table + v.getUint8(table + 2));
  const tops = indexAt(v, names.end);
  const top = dictOf(v, tops.from, tops.first);
  const charset = top.get(CHARSET);
  if (!top.has(ROS) || charset === undefined || charset < 3) return;
  const glyphs = v.getUint16(tableOf(v, 'maxp')! + 4);
  identity(v, table + charset, glyphs);
}

/** A charset of whatever format becomes 1, 2, 3 …; each way fits where the old one stood. */
function identity(v: DataView, at: number, glyphs: number): void {
  const format = v.getUint8(at);
  if (format === 0) for (let g = 1; g < glyphs; g++) v.setUint16(at + 1 + (g - 1) * 2, g);
  else if (format === 1 && glyphs - 2 <= 255) {
    v.setUint16(at + 1, 1);
    v.setUint8(at + 3, glyphs - 2);
  } else {
    // One range of all; several of the shorter kind are longer than one of this.
    v.setUint8(at, 2);
    v.setUint16(at + 1, 1);
    v.setUint16(at + 3, glyphs - 2);
  }
}

function tableOf(v: DataView, tag: string): number | null {
  for (let i = 0; i < v.getUint16(4); i++) {
    const row = 12 + i * 16;
    if ([...tag].every((c, k) => v.getUint8(row + k) === c.charCodeAt(0))) return v.getUint32(row + 8);
  }
  return null;
}

/** An INDEX: where its first object lies, how long that is, and where the INDEX ends. */
function indexAt(v: DataView, at: number): { from: number; first: number; end: number } {
  const count = v.getUint16(at);
  if (!count) return { from: at + 2, first: 0, end: at + 2 };
  const size = v.getUint8(at + 2);
  const offset = (i: number) => {
    let n = 0;
    for (let k = 0; k < size; k++) n = n * 256 + v.getUint8(at + 3 + i * size + k);
    return n;
  };
  const base = at + 3 + (count + 1) * size - 1;
  return { from: base + offset(0), first: offset(1) - offset(0), end: base + offset(count) };
}

/** A DICT: the last operand of each operator. */
function dictOf(v: DataView, from: number, length: number): Map<number, number> {
  const found = new Map<number, number>();
  let last = 0;
  for (let i = from; i < from + length;) {
    const b = v.getUint8(i++);
    if (b <= 21) found.set(b === 12 ? 1200 + v.getUint8(i++) : b, last);
    else if (b === 28) {
      last = v.getInt16(i);
      i += 2;
    } else if (b === 29) {
      last = v.getInt32(i);
      i += 4;
    } else if (b === 30) {
      // A decimal number ends with a half byte of ones; no place is told so.
      while ((v.getUint8(i) & 0xf) !== 0xf && v.getUint8(i) >> 4 !== 0xf) i++;
      i++;
    } else if (b <= 246) last = b - 139;
    else if (b <= 250) last = (b - 247) * 256 + v.getUint8(i++) + 108;
    else last = -(b - 251) * 256 - v.getUint8(i++) - 108;
  }
  return found;
}
