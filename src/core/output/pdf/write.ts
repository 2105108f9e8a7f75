import { pageLabels } from '../../derive/pageLabels';
import type { PDFRef } from '@cantoo/pdf-lib';
import type { Palette } from '../../colour/palette';
import type { Env } from '../../env';
import type { Matrix } from '../../geometry/matrix';
import { rectPath } from '../../geometry/path';
import { grow, type Rect } from '../../geometry/rect';
import { PROFILES } from '../../model/defaults';
import type { Design, Page } from '../../model/schema';
import type { SceneBuilder } from '../../scene/build';
import { bleedRect, trimRect, type Words, type Group, type Leaf, type Scene } from '../../scene/scene';
import { usedChannels } from '../../scene/used';
import { meetGroups, walk } from '../../scene/walk';
import type { Job } from '../job';
import { ColourSpaces } from './colour';
import { ContentStream } from './content';
import { composite, knockOut, type Drawing } from './draw';
import { withoutKeptOut } from './keptOut';
import { embedFace, type UsedGlyphs } from './fonts';
import { name, PdfFile, type Value } from './file';
import { Images } from './images';
import { drawColourBar, drawMarks, SLUG } from './marks';
import { hash128, pdfDate, uuidOf, xmpPacket } from './metadata';

export interface PdfOptions {
  readonly marks: boolean;
  /** Flat screen colours stay RGB, tagged as sRGB, and are separated at the printer’s; otherwise here. */
  readonly keepRgb?: boolean;
}

/**
 * A print PDF after ISO 15930-7 (PDF/X-4): boxes, bleed, marks, output intent with its profile, process and spot inks as
 * they are, gradients as shadings, real text in embedded subsets, overprint object by object. Same design, same bytes.
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
  if (palette.screen) throw new Error('a PDF for print needs a palette of inks');
  const file = new PdfFile(env);
  // The largest thing in most files, and known from the start: it is compressed beside all the rest.
  const profile = env.deflate(palette.profileBytes);
  profile.catch(() => {});
  const spaces = new ColourSpaces(file, palette, options.keepRgb ? await env.asset('icc/srgb.icc') : null);
  // Twice over the pages, one at a time: what they need and share first, then what they are.
  const shared = new Map<Group, number>();
  const used: UsedFaces = new Map();
  let last: { readonly page: Page; readonly scene: Scene } | null = null;
  /** A page's scene; that of the only page is made once. */
  const sceneOf = (page: Page): Scene =>
    (last?.page === page ? last : (last = { page, scene: builder.build(design, page) })).scene;
  for (const page of pages) {
    const { root } = sceneOf(page);
    if (!shared.has(root)) noteFaces(root, used);
    meetGroups(root, shared);
  }
  const fonts = await embedFonts(file, env, used);
  const written = new Map<Group, string>();
  // Shared by all pages; filled as they are drawn.
  const patterns: Record<string, Value> = {};
  const graphics: Record<string, Value> = {
    Op: file.add({ Type: name('ExtGState'), OP: true, op: true, OPM: 1 }),
    Ko: file.add({ Type: name('ExtGState'), OP: false, op: false, OPM: 0 }),
  };
  const grain: Drawing['grain'] = {};
  const images = new Images(file, palette, spaces, env, options.keepRgb === true);
  const resources = file.reserve();
  const tree = file.reserve();
  const kids: PDFRef[] = [];
  for (const [i, page] of pages.entries()) {
    job.step(i, pages.length, `Page ${i + 1} of ${pages.length}`);
    const scene = sceneOf(page);
    const out = ContentStream.compressed(env);
    const margin = options.marks ? Math.max(SLUG, scene.bleed + 12 * (72 / 25.4)) : scene.bleed;
    // Page points run down from the trim's top left; the sheet's run up from its bottom left.
    const toSheet: Matrix = [1, 0, 0, -1, margin, margin + scene.height];
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
      toSheet,
      overprint: false,
    };
    out.op('q').nums(toSheet, 'cm').op('/Ko gs');
    if (scene.fold)
      out
        .op('q')
        .path(rectPath(bleedRect(scene)))
        .op('W n');
    await composite(d, scene.root);
    knockOut(d);
    if (scene.fold) out.op('Q');
    if (options.marks) {
      drawMarks(out, scene);
      drawColourBar(
        out,
        scene,
        usedChannels(scene, palette).filter((i) => i >= 4),
        spaces,
      );
    }
    out.op('Q');
    const box = ({ x0, y0, x1, y1 }: Rect) => [
      margin + x0,
      margin + scene.height - y1,
      margin + x1,
      margin + scene.height - y0,
    ];
    const bleed = bleedRect(scene);
    const media = box(options.marks ? grow(trimRect(scene), margin) : bleed);
    kids.push(
      file.add({
        Type: name('Page'),
        Parent: tree,
        MediaBox: media,
        CropBox: media,
        BleedBox: box(bleed),
        TrimBox: box(trimRect(scene)),
        Contents: file.deflated({}, await out.deflated()),
        Resources: resources,
        Group: { Type: name('Group'), S: name('Transparency'), CS: name('DeviceCMYK'), I: true, K: false },
      }),
    );
  }
  job.step(pages.length, pages.length, 'Closing the file');
  file.set(resources, {
    ColorSpace: spaces.resources,
    Pattern: patterns,
    ExtGState: graphics,
    Font: fonts.resources,
    ...(Object.keys(images.resources).length && { XObject: images.resources }),
  });
  file.set(tree, { Type: name('Pages'), Kids: kids, Count: kids.length });
  const labels = pageLabels(design);
  return finish(
    file,
    design,
    await profile,
    tree,
    pages.map((p) => labels[design.pages.indexOf(p)] ?? ''),
  );
}

async function finish(
  file: PdfFile,
  design: Design,
  outputProfile: Uint8Array,
  tree: PDFRef,
  labels: readonly string[],
): Promise<Uint8Array> {
  const id = hash128(`${design.id} ${design.modified} ${design.name}`);
  const shipped = PROFILES.find((p) => p.file === design.profile.file);
  const own = design.profile.name ?? design.profile.file;
  const source = shipped?.source.replace('characterization data of ', '').replace('characterization data ', '') ?? own;
  const profile = file.deflated({ N: 4, Alternate: name('DeviceCMYK') }, outputProfile);
  const intent = file.add({
    Type: name('OutputIntent'),
    S: name('GTS_PDFX'),
    OutputConditionIdentifier: source,
    OutputCondition: shipped ? `${shipped.name} paper` : own,
    Info: shipped ? `${shipped.name} paper, made from the ${shipped.source}` : own,
    DestOutputProfile: profile,
  });
  const metadata = await file.stream(
    { Type: name('Metadata'), Subtype: name('XML') },
    xmpPacket(design.name, design.modified, uuidOf(id)),
    false,
  );
  const info = file.add({
    Title: design.name,
    Creator: 'Holvet',
    Producer: 'Holvet',
    CreationDate: pdfDate(design.modified),
    ModDate: pdfDate(design.modified),
    Trapped: name('False'),
    GTS_PDFXVersion: 'PDF/X-4',
  });
  const root = file.add({
    Type: name('Catalog'),
    Pages: tree,
    Metadata: metadata,
    OutputIntents: [intent],
    // Said page by page (12.4.2), where it is not what every reader counts anyway.
    ...(labels.some((l, i) => l !== String(i + 1)) && {
      PageLabels: { Nums: labels.flatMap((l, i) => [i, { P: l }]) },
    }),
    ViewerPreferences: { DisplayDocTitle: true },
  });
  return file.finish(root, info, id);
}

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
