import type { Mix } from '../colour/mixing';
import type { Palette } from '../colour/palette';
import { invert, multiply, translation, scaling } from '../geometry/matrix';
import { intersect, isEmpty, overlaps, type Rect } from '../geometry/rect';
import { strokeOutline } from '../geometry/stroke';
import type { Effect, GradientPaint, PicturePaint, PoolsPaint } from '../model/schema';
import { effectRow } from '../scene/effects/table';
import { overprints } from '../scene/overprints';
import { trapsOf } from '../scene/traps';
import { bodyOf, isOwn, type Clip, type Group, type Leaf, type Mask, type Part, type Scene } from '../scene/scene';
import { asLight } from './asLight';
import { blender } from './blend';
import { Coverage, type Region, type RowSink } from './coverage';
import { fieldOf } from './field';
import { grainOf } from './grain';
import { pictureSampler } from './pictureSampler';
import { poolField, rasterPools } from './pools';
import { opacityTable, rampWrites } from './rampTables';
import { regionRect } from './region';
import { GrainOver, chosenRow, flatRow, tableRow, valueRow, type Through } from './rows';

/** One raster a channel, 0…255 = none…full. For inks 0 is bare paper; a screen's channels start at full light. */
export interface Plates {
  readonly region: Region;
  readonly channels: readonly string[];
  readonly data: readonly Uint8Array[];
}

/**
 * The plates of a region of a page: the truth that the screen, the PNG and the checks are made of. Paint that is set to
 * overprint leaves the plates it has no ink for; other paint clears them (PDF 32000-1 8.6.7, overprint mode 1).
 * `cancelled` is asked now and then; when it says yes the answer is null.
 */
export function rasterPlates(
  scene: Scene,
  palette: Palette,
  region: Region,
  cancelled: () => boolean = () => false,
): Plates | null {
  // The page is a group of its own: on bare paper there is nothing to blend with. Most blends do not tell the
  // difference.
  const own = blendsOnPaper(scene.root, regionRect(region));
  const painter = new PlatePainter(palette, region, own ? 'group' : 'page');
  if (!painter.paintAll(scene.root.content, cancelled)) return null;
  painter.paintAll(trapsOf(scene, palette).parts, () => false);
  if (own && palette.screen)
    for (const light of painter.data) for (let i = 0; i < light.length; i++) light[i] += 255 - painter.alpha![i];
  return { region, channels: palette.channels, data: painter.data };
}

/** Does anything in a window blend so that bare paper and nothing are not the same to it? */
function blendsOnPaper(g: Group, window: Rect): boolean {
  if (!overlaps(g.paintBounds, window)) return false;
  return (
    (g.blend !== null && g.blend !== 'multiply' && g.blend !== 'darken') ||
    g.content.some((p) => p.type === 'group' && blendsOnPaper(p, window))
  );
}

/** A paint by itself: what it puts on each plate where it is solid, and how much of what lies below it hides, 0…255. */
export interface Alone {
  readonly plates: Plates;
  readonly alpha: Uint8Array;
}

/** One leaf's paint all over a region, whatever the leaf's own form; for painters that cut it out themselves. */
export function rasterAlone(leaf: Leaf, palette: Palette, region: Region): Alone {
  const painter = new PlatePainter(palette, region, 'alone');
  painter.paint(leaf);
  return { plates: { region, channels: palette.channels, data: painter.data }, alpha: painter.alpha! };
}

/** A page as a group by itself, on nothing: plates hold what is put down times its cover, which stands beside them. */
export function rasterGroup(scene: Scene, palette: Palette, region: Region): Alone {
  const painter = new PlatePainter(palette, region, 'group');
  painter.paintAll(scene.root.content, () => false);
  painter.paintAll(trapsOf(scene, palette).parts, () => false);
  return { plates: { region, channels: palette.channels, data: painter.data }, alpha: painter.alpha! };
}

