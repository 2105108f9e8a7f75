import type { PDFRef } from '@cantoo/pdf-lib';
import type { Palette } from '../../colour/palette';
import type { Env } from '../../env';
import { utf16 } from './fonts';
import { determinant, IDENTITY, invert, multiply, type Matrix } from '../../geometry/matrix';
import { grow, isEmpty, transformRect, type Rect } from '../../geometry/rect';
import { dashPath } from '../../geometry/dash';
import type { PathData } from '../../geometry/path';
import { strokeOutline, type StrokeStyle } from '../../geometry/stroke';
import type { Effect, GradientPaint, PicturePaint } from '../../model/schema';
import { asLight } from '../../render/asLight';
import { grainOf } from '../../render/grain';
import { effectCover } from '../../render/plates';
import { effectRegion } from '../../render/effectRegion';
import { overprints } from '../../scene/overprints';
import { isOwn, isPlain, type Group, type Leaf, type Part, type Words } from '../../scene/scene';
import type { ColourSpaces } from './colour';
import { ContentStream } from './content';
import { name, type PdfFile, type Value } from './file';
import { grainPattern } from './grain';
import type { Images } from './images';
import { asOutlines, withoutKeptOut } from './keptOut';
import type { Marking } from './marking';
import { makePools, makeShadings, type Shadings } from './shading';

/** What a page's drawing needs and collects. */
export interface Drawing {
  readonly out: ContentStream;
  readonly file: PdfFile;
  readonly palette: Palette;
  readonly env: Pick<Env, 'asset'>;
  /** What all streams of the file draw with. */
  readonly resources: PDFRef;
  readonly spaces: ColourSpaces;
  /** For masks of light: everything in grey. */
  readonly greys: ColourSpaces;
  readonly fonts: ReadonlyMap<string, string>;
  readonly patterns: Record<string, Value>;
  readonly graphics: Record<string, Value>;
  readonly images: Images;
  /** From page points to the space in which patterns are placed: the sheet's, or a form's own. */
  readonly toSheet: Matrix;
  /** Groups that are met more than once, on one page or on many: each is written once. */
  readonly shared: ReadonlyMap<Group, number>;
  readonly written: WeakMap<Group, string>;
  /** The grain's tile, made when it is first wanted. */
  readonly grain: { pattern?: PDFRef };
  overprint: boolean;
  /** What the parts of a page belong to; null inside of forms. */
  readonly marking: Marking | null;
  /** No letters, only their outlines. */
  readonly outlines: boolean;
}

/** Draws parts in order, and leaves the overprint switch off. */
export async function drawAll(d: Drawing, content: readonly Part[]): Promise<void> {
  await drawParts(d, content);
  knockOut(d);
}

async function drawParts(d: Drawing, content: readonly Part[]): Promise<void> {
  for (const part of content) {
    const inline = part.type === 'group' && isPlain(part) && (d.shared.get(part) ?? 0) < 2;
    if (d.marking && !inline) d.marking.enter(d.out, part);
    // Most leaves are flat: nothing of them is waited for.
    const drawing = part.type === 'group' ? (inline ? drawGroup(d, part) : apart(d, part)) : drawLeaf(d, part);
    if (drawing) await drawing;
    const resting = d.out.rest();
    if (resting) await resting;
  }
}

/** Turns overprint off, if it is on. */
export function knockOut(d: Drawing): void {
  if (d.overprint) d.out.op('/Ko gs');
  d.overprint = false;
}

/** What is drawn within its own clips or as a form belongs to one thing as a whole. */
function apart(d: Drawing, group: Group): Promise<void> {
  if (!d.marking) return composite(d, group);
  knockOut(d);
  return composite({ ...d, marking: null }, group);
}

