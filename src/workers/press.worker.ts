/// <reference lib="webworker" />
import { printedOf } from '@/core/model/printed';
import { pageById } from '@/core/model/tree';
import { unpacked } from '@/core/edit/packed';
import * as Comlink from 'comlink';
import { zipSync } from 'fflate';
import { apply, type Patches } from 'mutative';
import { checkDesign } from '@/core/check/check';
import type { Finding } from '@/core/check/types';
import type { Palette } from '@/core/colour/palette';
import type { Design, Page } from '@/core/model/schema';
import { contentsOf } from '@/core/output/pdf/contents';
import { sendPdf } from '@/core/output/pdf/write';
import { cutsOf } from '@/core/output/parts';
import { usedChannels } from '@/core/scene/used';
import { pagePlates, platePng, rgbaOf, tooManyPixels, thumbnail } from '@/core/output/png';
import { writeSvg } from '@/core/output/svg/write';
import { contrastOf } from '@/core/render/contrast';
import { liftFromScene } from '@/core/render/lifted';
import { compositePlates } from '@/core/render/composite';
import { pageCoverage, pageInk } from '@/core/render/pageInk';
import { inksOver } from '@/core/render/plateLooks';
import type { Region } from '@/core/render/coverage';
import { SCREEN_LPI, screened } from '@/core/render/halftone';
import { rasterPlates, type Plates } from '@/core/render/plates';
import { sampleLook } from '@/core/render/sample';
import { formatNumber } from '@/core/units/length';
import { asPrint, asScreen, equip, openEngines, paletteOf, PaletteKeeper, type Engines } from '@/core/engines';
import { packWhole } from '@/store/pack';
import { storeEnv } from '@/store/storeEnv';
import { fileName } from '@/core/output/fileName';
import { Gathered } from './gathered';
import { encodePicture } from './pictureFiles';
import { lookAt } from './plateViews';
import type { HandedOver, PdfRequest, PressApi, Rendered } from './pressApi';

/** A file of more bytes is not read back: it would have to be held whole. */
const READ_BACK = 256 * 2 ** 20;

interface Room {
  readonly engines: Engines;
  readonly palettes: PaletteKeeper;
}
let opening: Promise<Room> | null = null;
const room = () =>
  (opening ??= openEngines(storeEnv).then((engines) => ({ engines, palettes: new PaletteKeeper(engines) })));

let design: Design | null = null;
/** The state that the present one is held against, and its inks. */
let against: { readonly design: Design; readonly palette: Palette } | null = null;
let lastPlates: { page: string; plates: Plates } | null = null;

/** `proof`: with what is shown while one works, and never printed. */
async function ready(proof = false): Promise<{ design: Design; engines: Engines; palette: Palette }> {
  if (!design) throw new Error('no design is open');
  const now = proof ? design : printedOf(design);
  const { engines, palettes } = await room();
  await equip(engines, now);
  return { design: now, engines, palette: palettes.get(now) };
}

/**
 * The design as options let it out: made of inks, its spot inks perhaps from their stand-ins; and the pages asked for.
 */
function pressed(
  { design: now, engines }: { readonly design: Design; readonly engines: Engines },
  { pages, options }: PdfRequest,
): { readonly design: Design; readonly palette: Palette; readonly pages: readonly Page[] } {
  const print = asPrint(now);
  const given =
    options.spots === 'standIns' ? { ...print, inks: print.inks.map((ink) => ({ ...ink, asStandIn: true })) } : print;
  return { design: given, palette: paletteOf(given, engines), pages: pages.map((n) => given.pages[n - 1]) };
}

const small = async (svg: string, smaller: boolean | undefined): Promise<string> =>
  smaller ? (await import('@/core/output/svg/smaller')).smallerSvg(svg) : svg;

