import { tagAt, viewOf } from './sfnt';

const FLAVOURS = new Set([0x00010000, 0x74727565 /* true */, 0x4f54544f /* OTTO */]);

/** What a file begins with, where it is one of the five kinds of font files that are read. */
export function fontFormat(bytes: Uint8Array): 'sfnt' | 'collection' | 'woff' | 'woff2' | null {
  if (bytes.length < 12) return null;
  const v = viewOf(bytes);
  const tag = tagAt(v, 0);
  if (tag === 'ttcf') return 'collection';
  if (tag === 'wOFF') return 'woff';
  if (tag === 'wOF2') return 'woff2';
  return FLAVOURS.has(v.getUint32(0)) ? 'sfnt' : null;
}
