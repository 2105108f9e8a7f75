import type { MozJPEGModule } from '@jsquash/jpeg/codec/dec/mozjpeg_dec.js';
import type { Env } from '../../env';
import type { Pixels } from '../../pictures/source';
import { readExif, sanePpi } from './exif';
import { turned } from './turn';
import { ascii, DecoderGone, PictureProblem, plausible, view, type PictureFormat } from './types';

interface JpegFacts {
  readonly width: number;
  readonly height: number;
  readonly components: number;
  readonly orientation: number;
  readonly ppi: number | null;
  readonly icc: Uint8Array | null;
  /** Written by a program that keeps CMYK upside down (an Adobe marker, as practically all do). */
  readonly adobe: boolean;
  /** Baseline or progressive, eight bits, Huffman coded: what PDF's DCT filter takes. */
  readonly plain: boolean;
}

interface Segment {
  readonly marker: number;
  /** Where its 0xff lies, and the first byte after it. */
  readonly from: number;
  readonly to: number;
  readonly body: Uint8Array;
}

/**
 * The marker segments of a JPEG (ITU-T T.81, annex B) up to its first scan, that too; what lies between them is passed
 * over.
 */
function* segmentsOf(b: Uint8Array): Generator<Segment> {
  const v = view(b);
  for (let at = 2; at + 4 <= b.length;) {
    const marker = b[at + 1];
    if (b[at] !== 0xff || marker === 0xff) at++;
    else if (marker === 0 || marker === 1 || (marker >= 0xd0 && marker <= 0xd8)) at += 2;
    else if (marker === 0xd9) return;
    else {
      const to = Math.min(b.length, at + 2 + Math.max(2, v.getUint16(at + 2)));
      yield { marker, from: at, to, body: b.subarray(at + 4, to) };
      if (marker === 0xda) return;
      at = to;
    }
  }
}

const isFrame = ({ marker, body }: Segment): boolean =>
  marker >= 0xc0 && marker <= 0xcf && marker !== 0xc4 && marker !== 0xc8 && marker !== 0xcc && body.length >= 6;

/** What the segments before the first scan say. Null where there is no frame; of several, the first counts. */
export function jpegFacts(b: Uint8Array): JpegFacts | null {
  let frame: { width: number; height: number; components: number; plain: boolean } | null = null;
  let orientation = 1;
  let density: number | null = null;
  let ppi: number | null = null;
  let adobe = false;
  const icc: Uint8Array[] = [];
  for (const segment of segmentsOf(b)) {
    const { marker, body } = segment;
    if (isFrame(segment)) {
      frame ??= {
        height: view(body).getUint16(1),
        width: view(body).getUint16(3),
        components: body[5],
        plain: marker <= 0xc2 && body[0] === 8,
      };
    } else if (marker === 0xe0 && body.length >= 12 && ascii(body, 0, 4) === 'JFIF') {
      const dots = view(body).getUint16(8);
      density = sanePpi(body[7] === 1 ? dots : body[7] === 2 ? dots * 2.54 : null);
    } else if (marker === 0xe1 && ascii(body, 0, 4) === 'Exif') {
      const exif = readExif(body.subarray(6));
      orientation = exif.orientation;
      ppi = exif.ppi ?? ppi;
    } else if (marker === 0xe2 && body.length > 14 && ascii(body, 0, 11) === 'ICC_PROFILE') {
      // Parts are numbered from 1; each part's place is its number.
      if (body[12] >= 1) icc[body[12] - 1] = body.subarray(14);
    } else if (marker === 0xee && ascii(body, 0, 5) === 'Adobe') adobe = true;
  }
  return frame && { ...frame, orientation, ppi: ppi ?? density, adobe, icc: joined(icc) };
}

/**
 * The file with nothing before its first scan but what a decoder needs, and one frame: the one whose size was looked
 * at. A damaged profile, taken for segments, may else name a far larger one.
 */
function bare(b: Uint8Array): Uint8Array {
  const parts = [b.subarray(0, 2)];
  let framed = false;
  for (const segment of segmentsOf(b)) {
    const { marker, from, to } = segment;
    if (marker === 0xda) parts.push(b.subarray(from));
    else if (isFrame(segment) ? !framed : [0xc4, 0xdb, 0xdd, 0xee].includes(marker)) parts.push(b.subarray(from, to));
    framed ||= isFrame(segment);
  }
  return joined(parts)!;
}

function joined(parts: readonly (Uint8Array | undefined)[]): Uint8Array | null {
  if (!parts.length) return null;
  let length = 0;
  for (let i = 0; i < parts.length; i++) {
    const part = parts[i];
    if (!part) return null; // a part is missing: no profile is better than half of one
    length += part.length;
  }
  const out = new Uint8Array(length);
  let at = 0;
  for (const part of parts) {
    out.set(part!, at);
    at += part!.length;
  }
  return out;
}

/** JPEG: grey, RGB (Y′CbCr) and CMYK (YCCK), baseline and progressive, turned as Exif says. */
export const JPEG: PictureFormat = {
  name: 'JPEG',
  ending: 'jpg',
  is: (b) => b[0] === 0xff && b[1] === 0xd8 && b[2] === 0xff,
  size(b) {
    const f = jpegFacts(b);
    return f && (f.orientation >= 5 ? { width: f.height, height: f.width } : { width: f.width, height: f.height });
  },
  async opener(bytes, env) {
    const facts = jpegFacts(bytes);
    if (!facts) throw new PictureProblem('it is damaged: there is no picture in it');
    const { components, orientation, icc, ppi } = facts;
    // A block of 64 pixels takes two bits at the very least.
    plausible(bytes.length, facts.width * facts.height, 300);
    if (components !== 1 && components !== 3 && components !== 4)
      throw new PictureProblem(`it has ${components} colour channels; 1, 3 or 4 can be read`);
    const open = await (components === 4 ? inks(facts.adobe) : light(components, env));
    return (b) => turned({ ...open(b), alpha: null, icc, ppi }, orientation);
  },
};