const sent = ({ width, height }: Region, pixels: Uint8ClampedArray<ArrayBuffer>): Rendered =>
  Comlink.transfer({ width, height, pixels, lacking: false }, [pixels.buffer]);

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
  async render({ page, region, shown, look, pair, proof }) {
    const r = await ready(proof);
    const p = pageById(r.design, page);
    if (!p) return null;
    const plates = rasterPlates(r.engines.builder.build(r.design, p), r.palette, region)!;
    lastPlates = { page, plates };
    const on = shown ? new Set(shown) : undefined;
    const pixels =
      r.palette.screen || look === 'ink'
        ? compositePlates(plates, r.palette, on)
        : lookAt(look, {
            design: r.design,
            engines: r.engines,
            palette: r.palette,
            page: p,
            plates,
            on,
            pair,
            against,
          });
    const lacking = (r.design.pictures ?? []).some((x) => r.engines.pictures?.problem(x.file) !== null);
    return Comlink.transfer({ width: region.width, height: region.height, pixels, lacking }, [pixels.buffer]);
  },
  async loupe({ page, x, y, side, pixels, aside }) {
    const r = await ready();
    const p = pageById(r.design, page);
    if (!p || r.palette.screen) return null;
    const scale = pixels / side;
    const region = { x: x - side / 2, y: y - side / 2, scale, width: pixels, height: pixels };
    const plates = rasterPlates(r.engines.builder.build(r.design, p), r.palette, region)!;
    return sent(region, compositePlates(screened(plates, SCREEN_LPI, aside), r.palette));
  },
  async against(state) {
    against = null;
    if (!state) return;
    const { engines } = await room();
    const then = printedOf(state);
    await equip(engines, then);
    against = { design: then, palette: paletteOf(then, engines) };
  },
  async inksAt(page, x, y, square) {
    if (lastPlates?.page !== page) return null;
    return inksOver(lastPlates.plates, x, y, square);
  },
  async totalInk(page) {
    const r = await ready();
    const p = pageById(r.design, page);
    return p ? pageInk(r.engines.builder.build(r.design, p), r.palette) : null;
  },
  async contents(request) {
    const r = await ready();
    const { design: given, palette, pages } = pressed(r, request);
    return contentsOf(given, pages, r.engines.builder, palette, request.options);
  },
  async coverage(page) {
    const r = await ready();
    const p = pageById(r.design, page);
    return p ? pageCoverage(r.engines.builder.build(r.design, p), r.palette) : null;
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
    const done = (bytes: Uint8Array, notes: readonly string[] = [], name?: string): HandedOver =>
      Comlink.transfer({ ok: true, bytes, notes, ...(name !== undefined && { name }) }, [bytes.buffer as ArrayBuffer]);
    const looked = (asCame?: boolean) => (asCame ? paletteOf(asScreen(r.design), r.engines) : r.palette);
    const sceneOf = (n: number) => r.engines.builder.build(r.design, r.design.pages[n - 1]);
    switch (request.kind) {
      case 'pdf': {
        if (r.palette.substituted)
          return {
            ok: false,
            message: `The profile “${r.design.profile.name ?? r.design.profile.file}” is not in this browser. Open it again in the Inks slip, or choose another paper, then make the file.`,
          };
        const { options } = request;
        const { design: given, palette: inks, pages } = pressed(r, request);
        const file = new Gathered();
        const job = { step: (a: number, b: number, what: string) => progress(a, b, what) };
        await sendPdf(file.add, given, pages, r.engines.builder, inks, storeEnv, options, job);
        if (file.size > READ_BACK)
          return {
            ok: true,
            bytes: file.blob(),
            notes: [
              `The file has ${formatNumber(file.size / 2 ** 20, 0)} MB: what is in it is read back, and sent to the press, up to ${READ_BACK / 2 ** 20} MB.`,
            ],
          };
        const bytes = new Uint8Array(await file.blob().arrayBuffer());
        progress(1, 1, 'Reading what is in it');
        const { readFacts } = await import('@/core/input/pdf/facts');
        const read = await readFacts(bytes);
        // The file is the person's all the same; what is in it is then not told.
        if (!read.ok) return done(bytes, [`What is in the file could not be read back: ${read.message}`]);
        return Comlink.transfer({ ok: true, bytes, notes: [], facts: read.facts }, [bytes.buffer as ArrayBuffer]);
      }
      case 'svg': {
        progress(0, 1, 'Drawing');
        const { svg, approximations } = await writeSvg(
          sceneOf(request.page),
          looked(request.asCame),
          r.design.name,
          (f) => storeEnv.asset(f),
        );
        return done(new TextEncoder().encode(await small(svg, request.smaller)), approximations);
      }
      case 'png': {
        const scene = sceneOf(request.page);
        const dpi = request.width ? (request.width * 72) / scene.width : request.dpi;
        const refusal = tooManyPixels(scene, dpi);
        if (refusal) return { ok: false, message: refusal };
        progress(0, 1, 'Making plates');
        const notes =
          request.transparent && !r.palette.screen && !request.asCame
            ? [
                'Where something shows through to the ground it is mixed with white here, and with whatever it is laid on there: it comes only near.',
              ]
            : [];
        const as = request.as ?? 'png';
        const clear = request.transparent === true && as !== 'jpeg';
        const pixels = rgbaOf(scene, looked(request.asCame), dpi, { transparent: clear });
        return done(await encodePicture(pixels, as, dpi, clear), clear ? notes : []);
      }
      case 'objects': {
        const page = r.design.pages[request.page - 1];
        const { as, scales } = request;
        const cuts = cutsOf(r.design, page, sceneOf(request.page), request.ids, request.each);
        if (!cuts.length) return { ok: false, message: 'Nothing of what is chosen can be seen on the sheet.' };
        const palette = looked(request.asCame);
        const clear = request.transparent === true && as !== 'jpeg';
        const files: Record<string, Uint8Array> = {};
        const notes = new Set<string>();
        const total = cuts.length * (as === 'svg' ? 1 : scales.length);
        for (const { name, scene, box } of cuts)
          for (const scale of as === 'svg' ? [1] : scales) {
            progress(Object.keys(files).length, total, name);
            if (as === 'svg') {
              const made = await writeSvg(scene, palette, name, (f) => storeEnv.asset(f), { box, bare: true });
              made.approximations.forEach((x) => notes.add(x));
              files[fileName(name, 'svg')] = new TextEncoder().encode(await small(made.svg, request.smaller));
              continue;
            }
            const dpi = (request.width ? (request.width * 72) / (box.x1 - box.x0) : request.dpi) * scale;
            const refusal = tooManyPixels(scene, dpi, box);
            if (refusal) return { ok: false, message: `${name}: ${refusal}` };
            const ending = as === 'jpeg' ? 'jpg' : as;
            const pixels = rgbaOf(scene, palette, dpi, { transparent: clear, box });
            files[fileName(scale > 1 ? `${name}@${scale}x` : name, ending)] = await encodePicture(
              pixels,
              as,
              dpi,
              clear,
            );
          }
        const all = Object.entries(files);
        if (all.length === 1) return done(all[0][1], [...notes], all[0][0]);
        // What is packed already is not packed again.
        const packed = zipSync(files, { level: as === 'svg' ? 6 : 0 });
        return done(packed, [...notes], fileName(r.design.name, 'zip'));
      }
      case 'plates': {
        const print = asPrint(r.design);
        const inks = paletteOf(print, r.engines);
        const scene = r.engines.builder.build(print, print.pages[request.page - 1]);
        const refusal = tooManyPixels(scene, request.dpi);
        if (refusal) return { ok: false, message: refusal };
        progress(0, 1, 'Making plates');
        const plates = pagePlates(scene, inks, request.dpi);
        const files: Record<string, Uint8Array> = {};
        const used = usedChannels(scene, inks);
        for (const [n, i] of used.entries()) {
          progress(n, used.length, plates.channels[i]);
          files[fileName(`${r.design.name} ${plates.channels[i]}`, 'png')] = platePng(plates, i, request.dpi);
        }
        if (!used.length) return { ok: false, message: 'Nothing is printed on this page: it has no plates.' };
        return done(
          zipSync(files, { level: 0 }),
          [],
          fileName(`${r.design.name}${r.design.pages.length > 1 ? ` ${request.page}` : ''}, plates`, 'zip'),
        );
      }
      case 'report': {
        const inks = asPrint(r.design);
        const palette = paletteOf(inks, r.engines);
        progress(0, 1, 'Checking');
        let checked: { findings: readonly Finding[]; notChecked: string | null };
        try {
          checked = { findings: checkDesign(r.design, r.engines.builder, r.palette), notChecked: null };
        } catch (e) {
          checked = { findings: [], notChecked: e instanceof Error ? e.message : String(e) };
        }
        const { writeReport } = await import('@/core/output/report/report');
        const step = (a: number, b: number, what: string) => progress(a, b, what);
        const bytes = await writeReport(inks, r.engines, palette, checked, { step });
        return done(bytes, [], fileName(`${r.design.name}, job ticket`, 'pdf'));
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
