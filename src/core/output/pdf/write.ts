import type { PDFRef } from '@cantoo/pdf-lib';
import type { Palette } from '../../colour/palette';
import type { Env } from '../../env';
import { determinant, multiply, type Matrix } from '../../geometry/matrix';
import { grow } from '../../geometry/rect';
import type { StrokeStyle } from '../../geometry/stroke';
import { PROFILES } from '../../model/defaults';
import type { Design, GradientPaint, Page } from '../../model/schema';
import { grainOf } from '../../render/grain';
import type { SceneBuilder } from '../../scene/build';
import type { GlyphsItem, Item, Scene } from '../../scene/scene';
import { usedChannels } from '../../scene/used';
import type { Job } from '../job';
import { ColourSpaces } from './colour';
import { ContentStream } from './content';
import { embedFace, type UsedGlyphs } from './fonts';
import { name, PdfFile, type Value } from './file';
import { drawColourBar, drawMarks, SLUG } from './marks';
import { hash128, pdfDate, uuidOf, xmpPacket } from './metadata';
import { grainPattern } from './grain';
import { makePools, makeShadings, type Shadings } from './shading';

export interface PdfOptions {
  readonly marks: boolean;
  /** Flat screen colours stay RGB, tagged as sRGB, and are separated at the printer’s; otherwise here. */
  readonly keepRgb?: boolean;
}

/** What a page's drawing needs and collects. */
interface Drawing {
  readonly out: ContentStream;
  readonly file: PdfFile;
  readonly palette: Palette;
  readonly spaces: ColourSpaces;
  readonly fonts: ReadonlyMap<string, string>;
  readonly patterns: Record<string, Value>;
  readonly graphics: Record<string, Value>;
  /** Page points to the sheet's own space. */
  readonly toSheet: Matrix;
  /** The grain's tile, made when it is first wanted. */
  readonly grain: { pattern?: PDFRef };
  overprint: boolean;
}

/**
 * A print PDF after ISO 15930-7 (PDF/X-4): boxes, bleed, marks, output intent with its profile, process and spot inks as
 * they are, gradients as shadings, real text in embedded subsets, overprint object by object. Same design, same bytes.
 */
export async function writePdf(design: Design, pages: readonly Page[], builder: SceneBuilder, palette: Palette, env: Env, options: PdfOptions, job: Job): Promise<Uint8Array> {
  if (palette.screen) throw new Error('a PDF for print needs a palette of inks');
  const file = new PdfFile(env);
  const spaces = new ColourSpaces(file, palette, options.keepRgb ? await env.asset('icc/srgb.icc') : null);
  const scenes = pages.map((p) => builder.build(design, p));
  const fonts = await embedFonts(file, env, scenes);
  // Shared by all pages; filled as they are drawn.
  const patterns: Record<string, Value> = {};
  const graphics: Record<string, Value> = {
    Op: file.add({ Type: name('ExtGState'), OP: true, op: true, OPM: 1 }),
    Ko: file.add({ Type: name('ExtGState'), OP: false, op: false, OPM: 0 }),
  };
  const grain: Drawing['grain'] = {};
  const resources = file.reserve();
  const tree = file.reserve();
  const kids: PDFRef[] = [];
  for (const [i, scene] of scenes.entries()) {
    job.step(i, scenes.length, `Page ${i + 1} of ${scenes.length}`);
    const out = new ContentStream();
    const margin = options.marks ? Math.max(SLUG, scene.bleed + 12 * (72 / 25.4)) : scene.bleed;
    // Page points run down from the trim's top left; the sheet's run up from its bottom left.
    const toSheet: Matrix = [1, 0, 0, -1, margin, margin + scene.height];
    const d: Drawing = { out, file, palette, spaces, fonts: fonts.names, patterns, graphics, grain, toSheet, overprint: false };
    out.op('q').nums(toSheet, 'cm').op('/Ko gs');
    for (const item of scene.items) await drawItem(d, item);
    if (d.overprint) out.op('/Ko gs');
    if (options.marks) {
      drawMarks(out, scene);
      drawColourBar(out, scene, usedChannels(scene, palette).filter((i) => i >= 4), spaces);
    }
    out.op('Q');
    const box = (grow: number) => [margin - grow, margin - grow, margin + scene.width + grow, margin + scene.height + grow];
    const media = [0, 0, scene.width + 2 * margin, scene.height + 2 * margin];
    kids.push(
      file.add({
        Type: name('Page'),
        Parent: tree,
        MediaBox: media,
        CropBox: media,
        BleedBox: box(scene.bleed),
        TrimBox: box(0),
        Contents: await file.stream({}, out.done()),
        Resources: resources,
        Group: { Type: name('Group'), S: name('Transparency'), CS: name('DeviceCMYK'), I: true, K: false },
      }),
    );
  }
  job.step(scenes.length, scenes.length, 'Closing the file');
  file.set(resources, { ColorSpace: spaces.resources, Pattern: patterns, ExtGState: graphics, Font: fonts.resources });
  file.set(tree, { Type: name('Pages'), Kids: kids, Count: kids.length });
  return finish(file, design, palette, tree);
}

