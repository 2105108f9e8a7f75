import { table } from '../model/own';
/** What a profile file says of itself, or why it cannot be printed with. */
export type ProfileRead =
  { readonly ok: true; readonly name: string } | { readonly ok: false; readonly message: string };

const MAX_BYTES = 64 * 1024 * 1024;

/**
 * Looks into an ICC profile (ICC.1:2022, 7.2 header, 9.2 tags): only one for printing with C, M, Y and K, that knows
 * both ways between inks and looks, can be the profile of a design. The name is its own description.
 */
export function readOutputProfile(bytes: Uint8Array): ProfileRead {
  const refuse = (message: string): ProfileRead => ({ ok: false, message });
  if (bytes.length > MAX_BYTES) return refuse('It is too large for an ICC profile (the most is 64 MB).');
  const word = (at: number) => String.fromCharCode(...bytes.subarray(at, at + 4));
  if (bytes.length < 132 || word(36) !== 'acsp') return refuse('It is not an ICC profile.');
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  if (view.getUint32(0) > bytes.length) return refuse('It is cut off: its end is missing.');
  if (word(16) !== 'CMYK')
    return refuse(`It is a profile for ${SPACES[word(16)] ?? word(16).trim()}, not for printing inks (CMYK).`);
  if (word(12) !== 'prtr') return refuse('It is a CMYK profile, but not one of an output device.');
  const tags = new Map<string, { at: number; size: number }>();
  for (let i = 0; i < view.getUint32(128) && 144 + 12 * i <= bytes.length; i++)
    tags.set(word(132 + 12 * i), { at: view.getUint32(136 + 12 * i), size: view.getUint32(140 + 12 * i) });
  if (![...tags.values()].every((t) => t.at + t.size <= bytes.length))
    return refuse('It is cut off: its end is missing.');
  if (!tags.has('A2B0') && !tags.has('A2B1')) return refuse('It does not say how inks look.');
  if (!tags.has('B2A0') && !tags.has('B2A1'))
    return refuse('It does not say which inks make a look, so screen colours could not be separated.');
  const desc = tags.get('desc');
  return { ok: true, name: (desc && describe(bytes, view, desc.at)) || 'Own profile' };
}

const SPACES = table<string>({ 'RGB ': 'screens (RGB)', GRAY: 'grey', 'Lab ': 'Lab' });

/** The text of a description: `desc` of version 2, `mluc` of version 4 (its first language). */
function describe(bytes: Uint8Array, view: DataView, at: number): string {
  const type = String.fromCharCode(...bytes.subarray(at, at + 4));
  const room = bytes.length - at;
  let text = '';
  if (type === 'desc' && room > 12)
    text = new TextDecoder('latin1').decode(
      bytes.subarray(at + 12, at + 12 + Math.min(view.getUint32(at + 8), room - 12, 400)),
    );
  else if (type === 'mluc' && room > 28) {
    const length = Math.min(view.getUint32(at + 20), 400);
    const from = at + view.getUint32(at + 24);
    if (from + length <= bytes.length) text = new TextDecoder('utf-16be').decode(bytes.subarray(from, from + length));
  }
  return text.replace(/\0.*$/s, '').trim().slice(0, 200);
}
