import type { PDFObject } from '@cantoo/pdf-lib';
import type { Objects } from './objects';
import { spaceOf, type Space } from './spaces';

/** The colour space of a picture; `spaces` are those that go by a name. */
export const pictureSpace = (o: Objects, picture: PDFObject | undefined, spaces: PDFObject | undefined): Space =>
  spaceOf(o, o.get(picture, 'ColorSpace'), (n) => o.get(spaces, n));

const known = new WeakMap<PDFObject, readonly string[]>();

/** Plates that a picture's samples ink; all of its space's where they cannot be read here. */
export function pictureInks(o: Objects, picture: PDFObject | undefined, space: Space): readonly string[] {
  if (!picture || !space.inks.length) return [];
  const last = known.get(picture);
  if (last) return last;
  const n = space.components;
  let inks: readonly string[] = space.inks;
  const plain = o.number(o.get(picture, 'BitsPerComponent')) === 8 && space.kind !== 'indexed';
  const data = plain && !o.get(picture, 'Decode') ? o.data(picture) : [];
  if (data.length) {
    const most = new Uint8Array(n);
    const light = space.kind === 'gray';
    for (let i = 0; i < data.length; i++) {
      const v = light ? 255 - data[i] : data[i];
      if (v > most[i % n]) most[i % n] = v;
    }
    inks = space.inks.filter((_, i) => most[i] > 0);
  }
  known.set(picture, inks);
  return inks;
}