/** How far the overlaps of inks cover each pixel of a region, 0…255. */
export function trapCover(scene: Scene, palette: Palette, region: Region): Uint8Array {
  const painter = new PlatePainter(palette, region, 'group');
  painter.paintAll(trapsOf(scene, palette).parts, () => false);
  return painter.alpha!;
}

/**
 * How far an effect of a group covers each pixel of a region, 0…255, before its opacity. What throws it may lie
 * outside.
 */
export function effectCover(group: Group, effect: Effect, palette: Palette, region: Region): Uint8Array {
  const source = intersect(effectRow(effect).source(effect, regionRect(region)), group.bodyBounds);
  const pixels = Math.max(0, source.x1 - source.x0) * Math.max(0, source.y1 - source.y0) * region.scale ** 2;
  if (pixels > FINER_PIXELS)
    return coarseCover(group, effect, palette, region, Math.ceil(Math.sqrt(pixels / FINER_PIXELS)));
  const finer = effectRow(effect).finer(effect, region.scale);
  const most = Math.max(1, Math.floor(Math.sqrt(FINER_PIXELS / (region.width * region.height))));
  const by = Math.min(finer, most);
  if (by <= 1) return coverOn(group, effect, palette, region);
  const { x, y, scale, width, height } = region;
  const fine = coverOn(group, effect, palette, { x, y, scale: scale * by, width: width * by, height: height * by });
  const out = new Uint8Array(width * height);
  for (let j = 0; j < height; j++)
    for (let i = 0; i < width; i++) {
      let sum = 0;
      for (let v = 0; v < by; v++)
        for (let u = 0, at = (j * by + v) * width * by + i * by; u < by; u++, at++) sum += fine[at];
      out[j * width + i] = sum / (by * by) + 0.5;
    }
  return out;
}
/**
 * No larger raster than this is made of what throws an effect: far enlarged, a wide blur reaches far beyond what is
 * seen.
 */
const FINER_PIXELS = 24_000_000;

/** The same from pixels `by` times as wide, with straight lines between them. */
function coarseCover(group: Group, effect: Effect, palette: Palette, region: Region, by: number): Uint8Array {
  const { x, y, scale, width, height } = region;
  const [w, h] = [Math.ceil(width / by) + 2, Math.ceil(height / by) + 2];
  const coarse = coverOn(group, effect, palette, {
    x: x - by / scale,
    y: y - by / scale,
    scale: scale / by,
    width: w,
    height: h,
  });
  const out = new Uint8Array(width * height);
  for (let j = 0; j < height; j++) {
    const v = (j + 0.5) / by + 0.5;
    const [row, fy] = [Math.floor(v) * w, v % 1];
    for (let i = 0; i < width; i++) {
      const u = (i + 0.5) / by + 0.5;
      const [at, fx] = [row + Math.floor(u), u % 1];
      const top = coarse[at] * (1 - fx) + coarse[at + 1] * fx;
      out[j * width + i] = top * (1 - fy) + (coarse[at + w] * (1 - fx) + coarse[at + w + 1] * fx) * fy + 0.5;
    }
  }
  return out;
}

function coverOn(group: Group, effect: Effect, palette: Palette, region: Region): Uint8Array {
  const row = effectRow(effect);
  const { scale } = region;
  const { x0, y0, x1, y1 } = intersect(row.source(effect, regionRect(region)), group.bodyBounds);
  // Pixels of the page's own grid, counted from where it lies in this region.
  const [x, y] = [Math.floor((x0 - region.x) * scale) - 1, Math.floor((y0 - region.y) * scale) - 1];
  const [width, height] = [Math.ceil((x1 - region.x) * scale) + 1 - x, Math.ceil((y1 - region.y) * scale) + 1 - y];
  if (!(width > 0 && height > 0)) return new Uint8Array(region.width * region.height);
  const painter = new PlatePainter(
    palette,
    { x: region.x + x / scale, y: region.y + y / scale, scale, width, height },
    'group',
  );
  painter.paintAll([bodyOf(group)], () => false);
  const [left, top] = [Math.round(region.x * scale), Math.round(region.y * scale)];
  const art = { x: left + x, y: top + y, width, height, data: painter.alpha! };
  return row.cover(effect, art, { x: left, y: top, width: region.width, height: region.height }, scale);
}

