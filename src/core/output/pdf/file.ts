import {
  PDFArray,
  PDFBool,
  PDFContext,
  PDFDict,
  PDFHeader,
  PDFHexString,
  PDFName,
  PDFNumber,
  PDFRawStream,
  PDFRef,
  PDFString,
  type PDFObject,
} from '@cantoo/pdf-lib';
import type { Env } from '../../env';
import { Serial, type Sink } from './serial';

/** A value on its way into the file. Plain text becomes a text string; names and references have their own makers. */
export type Value =
  number | boolean | string | PDFObject | readonly Value[] | { readonly [key: string]: Value | undefined };

/** A name object. */
export const name = (n: string): PDFName => PDFName.of(n);

/** Numbers with at most `decimals` places and never an exponent; anything not finite is a mistake of ours. */
export function pdfNumber(x: number, decimals = 5): PDFNumber {
  if (!Number.isFinite(x)) throw new Error(`not a number for a PDF: ${x}`);
  return PDFNumber.of(Number(x.toFixed(decimals)));
}

/** A stream whose bytes go into the file as they are, at once: the library copies byte by byte. */
function streamOf(dict: PDFDict, bytes: Uint8Array): PDFRawStream {
  const stream = PDFRawStream.of(dict, bytes);
  stream.copyBytesInto = (buffer, offset) => {
    stream.updateDict();
    let at = offset + dict.copyBytesInto(buffer, offset);
    for (const piece of [STREAM, bytes, ENDSTREAM]) {
      buffer.set(piece, at);
      at += piece.length;
    }
    return at - offset;
  };
  return stream;
}
const [STREAM, ENDSTREAM] = ['\nstream\n', '\nendstream'].map((word) => new TextEncoder().encode(word));

/** Streams of so many bytes leave at once: all pictures of a file may be more than there is room for. */
const LARGE = 1 << 20;

/** The objects of one PDF file, kept by a library until they go out; streams are compressed on the way in. */
export class PdfFile {
  private readonly context = PDFContext.create();
  private readonly serial: Serial;

  constructor(
    private readonly env: Pick<Env, 'deflate'>,
    version: 6 | 7,
    sink: Sink,
  ) {
    this.serial = new Serial(this.context, sink);
    this.context.header = PDFHeader.forVersion(1, version);
  }

  reserve(): PDFRef {
    return this.context.nextRef();
  }
  set(ref: PDFRef, value: Value): void {
    this.context.assign(ref, this.convert(value));
  }
  add(value: Value): PDFRef {
    return this.context.register(this.convert(value));
  }

  async stream(
    dict: { readonly [key: string]: Value | undefined },
    data: Uint8Array | string,
    compress = true,
  ): Promise<PDFRef> {
    const raw = typeof data === 'string' ? new TextEncoder().encode(data) : data;
    return compress ? this.deflated(dict, await this.env.deflate(raw)) : this.registered(dict, raw);
  }

  /** A stream that was compressed before. */
  deflated(dict: { readonly [key: string]: Value | undefined }, bytes: Uint8Array): PDFRef {
    return this.registered({ ...dict, Filter: name('FlateDecode') }, bytes);
  }

  private registered(dict: { readonly [key: string]: Value | undefined }, bytes: Uint8Array): PDFRef {
    const stream = streamOf(this.convert(dict) as PDFDict, bytes);
    if (bytes.length < LARGE) return this.context.register(stream);
    const ref = this.context.nextRef();
    this.serial.early(ref, stream);
    return ref;
  }

  /** Writes all that has not gone out yet. */
  finish(root: PDFRef, info: PDFRef, idHex: string): void {
    const id = PDFHexString.of(idHex);
    this.context.trailerInfo = { Root: root, Info: info, ID: this.convert([id, id]) };
    this.serial.finish();
  }

  private convert(v: Value): PDFObject {
    if (typeof v === 'number') return pdfNumber(v);
    if (typeof v === 'boolean') return v ? PDFBool.True : PDFBool.False;
    if (typeof v === 'string')
      return /^[\x20-\x7e]*$/.test(v) ? PDFString.of(v.replace(/[\\()]/g, (c) => `\\${c}`)) : PDFHexString.fromText(v);
    if (Array.isArray(v)) {
      const array = PDFArray.withContext(this.context);
      for (const x of v as readonly Value[]) array.push(this.convert(x));
      return array;
    }
    if (isPdfObject(v)) return v;
    const dict = PDFDict.withContext(this.context);
    for (const [key, x] of Object.entries(v as { readonly [key: string]: Value | undefined }))
      if (x !== undefined) dict.set(PDFName.of(key), this.convert(x));
    return dict;
  }
}

function isPdfObject(v: object): v is PDFObject {
  return 'copyBytesInto' in v;
}