type Image = Pick<Pixels, 'width' | 'height' | 'space' | 'data'>;
/** What a decoder says of it is for programmers. */
const damaged = () =>
  new PictureProblem('it is damaged, or of a kind of JPEG that is not read. Saving it anew where it was made may help');

/**
 * A decoder ends for good at a file that is damaged: what has been opened before is opened again by one that never
 * ended.
 */
const decoders: Record<'untried' | 'proven', Promise<MozJPEGModule> | null> = { untried: null, proven: null };
const ended = new WeakSet<MozJPEGModule>();
let compiled: Promise<WebAssembly.Module> | null = null;

async function load(env: Pick<Env, 'asset'>): Promise<MozJPEGModule> {
  compiled ??= env.asset('wasm/mozjpeg_dec.wasm').then((wasm) => WebAssembly.compile(wasm as BufferSource));
  compiled.catch(() => (compiled = null));
  const [{ default: make }, { initEmscriptenModule }, module] = await Promise.all([
    import('@jsquash/jpeg/codec/dec/mozjpeg_dec.js'),
    import('@jsquash/jpeg/utils.js'),
    compiled,
  ]);
  // What it has to complain about is thrown anyway.
  return initEmscriptenModule(make, module, { printErr: () => {} });
}

const decoderFor = (what: keyof typeof decoders, env: Pick<Env, 'asset'>): Promise<MozJPEGModule> =>
  (decoders[what] ??= load(env)).catch((e: unknown) => {
    decoders[what] = null;
    throw e;
  });

/**
 * What a decoder takes for a large picture it never gives back: it is let go of when no picture has come for so long.
 */
const IDLE_MS = 3000;
let idle: ReturnType<typeof setTimeout> | undefined;
function letGoLater(): void {
  clearTimeout(idle);
  idle = setTimeout(() => (decoders.untried = null), IDLE_MS);
  // In a shell nothing waits for this.
  (idle as { unref?(): void }).unref?.();
}

/** Grey and RGB by the decoder that nearly all programs share, so that halved colours are widened alike everywhere. */
async function light(components: 1 | 3, env: Pick<Env, 'asset'>): Promise<(bytes: Uint8Array) => Image> {
  const [untried, again] = await Promise.all([decoderFor('untried', env), decoderFor('proven', env)]);
  let first: MozJPEGModule | null = untried;
  return (bytes) => {
    if (first && ended.has(first)) throw new DecoderGone();
    try {
      const image = (first ?? again).decode(bytes.slice().buffer, false);
      if (!image) throw damaged();
      const { width, height, data: rgba } = image;
      const data = withoutAlpha(rgba, components);
      // Given back at once, where that can be said: it is four bytes for each pixel.
      (rgba.buffer as { transfer?(length: number): unknown }).transfer?.(0);
      if (first) letGoLater();
      first = null;
      return { width, height, space: components === 1 ? 'gray' : 'rgb', data };
    } catch {
      if (first) ended.add(first);
      decoders.untried = null;
      throw damaged();
    }
  };
}

function withoutAlpha(rgba: Uint8ClampedArray, components: 1 | 3): Uint8Array {
  const count = rgba.length / 4;
  const data = new Uint8Array(count * components);
  // Four bytes are read as one number, and four pixels written as three: it is done for millions.
  const from = new Uint32Array(rgba.buffer, rgba.byteOffset, count);
  if (components === 1) {
    for (let i = 0; i < count; i++) data[i] = from[i];
    return data;
  }
  const whole = count & ~3;
  const to = new Uint32Array(data.buffer, 0, (whole / 4) * 3);
  for (let i = 0, at = 0; i < whole; i += 4, at += 3) {
    const [a, b, c, d] = [from[i], from[i + 1], from[i + 2], from[i + 3]];
    to[at] = (a & 0xffffff) | (b << 24);
    to[at + 1] = ((b >>> 8) & 0xffff) | (c << 16);
    to[at + 2] = ((c >>> 16) & 0xff) | (d << 8);
  }
  for (let i = whole; i < count; i++) for (let k = 0; k < 3; k++) data[3 * i + k] = rgba[4 * i + k];
  return data;
}

/** CMYK, which that decoder does not give. */
async function inks(upsideDown: boolean): Promise<(bytes: Uint8Array) => Image> {
  const { JpegImage, setVerbosityLevel, VerbosityLevel } =
    await import('pdfjs-dist/image_decoders/pdf.image_decoders.min.mjs');
  setVerbosityLevel(VerbosityLevel.ERRORS); // we say ourselves what is wrong with a file
  return (bytes) => {
    const image = new JpegImage();
    let raw: Uint8Array | Uint8ClampedArray;
    try {
      image.parse(bare(bytes));
      // `isSourcePDF`: the samples as they are in the file; else the decoder turns all inks round.
      raw = image.getData({ width: image.width, height: image.height, isSourcePDF: true });
    } catch {
      throw damaged();
    }
    if (image.numComponents !== 4 || raw.length !== image.width * image.height * 4) throw damaged();
    const data = new Uint8Array(raw.buffer, raw.byteOffset, raw.byteLength);
    if (upsideDown) for (let i = 0; i < data.length; i++) data[i] = 255 - data[i];
    return { width: image.width, height: image.height, space: 'cmyk', data };
  };
}
