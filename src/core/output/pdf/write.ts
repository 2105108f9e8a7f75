import type { PDFRef } from '@cantoo/pdf-lib';
import type { Palette } from '../../colour/palette';
import type { Env } from '../../env';
import { multiply, type Matrix } from '../../geometry/matrix';
import { rectPath, transformPath, type PathData } from '../../geometry/path';
import { grow, type Rect } from '../../geometry/rect';
import { DEFAULT_FACE } from '../../model/defaults';
import type { Design, Page } from '../../model/schema';
import type { SceneBuilder } from '../../scene/build';
import { trapsOf } from '../../scene/traps';
import type { Group, Leaf, Scene, Words } from '../../scene/scene';
import { usedChannels } from '../../scene/used';
import { meetGroups, walk } from '../../scene/walk';
import type { Job } from '../job';
import { apart } from './apart';
import { finish } from './catalog';
import { ColourSpaces } from './colour';
import { ContentStream } from './content';
import { composite, drawAll, knockOut, type Drawing } from './draw';
import { embedFace, type UsedGlyphs } from './fonts';
import { name, PdfFile, type Value } from './file';
import { Images } from './images';
import { withoutKeptOut } from './keptOut';
import { drawColourBar, drawCropMarks, drawTargets, drawWords, SLUG, WORDS_SIZE } from './marks';
import { Marking } from './marking';
import { inOneInk } from './oneInk';
import { marksOf, type PdfOptions } from './options';
import { together, type Sink } from './serial';
import { planOf, sheetsOf, type Sheet } from './sheets';

/**
 * A print PDF after ISO 15930-7 (PDF/X-4), or a plain one (1.7): boxes, bleed, marks, output intent with its profile,
 * process and spot inks as they are, gradients as shadings, real text in embedded subsets, overprint object by object.
 * Same design, same bytes.
 */
export async function writePdf(
  design: Design,
  pages: readonly Page[],
  builder: SceneBuilder,
  palette: Palette,
  env: Env,
  options: PdfOptions,
  job: Job,
): Promise<Uint8Array> {
  const pieces: Uint8Array[] = [];
  await sendPdf((piece) => pieces.push(piece), design, pages, builder, palette, env, options, job);
  return together(pieces);
}

/**
 * The same, piece by piece: large streams go out as soon as they are made, so that they are never all there at once.
 */
