import { pictureIn } from '../../edit/picture';
import type { Env } from '../../env';
import { assetName } from '../../file/assets';
import { multiply, translation } from '../../geometry/matrix';
import { rect } from '../../geometry/rect';
import type { NodeOf, Paint } from '../../model/schema';
import { pictureFacts, pictureFormat, readPicture } from '../picture/read';
import { PictureProblem } from '../picture/types';
import type { Held, Making, Place } from './context';
import { hrefOf } from './gradients';
import { readLength } from './values';
import { viewMatrix } from './view';
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

/** A picture on the page: a rectangle of its own size, or of the part that is shown. */
export function pictureNode(making: Making, held: Held, e: Element, place: Place, name: string): string[] {
  const m = place.measures;
  const { picture } = held;
  const side = (attribute: 'width' | 'height', along: 'x' | 'y') => {
    const text = e.attributes.get(attribute);
    return text === undefined || text === 'auto' ? null : readLength(text, m, along);
  };
  const [gw, gh] = [side('width', 'x'), side('height', 'y')];
  const w = gw ?? (gh !== null ? (gh * picture.width) / picture.height : picture.width);
  const h = gh ?? (gw !== null ? (gw * picture.height) / picture.width : picture.height);
  if (!(w > 0) || !(h > 0)) return [];
  const [x, y] = [readLength(e.attributes.get('x'), m, 'x') ?? 0, readLength(e.attributes.get('y'), m, 'y') ?? 0];
  const { matrix, slice } = viewMatrix(
    { x: 0, y: 0, width: picture.width, height: picture.height },
    rect(0, 0, w, h),
    e.attributes.get('preserveAspectRatio'),
  );
  const geometry = multiply(matrix, [picture.width, 0, 0, picture.height, 0, 0]);
  const id = making.pictureOf(held);
  const paint: Paint = { ...pictureIn({ ...picture, id }, rect(0, 0, w, h), 'stretch'), geometry };
  // The frame is the picture itself, unless it is cut.
  const frame = slice
    ? rect(0, 0, w, h)
    : { x0: geometry[4], y0: geometry[5], x1: geometry[4] + geometry[0], y1: geometry[5] + geometry[3] };
  return [
    making.add<NodeOf<'shape'>>({
      name,
      kind: 'shape',
      shape: 'rectangle',
      knobs: {},
      transform: translation(x + frame.x0, y + frame.y0),
      width: frame.x1 - frame.x0,
      height: frame.y1 - frame.y0,
      fills: [{ ...paint, geometry: multiply(translation(-frame.x0, -frame.y0), geometry) }],
      outlines: [],
    }),
  ];
}
