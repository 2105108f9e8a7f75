import { view } from './types';

export interface ExifFacts {
  /** 1…8: how the picture is to be turned (Exif 2.3, tag 274). */
  readonly orientation: number;
  readonly ppi: number | null;
}

/** Reads what matters here out of a TIFF block as Exif keeps it; whatever is broken counts as not said. */
export function readExif(block: Uint8Array): ExifFacts {
  const none = { orientation: 1, ppi: null };
  if (block.length < 14) return none;
  const v = view(block);
  const little = v.getUint16(0) === 0x4949;
  if (!little && v.getUint16(0) !== 0x4d4d) return none;
  const at = v.getUint32(4, little);
  if (at + 2 > block.length) return none;
  let orientation = 1;
  let resolution: number | null = null;
  let unit = 2;
  const entries = v.getUint16(at, little);
  for (let i = 0; i < entries; i++) {
    const e = at + 2 + 12 * i;
    if (e + 12 > block.length) break;
    const tag = v.getUint16(e, little);
    if (tag === 274) orientation = v.getUint16(e + 8, little);
    else if (tag === 296) unit = v.getUint16(e + 8, little);
    else if (tag === 282) {
      const p = v.getUint32(e + 8, little);
      if (p + 8 <= block.length) resolution = v.getUint32(p, little) / v.getUint32(p + 4, little);
    }
  }
  return {
    orientation: orientation >= 1 && orientation <= 8 ? orientation : 1,
    ppi: sanePpi(resolution === null ? null : unit === 3 ? resolution * 2.54 : resolution),
  };
}

/** A resolution that can be meant; files often say nonsense. */
export const sanePpi = (v: number | null): number | null => (v !== null && v >= 10 && v <= 10_000 ? v : null);