/** How much a mask leaves of each pixel of a region, 0…255: how far it covers, or that times how light it is. */
function rasterMask({ root, light }: Mask, palette: Palette, region: Region): Uint8Array {
  const painter = new PlatePainter(palette, region, 'group');
  painter.paintAll(light ? asLight(root.content, palette) : root.content, () => false);
  const cover = painter.alpha!;
  if (!light) return cover;
  // Its greys are black alone: what black leaves of the cover is light. A screen's red channel is that light itself.
  if (palette.screen) return painter.data[0];
  return cover.map((a, i) => Math.max(0, a - painter.data[3][i]));
}

/**
 * `page`: onto paper (or light). `group`: by itself first; the plates hold what it puts down times its cover, which is
 * kept beside them. `alone`: one paint at full strength everywhere, its cover beside it.
 */
type Onto = 'page' | 'group' | 'alone';

class PlatePainter {
  readonly data: Uint8Array[];
  /** How far each pixel is covered, where that is kept. */
  readonly alpha: Uint8Array | null;
  private readonly alone: boolean;
  private readonly coverage: Coverage;
  private readonly window: Rect;
  /** Cover left by the clips that are in force, one a clip. */
  private readonly clips: Uint8Array[] = [];

  constructor(
    private readonly palette: Palette,
    private readonly region: Region,
    onto: Onto,
  ) {
    const pixels = region.width * region.height;
    this.data = palette.channels.map(() =>
      palette.screen && onto !== 'group' ? new Uint8Array(pixels).fill(255) : new Uint8Array(pixels),
    );
    this.alpha = onto === 'page' ? null : new Uint8Array(pixels);
    this.alone = onto === 'alone';
    this.coverage = new Coverage(region.width, region.height);
    this.window = regionRect(region);
  }

  /** False if it was cancelled on the way. */
  paintAll(content: readonly Part[], cancelled: () => boolean): boolean {
    let n = 0;
    for (const part of content) {
      if (!overlaps(part.paintBounds, this.window)) continue;
      if ((++n & 63) === 0 && cancelled()) return false;
      if (part.type !== 'group') this.paint(part);
      else if (!this.composite(part, cancelled)) return false;
    }
    return true;
  }

  private composite(group: Group, cancelled: () => boolean): boolean {
    for (const e of group.effects) this.layEffect(group, e);
    for (const clip of group.clips) this.clips.push(this.clipCover(clip));
    let whole = true;
    if (!isOwn(group)) whole = this.paintAll(group.content, cancelled);
    else {
      const piece = pieceOf(this.region, group.bodyBounds);
      if (piece) {
        const own = new PlatePainter(this.palette, piece.region, 'group');
        whole = own.paintAll(group.content, cancelled);
        const masks = group.masks.map((m) => rasterMask(m, this.palette, piece.region));
        if (whole) this.merge(own, group, piece, masks);
      }
    }
    this.clips.length -= group.clips.length;
    return whole;
  }

  /** An effect of a group, laid below it: its paint through the cover that it makes of the group's. */
  private layEffect(group: Group, effect: Effect): void {
    const { region } = this;
    const piece = pieceOf(region, effectRow(effect).reach(effect, group.bodyBounds));
    if (!piece) return;
    const cover = effectCover(group, effect, this.palette, piece.region);
    const row = new Uint8Array(region.width);
    const strength = effect.opacity * group.opacity;
    const { width, height } = piece.region;
    const sink = this.flat(
      flatWrites(this.palette.mix(effect.paint.colour), effect.paint.overprint, this.palette.screen),
    );
    for (let y = 0; y < height; y++) {
      const base = (y + piece.y) * region.width;
      for (let x = 0; x < width; x++) {
        let c = cover[y * width + x] * strength;
        for (const clip of this.clips) c *= clip[base + piece.x + x] / 255;
        row[piece.x + x] = c + 0.5;
      }
      sink(y + piece.y, piece.x, piece.x + width, row, 0, 0);
    }
  }