export async function sendPdf(
  sink: Sink,
  ...[design, pages, builder, palette, env, options, job]: Parameters<typeof writePdf>
): Promise<void> {
  if (palette.screen) throw new Error('a PDF for print needs a palette of inks');
  const x4 = options.standard !== 'plain';
  const file = new PdfFile(env, x4 ? 6 : 7, sink);
  // The largest thing in most files, and known from the start: it is compressed beside all the rest.
  const profile = compressedProfile(palette.profileBytes, env);
  const spaces = new ColourSpaces(file, palette, options.keepRgb ? await env.asset('icc/srgb.icc') : null);
  // Twice over the pages, so many at a time: what they need and share first, then what they are.
  const sheets = sheetsOf(design, pages, options.spreads === true);
  const lots = lotsOf(sheets);
  const lotsApart = lots.length > 1;
  let shared = new Map<Group, number>();
  const used: UsedFaces = new Map();
  const widest = new Map<string, number>();
  let seen = design;
  let last: { readonly page: Page; readonly scene: Scene } | null = null;
  const take = (lot: readonly Sheet[]) => {
    if (!lotsApart) return;
    seen = apart(design, new Set(lot.flat()));
    [shared, last] = [new Map(), null];
  };
  /** A page's scene; that of the only page is made once. */
  const sceneOf = (page: Page): Scene => {
    if (last?.page === page) return last.scene;
    const built = builder.build(seen, seen === design ? page : seen.pages[design.pages.indexOf(page)]);
    const scene = options.spots === 'one' ? inOneInk(built, palette, options.ink ?? 'black') : built;
    last = { page, scene };
    return scene;
  };
  for (const lot of lots) {
    take(lot);
    for (const page of lot.flat()) {
      const { root } = sceneOf(page);
      if (!shared.has(root)) {
        if (!options.outlines) noteFaces(root, used);
        if (options.ppi) notePictures(root, options.ppi, widest);
      }
      meetGroups(root, shared);
    }
  }
  const marks = marksOf(options);
  const marked = marks.crop || marks.registration || marks.bar || marks.words;
  const label = marks.words ? await wordsBelow(design, builder) : null;
  const fonts = await embedFonts(file, env, used);
  const written = new WeakMap<Group, string>();
  // Shared by all pages; filled as they are drawn.
  const patterns: Record<string, Value> = {};
  const graphics: Record<string, Value> = {
    Op: file.add({ Type: name('ExtGState'), OP: true, op: true, OPM: 1 }),
    Ko: file.add({ Type: name('ExtGState'), OP: false, op: false, OPM: 0 }),
  };
  const grain: Drawing['grain'] = {};
  const images = new Images(file, palette, spaces, env, options.keepRgb === true, widest);
  const marking =
    options.layers || options.tagged
      ? new Marking(file, design, { layers: options.layers === true, tagged: options.tagged === true })
      : null;
  const resources = file.reserve();
  const tree = file.reserve();
  const kids: PDFRef[] = [];
  let done = 0;
  for (const lot of lots) {
    take(lot);
    if (lotsApart) for (const page of lot.flat()) meetGroups(sceneOf(page).root, shared);
    for (const sheet of lot) {
      job.step(done, pages.length, `Page ${done + 1} of ${pages.length}`);
      done += sheet.length;
      const plan = planOf(sheet.map(sceneOf), options.bleed !== false);
      const by = plan.trim.y0 - plan.bleed.y0;
      const out = ContentStream.compressed(env);
      const margin = marked ? Math.max(SLUG, by + 12 * (72 / 25.4)) : by;
      const { x1: width, y1: height } = plan.trim;
      // Page points run down from the trim's top left; the sheet's run up from its bottom left.
      const toSheet: Matrix = [1, 0, 0, -1, margin, margin + height];
      out.op('q').nums(toSheet, 'cm').op('/Ko gs');
      for (const [i, { scene, dx, cut }] of plan.laid.entries()) {
        marking?.begin(sheet[i] ?? sheet[0]);
        const d: Drawing = {
          out,
          file,
          palette,
          env,
          spaces,
          greys: spaces.inGrey(),
          resources,
          fonts: fonts.names,
          patterns,
          graphics,
          images,
          grain,
          shared,
          written,
          toSheet: dx ? multiply(toSheet, [1, 0, 0, 1, dx, 0]) : toSheet,
          overprint: false,
          marking,
          outlines: options.outlines === true,
        };
        if (dx || cut) out.op('q');
        if (dx) out.nums([1, 0, 0, 1, dx, 0], 'cm');
        if (cut) out.path(rectPath(cut)).op('W n');
        await composite(d, scene.root);
        await drawAll(d, trapsOf(scene, palette).parts);
        knockOut(d);
        marking?.leave(out);
        if (dx || cut) out.op('Q');
      }
      if (marked) {
        const around = { width, height, bleed: by };
        const draw = () => {
          if (marks.crop) drawCropMarks(out, around);
          if (marks.registration) drawTargets(out, around);
          if (marks.bar) {
            const spots = new Set(plan.laid.flatMap(({ scene }) => usedChannels(scene, palette).filter((i) => i >= 4)));
            drawColourBar(
              out,
              around,
              [...spots].sort((a, b) => a - b),
              spaces,
            );
          }
          if (label) drawWords(out, around, label(sheet));
        };
        if (marking) marking.ornament(out, draw);
        else draw();
      }
      out.op('Q');
      const box = ({ x0, y0, x1, y1 }: Rect) => [margin + x0, margin + height - y1, margin + x1, margin + height - y0];
      const media = box(marked ? grow(plan.trim, margin) : plan.bleed);
      const page = file.reserve();
      file.set(page, {
        Type: name('Page'),
        Parent: tree,
        MediaBox: media,
        CropBox: media,
        BleedBox: box(plan.bleed),
        TrimBox: box(plan.trim),
        Contents: file.deflated({}, await out.deflated()),
        Resources: resources,
        Group: { Type: name('Group'), S: name('Transparency'), CS: name('DeviceCMYK'), I: true, K: false },
        ...marking?.end(page),
      });
      kids.push(page);
    }
  }
  job.step(pages.length, pages.length, 'Closing the file');
  const outputProfile = file.deflated({ N: 4, Alternate: name('DeviceCMYK') }, await profile);
  file.set(resources, {
    ColorSpace: {
      ...spaces.resources,
      // Programs that are no press know by it what the inks look like (ISO 32000-1 8.6.5.6).
      ...(!x4 && { DefaultCMYK: [name('ICCBased'), outputProfile] }),
    },
    Pattern: patterns,
    ExtGState: graphics,
    Font: fonts.resources,
    ...(Object.keys(images.resources).length && { XObject: images.resources }),
    ...(marking && { Properties: marking.properties }),
  });
  file.set(tree, { Type: name('Pages'), Kids: kids, Count: kids.length });
  await finish(file, design, { outputProfile, x4, trapped: palette.trap > 0, tree, sheets, marking });
}

