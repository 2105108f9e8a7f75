import {
  PDFCrossRefStream,
  PDFNumber,
  PDFObjectStream,
  PDFStream,
  PDFTrailer,
  type PDFContext,
  type PDFObject,
  type PDFRef,
} from '@cantoo/pdf-lib';

/** Takes the bytes of a file piece by piece, in order; a piece is then its own. */
export type Sink = (piece: Uint8Array) => void;

/** As many objects as lie in one stream of objects (ISO 32000-1 7.5.7). */
const IN_ONE = 50;
/** A piece that objects are gathered to before it goes out. */
const PIECE = 1 << 18;
const encoder = new TextEncoder();

/**
 * The bytes of a PDF on their way out: objects one after the other, then where each of them lies (a cross-reference
 * stream, ISO 32000-1 7.5.8). What is written early need not be held until the end.
 */
export class Serial {
  private at = 0;
  private gathered: Uint8Array[] = [];
  private waiting = 0;
  /** Where each object is told to lie, by its number. */
  private readonly told = new Map<number, (table: PDFCrossRefStream) => void>();

  constructor(
    private readonly context: PDFContext,
    private readonly sink: Sink,
  ) {}

  /** Writes an object now. It is then no longer the library's. */
  early(ref: PDFRef, object: PDFObject): void {
    this.object(ref, object);
    this.flush();
  }

  /** Writes all that is left, and the end. */
  finish(): void {
    const { context } = this;
    if (this.at === 0) this.begin();
    const left = context.enumerateIndirectObjects();
    const packs: { readonly ref: PDFRef; readonly objects: [PDFRef, PDFObject][] }[] = [];
    for (const [ref, object] of left) {
      if (object instanceof PDFStream) {
        this.object(ref, object);
        continue;
      }
      let pack = packs.at(-1);
      if (!pack || pack.objects.length === IN_ONE) packs.push((pack = { ref: context.nextRef(), objects: [] }));
      const [into, index] = [pack.ref, pack.objects.length];
      this.told.set(ref.objectNumber, (table) => table.addCompressedEntry(ref, into, index));
      pack.objects.push([ref, object]);
    }
    for (const { ref, objects } of packs) this.object(ref, PDFObjectStream.withContextAndObjects(context, objects));
    const ref = context.nextRef();
    const start = this.at;
    const { Root, Info, ID } = context.trailerInfo;
    const dict = context.obj({ Size: PDFNumber.of(context.largestObjectNumber + 1), Root, Info, ID });
    const table = PDFCrossRefStream.create(dict);
    this.tell(ref, start);
    // Last first: the library looks for each one's place from the front.
    for (const n of [...this.told.keys()].sort((a, b) => b - a)) this.told.get(n)!(table);
    this.object(ref, table);
    const trailer = PDFTrailer.forLastCrossRefSectionOffset(start);
    const end = new Uint8Array(trailer.sizeInBytes());
    trailer.copyBytesInto(end, 0);
    this.put(end);
    this.flush();
  }

  private begin(): void {
    const { header } = this.context;
    const bytes = new Uint8Array(header.sizeInBytes() + 2).fill(10);
    header.copyBytesInto(bytes, 0);
    this.put(bytes);
  }

  private object(ref: PDFRef, object: PDFObject): void {
    if (this.at === 0) this.begin();
    this.tell(ref, this.at);
    this.put(encoder.encode(`${ref.objectNumber} ${ref.generationNumber} obj\n`));
    const bytes = new Uint8Array(object.sizeInBytes());
    object.copyBytesInto(bytes, 0);
    this.put(bytes);
    this.put(encoder.encode('\nendobj\n\n'));
    if (this.waiting >= PIECE) this.flush();
  }

  private tell(ref: PDFRef, offset: number): void {
    this.told.set(ref.objectNumber, (table) => table.addUncompressedEntry(ref, offset));
  }

  private put(bytes: Uint8Array): void {
    this.gathered.push(bytes);
    this.waiting += bytes.length;
    this.at += bytes.length;
  }

  private flush(): void {
    const pieces = this.gathered;
    [this.gathered, this.waiting] = [[], 0];
    for (const piece of joined(pieces)) this.sink(piece);
  }
}

/** Small pieces laid together, large ones as they are. */
function* joined(pieces: readonly Uint8Array[]): Generator<Uint8Array> {
  let run: Uint8Array[] = [];
  for (const piece of pieces) {
    if (piece.length < PIECE) {
      run.push(piece);
      continue;
    }
    if (run.length) yield together(run);
    run = [];
    yield piece;
  }
  if (run.length) yield together(run);
}

/** Pieces as one. */
export function together(pieces: readonly Uint8Array[]): Uint8Array {
  const all = new Uint8Array(pieces.reduce((n, p) => n + p.length, 0));
  let at = 0;
  for (const piece of pieces) {
    all.set(piece, at);
    at += piece.length;
  }
  return all;
}
