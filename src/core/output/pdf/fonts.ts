import type { PDFRef } from '@cantoo/pdf-lib';
import type { Env } from '../../env';
import type { Face } from '../../text/face';
import { name, type PdfFile, type Value } from './file';
import { subsetFont } from './subset';

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
  const program =
    face.embedding === 'whole' && !face.axes.length
      ? face.bytes
      : await subsetFont(env, face, gids).catch(() => {
          throw new Error(
            `The face ${face.names.family || face.psName} is damaged and cannot go into a PDF. Choose another, or make its texts plain`,
          );
        });
  // The tag says that it is cut down (9.6.4).
  const base = program === face.bytes ? face.psName : `${subsetTag(used)}+${face.psName}`;
  const openType = program[0] === 0x4f; // 'OTTO': outlines in a CFF table
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