const profiles = new WeakMap<Uint8Array, Promise<Uint8Array>>();
/** An output profile, compressed once for all files made with it. */
function compressedProfile(bytes: Uint8Array, env: Pick<Env, 'deflate'>): Promise<Uint8Array> {
  let profile = profiles.get(bytes);
  if (!profile) {
    profile = env.deflate(bytes);
    profiles.set(bytes, profile);
    profile.catch(() => profiles.delete(bytes));
  }
  return profile;
}

/** Sheets whose scenes are held at once. */
const LOT = 32;
const lotsOf = (sheets: readonly Sheet[]): (readonly Sheet[])[] =>
  Array.from({ length: Math.max(1, Math.ceil(sheets.length / LOT)) }, (_, i) => sheets.slice(i * LOT, (i + 1) * LOT));

/** By face: an item that has it, and the glyphs of it that are asked for. */
type UsedFaces = Map<string, { readonly item: Words; readonly glyphs: UsedGlyphs }>;
function noteFaces(root: Group, used: UsedFaces): void {
  const look = (met: Leaf) => {
    const leaf = withoutKeptOut(met);
    const words = leaf.type === 'glyphs' ? leaf : leaf.words;
    if (!words) return;
    const entry = used.get(words.face.id) ?? { item: words, glyphs: new Map() };
    used.set(words.face.id, entry);
    // A hyphen that was not typed looks like one that was.
    for (const g of words.glyphs)
      if (!entry.glyphs.get(g.gid)) entry.glyphs.set(g.gid, g.text === '\u00ad' ? '-' : g.text);
  };
  walk(root, look, { masks: true });
}

/** How many pixels across each picture needs where it lies largest, for so many an inch. */
function notePictures(root: Group, ppi: number, widest: Map<string, number>): void {
  walk(
    root,
    ({ paint, matrix }) => {
      if (paint.kind !== 'picture') return;
      const m = multiply(matrix, paint.geometry);
      const across = Math.max(Math.hypot(m[0], m[1]), Math.hypot(m[2], m[3]));
      widest.set(paint.picture, Math.max(widest.get(paint.picture) ?? 0, Math.ceil((across / 72) * ppi)));
    },
    { masks: true },
  );
}

/** The words below a sheet, as shapes in points: what it is, which page, which state, which day. */
async function wordsBelow(design: Design, builder: SceneBuilder): Promise<((sheet: Sheet) => PathData) | null> {
  await builder.fonts.load(new Set([DEFAULT_FACE]));
  const face = builder.fonts.get(DEFAULT_FACE);
  if (!face) return null;
  return (sheet) => {
    const numbers = sheet.map((p) => design.pages.indexOf(p) + 1);
    const text = [
      design.name,
      `page ${numbers.join(' and ')} of ${design.pages.length}`,
      ...(design.version ? [design.version] : []),
      design.modified.slice(0, 10),
    ].join(' · ');
    const k = WORDS_SIZE / face.upem;
    const path: number[] = [];
    let pen = 0;
    for (const g of face.shape(text)) {
      path.push(...transformPath(face.outline(g.gid), [k, 0, 0, k, pen + g.dx * k, -g.dy * k]));
      pen += g.advance * k;
    }
    return path;
  };
}

async function embedFonts(
  file: PdfFile,
  env: Env,
  used: UsedFaces,
): Promise<{ names: Map<string, string>; resources: Record<string, Value> }> {
  const names = new Map<string, string>();
  const resources: Record<string, Value> = {};
  for (const [id, { item, glyphs }] of used) {
    const key = `F${names.size + 1}`;
    names.set(id, key);
    resources[key] = await embedFace(file, env, item.face, glyphs);
  }
  return { names, resources };
}
