import { adoptPicture, pasteClip } from '../edit/clip';
import { tryOut } from '../edit/history';
import { addNode } from '../edit/pile';
import { pictureIn, placedSize } from '../edit/picture';
import type { Env } from '../env';
import { assetName, type Assets } from '../file/assets';
import { IDENTITY } from '../geometry/matrix';
import { newDesign, setupOf } from '../model/defaults';
import { MAX_PAGE, type Design } from '../model/schema';
import type { FontBook } from '../text/fonts';
import { isDrawing } from './isDrawing';
import { pictureFacts, pictureFormat, readPicture } from './picture/read';
import { PictureProblem } from './picture/types';
import { readSvg } from './svg/read';
import { SvgProblem } from './svg/xml';

export type AsDesign =
  | {
      readonly ok: true;
      readonly design: Design;
      readonly assets: Assets;
      /** What could not be kept, in sentences. */ readonly notes: readonly string[];
    }
  | { readonly ok: false; readonly why: string };

const stem = (name: string): string => name.replace(/\.[^.]+$/, '').slice(0, 120) || 'Drawing';
/** A page's side in points: what the file says, within what a page may be. */
const side = (v: number): number => Math.min(MAX_PAGE, Math.max(1, v));

/** A design of one page, as large as the drawing or picture that it shows. `name` is the file's. */
export async function openAsDesign(
  bytes: Uint8Array,
  name: string,
  env: Env & { readonly fonts: FontBook },
): Promise<AsDesign> {
  try {
    return isDrawing(name, bytes) ? await fromDrawing(bytes, name, env) : await fromPicture(bytes, name, env);
  } catch (e) {
    if (e instanceof SvgProblem || e instanceof PictureProblem) return { ok: false, why: e.message };
    throw e;
  }
}

async function fromDrawing(
  bytes: Uint8Array,
  name: string,
  env: Env & { readonly fonts: FontBook },
): Promise<AsDesign> {
  const { clip, width, height, notes, files } = await readSvg(bytes, stem(name), env);
  const start = newDesign(stem(name), setupOf(side(width), side(height), { bleed: 0 }), env);
  const design = tryOut(start, (d) => void pasteClip(d, d.pages[0].id, clip, () => env.newId(), IDENTITY));
  return { ok: true, design, assets: files, notes };
}

async function fromPicture(bytes: Uint8Array, name: string, env: Env): Promise<AsDesign> {
  const format = pictureFormat(bytes);
  const facts = pictureFacts(await readPicture(bytes, env));
  const file = await assetName(bytes, format!.ending);
  const picture = { id: '', name: name.slice(0, 200), file, ...facts };
  const { width, height } = placedSize(picture, { width: MAX_PAGE, height: MAX_PAGE });
  const start = newDesign(stem(name), setupOf(side(width), side(height), { bleed: 0 }), env);
  const design = tryOut(start, (d) => {
    const id = adoptPicture(d, picture, () => env.newId());
    addNode(d, d.pages[0].id, {
      id: env.newId(),
      name: stem(name),
      kind: 'shape',
      shape: 'rectangle',
      knobs: {},
      transform: IDENTITY,
      hidden: false,
      locked: false,
      width,
      height,
      fills: [pictureIn({ ...picture, id }, { x0: 0, y0: 0, x1: width, y1: height }, 'stretch')],
      outlines: [],
    });
  });
  return { ok: true, design, assets: new Map([[file, bytes]]), notes: [] };
}