async function finish(file: PdfFile, design: Design, palette: Palette, tree: PDFRef): Promise<Uint8Array> {
  const id = hash128(`${design.id} ${design.modified} ${design.name}`);
  const shipped = PROFILES.find((p) => p.file === design.profile.file);
  const own = design.profile.name ?? design.profile.file;
  const source = shipped?.source.replace('characterization data of ', '').replace('characterization data ', '') ?? own;
  const profile = await file.stream({ N: 4, Alternate: name('DeviceCMYK') }, palette.profileBytes);
  const intent = file.add({
    Type: name('OutputIntent'),
    S: name('GTS_PDFX'),
    OutputConditionIdentifier: source,
    OutputCondition: shipped ? `${shipped.name} paper` : own,
    Info: shipped ? `${shipped.name} paper, made from the ${shipped.source}` : own,
    DestOutputProfile: profile,
  });
  const metadata = await file.stream({ Type: name('Metadata'), Subtype: name('XML') }, xmpPacket(design.name, design.modified, uuidOf(id)), false);
  const info = file.add({
    Title: design.name,
    Creator: 'Holvet',
    Producer: 'Holvet',
    CreationDate: pdfDate(design.modified),
    ModDate: pdfDate(design.modified),
    Trapped: name('False'),
    GTS_PDFXVersion: 'PDF/X-4',
  });
  const root = file.add({ Type: name('Catalog'), Pages: tree, Metadata: metadata, OutputIntents: [intent], ViewerPreferences: { DisplayDocTitle: true } });
  return file.finish(root, info, id);
}

async function embedFonts(file: PdfFile, env: Env, scenes: readonly Scene[]): Promise<{ names: Map<string, string>; resources: Record<string, Value> }> {
  const used = new Map<string, { item: GlyphsItem; glyphs: UsedGlyphs }>();
  for (const scene of scenes)
    for (const item of scene.items) {
      if (item.type !== 'glyphs') continue;
      const entry = used.get(item.face.id) ?? { item, glyphs: new Map() };
      used.set(item.face.id, entry);
      for (const g of item.glyphs) if (!entry.glyphs.get(g.gid)) entry.glyphs.set(g.gid, g.text);
    }
  const names = new Map<string, string>();
  const resources: Record<string, Value> = {};
  for (const [id, { item, glyphs }] of used) {
    const key = `F${names.size + 1}`;
    names.set(id, key);
    resources[key] = await embedFace(file, env, item.face, glyphs);
  }
  return { names, resources };
}

async function drawItem(d: Drawing, item: Item): Promise<void> {
  const { out, palette } = d;
  const { paint } = item;
  let shadings: Shadings | null = null;
  if (paint.kind !== 'colour') {
    // Overprinting ink that is nowhere leaves every plate as it is; a gradient without extent has no colour to show.
    const used = paint.kind === 'gradient' ? palette.ramp(paint.ramp).used : palette.channels.map((_, i) => paint.pools.some((p) => palette.mix(p.colour)[i] > 0));
    if (paint.overprint && !used.some(Boolean)) return;
    if (!(paint.kind === 'gradient' && paint.line) && Math.abs(determinant(multiply(item.matrix, paint.geometry))) < 1e-12) return;
    shadings = await (paint.kind === 'gradient' ? makeShadings(item, paint, palette, d.spaces, d.file, grainOf(paint, palette.ramp(paint.ramp)) / 2) : makePools(item, paint, palette, d.spaces, d.file));
    if (!shadings) return;
  }
  if (paint.overprint !== d.overprint) {
    out.op(paint.overprint ? '/Op gs' : '/Ko gs');
    d.overprint = paint.overprint;
  }
  const stroking = item.type !== 'fill' && item.stroke !== null;
  if (shadings?.opacity) out.op('q').op(`/${await softMask(d, item, shadings.opacity, shadings.matrix)} gs`);
  if (shadings) out.op(`/Pattern ${stroking ? 'CS' : 'cs'}`).op(`/${shadingPattern(d, shadings)} ${stroking ? 'SCN' : 'scn'}`);
  else if (paint.kind === 'colour') await setColour(d, paint, stroking);
  if (item.type === 'fill') out.path(item.path).op(item.rule === 'evenOdd' ? 'f*' : 'f');
  else if (item.type === 'stroke') {
    setStroke(out, item.stroke);
    out.path(item.path).op('S');
  } else {
    if (item.stroke) setStroke(out, item.stroke);
    drawText(d, item, item.stroke ? 1 : 0);
  }
  if (shadings?.opacity) out.op('Q');
  if (paint.kind === 'gradient' && grainOf(paint, palette.ramp(paint.ramp))) await drawGrain(d, item, paint);
}

