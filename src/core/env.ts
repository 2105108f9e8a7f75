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

/** An id of twenty hexadecimal digits from a random UUID (RFC 9562). Its dashes are cut out by their places: thousands are made at once. */
export const idOf = (uuid: string): string =>
  uuid.slice(0, 8) + uuid.slice(9, 13) + uuid.slice(14, 18) + uuid.slice(19, 23);
