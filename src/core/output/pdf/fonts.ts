import type { PDFRef } from '@cantoo/pdf-lib';
import type { Env } from '../../env';
import type { Face } from '../../text/fonts';
import { name, type PdfFile, type Value } from './file';

/** The calls of harfbuzz-subset.wasm that are used. */
interface SubsetExports {
  readonly memory: WebAssembly.Memory;
  _initialize(): void;
  malloc(n: number): number;
  free(p: number): void;
  hb_blob_create(data: number, length: number, mode: number, user: number, destroy: number): number;
  hb_blob_destroy(b: number): void;
  hb_face_create(blob: number, index: number): number;
  hb_face_destroy(f: number): void;
  hb_subset_input_create_or_fail(): number;
  hb_subset_input_destroy(i: number): void;
  hb_subset_input_set_flags(i: number, flags: number): void;
  hb_subset_input_glyph_set(i: number): number;
  hb_subset_input_set(i: number, which: number): number;
  hb_set_add(set: number, value: number): void;
  hb_subset_or_fail(face: number, input: number): number;
  hb_face_reference_blob(face: number): number;
  hb_blob_get_data(blob: number, length: number): number;
  hb_blob_get_length(blob: number): number;
}

let loading: Promise<SubsetExports> | null = null;

async function subsetter(env: Pick<Env, 'asset'>): Promise<SubsetExports> {
  loading ??= (async () => {
    const bytes = await env.asset('wasm/harfbuzz-subset.wasm');
    const { instance } = await WebAssembly.instantiate(bytes as BufferSource, {});
    const x = instance.exports as unknown as SubsetExports;
    x._initialize();
    return x;
  })();
  return loading;
}

// hb-subset.h: NO_HINTING | RETAIN_GIDS | NOTDEF_OUTLINE | NO_LAYOUT_CLOSURE
const FLAGS = 1 | 2 | 0x40 | 0x200;
const DROP_TABLE_TAG = 3;
const UNUSED_IN_PDF = ['GSUB', 'GPOS', 'GDEF', 'DSIG', 'name', 'OS/2', 'post', 'STAT', 'gasp', 'cmap', 'kern', 'meta'];

/** Only the glyphs that are used, their ids kept, so that shaped ids go straight into the file. */
async function subsetFont(env: Pick<Env, 'asset'>, ttf: Uint8Array, gids: Iterable<number>): Promise<Uint8Array> {
  const x = await subsetter(env);
  const data = x.malloc(ttf.length);
  new Uint8Array(x.memory.buffer).set(ttf, data);
  const blob = x.hb_blob_create(data, ttf.length, 2, 0, 0);
  const face = x.hb_face_create(blob, 0);
  const input = x.hb_subset_input_create_or_fail();
  x.hb_subset_input_set_flags(input, FLAGS);
  const glyphs = x.hb_subset_input_glyph_set(input);
  for (const g of gids) x.hb_set_add(glyphs, g);
  const drop = x.hb_subset_input_set(input, DROP_TABLE_TAG);
  for (const t of UNUSED_IN_PDF)
    x.hb_set_add(
      drop,
      [...t].reduce((sum, c) => (sum << 8) + c.charCodeAt(0), 0),
    );
  const result = x.hb_subset_or_fail(face, input);
  if (!result) throw new Error('a font could not be cut down to the glyphs used');
  const out = x.hb_face_reference_blob(result);
  const at = x.hb_blob_get_data(out, 0);
  const bytes = new Uint8Array(x.memory.buffer).slice(at, at + x.hb_blob_get_length(out));
  x.hb_blob_destroy(out);
  x.hb_face_destroy(result);
  x.hb_subset_input_destroy(input);
  x.hb_face_destroy(face);
  x.hb_blob_destroy(blob);
  x.free(data);
  return bytes;
}

/** Glyphs used of one face, each with the text it stands for. */
export type UsedGlyphs = Map<number, string>;

/** Six capitals that mark a subset (PDF 32000-1 9.6.4), the same for the same glyphs. */
function subsetTag(used: UsedGlyphs): string {
  let h = 0x811c9dc5;
  for (const g of used.keys()) h = Math.imul(h ^ g, 0x01000193) >>> 0;
  let tag = '';
  for (let i = 0; i < 6; i++) {
    tag += String.fromCharCode(65 + (h % 26));
    h = Math.floor(h / 26) + i * 7;
  }
  return tag;
}

const hex4 = (n: number) => n.toString(16).padStart(4, '0').toUpperCase();
/** A text in UTF-16, as PDF spells it in hexadecimal digits. */
export const utf16 = (t: string) => Array.from({ length: t.length }, (_, i) => hex4(t.charCodeAt(i))).join('');

/** Embeds a face as a Type 0 font with Identity-H encoding: real text, found and copied by its Unicode. */
export async function embedFace(file: PdfFile, env: Pick<Env, 'asset'>, face: Face, used: UsedGlyphs): Promise<PDFRef> {
  const gids = [...used.keys()].sort((a, b) => a - b);
  const k = 1000 / face.upem;
  const base = `${subsetTag(used)}+${face.psName}`;
  const program = await subsetFont(env, face.bytes, gids);
  const openType = face.bytes[0] === 0x4f; // 'OTTO': outlines in a CFF table
  const fontFile = await file.stream(openType ? { Subtype: name('OpenType') } : { Length1: program.length }, program);
  const widths: Value[] = gids.flatMap((g): Value[] => [g, [Number((face.advance(g) * k).toFixed(3))]]);
  const descriptor = file.add({
    Type: name('FontDescriptor'),
    FontName: name(base),
    Flags: 4,
    FontBBox: [-1000, Math.round(face.descender * k), 3000, Math.round(face.ascender * k)],
    ItalicAngle: 0,
    Ascent: Math.round(face.ascender * k),
    Descent: Math.round(face.descender * k),
    CapHeight: Math.round(face.ascender * k * 0.75),
    StemV: 80,
    [openType ? 'FontFile3' : 'FontFile2']: fontFile,
  });
  const descendant = file.add({
    Type: name('Font'),
    Subtype: name(openType ? 'CIDFontType0' : 'CIDFontType2'),
    BaseFont: name(base),
    CIDSystemInfo: { Registry: 'Adobe', Ordering: 'Identity', Supplement: 0 },
    FontDescriptor: descriptor,
    DW: 1000,
    W: widths,
    CIDToGIDMap: openType ? undefined : name('Identity'),
  });
  return file.add({
    Type: name('Font'),
    Subtype: name('Type0'),
    BaseFont: name(base),
    Encoding: name('Identity-H'),
    DescendantFonts: [descendant],
    ToUnicode: await file.stream({}, toUnicodeMap(used, gids)),
  });
}

function toUnicodeMap(used: UsedGlyphs, gids: readonly number[]): string {
  const rows = gids.filter((g) => used.get(g)).map((g) => `<${hex4(g)}> <${utf16(used.get(g)!)}>`);
  let body = '';
  for (let i = 0; i < rows.length; i += 100) {
    const part = rows.slice(i, i + 100);
    body += `${part.length} beginbfchar\n${part.join('\n')}\nendbfchar\n`;
  }
  return `/CIDInit /ProcSet findresource begin
12 dict begin
begincmap
/CIDSystemInfo << /Registry (Adobe) /Ordering (UCS) /Supplement 0 >> def
/CMapName /Adobe-Identity-UCS def
/CMapType 2 def
1 begincodespacerange
<0000> <FFFF>
endcodespacerange
${body}endcmap
CMapName currentdict /CMap defineresource pop
end
end
`;
}
