import { D50 } from './spaces';

/**
 * The paper's own white as shares of D50 light, X Y Z, from a profile's `wtpt` tag (ICC.1:2022, 9.2.36, media white
 * point); null where it has none.
 */
export function paperWhite(profile: Uint8Array): readonly [number, number, number] | null {
  const view = new DataView(profile.buffer, profile.byteOffset, profile.byteLength);
  const word = (at: number) => String.fromCharCode(...profile.subarray(at, at + 4));
  if (profile.length < 132) return null;
  for (let i = 0; i < view.getUint32(128) && 144 + 12 * i <= profile.length; i++) {
    if (word(132 + 12 * i) !== 'wtpt') continue;
    const at = view.getUint32(136 + 12 * i);
    if (at + 20 > profile.length) return null;
    // s15Fixed16 numbers behind the type's eight bytes.
    const [x, y, z] = [0, 1, 2].map((k) => view.getInt32(at + 8 + 4 * k) / 65536 / D50[k]);
    return [x, y, z];
  }
  return null;
}
