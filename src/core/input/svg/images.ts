import { assetName } from '../../file/assets';
import type { Env } from '../../env';
import { pictureFacts, pictureFormat, readPicture } from '../picture/read';
import { PictureProblem } from '../picture/types';
import type { Held, Making } from './context';
import { hrefOf } from './gradients';
import { type Element } from './xml';

/** Bytes of pictures inside a file that are opened at all. */
const MOST_BYTES = 256 * 1024 * 1024;

/** The bytes and type of a data address (RFC 2397); null for any other address. */
export function dataBytes(address: string): { readonly type: string; readonly bytes: Uint8Array } | null {
  const m = /^\s*data:([^,;]*)((?:;[^,;]*)*),/i.exec(address);
  if (!m) return null;
  const body = address.slice(m[0].length);
  try {
    if (!/;\s*base64/i.test(m[2]))
      return { type: m[1].trim().toLowerCase(), bytes: new TextEncoder().encode(decodeURIComponent(body)) };
    const text = atob(decodeURIComponent(body).replace(/\s+/g, ''));
    const bytes = new Uint8Array(text.length);
    for (let i = 0; i < text.length; i++) bytes[i] = text.charCodeAt(i);
    return { type: m[1].trim().toLowerCase(), bytes };
  } catch {
    return null;
  }
}

/** Opens the pictures that lie inside a drawing, by the address they are used by. What lies outside is not fetched. */
export async function holdPictures(
  root: Element,
  making: Making,
  env: Pick<Env, 'asset'>,
): Promise<ReadonlyMap<string, Held>> {
  const held = new Map<string, Held>();
  let total = 0;
  const addresses = new Map<string, Element>();
  const look = (e: Element): void => {
    const href = e.space === '' && e.name === 'image' ? hrefOf(e) : undefined;
    if (href !== undefined && !addresses.has(href)) addresses.set(href, e);
    e.elements.forEach(look);
  };
  look(root);
  for (const [address, e] of addresses) {
    const data = dataBytes(address);
    if (!data) {
      if (address.trim())
        making.note(`A picture outside the file is not fetched: ${address.trim().slice(0, 60)}. Place it by itself.`);
      continue;
    }
    if (/svg/.test(data.type)) {
      making.note('A drawing inside the drawing is left out. Open it by itself.');
      continue;
    }
    total += data.bytes.length;
    if (total > MOST_BYTES) {
      making.note('There are more pictures inside than can be opened; the rest is left out.');
      break;
    }
    try {
      const pixels = await readPicture(data.bytes, env);
      const ending = pictureFormat(data.bytes)!.ending;
      const name = e.attributes.get('id') ?? 'Picture';
      held.set(address, {
        picture: {
          name: `${name}.${ending}`.slice(0, 200),
          file: await assetName(data.bytes, ending),
          ...pictureFacts(pixels),
        },
        bytes: data.bytes,
      });
    } catch (x) {
      making.note(`A picture inside cannot be used: ${x instanceof PictureProblem ? x.message : String(x)}.`);
    }
  }
  return held;
}