  private clipCover({ path, rule }: Clip): Uint8Array {
    const out = new Uint8Array(this.region.width * this.region.height);
    this.coverage.add(path, this.region);
    this.coverage.sweep(rule, (y, from, to, cover) => out.set(cover.subarray(from, to), y * this.region.width + from));
    return out;
  }

  /** What was drawn by itself onto what lies below: ISO 32000-1 11.3.6, with paper as a ground that covers fully. */
  private merge(own: PlatePainter, group: Group, { region, x: ox, y: oy }: Piece, masks: readonly Uint8Array[]): void {
    const { palette, data, alpha, clips } = this;
    const n = data.length;
    const blend = group.blend && blender(group.blend, palette.screen, n);
    const [ground, source, mixed] = [new Uint8Array(n), new Uint8Array(n), new Uint8Array(n)];
    // Of one row: how much of the group each pixel takes, and how much of what was there gives way.
    const [given, taken] = [new Float64Array(region.width), new Float64Array(region.width)];
    for (let y = 0; y < region.height; y++) {
      let [first, last] = [region.width, 0];
      for (let x = 0; x < region.width; x++) {
        given[x] = taken[x] = 0;
        const from = y * region.width + x;
        const cover = own.alpha![from];
        if (cover === 0) continue;
        const to = (y + oy) * this.region.width + x + ox;
        let strength = group.opacity;
        for (const m of masks) strength *= m[from] / 255;
        for (const c of clips) strength *= c[to] / 255;
        if (strength === 0) continue;
        const a = (cover / 255) * strength;
        const below = alpha ? alpha[to] / 255 : 1;
        if (!blend || below === 0) {
          given[x] = strength;
          taken[x] = a;
          if (x < first) first = x;
          last = x + 1;
        } else {
          for (let i = 0; i < n; i++) {
            ground[i] = Math.min(255, data[i][to] / below + 0.5);
            source[i] = Math.min(255, (own.data[i][from] * 255) / cover + 0.5);
          }
          blend(ground, source, mixed);
          for (let i = 0; i < n; i++)
            data[i][to] = data[i][to] * (1 - a) + a * ((1 - below) * source[i] + below * mixed[i]) + 0.5;
        }
        if (alpha) alpha[to] = (below + (1 - below) * a) * 255 + 0.5;
      }
      const [at, start] = [y * region.width, (y + oy) * this.region.width + ox];
      for (let i = 0; i < n; i++) {
        const [plate, art] = [data[i], own.data[i]];
        for (let x = first; x < last; x++)
          if (given[x] !== 0) plate[start + x] = plate[start + x] * (1 - taken[x]) + art[at + x] * given[x] + 0.5;
      }
    }
  }

  paint(leaf: Leaf): void {
    const sink = this.sinkOf(leaf);
    if (this.alone) return this.everywhere(sink);
    const stroke = leaf.type === 'fill' ? null : leaf.stroke;
    if (stroke) this.coverage.add(strokeOutline(leaf.placed.path, stroke, 0.08 / this.region.scale), this.region);
    else this.coverage.add(leaf.placed.path, this.region);
    const { clips } = this;
    const stride = this.region.width;
    this.coverage.sweep(
      leaf.type === 'fill' ? leaf.rule : 'nonZero',
      clips.length
        ? (y, from, to, cover) => {
            for (const clip of clips)
              for (let x = from, at = y * stride + from; x < to; x++, at++)
                cover[x] = (cover[x] * clip[at]) / 255 + 0.5;
            sink(y, from, to, cover, to, to);
          }
        : sink,
    );
  }

  private sinkOf(leaf: Leaf): RowSink {
    const { paint } = leaf;
    if (paint.kind === 'colour')
      return this.flat(flatWrites(this.palette.mix(paint.colour), overprints(leaf, this.palette), this.palette.screen));
    const sink =
      paint.kind === 'pools'
        ? this.pools(leaf, paint)
        : paint.kind === 'picture'
          ? this.picture(leaf, paint)
          : this.gradient(leaf, paint);
    return sink ?? (() => {});
  }

