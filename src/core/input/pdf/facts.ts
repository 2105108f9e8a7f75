import { PDFDocument, PDFName, type PDFObject } from '@cantoo/pdf-lib';
import type { Rect } from '../../geometry/rect';
import { paintedOf } from './content';
import { budget, type PlacedPicture } from './use';
import { Objects } from './objects';
import { BrokenContent } from './tokens';

/**
 * What a PDF says and holds, read from the file alone. Boxes and sizes in points; boxes of a page run up from its own
 * origin.
 */
export interface PdfFacts {
  readonly bytes: number;
  readonly version: string;
  /** `PDF/X-4` and the like, where it claims to be one. */
  readonly standard: string | null;
  readonly title: string | null;
  readonly trapped: boolean;
  readonly tagged: boolean;
  readonly layers: readonly string[];
  /** What paper it is made for, and of which colours that profile is: CMYK, RGB. */
  readonly intent: { readonly condition: string; readonly space: string | null } | null;
  readonly fonts: readonly PdfFont[];
  readonly pages: readonly PdfPage[];
  /** Things that act: scripts, forms, links out of the file, attached files. */
  readonly acts: readonly string[];
}
export interface PdfFont {
  readonly name: string;
  readonly embedded: boolean;
  readonly subset: boolean;
}
export interface PdfPage {
  readonly media: Rect | null;
  readonly trim: Rect | null;
  readonly bleed: Rect | null;
  readonly inks: readonly string[];
  readonly fonts: readonly string[];
  readonly pictures: readonly PlacedPicture[];
  readonly untaggedRgb: Rect | null;
  readonly taggedRgb: boolean;
  readonly overprints: boolean;
  readonly transparent: boolean;
  readonly thinnest: { readonly width: number; readonly box: Rect } | null;
  readonly smallest: { readonly size: number; readonly box: Rect } | null;
  readonly whiteOverprint: Rect | null;
  readonly faults: readonly string[];
}

export type FactsRead =
  { readonly ok: true; readonly facts: PdfFacts } | { readonly ok: false; readonly message: string };

/** More pages are not looked at. */
const MOST_PAGES = 2000;

/**
 * Reads what is in a PDF with the library's parser and our own reading of page contents; nothing of the writer is used.
 * A file that cannot be read is refused with a sentence.
 */
export async function readFacts(bytes: Uint8Array): Promise<FactsRead> {
  const head = String.fromCharCode(...bytes.subarray(0, 1024));
  const version = /%PDF-(\d\.\d)/.exec(head)?.[1];
  if (!version) return { ok: false, message: 'It is not a PDF: it does not begin as one.' };
  let doc: PDFDocument;
  try {
    doc = await PDFDocument.load(bytes, { updateMetadata: false, ignoreEncryption: true, throwOnInvalidObject: false });
  } catch {
    return { ok: false, message: 'It is damaged: its objects cannot be read.' };
  }
  const o = new Objects(doc.context);
  const { Encrypt, Root, Info } = doc.context.trailerInfo;
  if (Encrypt) return { ok: false, message: 'It is locked with a password: make it without one.' };
  try {
    const root = o.look(Root as PDFObject);
    const nodes = pagesOf(o, o.get(root, 'Pages'));
    if (!nodes.length) return { ok: false, message: 'It has no pages.' };
    if (nodes.length > MOST_PAGES) return { ok: false, message: `It has more than ${MOST_PAGES} pages.` };
    const fonts = new Map<string, PdfFont>();
    const left = budget();
    const pages = nodes.map((node) => pageFacts(o, node, fonts, left));
    const metadata = o.get(root, 'Metadata');
    const xmp = new TextDecoder().decode(o.data(metadata));
    return {
      ok: true,
      facts: {
        bytes: bytes.length,
        version,
        standard:
          /GTS_PDFXVersion[^>]*>([^<]+)</.exec(xmp)?.[1] ?? o.text(o.get(Info as PDFObject, 'GTS_PDFXVersion')) ?? null,
        title: o.text(o.get(Info as PDFObject, 'Title')) ?? null,
        trapped: o.name(o.get(Info as PDFObject, 'Trapped')) === 'True',
        tagged: o.get(root, 'StructTreeRoot') !== undefined,
        layers: o.list(o.get(o.get(root, 'OCProperties'), 'OCGs')).map((l) => o.text(o.get(l, 'Name')) ?? ''),
        intent: intentOf(o, root),
        fonts: [...fonts.values()],
        pages,
        acts: actsOf(o, root, nodes),
      },
    };
  } catch (e) {
    if (e instanceof BrokenContent) return { ok: false, message: `It is damaged: it has ${e.message}.` };
    return { ok: false, message: 'It is damaged: a part of it cannot be unpacked.' };
  }
}

