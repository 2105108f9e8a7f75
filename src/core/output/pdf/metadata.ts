import { escapeXml } from '../xml';

/** `D:YYYYMMDDHHmmSSZ` (PDF 32000-1 7.9.4). */
export const pdfDate = (iso: string): string => `D:${new Date(iso).toISOString().replace(/[-:T]/g, '').slice(0, 14)}Z`;

/** 32 hex digits from text, the same for the same text (FNV-1a with four seeds). */
export function hash128(text: string): string {
  return [0x811c9dc5, 0x1b873593, 0xcc9e2d51, 0x9e3779b1]
    .map((seed) => {
      let h = seed;
      for (let i = 0; i < text.length; i++) h = Math.imul(h ^ text.charCodeAt(i), 0x01000193) >>> 0;
      return h.toString(16).padStart(8, '0');
    })
    .join('')
    .toUpperCase();
}

/** Thirty-two hexadecimal digits as a UUID is written (RFC 9562). */
export const uuidOf = (hex: string): string =>
  hex.toLowerCase().replace(/(.{8})(.{4})(.{4})(.{4})(.{12})/, '$1-$2-$3-$4-$5');

/** What a file says of itself. */
export interface Said {
  readonly title: string;
  /** ISO 8601. */
  readonly modified: string;
  readonly id: string;
  readonly trapped: boolean;
  /** PDF/X-4 (else it claims to be nothing but a PDF). */
  readonly x4: boolean;
  readonly about?: { readonly author?: string; readonly subject?: string; readonly keywords?: string };
}
/** Keywords as a list. */
export const keywordsOf = (text: string | undefined): string[] =>
  (text ?? '')
    .split(/[,;]/)
    .map((w) => w.trim())
    .filter(Boolean);

/** The XMP packet that ISO 15930-7 asks for: it must agree with the Info dictionary and stay uncompressed. */
export function xmpPacket({ title, modified: iso, id, trapped, x4, about }: Said): string {
  const bag = keywordsOf(about?.keywords).map((w) => `<rdf:li>${escapeXml(w)}</rdf:li>`);
  const more = [
    about?.author && `<dc:creator><rdf:Seq><rdf:li>${escapeXml(about.author)}</rdf:li></rdf:Seq></dc:creator>`,
    about?.subject &&
      `<dc:description><rdf:Alt><rdf:li xml:lang="x-default">${escapeXml(about.subject)}</rdf:li></rdf:Alt></dc:description>`,
    bag.length && `<dc:subject><rdf:Bag>${bag.join('')}</rdf:Bag></dc:subject>`,
    about?.keywords && `<pdf:Keywords>${escapeXml(about.keywords)}</pdf:Keywords>`,
  ]
    .filter(Boolean)
    .join('\n');
  const date = new Date(iso).toISOString().replace(/\.\d+Z$/, '+00:00');
  return `<?xpacket begin="\uFEFF" id="W5M0MpCehiHzreSzNTczkc9d"?>
<x:xmpmeta xmlns:x="adobe:ns:meta/"><rdf:RDF xmlns:rdf="http://www.w3.org/1999/02/22-rdf-syntax-ns#">
<rdf:Description rdf:about="" xmlns:dc="http://purl.org/dc/elements/1.1/" xmlns:xmp="http://ns.adobe.com/xap/1.0/" xmlns:xmpMM="http://ns.adobe.com/xap/1.0/mm/" xmlns:pdf="http://ns.adobe.com/pdf/1.3/" xmlns:pdfxid="http://www.npes.org/pdfx/ns/id/">
<dc:format>application/pdf</dc:format><dc:title><rdf:Alt><rdf:li xml:lang="x-default">${escapeXml(title)}</rdf:li></rdf:Alt></dc:title>
<xmp:CreatorTool>Holvet</xmp:CreatorTool><xmp:CreateDate>${date}</xmp:CreateDate><xmp:ModifyDate>${date}</xmp:ModifyDate><xmp:MetadataDate>${date}</xmp:MetadataDate>
<xmpMM:DocumentID>uuid:${id}</xmpMM:DocumentID><xmpMM:InstanceID>uuid:${id}</xmpMM:InstanceID><xmpMM:RenditionClass>default</xmpMM:RenditionClass><xmpMM:VersionID>1</xmpMM:VersionID>
<pdf:Producer>Holvet</pdf:Producer><pdf:Trapped>${trapped ? 'True' : 'False'}</pdf:Trapped>${x4 ? '<pdfxid:GTS_PDFXVersion>PDF/X-4</pdfxid:GTS_PDFXVersion>' : ''}${more && `\n${more}`}
</rdf:Description></rdf:RDF></x:xmpmeta>
${`${' '.repeat(99)}\n`.repeat(20)}<?xpacket end="w"?>`;
}
