/// <reference lib="webworker" />
import { printedOf } from '@/core/model/printed';
import { pageById } from '@/core/model/tree';
import { unpacked } from '@/core/edit/packed';
import * as Comlink from 'comlink';
import { apply, type Patches } from 'mutative';
import { checkDesign } from '@/core/check/check';
import type { Palette } from '@/core/colour/palette';
import type { Design } from '@/core/model/schema';
import { writePdf } from '@/core/output/pdf/write';
import { tooManyPixels, thumbnail, writePng } from '@/core/output/png';
import { writeSvg } from '@/core/output/svg/write';
import { contrastOf } from '@/core/render/contrast';
import { liftFromScene } from '@/core/render/lifted';
import { compositePlates } from '@/core/render/composite';
import { pageInk } from '@/core/render/pageInk';
import { rasterPlates, type Plates } from '@/core/render/plates';
import { sampleLook } from '@/core/render/sample';
import { asPrint, asScreen, equip, openEngines, paletteOf, PaletteKeeper, type Engines } from '@/core/engines';
import { packWhole } from '@/store/pack';
import { storeEnv } from '@/store/storeEnv';
import type { HandedOver, PressApi } from './pressApi';

interface Room {
  readonly engines: Engines;
  readonly palettes: PaletteKeeper;
}
let opening: Promise<Room> | null = null;
const room = () =>
  (opening ??= openEngines(storeEnv).then((engines) => ({ engines, palettes: new PaletteKeeper(engines) })));

let design: Design | null = null;
let lastPlates: { page: string; plates: Plates } | null = null;

/** `proof`: with what is shown while one works, and never printed. */
async function ready(proof = false): Promise<{ design: Design; engines: Engines; palette: Palette }> {
  if (!design) throw new Error('no design is open');
  const now = proof ? design : printedOf(design);
  const { engines, palettes } = await room();
  await equip(engines, now);
  return { design: now, engines, palette: palettes.get(now) };
}

const api: PressApi = {
  async open(next) {
    design = next;
    lastPlates = null;
    // What was not there may be there now.
    if (opening) (await room()).engines.fonts.retry();
  },
  async patch(patches) {
    if (design) design = apply(design, unpacked<Patches>(patches)) as Design;
  },
  async render({ page, region, shown, proof }) {
    const r = await ready(proof);
    const p = pageById(r.design, page);
    if (!p) return null;
    const plates = rasterPlates(r.engines.builder.build(r.design, p), r.palette, region)!;
    lastPlates = { page, plates };
    const pixels = compositePlates(plates, r.palette, shown ? new Set(shown) : undefined);
    const lacking = (r.design.pictures ?? []).some((x) => r.engines.pictures?.problem(x.file) !== null);
    return Comlink.transfer({ width: region.width, height: region.height, pixels, lacking }, [pixels.buffer]);
  },
  async inksAt(page, x, y) {
    if (lastPlates?.page !== page) return null;
    const { region, data } = lastPlates.plates;
    const px = Math.floor((x - region.x) * region.scale);
    const py = Math.floor((y - region.y) * region.scale);
    if (px < 0 || py < 0 || px >= region.width || py >= region.height) return null;
    return data.map((plate) => plate[py * region.width + px] / 255);
  },
  async totalInk(page) {
    const r = await ready();
    const p = pageById(r.design, page);
    return p ? pageInk(r.engines.builder.build(r.design, p), r.palette) : null;
  },
  async check() {
    const r = await ready();
    return checkDesign(r.design, r.engines.builder, r.palette);
  },
  async sample(page, x, y) {
    const r = await ready(true);
    const p = pageById(r.design, page);
    return p ? sampleLook(r.engines.builder.build(r.design, p), r.palette, { x, y }) : null;
  },
  async lift(page, nodes, options) {
    const r = await ready();
    const p = pageById(r.design, page);
    return p
      ? liftFromScene(r.engines.builder.build(r.design, p), r.palette, options, nodes ? new Set(nodes) : undefined)
      : [];
  },
  async contrast(page, nodes) {
    const r = await ready();
    const p = pageById(r.design, page);
    return p ? contrastOf(r.engines.builder.build(r.design, p), r.palette, new Set(nodes)) : null;
  },
  async thumbnail(largest, page) {
    const r = await ready();
    const sheet = (page && pageById(r.design, page)) || r.design.pages[0];
    return thumbnail(r.engines.builder.build(r.design, sheet), r.palette, largest);
  },
  async handOver(request, progress): Promise<HandedOver> {
    const r = await ready();
    const done = (bytes: Uint8Array, notes: readonly string[] = []): HandedOver =>
      Comlink.transfer({ ok: true, bytes, notes }, [bytes.buffer as ArrayBuffer]);
    const looked = (asCame?: boolean) => (asCame ? paletteOf(asScreen(r.design), r.engines) : r.palette);
    const sceneOf = (n: number) => r.engines.builder.build(r.design, r.design.pages[n - 1]);
    switch (request.kind) {
      case 'pdf': {
        if (r.palette.substituted)
          return {
            ok: false,
            message: `The profile “${r.design.profile.name ?? r.design.profile.file}” is not in this browser. Open it again in the Inks slip, or choose another paper, then make the file.`,
          };
        const pages = request.pages.map((n) => r.design.pages[n - 1]);
        const inks = paletteOf(asPrint(r.design), r.engines);
        return done(
          await writePdf(
            r.design,
            pages,
            r.engines.builder,
            inks,
            storeEnv,
            { marks: request.marks, keepRgb: request.keepRgb },
            { step: (a, b, what) => progress(a, b, what) },
          ),
        );
      }
      case 'svg': {
        progress(0, 1, 'Drawing');
        const { svg, approximations } = await writeSvg(
          sceneOf(request.page),
          looked(request.asCame),
          r.design.name,
          (f) => storeEnv.asset(f),
        );
        return done(new TextEncoder().encode(svg), approximations);
      }
      case 'png': {
        const scene = sceneOf(request.page);
        const refusal = tooManyPixels(scene, request.dpi);
        if (refusal) return { ok: false, message: refusal };
        progress(0, 1, 'Making plates');
        const notes =
          request.transparent && !r.palette.screen && !request.asCame
            ? [
                'Where something shows through to the ground it is mixed with white here, and with whatever it is laid on there: it comes only near.',
              ]
            : [];
        return done(writePng(scene, looked(request.asCame), request.dpi, request.transparent), notes);
      }
      case 'holvet': {
        progress(0, 1, 'Packing');
        // The file is the design itself, proofs and all.
        const { bytes, lacking } = await packWhole(design!, await api.thumbnail(320));
        return done(
          bytes,
          lacking.map((name) => `${name} is not in this browser and so not in the file.`),
        );
      }
      default:
        return request satisfies never;
    }
  },
};

Comlink.expose(api);
