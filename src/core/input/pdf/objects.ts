import {
  PDFArray,
  PDFDict,
  PDFHexString,
  PDFName,
  PDFNumber,
  PDFRawStream,
  PDFStream,
  PDFString,
  decodePDFRawStream,
  type PDFContext,
  type PDFObject,
} from '@cantoo/pdf-lib';

/** A stream may not become larger than this when it is unpacked. */
const MOST_BYTES = 256 * 1024 * 1024;

/**
 * What stands in a file, asked for by keys and without references. What is not there, or is something else, is
 * undefined or empty.
 */
export class Objects {
  constructor(readonly context: PDFContext) {}

  look(o: PDFObject | undefined): PDFObject | undefined {
    let at = o;
    // References to references are no good, but must not go on for ever.
    for (let n = 0; n < 20 && at !== undefined; n++) {
      const next = this.context.lookup(at);
      if (next === at) return at;
      at = next;
    }
    return at;
  }
  dict(o: PDFObject | undefined): PDFDict | undefined {
    const d = this.look(o);
    return d instanceof PDFDict ? d : d instanceof PDFStream ? d.dict : undefined;
  }
  get(o: PDFObject | undefined, key: string): PDFObject | undefined {
    const d = this.dict(o);
    return d ? this.look(d.get(PDFName.of(key))) : undefined;
  }
  /** What a key says before it is followed: the same reference is the same thing. */
  raw(o: PDFObject | undefined, key: string): PDFObject | undefined {
    return this.dict(o)?.get(PDFName.of(key));
  }
  name(o: PDFObject | undefined): string | undefined {
    const n = this.look(o);
    return n instanceof PDFName ? n.decodeText() : undefined;
  }
  number(o: PDFObject | undefined): number | undefined {
    const n = this.look(o);
    return n instanceof PDFNumber ? n.asNumber() : undefined;
  }
  text(o: PDFObject | undefined): string | undefined {
    const t = this.look(o);
    return t instanceof PDFString || t instanceof PDFHexString ? t.decodeText() : undefined;
  }
  list(o: PDFObject | undefined): (PDFObject | undefined)[] {
    const l = this.look(o);
    return l instanceof PDFArray ? l.asArray().map((x) => this.look(x)) : [];
  }
  numbers(o: PDFObject | undefined): number[] {
    return this.list(o).map((x) => this.number(x) ?? NaN);
  }
  entries(o: PDFObject | undefined): [string, PDFObject][] {
    return (this.dict(o)?.entries() ?? []).flatMap(([k, v]): [string, PDFObject][] => {
      const value = this.look(v);
      return value === undefined ? [] : [[k.decodeText(), value]];
    });
  }
  /** A stream's bytes, unpacked; empty for what is none, throws for what is too large or broken. */
  data(o: PDFObject | undefined): Uint8Array {
    const s = this.look(o);
    if (!(s instanceof PDFRawStream)) return new Uint8Array();
    const filters = this.list(s.dict.get(PDFName.of('Filter')));
    const one = this.name(s.dict.get(PDFName.of('Filter')));
    const all = one ? [one] : filters.map((f) => this.name(f));
    if (all.some((f) => f === 'DCTDecode' || f === 'JPXDecode' || f === 'CCITTFaxDecode' || f === 'JBIG2Decode'))
      return new Uint8Array();
    const bytes = decodePDFRawStream(s).decode();
    if (bytes.length > MOST_BYTES) throw new Error('a stream is too large');
    return bytes;
  }
}