  private everywhere(sink: RowSink): void {
    const { width, height } = this.region;
    const full = new Uint8Array(width).fill(255);
    for (let y = 0; y < height; y++) sink(y, 0, width, full, 0, width);
  }

  /**
   * Keeps count of how far pixels are covered. `own` is how far the paint itself covers (null: fully). Answers the row
   * to write through: alone, a paint is written at full strength.
   */
  private through(y: number, row: Through, own: Uint8Array | null, scratch: Uint8Array): Through {
    const { alpha } = this;
    const { from, to } = row;
    const base = y * this.region.width;
    if (this.alone) {
      for (let x = from; x < to; x++) alpha![base + x] = own ? own[x] : 255;
      return row;
    }
    let { cover } = row;
    let out = row;
    if (own) {
      out = coveredBy(row, own, scratch);
      cover = scratch;
    }
    if (alpha)
      for (let x = out.from; x < out.to; x++)
        if (cover[x]) alpha[base + x] += ((255 - alpha[base + x]) * cover[x]) / 255 + 0.5;
    return out;
  }

  private flat(writes: readonly (number | null)[]): RowSink {
    const { data } = this;
    const stride = this.region.width;
    return (y, from, to, cover, fullFrom, fullTo) => {
      const row = this.through(y, { from, to, cover, fullFrom, fullTo }, null, cover);
      for (let i = 0; i < data.length; i++) {
        const v = writes[i];
        if (v !== null) flatRow(data[i], y * stride, row, v);
      }
    };
  }

  private picture(leaf: Leaf, paint: PicturePaint): RowSink | null {
    const { region, palette, data } = this;
    const sampler = pictureSampler(leaf, paint, palette, region);
    if (!sampler) return null;
    const n = data.length;
    const values = palette.channels.map(() => new Uint8Array(region.width));
    const own = new Uint8Array(region.width);
    const scratch = new Uint8Array(region.width);
    return (y, from, to, cover, fullFrom, fullTo) => {
      sampler.row(y, from, to, values, own);
      const row = this.through(y, { from, to, cover, fullFrom, fullTo }, sampler.solid ? null : own, scratch);
      for (let i = 0; i < n; i++)
        if (!paint.overprint || palette.screen || sampler.ink.used[i])
          valueRow(data[i], y * region.width, row, values[i]);
    };
  }

  private gradient(leaf: Leaf, paint: GradientPaint): RowSink | null {
    const field = fieldOf(leaf, paint, this.region);
    if (!field) return null;
    const ramp = this.palette.rampOf(paint);
    const writes = rampWrites(ramp, paint.overprint, this.palette);
    const opacity = ramp.solid ? null : opacityTable(ramp);
    const { data } = this;
    const stride = this.region.width;
    const index = new Uint16Array(stride);
    const scratch = new Uint8Array(stride);
    const own = opacity && new Uint8Array(stride);
    const amount = grainOf(paint, ramp);
    const grain = amount ? new GrainOver(this.region, amount) : null;
    const chosen = new Uint8Array((stride + 3) & ~3);
    return (y, from, to, cover, fullFrom, fullTo) => {
      const level = field(y, from, to, index);
      if (grain && !level) grain.move(y, from, to, index);
      // Along a level row grain makes two values of one.
      const pair = grain && level ? grain.pair(index[from]) : null;
      const base = y * stride;
      if (own) for (let x = from; x < to; x++) own[x] = opacity[index[level ? from : x]];
      const row = this.through(y, { from, to, cover, fullFrom, fullTo }, own, scratch);
      for (let i = 0; i < data.length; i++) {
        const write = writes[i];
        if (!write) continue;
        const plate = data[i];
        const same = level && !pair ? write.table[index[from]] : write.constant;
        if (same !== null) {
          flatRow(plate, base, row, same);
          continue;
        }
        if (pair) {
          chosenRow(chosen, grain!.mask(y), write.table[pair.on], write.table[pair.back]);
          valueRow(plate, base, row, chosen);
        } else tableRow(plate, base, row, write.table, index);
      }
    };
  }