/** Draws a group; one that is met again is a form, drawn where it stands as if its parts were (ISO 32000-1 8.10). */
export async function composite(d: Drawing, group: Group): Promise<void> {
  if ((d.shared.get(group) ?? 0) < 2) return drawGroup(d, group);
  let key = d.written.get(group);
  if (key === undefined) {
    const inner: Drawing = { ...d, out: new ContentStream(), toSheet: IDENTITY, overprint: false, marking: null };
    inner.out.op('/Ko gs');
    await drawGroup(inner, group);
    const { x0, y0, x1, y1 } = grow(group.paintBounds, 1);
    key = d.images.add(
      await d.file.stream(
        { Type: name('XObject'), Subtype: name('Form'), BBox: [x0, y0, x1, y1], Resources: d.resources },
        inner.out.done(),
      ),
    );
    d.written.set(group, key);
  }
  knockOut(d);
  d.out.op(`/${key} Do`);
}

/** What is only cut is drawn through its clips; any other is a transparency group of its own (ISO 32000-1 11.6.6). */
async function drawGroup(d: Drawing, group: Group): Promise<void> {
  const { content, bodyBounds: bounds, clips, masks, opacity, blend } = group;
  if (isEmpty(bounds)) return;
  const own = isOwn(group);
  if (isPlain(group)) return drawParts(d, content);
  for (const e of group.effects) await layEffect(d, group, e);
  knockOut(d);
  d.out.op('q');
  for (const clip of clips) d.out.path(clip.path).op(clip.rule === 'evenOdd' ? 'W* n' : 'W n');
  if (own) {
    const state: Record<string, Value> = { Type: name('ExtGState'), ca: opacity, CA: opacity };
    if (blend) state.BM = name(blendName(blend));
    d.out.op(`/${addGraphics(d, state)} gs`);
    let inner = await groupForm(d, content, bounds);
    // Each mask wraps what the last one left.
    for (const mask of masks) {
      const shape = await (mask.light
        ? groupForm({ ...d, spaces: d.greys }, asLight(mask.root.content, d.palette), bounds, 'DeviceGray')
        : groupForm(d, mask.root.content, bounds));
      const out = new ContentStream().op(
        `/${addGraphics(d, { Type: name('ExtGState'), SMask: { Type: name('Mask'), S: name(mask.light ? 'Luminosity' : 'Alpha'), G: shape } })} gs`,
      );
      out.op(`/${d.images.add(inner)} Do`);
      inner = await form(d, out, bounds);
    }
    d.out.op(`/${d.images.add(inner)} Do`);
  } else await drawAll(d, content);
  d.out.op('Q');
}

/**
 * An effect of a group, laid below it: its colour through a soft mask, so that it prints over or knocks out as any
 * colour does.
 */
async function layEffect(d: Drawing, group: Group, effect: Effect): Promise<void> {
  const region = effectRegion(group, effect);
  if (!region) return;
  const [w, h] = [region.width / region.scale, region.height / region.scale];
  const image = await d.file.stream(
    {
      Type: name('XObject'),
      Subtype: name('Image'),
      Width: region.width,
      Height: region.height,
      BitsPerComponent: 8,
      ColorSpace: name('DeviceGray'),
    },
    effectCover(group, effect, d.palette, region),
  );
  const area = { x0: region.x, y0: region.y, x1: region.x + w, y1: region.y + h };
  // An image's rows run down from the top of its unit square.
  const drawn = new ContentStream().nums([w, 0, 0, -h, region.x, region.y + h], 'cm', 6).op('/Im Do');
  const mask = await maskGroup(d, area, drawn, { XObject: { Im: image } });
  const strength = effect.opacity * group.opacity;
  const state = addGraphics(d, {
    Type: name('ExtGState'),
    ca: strength,
    SMask: { Type: name('Mask'), S: name('Luminosity'), G: mask },
  });
  setOverprint(d, effect.paint.overprint);
  d.out.op('q').op(`/${state} gs`);
  await setColour(d, effect.paint, false);
  d.out.nums([area.x0, area.y0, w, h], 're').op('f').op('Q');
}

/** PDF has the words of CSS without their hyphens. */
const blendName = (blend: string): string =>
  blend
    .split('-')
    .map((w) => w[0].toUpperCase() + w.slice(1))
    .join('');