/** The grain of a gradient: the same gradient half the grain earlier, through the squares of the tile that are set. */
async function drawGrain(d: Drawing, item: Item, paint: GradientPaint): Promise<void> {
  const { out } = d;
  const shadings = await makeShadings(item, paint, d.palette, d.spaces, d.file, -paint.grain! / 2);
  if (!shadings) return;
  const stroke = item.type === 'fill' ? null : item.stroke;
  out.op('q').op(`/${await grainMask(d, item)} gs`).op(`/Pattern ${stroke ? 'CS' : 'cs'}`).op(`/${shadingPattern(d, shadings)} ${stroke ? 'SCN' : 'scn'}`);
  if (stroke) setStroke(out, stroke);
  // Letters are drawn as their outlines here: the words must not be found twice.
  out.path(item.path).op(stroke ? 'S' : item.type === 'fill' && item.rule === 'evenOdd' ? 'f*' : 'f').op('Q');
}

/** A soft mask that repeats the grain's tile over an item. */
async function grainMask(d: Drawing, item: Item): Promise<string> {
  const { x0, y0, x1, y1 } = grow(item.bounds, 1);
  const out = new ContentStream().op('/Pattern cs').op('/Tile scn').nums([x0, y0, x1 - x0, y1 - y0], 're').op('f');
  return addMask(d, item, out, { Pattern: { Tile: d.grain.pattern ??= await grainPattern(d.file) } });
}

/** A gradient as a paint of its own: a shading whose matrix runs from its own space to the sheet (not to the page's points). */
function shadingPattern(d: Drawing, { colour, matrix }: Shadings): string {
  const key = `P${Object.keys(d.patterns).length + 1}`;
  d.patterns[key] = d.file.add({ Type: name('Pattern'), PatternType: 2, Shading: colour, Matrix: multiply(d.toSheet, matrix) });
  return key;
}

/** What a gradient lets through, as a soft mask by luminosity: the same shading in grey, drawn in page points. */
function softMask(d: Drawing, item: Item, opacity: Value, matrix: Matrix): Promise<string> {
  return addMask(d, item, new ContentStream().nums(matrix, 'cm', 6).op('/Sh sh'), { Shading: { Sh: opacity } });
}

async function addMask(d: Drawing, item: Item, content: ContentStream, resources: Value): Promise<string> {
  const { x0, y0, x1, y1 } = grow(item.bounds, 1);
  const group = await d.file.stream(
    {
      Type: name('XObject'),
      Subtype: name('Form'),
      BBox: [x0, y0, x1, y1],
      Group: { Type: name('Group'), S: name('Transparency'), CS: name('DeviceGray'), I: true },
      Resources: resources,
    },
    content.done(),
  );
  const key = `M${Object.keys(d.graphics).length}`;
  d.graphics[key] = d.file.add({ Type: name('ExtGState'), SMask: { Type: name('Mask'), S: name('Luminosity'), G: group } });
  return key;
}

async function setColour(d: Drawing, paint: Extract<Item['paint'], { kind: 'colour' }>, stroking: boolean): Promise<void> {
  const rgb = await d.spaces.keptRgb(paint);
  if (rgb) {
    d.out.op(`/Screen ${stroking ? 'CS' : 'cs'}`).nums(rgb, stroking ? 'SCN' : 'scn', 4);
    return;
  }
  const mix = d.palette.mix(paint.colour);
  const spot = d.spaces.spotOf(mix);
  if (spot === null) d.out.nums(mix.slice(0, 4), stroking ? 'K' : 'k', 4);
  else {
    d.out.op(`/${d.spaces.spotName(spot)} ${stroking ? 'CS' : 'cs'}`);
    d.out.nums([mix[spot]], stroking ? 'SCN' : 'scn', 4);
  }
}

function setStroke(out: ContentStream, s: StrokeStyle): void {
  out.nums([s.width], 'w').op(`${['butt', 'round', 'square'].indexOf(s.cap)} J ${['miter', 'round', 'bevel'].indexOf(s.join)} j`).nums([s.miterLimit], 'M');
}

/** Real text: glyph ids with their kerning, upright in a space that runs down. `mode` is the text rendering mode. */
function drawText(d: Drawing, item: GlyphsItem, mode: 0 | 1): void {
  const { out } = d;
  out.op('BT').op(`${mode} Tr`).op(`/${d.fonts.get(item.face.id)} 1 Tf`);
  const glyphs = item.glyphs;
  for (let i = 0; i < glyphs.length; ) {
    const start = glyphs[i];
    const parts: (number[] | number)[] = [];
    let pen = start.x;
    let ids: number[] = [];
    for (; i < glyphs.length && Math.abs(glyphs[i].y - start.y) < 1e-6; i++) {
      const g = glyphs[i];
      const move = ((pen - g.x) / item.size) * 1000;
      if (Math.abs(move) > 0.005) {
        if (ids.length) parts.push(ids);
        parts.push(move);
        ids = [];
      }
      ids.push(g.gid);
      pen = g.x + (item.face.advance(g.gid) * item.size) / item.face.upem;
    }
    if (ids.length) parts.push(ids);
    out.nums(multiply(item.layout, [item.size, 0, 0, -item.size, start.x, start.y]), 'Tm', 6);
    out.showGlyphs(parts);
  }
  out.op('ET');
}