  private pools(leaf: Leaf, paint: PoolsPaint): RowSink | null {
    const { region, palette, data } = this;
    const toOwn = invert(leaf.matrix);
    const box = this.alone ? regionRect(region) : intersect(leaf.inkBounds, regionRect(region));
    if (!toOwn || isEmpty(box)) return null;
    const field = poolField(paint, palette);
    const x0 = Math.max(0, Math.floor((box.x0 - region.x) * region.scale) - 1);
    const y0 = Math.max(0, Math.floor((box.y0 - region.y) * region.scale) - 1);
    const width = Math.min(region.width, Math.ceil((box.x1 - region.x) * region.scale) + 1) - x0;
    const height = Math.min(region.height, Math.ceil((box.y1 - region.y) * region.scale) + 1) - y0;
    const toPage = multiply(
      translation(region.x + x0 / region.scale, region.y + y0 / region.scale),
      scaling(1 / region.scale, 1 / region.scale),
    );
    const values = rasterPools(field, multiply(toOwn, toPage), width, height);
    const n = data.length;
    const own = new Uint8Array(region.width);
    const scratch = new Uint8Array(region.width);
    return (y, from, to, cover, fullFrom, fullTo) => {
      const base = y * region.width;
      const at = (y - y0) * width - x0;
      if (!field.solid) own.set(values[n].subarray(at + from, at + to), from);
      const row = this.through(y, { from, to, cover, fullFrom, fullTo }, field.solid ? null : own, scratch);
      for (let i = 0; i < n; i++) {
        if (paint.overprint && !palette.screen && !field.used[i]) continue;
        valueRow(data[i], base, row, values[i].subarray(at + from, at + to), from);
      }
    };
  }
}

/**
 * What is left of a row where its paint covers it only so far; from the first pixel to the last of which anything is
 * left.
 */
function coveredBy({ from, to, cover }: Through, own: Uint8Array, scratch: Uint8Array): Through {
  let [first, last] = [to, from];
  let [fullFrom, fullTo, start] = [from, from, from];
  for (let x = from; x < to; x++) {
    const v = ((cover[x] * own[x]) / 255 + 0.5) | 0;
    scratch[x] = v;
    if (v !== 0) {
      if (first === to) first = x;
      last = x + 1;
      if (v === 255) continue;
    }
    if (x - start > fullTo - fullFrom) [fullFrom, fullTo] = [start, x];
    start = x + 1;
  }
  if (to - start > fullTo - fullFrom) [fullFrom, fullTo] = [start, to];
  return { from: first, to: Math.max(first, last), cover: scratch, fullFrom, fullTo };
}

/** The part of a region that a box takes up, on the same pixels. */
interface Piece {
  readonly region: Region;
  readonly x: number;
  readonly y: number;
}
function pieceOf(region: Region, box: Rect): Piece | null {
  const x = Math.max(0, Math.floor((box.x0 - region.x) * region.scale) - 1);
  const y = Math.max(0, Math.floor((box.y0 - region.y) * region.scale) - 1);
  const width = Math.min(region.width, Math.ceil((box.x1 - region.x) * region.scale) + 1) - x;
  const height = Math.min(region.height, Math.ceil((box.y1 - region.y) * region.scale) + 1) - y;
  if (!(width > 0 && height > 0)) return null;
  return {
    x,
    y,
    region: { x: region.x + x / region.scale, y: region.y + y / region.scale, scale: region.scale, width, height },
  };
}

const level = (v: number): number => Math.round(v * 255);

function flatWrites(mix: Mix, overprint: boolean, screen: boolean): (number | null)[] {
  return mix.map((v) => (overprint && !screen && v <= 0 ? null : level(v)));
}
