/// <reference lib="webworker" />
import * as Comlink from 'comlink';
import { encode } from 'fast-png';
import { FontProblem } from '@/core/input/font/problem';
import { isAvif, openPicture, pictureFacts, pictureFormat, readPicture } from '@/core/input/picture/read';
import { PictureProblem } from '@/core/input/picture/types';
import { readSwatchFile } from '@/core/input/swatches/read';
import { refuse } from '@/core/colour/exchange';
import { readSvg } from '@/core/input/svg/read';
import { SvgProblem } from '@/core/input/svg/xml';
import { tooManyPixels } from '@/core/model/pictureSchema';
import { Palette } from '@/core/colour/palette';
import { PictureSource, PixelRoom } from '@/core/pictures/source';
import { pictureBitmap } from '@/core/render/pictureBitmap';
import { pictureLook } from '@/core/render/pictureLook';
import { openEngines, type Engines } from '@/core/engines';
import { storeEnv } from '@/store/storeEnv';
import type { PictureApi } from './pictureApi';

let opening: Promise<Engines> | null = null;
const room = () =>
  (opening ??= openEngines(storeEnv, { pictures: false }).catch((e: unknown) => {
    opening = null;
    throw e;
  }));

/** The last pictures looked at, open. */
const open = new Map<string, Promise<PictureSource>>();
const MOST_OPEN = 6;
const pixelRoom = new PixelRoom(40 * 1024 * 1024);

function source(file: string): Promise<PictureSource> {
  let job = open.get(file);
  if (job) open.delete(file);
  else
    job = storeEnv.assetAgain!(`pictures/${file}`).then(async (read) => {
      const { pixels, again } = await openPicture(read.bytes, storeEnv, read.again);
      return new PictureSource(pixels, again, pixelRoom);
    });
  open.set(file, job);
  job.catch(() => open.delete(file));
  for (const oldest of open.keys()) {
    if (open.size <= MOST_OPEN) break;
    void open.get(oldest)!.then(
      (gone) => gone.close(),
      () => {},
    );
    open.delete(oldest);
  }
  return job;
}

/** What only the browser itself can open becomes a PNG, so that everything else can too. */
async function throughBrowser(bytes: Uint8Array): Promise<Uint8Array> {
  const image = await createImageBitmap(new Blob([bytes as BlobPart]), { premultiplyAlpha: 'none' }).catch(() => {
    throw new PictureProblem('this browser does not know AVIF pictures. Save it as PNG or JPEG');
  });
  const { width, height } = image;
  const tooMany = tooManyPixels(width, height);
  if (tooMany) throw new PictureProblem(tooMany);
  const ctx = new OffscreenCanvas(width, height).getContext('2d')!;
  ctx.drawImage(image, 0, 0);
  image.close();
  return encode({ width, height, data: ctx.getImageData(0, 0, width, height).data, channels: 4, depth: 8 });
}

let palette: { readonly key: string; readonly palette: Palette } | null = null;

const api: PictureApi = {
  async read(given) {
    try {
      const bytes = isAvif(given) ? await throughBrowser(given) : given;
      const pixels = await readPicture(bytes, storeEnv);
      return Comlink.transfer({ ok: true, facts: pictureFacts(pixels), ending: pictureFormat(bytes)!.ending, bytes }, [
        bytes.buffer as ArrayBuffer,
      ]);
    } catch (e) {
      if (e instanceof PictureProblem) return { ok: false, message: e.message };
      return { ok: false, message: `it could not be opened (${e instanceof Error ? e.message : String(e)})` };
    }
  },
  async drawing(bytes, name) {
    try {
      const engines = await room();
      const { clip, width, height, notes, files } = await readSvg(bytes, name, {
        asset: (f) => storeEnv.asset(f),
        newId: () => storeEnv.newId(),
        fonts: engines.fonts,
      });
      return { ok: true, clip, width, height, notes, files };
    } catch (e) {
      if (e instanceof SvgProblem) return { ok: false, message: e.message };
      return { ok: false, message: `it could not be read (${e instanceof Error ? e.message : String(e)})` };
    }
  },
  async swatches(bytes) {
    try {
      return readSwatchFile(bytes);
    } catch (e) {
      return refuse(null, `it could not be read (${e instanceof Error ? e.message : String(e)}).`);
    }
  },
  async faces(bytes) {
    // A font is opened about once in a design's life.
    const { readFaces } = await import('@/core/input/font/read');
    try {
      const faces = await readFaces(bytes, storeEnv);
      return Comlink.transfer({ ok: true, faces }, [...new Set(faces.map((f) => f.bytes.buffer as ArrayBuffer))]);
    } catch (e) {
      if (e instanceof FontProblem) return { ok: false, message: e.message };
      return { ok: false, message: `it could not be read (${e instanceof Error ? e.message : String(e)})` };
    }
  },
  async look({ file, tone, pixels, coarse, colours }) {
    const engines = await room();
    const found = await source(file).catch(() => null);
    if (!found) return null;
    await engines.room.prepare(colours.profile.file);
    const key = JSON.stringify(colours);
    if (palette?.key !== key) palette = { key, palette: new Palette(colours, engines.room) };
    const look = (coarse ? pictureLook : pictureBitmap)(found, tone, palette.palette, pixels);
    return Comlink.transfer(look, [look.data.buffer]);
  },
};

Comlink.expose(api);