/** The pages in their order; what is inherited stands on each. */
function pagesOf(o: Objects, root: PDFObject | undefined): PDFObject[] {
  const pages: PDFObject[] = [];
  const met = new Set<PDFObject>();
  const go = (node: PDFObject | undefined, depth: number, from: PDFObject | undefined) => {
    if (!node || met.has(node) || depth > 64 || pages.length > MOST_PAGES) return;
    met.add(node);
    const dict = o.dict(node);
    for (const key of ['Resources', 'MediaBox', 'CropBox', 'Rotate']) {
      const k = PDFName.of(key);
      const above = from && o.dict(from)?.get(k);
      if (dict && above && !dict.has(k)) dict.set(k, above);
    }
    const kids = o.list(o.get(node, 'Kids'));
    if (o.get(node, 'Kids') !== undefined) for (const kid of kids) go(kid, depth + 1, node);
    else if (dict) pages.push(node);
  };
  go(root, 0, undefined);
  return pages;
}

function boxOf(o: Objects, page: PDFObject, key: string): Rect | null {
  const n = o.numbers(o.get(page, key));
  if (n.length !== 4 || !n.every(Number.isFinite)) return null;
  return { x0: Math.min(n[0], n[2]), y0: Math.min(n[1], n[3]), x1: Math.max(n[0], n[2]), y1: Math.max(n[1], n[3]) };
}

function pageFacts(o: Objects, node: PDFObject, fonts: Map<string, PdfFont>, left: ReturnType<typeof budget>): PdfPage {
  const [media, trim, bleed] = ['MediaBox', 'TrimBox', 'BleedBox'].map((k) => boxOf(o, node, k));
  const sheet = bleed ?? trim ?? media ?? { x0: 0, y0: 0, x1: 0, y1: 0 };
  const use = paintedOf(o, node, sheet, left);
  const names = [...use.fonts].map((f) => {
    const font = fontOf(o, f);
    fonts.set(font.name, font);
    return font.name;
  });
  return {
    ...use,
    media,
    trim,
    bleed,
    inks: [...use.inks].filter((i) => i !== 'All' && i !== 'None'),
    fonts: names,
    faults: [...use.faults],
  };
}

function fontOf(o: Objects, font: PDFObject): PdfFont {
  const child = o.name(o.get(font, 'Subtype')) === 'Type0' ? o.list(o.get(font, 'DescendantFonts'))[0] : font;
  const descriptor = o.get(child, 'FontDescriptor');
  const name = o.name(o.get(font, 'BaseFont')) ?? o.name(o.get(child, 'BaseFont')) ?? 'a font without a name';
  const type3 = o.name(o.get(font, 'Subtype')) === 'Type3';
  const embedded = type3 || ['FontFile', 'FontFile2', 'FontFile3'].some((k) => o.get(descriptor, k) !== undefined);
  return { name: name.replace(/^[A-Z]{6}\+/, ''), embedded, subset: /^[A-Z]{6}\+/.test(name) };
}

function intentOf(o: Objects, root: PDFObject | undefined): PdfFacts['intent'] {
  const intent = o.list(o.get(root, 'OutputIntents')).find((i) => o.name(o.get(i, 'S')) === 'GTS_PDFX');
  if (!intent) return null;
  const profile = o.data(o.get(intent, 'DestOutputProfile'));
  const space = profile.length >= 128 ? String.fromCharCode(...profile.subarray(16, 20)).trim() : null;
  return { condition: o.text(o.get(intent, 'OutputConditionIdentifier')) ?? '', space };
}

function actsOf(o: Objects, root: PDFObject | undefined, pages: readonly PDFObject[]): string[] {
  const acts = new Set<string>();
  if (o.get(o.get(root, 'Names'), 'JavaScript') || o.name(o.get(o.get(root, 'OpenAction'), 'S')) === 'JavaScript')
    acts.add('scripts');
  if (o.get(root, 'AcroForm')) acts.add('form fields');
  if (o.get(o.get(root, 'Names'), 'EmbeddedFiles')) acts.add('attached files');
  if (o.get(root, 'OpenAction') && !acts.has('scripts')) acts.add('something done on opening');
  for (const page of pages) {
    if (o.list(o.get(page, 'Annots')).length) acts.add('notes or links');
    if (o.get(page, 'AA')) acts.add('something done when a page is shown');
  }
  return [...acts];
}
