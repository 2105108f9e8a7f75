import { refuse, type ExchangeSwatch, type SwatchesRead } from '../../colour/exchange';
import { clip01, type Triple } from '../../colour/spaces';
import { xyzToLab } from '../../colour/spaces';
import type { Cmyk } from '../../model/schema';

/** Named colours of an ICC profile (class nmcl, tag ncl2: ICC.1:2022 10.17). Read only. Places are bytes, not lines. */
export function readIccNamed(bytes: Uint8Array): SwatchesRead {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const word = (at: number) => String.fromCharCode(...bytes.subarray(at, at + 4));
  if (bytes.length < 132 || word(36) !== 'acsp') return refuse(null, 'this is not an ICC profile.');
  if (word(12) !== 'nmcl') return refuse(null, 'this ICC profile holds no named colours.');
  const device = word(16);
  const pcs = word(20);
  const tags = view.getUint32(128);
  let at = -1;
  for (let i = 0; i < tags && 132 + 12 * i + 12 <= bytes.length; i++)
    if (word(132 + 12 * i) === 'ncl2') at = view.getUint32(132 + 12 * i + 4);
  if (at < 0 || at + 84 > bytes.length || word(at) !== 'ncl2')
    return refuse(null, 'the list of named colours is missing.');
  const count = view.getUint32(at + 12);
  const coordinates = view.getUint32(at + 16);
  const step = 38 + 2 * coordinates;
  if (at + 84 + count * step > bytes.length)
    return refuse(null, `${count} colours are promised, but the file ends before.`);
  const text = (from: number) => {
    let end = from;
    while (end < from + 32 && bytes[end]) end++;
    return new TextDecoder('latin1').decode(bytes.subarray(from, end));
  };
  const [prefix, suffix] = [text(at + 20), text(at + 52)];
  const swatches: ExchangeSwatch[] = [];
  for (let i = 0; i < count; i++) {
    const p = at + 84 + i * step;
    const numbers = [0, 2, 4].map((o) => view.getUint16(p + 32 + o));
    // ncl2 keeps to the 16-bit Lab of version 2, whatever the version of the profile.
    const lab: Triple =
      pcs === 'XYZ '
        ? xyzToLab([numbers[0] / 32768, numbers[1] / 32768, numbers[2] / 32768])
        : [Math.min(100, numbers[0] / 652.8), numbers[1] / 256 - 128, numbers[2] / 256 - 128];
    const cmyk: Cmyk | null =
      device === 'CMYK' && coordinates === 4
        ? ([0, 2, 4, 6].map((o) => clip01(view.getUint16(p + 38 + o) / 65535)) as unknown as Cmyk)
        : null;
    swatches.push({ name: `${prefix}${text(p)}${suffix}`, colour: { lab }, lab, ...(cmyk && { cmyk }) });
  }
  return { ok: true, swatches, ramps: [], notes: [] };
}
