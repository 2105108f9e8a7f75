import type { Face } from './face';

const SMALL = 'abcdefghijklmnopqrstuvwxyz';

/** Mean advance of a face’s small letters, a share of the size; of its first letters where it has no small ones. */
export function meanWidth(face: Face): number {
  const letters = face.coversAll(SMALL) ? SMALL : String.fromCodePoint(...[...face.codes()].slice(0, 26));
  const glyphs = face.shape(letters);
  return glyphs.reduce((n, g) => n + face.advance(g.gid), 0) / Math.max(1, glyphs.length) / face.upem;
}
