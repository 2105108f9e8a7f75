/**
 * What stands in a content stream: a number, a name (without its stroke), a text, a list, a dictionary, or an operator.
 */
export type Operand =
  number | { readonly name: string } | { readonly text: Uint8Array } | readonly Operand[] | Dictionary;
interface Dictionary {
  readonly dict: ReadonlyMap<string, Operand>;
}
export type Visit = (operator: string, operands: readonly Operand[]) => void;

/** More operators than this in one stream are read no further: nobody draws so by hand or by program. */
const MOST = 5_000_000;
/** Lists and dictionaries in each other. */
const DEEPEST = 40;

const SPACE = new Set([0, 9, 10, 12, 13, 32]);
const DELIMITERS = new Set([...'()<>[]{}/%'].map((c) => c.charCodeAt(0)));
const isRegular = (c: number) => !SPACE.has(c) && !DELIMITERS.has(c);

/** Thrown where a stream is no content: with what, and where. */
export class BrokenContent extends Error {}

/** Goes through a content stream (ISO 32000-1 7.8.2), operator by operator. Throws BrokenContent. */
export function readContent(bytes: Uint8Array, visit: Visit): void {
  const at = new Reader(bytes);
  let operands: Operand[] = [];
  for (let n = 0; ; n++) {
    if (n > MOST) throw new BrokenContent(`more than ${MOST} tokens`);
    const c = at.peek();
    if (c < 0) return;
    if (!isRegular(c) || isNumeric(c) || c === 0x2f) {
      operands.push(at.operand(0));
      if (operands.length > 1000) throw new BrokenContent(`a thousand operands and no operator, at byte ${at.place}`);
      continue;
    }
    const word = at.word();
    if (word === 'true' || word === 'false' || word === 'null') {
      operands.push(word === 'true' ? 1 : 0);
      continue;
    }
    if (word === 'BI') {
      const dict = at.inlineImage();
      visit('BI', [{ dict }]);
    } else visit(word, operands);
    operands = [];
  }
}

const isNumeric = (c: number) => (c >= 48 && c <= 57) || c === 43 || c === 45 || c === 46;

class Reader {
  place = 0;
  constructor(private readonly bytes: Uint8Array) {}

  /** The next byte that is no space; −1 at the end. Comments are passed over. */
  peek(): number {
    const { bytes } = this;
    for (;;) {
      while (this.place < bytes.length && SPACE.has(bytes[this.place])) this.place++;
      if (this.place >= bytes.length) return -1;
      if (bytes[this.place] !== 0x25) return bytes[this.place];
      while (this.place < bytes.length && bytes[this.place] !== 10 && bytes[this.place] !== 13) this.place++;
    }
  }

  word(): string {
    const from = this.place;
    while (this.place < this.bytes.length && isRegular(this.bytes[this.place])) this.place++;
    if (this.place === from) throw new BrokenContent(`something that is no operator, at byte ${from}`);
    return String.fromCharCode(...this.bytes.subarray(from, Math.min(this.place, from + 64)));
  }

  operand(depth: number): Operand {
    if (depth > DEEPEST) throw new BrokenContent(`lists in lists more than ${DEEPEST} deep`);
    const c = this.peek();
    if (c === 0x2f) return { name: this.name() };
    if (c === 0x28) return { text: this.string() };
    if (c === 0x3c) {
      if (this.bytes[this.place + 1] === 0x3c) return { dict: this.dictionary(depth) };
      return { text: this.hex() };
    }
    if (c === 0x5b) {
      this.place++;
      const list: Operand[] = [];
      while (this.peek() !== 0x5d) {
        if (this.peek() < 0) throw new BrokenContent('a list that does not end');
        list.push(this.operand(depth + 1));
      }
      this.place++;
      return list;
    }
    if (isNumeric(c)) {
      const word = this.word();
      const n = Number(/^[+-]?\d*\.?\d*/.exec(word)![0]);
      return Number.isFinite(n) ? n : 0;
    }
    if (c >= 0 && isRegular(c)) {
      // Within lists and dictionaries: true, false, null.
      return this.word() === 'true' ? 1 : 0;
    }
    throw new BrokenContent(`a sign that does not belong there, at byte ${this.place}`);
  }

  private name(): string {
    this.place++;
    const from = this.place;
    while (this.place < this.bytes.length && isRegular(this.bytes[this.place])) this.place++;
    const raw = String.fromCharCode(...this.bytes.subarray(from, Math.min(this.place, from + 300)));
    return raw.replace(/#([0-9a-fA-F]{2})/g, (_, hex: string) => String.fromCharCode(parseInt(hex, 16)));
  }

  private string(): Uint8Array {
    const from = ++this.place;
    let depth = 1;
    for (; this.place < this.bytes.length; this.place++) {
      const c = this.bytes[this.place];
      if (c === 0x5c) this.place++;
      else if (c === 0x28) depth++;
      else if (c === 0x29 && --depth === 0) return this.bytes.subarray(from, this.place++);
    }
    throw new BrokenContent('a text that does not end');
  }

  private hex(): Uint8Array {
    const from = ++this.place;
    const end = this.bytes.indexOf(0x3e, from);
    if (end < 0) throw new BrokenContent('a text that does not end');
    this.place = end + 1;
    const digits = String.fromCharCode(...this.bytes.subarray(from, Math.min(end, from + 60_000))).replace(
      /[^0-9a-fA-F]/g,
      '',
    );
    return Uint8Array.from(digits.match(/../g) ?? [], (pair) => parseInt(pair, 16));
  }

  private dictionary(depth: number): Map<string, Operand> {
    this.place += 2;
    const dict = new Map<string, Operand>();
    for (;;) {
      const c = this.peek();
      if (c < 0) throw new BrokenContent('a dictionary that does not end');
      if (c === 0x3e) {
        this.place += 2;
        return dict;
      }
      if (c !== 0x2f) throw new BrokenContent(`a dictionary without a key, at byte ${this.place}`);
      dict.set(this.name(), this.operand(depth + 1));
    }
  }

  /** An image within the stream (8.9.7): what it says of itself; its samples are passed over. */
  inlineImage(): Map<string, Operand> {
    const dict = new Map<string, Operand>();
    for (;;) {
      const c = this.peek();
      if (c < 0) throw new BrokenContent('an image that does not end');
      if (c !== 0x2f) break;
      dict.set(this.name(), this.operand(1));
    }
    if (this.word() !== 'ID') throw new BrokenContent(`an image without its samples, at byte ${this.place}`);
    const { bytes } = this;
    for (let i = this.place + 1; i < bytes.length - 1; i++)
      if (SPACE.has(bytes[i - 1]) && bytes[i] === 0x45 && bytes[i + 1] === 0x49 && !isRegular(bytes[i + 2] ?? 32)) {
        this.place = i + 2;
        return dict;
      }
    throw new BrokenContent('an image that does not end');
  }
}
