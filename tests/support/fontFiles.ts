import { readFileSync } from 'node:fs';
import path from 'node:path';
import { readSfnt, writeSfnt, type Table } from '@/core/input/font/sfnt';

const FOLDER = path.resolve(process.cwd(), 'node_modules/source-code-pro');

/** A file of an open family that comes in every format (SIL OFL 1.1). */
export const fontFile = (name: string): Uint8Array => new Uint8Array(readFileSync(path.join(FOLDER, name)));

/** The same upright bold in each kind of file, and the whole family in one variable face. */
export const FONT_FILES = {
  ttf: 'TTF/SourceCodePro-Bold.ttf',
  otf: 'OTF/SourceCodePro-Bold.otf',
  woff: 'WOFF/TTF/SourceCodePro-Bold.ttf.woff',
  woffOfOtf: 'WOFF/OTF/SourceCodePro-Bold.otf.woff',
  woff2: 'WOFF2/TTF/SourceCodePro-Bold.ttf.woff2',
  woff2OfOtf: 'WOFF2/OTF/SourceCodePro-Bold.otf.woff2',
  variable: 'VF/SourceCodeVF-Upright.ttf',
  variableOtf: 'VF/SourceCodeVF-Upright.otf',
} as const;

/** A font with a table changed, or without it where `change` answers null. */
export function retabled(font: Uint8Array, tag: string, change: (bytes: Uint8Array) => Uint8Array | null): Uint8Array {
  const { flavour, tables } = readSfnt(font);
  return writeSfnt({
    flavour,
    tables: tables.flatMap((t): Table[] => {
      if (t.tag !== tag) return [t];
      const bytes = change(t.bytes.slice());
      return bytes ? [{ tag, bytes }] : [];
    }),
  });
}

/** A face whose maker says in OS/2 what may be done with it. */
export const withEmbedding = (font: Uint8Array, fsType: number): Uint8Array =>
  retabled(font, 'OS/2', (b) => {
    new DataView(b.buffer).setUint16(8, fsType);
    return b;
  });

/** Several fonts in one file, each with its own tables (TTC, OpenType 1.9). */
export function collection(...fonts: readonly Uint8Array[]): Uint8Array {
  const head = 12 + fonts.length * 4;
  const total = fonts.reduce((n, f) => n + f.length, head);
  const out = new Uint8Array(total);
  const v = new DataView(out.buffer);
  out.set(new TextEncoder().encode('ttcf'));
  v.setUint32(4, 0x00010000);
  v.setUint32(8, fonts.length);
  let at = head;
  for (const [i, font] of fonts.entries()) {
    v.setUint32(12 + i * 4, at);
    out.set(font, at);
    // Places of tables are counted from the start of the file.
    const count = v.getUint16(at + 4);
    for (let t = 0; t < count; t++) {
      const row = at + 12 + t * 16 + 8;
      v.setUint32(row, v.getUint32(row) + at);
    }
    at += font.length;
  }
  return out;
}

/** A font in which the letter that stands for all missing ones would hang whoever draws it. */
export function heavyFont(): Uint8Array {
  // A simple glyph of 65,000 points in the place of the letter that stands for all missing ones (OpenType 1.9, glyf).
  const many = 65_000;
  const glyph = new Uint8Array(12 + 2 + many * 3);
  const v = new DataView(glyph.buffer);
  v.setInt16(0, 1);
  v.setUint16(10, many - 1);
  // Flag 1: on the curve, both steps of two bytes.
  glyph.fill(1, 14, 14 + many);
  const heavy = retabled(
    retabled(fontFile(FONT_FILES.ttf), 'glyf', () => new Uint8Array([...glyph, ...new Uint8Array(many * 2 + 8)])),
    'loca',
    (b) => {
      const w = new DataView(b.buffer);
      for (let i = 4; i + 4 <= b.length; i += 4) w.setUint32(i, glyph.length + many * 2);
      w.setUint32(0, 0);
      return b;
    },
  );
  return retabled(heavy, 'head', (b) => {
    new DataView(b.buffer).setInt16(50, 1);
    return b;
  });
}