async function groupForm(d: Drawing, content: readonly Part[], bounds: Rect, space = 'DeviceCMYK'): Promise<PDFRef> {
  const inner: Drawing = { ...d, out: new ContentStream(), toSheet: IDENTITY, overprint: false, marking: null };
  inner.out.op('/Ko gs');
  await drawAll(inner, content);
  return form(d, inner.out, bounds, space);
}

/** An isolated transparency group in page points. */
function form(d: Drawing, out: ContentStream, bounds: Rect, space = 'DeviceCMYK'): Promise<PDFRef> {
  const { x0, y0, x1, y1 } = grow(bounds, 1);
  return d.file.stream(
    {
      Type: name('XObject'),
      Subtype: name('Form'),
      BBox: [x0, y0, x1, y1],
      Group: { Type: name('Group'), S: name('Transparency'), CS: name(space), I: true, K: false },
      Resources: d.resources,
    },
    out.done(),
  );
}

function addGraphics(d: Drawing, state: Record<string, Value>): string {
  const key = `M${Object.keys(d.graphics).length}`;
  d.graphics[key] = d.file.add(state);
  return key;
}

/** Draws a leaf; null where that is done at once. */
function drawLeaf(d: Drawing, leaf: Leaf): Promise<void> | null {
  const item = d.outlines ? asOutlines(leaf) : withoutKeptOut(leaf);
  // Letters that became outlines: their words are there to be found, copied and read out, and leave no ink.
  const words = item.type !== 'glyphs' && item.words ? item.words : null;
  if (item.paint.kind !== 'colour' || d.spaces.keepsRgb)
    return paintLeaf(d, item).then(() => (words ? drawText(d, words, 3) : undefined));
  setOverprint(d, !d.spaces.grey && overprints(item, d.palette));
  setInk(d, item.paint, item.type !== 'fill' && item.stroke !== null);
  drawForm(d, item);
  if (words) drawText(d, words, 3);
  return null;
}

/** Fills or strokes a leaf with the colour that is set. */
function drawForm(d: Drawing, item: Leaf): void {
  const { out } = d;
  if (item.type === 'fill') out.path(item.placed.path).op(item.rule === 'evenOdd' ? 'f*' : 'f');
  else if (item.type === 'stroke') {
    setStroke(out, item.stroke);
    out.path(linePath(item.placed.path, item.stroke)).op('S');
  } else {
    if (item.stroke) setStroke(out, item.stroke);
    drawText(d, item, item.stroke ? 1 : 0);
  }
}

async function paintLeaf(d: Drawing, item: Leaf): Promise<void> {
  const { out, palette } = d;
  const { paint } = item;
  if (paint.kind === 'picture') return drawPicture(d, item, paint);
  let shadings: Shadings | null = null;
  if (paint.kind !== 'colour') {
    // Overprinting ink that is nowhere leaves every plate as it is; a gradient without extent has no colour to show.
    const used =
      paint.kind === 'gradient'
        ? palette.ramp(paint.ramp).used
        : palette.channels.map((_, i) => paint.pools.some((p) => palette.mix(p.colour)[i] > 0));
    if (paint.overprint && !used.some(Boolean)) return;
    if (
      !(paint.kind === 'gradient' && paint.strokeMapping) &&
      Math.abs(determinant(multiply(item.matrix, paint.geometry))) < 1e-12
    )
      return;
    shadings = await (paint.kind === 'gradient'
      ? makeShadings(item, paint, palette, d.spaces, d.file, grainOf(paint, palette.ramp(paint.ramp)) / 2)
      : makePools(item, paint, palette, d.spaces, d.file));
    if (!shadings) return;
  }
  setOverprint(d, !d.spaces.grey && overprints(item, palette));
  const stroking = item.type !== 'fill' && item.stroke !== null;
  if (shadings?.opacity) out.op('q').op(`/${await softMask(d, item, shadings.opacity, shadings.matrix)} gs`);
  if (shadings)
    out.op(`/Pattern ${stroking ? 'CS' : 'cs'}`).op(`/${shadingPattern(d, shadings)} ${stroking ? 'SCN' : 'scn'}`);
  else if (paint.kind === 'colour') await setColour(d, paint, stroking);
  drawForm(d, item);
  if (shadings?.opacity) out.op('Q');
  if (paint.kind === 'gradient' && grainOf(paint, palette.ramp(paint.ramp))) await drawGrain(d, item, paint);
}

