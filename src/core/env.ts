/** A compression at work beside what is still being made. Pieces given are no longer the giver's. */
export interface Deflating {
  /** Takes a piece; resolves when another may be given. */
  add(piece: Uint8Array): Promise<void>;
  end(): Promise<Uint8Array>;
}

/**
 * What the outside gives the core. Core code never touches fetch, the file system, the DOM or a canvas package itself,
 * so the page, its workers, the command line and the tests differ only in the `Env` they pass in.
 */
export interface Env {
  /** Bytes of a shipped file: `fonts/…`, `icc/…` or `wasm/…`. Rejects with a sentence that names the file. */
  asset(path: string): Promise<Uint8Array>;
  /** The same, and what reads it once more, at once, where a place can do that without holding the bytes. */
  assetAgain?(path: string): Promise<{ readonly bytes: Uint8Array; readonly again?: () => Uint8Array }>;
  /** Module address of the colour engine's glue (a URL in the browser, a package name in Node). */
  readonly lcmsGlue: string;
  /** zlib-format compression (RFC 1950). */
  deflate(data: Uint8Array): Promise<Uint8Array>;
  /** The same of data that comes in pieces; the bytes are those of `deflate` on all of it. */
  deflating(): Deflating;
  /** A new id, unique in the design. */
  newId(): string;
  /** The moment of now, as an ISO 8601 date in UTC. */
  now(): string;
}

const HEX = Array.from('0123456789abcdef', (digit) => digit.charCodeAt(0));
/**
 * Ids of twenty hexadecimal digits, 80 random bits each. `fill` is asked for many at once: thousands are made in a row.
 */
export function randomIds(fill: (bytes: Uint8Array<ArrayBuffer>) => void): () => string {
  const pool = new Uint8Array(10 * 256);
  const digits = new Uint8Array(2 * pool.length);
  const decoder = new TextDecoder();
  let text = '';
  let at = digits.length;
  return () => {
    if (at === digits.length) {
      fill(pool);
      for (let i = 0; i < pool.length; i++) {
        digits[2 * i] = HEX[pool[i] >> 4];
        digits[2 * i + 1] = HEX[pool[i] & 15];
      }
      text = decoder.decode(digits);
      at = 0;
    }
    return text.slice(at, (at += 20));
  };
}
