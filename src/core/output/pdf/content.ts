import type { Deflating, Env } from '../../env';
import { CLOSE, CUBIC, LINE, MOVE, type PathData } from '../../geometry/path';

/** Bytes that are worth a turn of the compressor. */
const PIECE = 1 << 19;

/**
 * A content stream, written straight into bytes: formatting numbers as strings is most of the time of a large page.
 * Coordinates get three decimals of a point (0.35 µm), colours four.
 */
export class ContentStream {
  private bytes = new Uint8Array(1 << 16);
  private length = 0;
  private sink: Deflating | null = null;

  /** A stream that is compressed while it is written: what is full enough goes on its way at every `rest`. */
  static compressed(env: Pick<Env, 'deflating'>): ContentStream {
    const out = new ContentStream();
    out.sink = env.deflating();
    return out;
  }

  /** All that was written, of a stream that is not compressed. */
  done(): Uint8Array {
    return this.bytes.subarray(0, this.length);
  }

  /** A place where a compressed stream may be taken away; null where nothing is to be waited for. */
  rest(): Promise<void> | null {
    return this.sink && this.length >= PIECE ? this.sink.add(this.take()) : null;
  }

  async deflated(): Promise<Uint8Array> {
    if (!this.sink) throw new Error('this stream is not compressed while it is written');
    if (this.length) await this.sink.add(this.take());
    return this.sink.end();
  }

  private take(): Uint8Array {
    const piece = this.done();
    this.bytes = new Uint8Array(2 * PIECE);
    this.length = 0;
    return piece;
  }

  private need(n: number): void {
    if (this.length + n <= this.bytes.length) return;
    const larger = new Uint8Array(Math.max(this.bytes.length * 2, this.length + n));
    larger.set(this.bytes.subarray(0, this.length));
    this.bytes = larger;
  }

  /** Operators and names; ASCII only. */
  op(text: string): this {
    this.need(text.length + 1);
    for (let i = 0; i < text.length; i++) this.bytes[this.length++] = text.charCodeAt(i);
    this.bytes[this.length++] = 10;
    return this;
  }

  private word(text: string): void {
    this.need(text.length + 1);
    for (let i = 0; i < text.length; i++) this.bytes[this.length++] = text.charCodeAt(i);
    this.bytes[this.length++] = 32;
  }

  /** Numbers, then an operator. */
  nums(values: readonly number[], operator: string, decimals: 3 | 4 | 6 = 3): this {
    for (const v of values) this.number(v, decimals);
    return this.op(operator);
  }

  number(x: number, decimals: 3 | 4 | 6 = 3): void {
    if (!(x > -1e9 && x < 1e9)) throw new Error(`not a number for a PDF: ${x}`);
    this.need(24);
    const unit = decimals === 3 ? 1000 : decimals === 4 ? 10_000 : 1_000_000;
    let v = Math.round(x * unit);
    // Most coordinates are small whole numbers of thousandths: whole arithmetic is several times as fast.
    if (decimals === 3 && v > -10_000_000 && v < 10_000_000) {
      this.length = this.thousandths(v | 0);
      return;
    }
    const { bytes } = this;
    let p = this.length;
    if (v < 0) {
      bytes[p++] = 45;
      v = -v;
    }
    const whole = Math.floor(v / unit);
    let rest = v - whole * unit;
    if (whole < 10) bytes[p++] = 48 + whole;
    else {
      let q = 10;
      while (q * 10 <= whole) q *= 10;
      let w = whole;
      while (q >= 1) {
        const k = Math.floor(w / q);
        bytes[p++] = 48 + k;
        w -= k * q;
        q /= 10;
      }
    }
    if (rest) {
      bytes[p++] = 46;
      for (let d = unit / 10; rest; d /= 10) {
        const k = Math.floor(rest / d);
        bytes[p++] = 48 + k;
        rest -= k * d;
      }
    }
    bytes[p++] = 32;
    this.length = p;
  }

  /** A number of thousandths under ten thousand, then a blank. Answers where the stream ends then. */
  private thousandths(value: number): number {
    const { bytes } = this;
    let p = this.length;
    let v = value;
    if (v < 0) {
      bytes[p++] = 45;
      v = -v;
    }
    const whole = (v / 1000) | 0;
    const rest = v - whole * 1000;
    if (whole >= 1000) bytes[p++] = 48 + ((whole / 1000) | 0);
    if (whole >= 100) bytes[p++] = 48 + (((whole / 100) | 0) % 10);
    if (whole >= 10) bytes[p++] = 48 + (((whole / 10) | 0) % 10);
    bytes[p++] = 48 + (whole % 10);
    if (rest) {
      bytes[p++] = 46;
      bytes[p++] = 48 + ((rest / 100) | 0);
      const two = rest % 100;
      if (two) {
        bytes[p++] = 48 + ((two / 10) | 0);
        if (two % 10) bytes[p++] = 48 + (two % 10);
      }
    }
    bytes[p++] = 32;
    return p;
  }

  path(path: PathData): this {
    for (let i = 0; i < path.length;) {
      const op = path[i];
      if (op === MOVE && isUprightRectangle(path, i)) {
        const [x0, y0, x1, y1] = [path[i + 1], path[i + 2], path[i + 7], path[i + 8]].map((v) => Math.round(v * 1000));
        for (const v of [x0, y0, x1 - x0, y1 - y0]) this.number(v / 1000);
        this.op('re');
        i += RECTANGLE;
      } else if (op === MOVE || op === LINE) {
        this.number(path[i + 1]);
        this.number(path[i + 2]);
        this.op(op === MOVE ? 'm' : 'l');
        i += 3;
      } else if (op === CUBIC) {
        for (let k = 1; k <= 6; k++) this.number(path[i + k]);
        this.op('c');
        i += 7;
      } else if (op === CLOSE) {
        this.op('h');
        i++;
      } else throw new Error(`unknown path opcode: ${op} at ${i}`);
    }
    return this;
  }

  /** A TJ array: hex strings of two-byte glyph ids with the moves between them, in thousandths of the size. */
  showGlyphs(parts: readonly (readonly number[] | number)[]): this {
    let text = '[';
    for (const part of parts)
      text +=
        typeof part === 'number'
          ? ` ${Number(part.toFixed(2))} `
          : `<${part.map((g) => g.toString(16).padStart(4, '0')).join('')}>`;
    this.word(`${text}]`);
    return this.op('TJ');
  }
}

/** Numbers of a path that goes once around a rectangle, back to where it began. */
const RECTANGLE = 16;

/** Does an upright rectangle begin here that runs across first, as the operator `re` does (ISO 32000-1 8.5.2.1)? */
const isUprightRectangle = (p: PathData, i: number): boolean =>
  p[i + 3] === LINE &&
  p[i + 5] === p[i + 2] &&
  p[i + 6] === LINE &&
  p[i + 7] === p[i + 4] &&
  p[i + 9] === LINE &&
  p[i + 10] === p[i + 1] &&
  p[i + 11] === p[i + 8] &&
  p[i + 12] === LINE &&
  p[i + 13] === p[i + 1] &&
  p[i + 14] === p[i + 2] &&
  p[i + 15] === CLOSE;