function setOverprint(d: Drawing, overprint: boolean): void {
  if (overprint !== d.overprint) d.out.op(overprint ? '/Op gs' : '/Ko gs');
  d.overprint = overprint;
}

/** A picture, cut out by the item's form; letters cut as text, so that the words are still found. */
async function drawPicture(d: Drawing, item: Leaf, paint: PicturePaint): Promise<void> {
  const { out } = d;
  const image = await d.images.of(paint, d.spaces);
  const back = invert(multiply(item.matrix, paint.geometry));
  if (!image || !back) return;
  setOverprint(d, paint.overprint);
  out.op('q');
  const stroke = item.type === 'fill' ? null : item.stroke;
  if (stroke) out.path(strokeOutline(item.placed.path, stroke, 0.02)).op('W n');
  else if (item.type === 'glyphs') drawText(d, item, 7);
  else if (item.type === 'fill') out.path(item.placed.path).op(item.rule === 'evenOdd' ? 'W* n' : 'W n');
  const toPage = multiply(item.matrix, paint.geometry);
  // An image's rows run down from the top of its unit square.
  const place = (m: Matrix) =>
    out
      .op('q')
      .nums(multiply(m, [1, 0, 0, -1, 0, 1]), 'cm', 6)
      .op(`/${image.key} Do`)
      .op('Q');
  if (!paint.tile) place(toPage);
  else {
    const reached = transformRect(back, item.inkBounds);
    const by = image.across;
    for (let j = Math.floor(reached.y0 / by); j * by < reached.y1; j++)
      for (let i = Math.floor(reached.x0 / by); i * by < reached.x1; i++)
        place(multiply(toPage, [by, 0, 0, by, i * by, j * by]));
  }
  out.op('Q');
}

/** The grain of a gradient: the same gradient half the grain earlier, through the squares of the tile that are set. */
async function drawGrain(d: Drawing, item: Leaf, paint: GradientPaint): Promise<void> {
  const { out } = d;
  const shadings = await makeShadings(item, paint, d.palette, d.spaces, d.file, -paint.grain! / 2);
  if (!shadings) return;
  const stroke = item.type === 'fill' ? null : item.stroke;
  out
    .op('q')
    .op(`/${await grainMask(d, item)} gs`)
    .op(`/Pattern ${stroke ? 'CS' : 'cs'}`)
    .op(`/${shadingPattern(d, shadings)} ${stroke ? 'SCN' : 'scn'}`);
  if (stroke) setStroke(out, stroke);
  // Letters are drawn as their outlines here: the words must not be found twice.
  out
    .path(stroke ? linePath(item.placed.path, stroke) : item.placed.path)
    .op(stroke ? 'S' : item.type === 'fill' && item.rule === 'evenOdd' ? 'f*' : 'f')
    .op('Q');
}

/** A soft mask that repeats the grain's tile over an item. */
async function grainMask(d: Drawing, item: Leaf): Promise<string> {
  const { x0, y0, x1, y1 } = grow(item.inkBounds, 1);
  const out = new ContentStream()
    .op('/Pattern cs')
    .op('/Tile scn')
    .nums([x0, y0, x1 - x0, y1 - y0], 're')
    .op('f');
  return addMask(d, item, out, { Pattern: { Tile: (d.grain.pattern ??= await grainPattern(d.file)) } });
}

/**
 * A gradient as a paint of its own: a shading whose matrix runs from its own space to the sheet (not to the page's
 * points).
 */
function shadingPattern(d: Drawing, { colour, matrix }: Shadings): string {
  const key = `P${Object.keys(d.patterns).length + 1}`;
  d.patterns[key] = d.file.add({
    Type: name('Pattern'),
    PatternType: 2,
    Shading: colour,
    Matrix: multiply(d.toSheet, matrix),
  });
  return key;
}

/** What a gradient lets through, as a soft mask by luminosity: the same shading in grey, drawn in page points. */
function softMask(d: Drawing, item: Leaf, opacity: Value, matrix: Matrix): Promise<string> {
  return addMask(d, item, new ContentStream().nums(matrix, 'cm', 6).op('/Sh sh'), { Shading: { Sh: opacity } });
}

async function addMask(d: Drawing, item: Leaf, content: ContentStream, resources: Value): Promise<string> {
  const group = await maskGroup(d, grow(item.inkBounds, 1), content, resources);
  return addGraphics(d, { Type: name('ExtGState'), SMask: { Type: name('Mask'), S: name('Luminosity'), G: group } });
}

/** A group in grey whose light is a soft mask; where it draws nothing it lets nothing through. */
function maskGroup(d: Drawing, { x0, y0, x1, y1 }: Rect, content: ContentStream, resources: Value): Promise<PDFRef> {
  return d.file.stream(
    {
      Type: name('XObject'),
      Subtype: name('Form'),
      BBox: [x0, y0, x1, y1],
      Group: { Type: name('Group'), S: name('Transparency'), CS: name('DeviceGray'), I: true },
      Resources: resources,
    },
    content.done(),
  );
}

async function setColour(
  d: Drawing,
  paint: Extract<Leaf['paint'], { kind: 'colour' }>,
  stroking: boolean,
): Promise<void> {
  const rgb = await d.spaces.keptRgb(paint);
  if (rgb) {
    d.out.op(`/Screen ${stroking ? 'CS' : 'cs'}`).nums(rgb, stroking ? 'SCN' : 'scn', 4);
    return;
  }
  setInk(d, paint, stroking);
}

/** Sets a colour in inks. */
function setInk(d: Drawing, paint: Extract<Leaf['paint'], { kind: 'colour' }>, stroking: boolean): void {
  const mix = d.palette.mix(paint.colour);
  if (d.spaces.grey) {
    d.out.nums([1 - mix[3]], stroking ? 'G' : 'g', 4);
    return;
  }
  const spot = d.spaces.spotOf(mix);
  if (spot === null) d.out.nums(mix.slice(0, 4), stroking ? 'K' : 'k', 4);
  else {
    d.out.op(`/${d.spaces.spotName(spot)} ${stroking ? 'CS' : 'cs'}`);
    d.out.nums([mix[spot]], stroking ? 'SCN' : 'scn', 4);
  }
}

function setStroke(out: ContentStream, s: StrokeStyle): void {
  out
    .nums([s.width], 'w')
    .op(`${['butt', 'round', 'square'].indexOf(s.cap)} J ${['miter', 'round', 'bevel'].indexOf(s.join)} j`)
    .nums([s.miterLimit], 'M');
}

/**
 * The path that a line is drawn along. Presses differ in where a dash ends and how it closes: they are given the
 * pieces.
 */
const linePath = (path: PathData, { dash }: StrokeStyle): PathData => (dash ? dashPath(path, dash) : path);

/** Real text: glyph ids with their kerning, upright in a space that runs down. `mode` is the text rendering mode. */
function drawText(d: Drawing, item: Words, mode: 0 | 1 | 3 | 7): void {
  const { out } = d;
  // Letters that stand each its own way are read as one word (14.9.4): else a reader tells them letter by letter.
  const spelt = item.glyphs.some((g) => g.turn);
  if (spelt) out.op(`/Span <</ActualText <FEFF${utf16(item.text)}>>> BDC`);
  out
    .op('BT')
    .op(`${mode} Tr`)
    .op(`/${d.fonts.get(item.face.id)} 1 Tf`);
  const glyphs = item.glyphs;
  for (let i = 0; i < glyphs.length;) {
    const start = glyphs[i];
    if (start.turn) {
      const [a, b, c, e] = start.turn.map((v: number) => v * item.size);
      out.nums(multiply(item.layout, [a, b, -c, -e, start.x, start.y]), 'Tm', 6);
      out.showGlyphs([[start.gid]]);
      i++;
      continue;
    }
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
  if (spelt) out.op('EMC');
}
