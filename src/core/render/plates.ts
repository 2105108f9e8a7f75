import type { Mix } from '../colour/mixing';
import type { Palette } from '../colour/palette';
import type { ResolvedRamp } from '../colour/ramp';
import { invert, multiply, translation, scaling } from '../geometry/matrix';
import { intersect, isEmpty, overlaps } from '../geometry/rect';
import { strokeOutline } from '../geometry/stroke';
import type { GradientPaint, PoolsPaint } from '../model/schema';
import type { Item, Scene } from '../scene/scene';
import { Coverage, type Region, type RowSink } from './coverage';
import { fieldOf, RAMP_STEPS } from './field';
import { GRAIN_CELL, GRAIN_SIZE, grainOf, grainTile } from './grain';
import { poolField, rasterPools } from './pools';
import { regionRect } from './region';

/** One raster a channel, 0…255 = none…full. For inks 0 is bare paper; a screen's channels start at full light. */
export interface Plates {
  readonly region: Region;
  readonly channels: readonly string[];
  readonly data: readonly Uint8Array[];
}

/** What one channel gets along a ramp; `constant` where that is the same everywhere. */
interface Table {
  readonly table: Uint8Array;
  readonly constant: number | null;
}
/** Which channels a paint writes. Null: leaves that plate as it is. */
type Writes = readonly (Table | null)[];

/**
 * The plates of a region of a page: the truth that the screen, the PNG and the checks are made of. Paint that is set to
 * overprint leaves the plates it has no ink for; other paint clears them (PDF 32000-1 8.6.7, overprint mode 1).
 * `cancelled` is asked now and then; when it says yes the answer is null.
 */
export function rasterPlates(scene: Scene, palette: Palette, region: Region, cancelled: () => boolean = () => false): Plates | null {
  const painter = new PlatePainter(palette, region);
  const window = regionRect(region);
  let n = 0;
  for (const item of scene.items) {
    if (!overlaps(item.bounds, window)) continue;
    if ((++n & 63) === 0 && cancelled()) return null;
    painter.paint(item);
  }
  return { region, channels: palette.channels, data: painter.data };
}

/** A paint by itself: what it puts on each plate where it is solid, and how much of what lies below it hides, 0…255. */
export interface Alone {
  readonly plates: Plates;
  readonly alpha: Uint8Array;
}

/** One item's paint all over a region, whatever the item's own form; for painters that cut it out themselves. */
export function rasterAlone(item: Item, palette: Palette, region: Region): Alone {
  const painter = new PlatePainter(palette, region, true);
  painter.paint(item);
  return { plates: { region, channels: palette.channels, data: painter.data }, alpha: painter.alpha! };
}

class PlatePainter {
  readonly data: Uint8Array[];
  /** Opacity as a plate of its own, where a paint is looked at by itself. */
  readonly alpha: Uint8Array | null;
  private readonly coverage: Coverage;

  constructor(
    private readonly palette: Palette,
    private readonly region: Region,
    alone = false,
  ) {
    const pixels = region.width * region.height;
    this.data = palette.channels.map(() => (palette.screen ? new Uint8Array(pixels).fill(255) : new Uint8Array(pixels)));
    this.alpha = alone ? new Uint8Array(pixels) : null;
    this.coverage = new Coverage(region.width, region.height);
  }

  paint(item: Item): void {
    const sink = this.sinkOf(item);
    if (this.alpha) return this.everywhere(sink);
    const stroke = item.type === 'fill' ? null : item.stroke;
    if (stroke) this.coverage.add(strokeOutline(item.path, stroke, 0.08 / this.region.scale), this.region);
    else this.coverage.add(item.path, this.region);
    this.coverage.sweep(item.type === 'fill' ? item.rule : 'nonZero', sink);
  }

  private sinkOf(item: Item): RowSink {
    const { paint } = item;
    if (paint.kind === 'colour') return this.flat(flatWrites(this.palette.mix(paint.colour), paint.overprint, this.palette.screen));
    return (paint.kind === 'pools' ? this.pools(item, paint) : this.gradient(item, paint)) ?? (() => {});
  }

  private everywhere(sink: RowSink): void {
    const { width, height } = this.region;
    const full = new Uint8Array(width).fill(255);
    for (let y = 0; y < height; y++) sink(y, 0, width, full);
  }

  private flat(writes: readonly (number | null)[]): RowSink {
    const { data } = this;
    const stride = this.region.width;
    return (y, from, to, cover) => {
      for (let i = 0; i < data.length; i++) {
        const v = writes[i];
        if (v !== null) flatRow(data[i], y * stride, from, to, cover, v);
      }
      if (this.alpha) this.alpha.fill(255, y * stride + from, y * stride + to);
    };
  }

  private gradient(item: Item, paint: GradientPaint): RowSink | null {
    const field = fieldOf(item, paint, this.region);
    if (!field) return null;
    const ramp = this.palette.rampOf(paint);
    const writes = rampWrites(ramp, paint.overprint, this.palette);
    const opacity = ramp.solid ? null : opacityTable(ramp);
    const { data, alpha } = this;
    const stride = this.region.width;
    const index = new Uint16Array(stride);
    const through = new Uint8Array(stride);
    const amount = grainOf(paint, ramp);
    const grain = amount ? grainOver(this.region, amount) : null;
    return (y, from, to, cover) => {
      let level = field(y, from, to, index);
      if (grain) {
        if (level) index.fill(index[from], from, to);
        level = false;
        grain(y, from, to, index);
      }
      const base = y * stride;
      if (alpha) {
        for (let x = from; x < to; x++) alpha[base + x] = opacity ? opacity[index[level ? from : x]] : 255;
      } else if (opacity) {
        for (let x = from; x < to; x++) through[x] = (cover[x] * opacity[index[level ? from : x]]) / 255 + 0.5;
        cover = through;
      }
      for (let i = 0; i < data.length; i++) {
        const write = writes[i];
        if (!write) continue;
        const plate = data[i];
        const same = level ? write.table[index[from]] : write.constant;
        if (same !== null) {
          flatRow(plate, base, from, to, cover, same);
          continue;
        }
        const { table } = write;
        for (let x = from; x < to; x++) {
          const c = cover[x];
          if (c === 255) plate[base + x] = table[index[x]];
          else if (c !== 0) {
            const old = plate[base + x];
            plate[base + x] = old + ((table[index[x]] - old) * c) / 255 + 0.5;
          }
        }
      }
    };
  }

  private pools(item: Item, paint: PoolsPaint): RowSink | null {
    const { region, palette, data, alpha } = this;
    const toOwn = invert(item.matrix);
    const box = alpha ? regionRect(region) : intersect(item.bounds, regionRect(region));
    if (!toOwn || isEmpty(box)) return null;
    const field = poolField(paint, palette);
    const x0 = Math.max(0, Math.floor((box.x0 - region.x) * region.scale) - 1);
    const y0 = Math.max(0, Math.floor((box.y0 - region.y) * region.scale) - 1);
    const width = Math.min(region.width, Math.ceil((box.x1 - region.x) * region.scale) + 1) - x0;
    const height = Math.min(region.height, Math.ceil((box.y1 - region.y) * region.scale) + 1) - y0;
    const toPage = multiply(translation(region.x + x0 / region.scale, region.y + y0 / region.scale), scaling(1 / region.scale, 1 / region.scale));
    const values = rasterPools(field, multiply(toOwn, toPage), width, height);
    const n = data.length;
    const through = new Uint8Array(region.width);
    return (y, from, to, cover) => {
      const base = y * region.width;
      const own = (y - y0) * width - x0;
      const opacity = values[n];
      if (alpha) {
        for (let x = from; x < to; x++) alpha[base + x] = opacity[own + x];
      } else if (!field.solid) {
        for (let x = from; x < to; x++) through[x] = (cover[x] * opacity[own + x]) / 255 + 0.5;
        cover = through;
      }
      for (let i = 0; i < n; i++) {
        if (paint.overprint && !palette.screen && !field.used[i]) continue;
        const plate = data[i];
        const value = values[i];
        for (let x = from; x < to; x++) {
          const c = cover[x];
          if (c === 255) plate[base + x] = value[own + x];
          else if (c !== 0) {
            const old = plate[base + x];
            plate[base + x] = old + ((value[own + x] - old) * c) / 255 + 0.5;
          }
        }
      }
    };
  }
}

/** Takes each pixel of a row a little further on along the ramp, or a little back, square by square of the grain. */
function grainOver({ x: ox, y: oy, scale }: Region, grain: number): (y: number, from: number, to: number, index: Uint16Array) => void {
  const tile = grainTile();
  const by = Math.round((grain / 2) * RAMP_STEPS);
  const cell = (v: number) => ((Math.floor(v / GRAIN_CELL) % GRAIN_SIZE) + GRAIN_SIZE) % GRAIN_SIZE;
  return (y, from, to, index) => {
    const row = cell(oy + (y + 0.5) / scale) * GRAIN_SIZE;
    for (let x = from; x < to; x++) {
      const t = index[x] + (tile[row + cell(ox + (x + 0.5) / scale)] ? by : -by);
      index[x] = t < 0 ? 0 : t > RAMP_STEPS ? RAMP_STEPS : t;
    }
  };
}

/** One value into one row of one plate: whole runs at once, edges by their coverage. */
function flatRow(plate: Uint8Array, base: number, from: number, to: number, cover: Uint8Array, v: number): void {
  for (let x = from; x < to; ) {
    const c = cover[x];
    if (c === 255) {
      let end = x + 1;
      while (end < to && cover[end] === 255) end++;
      plate.fill(v, base + x, base + end);
      x = end;
      continue;
    }
    if (c !== 0) {
      const old = plate[base + x];
      plate[base + x] = old + ((v - old) * c) / 255 + 0.5;
    }
    x++;
  }
}

const level = (v: number): number => Math.round(v * 255);

function flatWrites(mix: Mix, overprint: boolean, screen: boolean): (number | null)[] {
  return mix.map((v) => (overprint && !screen && v <= 0 ? null : level(v)));
}

function rampWrites(ramp: ResolvedRamp, overprint: boolean, palette: Palette): Writes {
  const tables = palette.channels.map((_, i) => (overprint && !palette.screen && !ramp.used[i] ? null : new Uint8Array(RAMP_STEPS + 1)));
  eachStep(ramp, (n, a, b, f) => {
    for (let i = 0; i < tables.length; i++) {
      const t = tables[i];
      if (t) t[n] = (a.mix[i] + f * (b.mix[i] - a.mix[i])) * 255 + 0.5;
    }
  });
  return tables.map((table) => table && { table, constant: table.every((v) => v === table[0]) ? table[0] : null });
}

function opacityTable(ramp: ResolvedRamp): Uint8Array {
  const table = new Uint8Array(RAMP_STEPS + 1);
  eachStep(ramp, (n, a, b, f) => {
    table[n] = (a.opacity + f * (b.opacity - a.opacity)) * 255 + 0.5;
  });
  return table;
}

/** Walks a table's steps and the ramp together: the ends of the piece that each lies in, and how far along it. */
function eachStep({ stops }: ResolvedRamp, visit: (n: number, a: ResolvedRamp['stops'][number], b: ResolvedRamp['stops'][number], f: number) => void): void {
  let i = 0;
  for (let n = 0; n <= RAMP_STEPS; n++) {
    const t = n / RAMP_STEPS;
    while (i < stops.length && stops[i].offset <= t) i++;
    const [a, b] = [stops[Math.max(0, i - 1)], stops[Math.min(stops.length - 1, i)]];
    visit(n, a, b, b.offset > a.offset && t > a.offset ? (t - a.offset) / (b.offset - a.offset) : 0);
  }
}

/** The most ink at any pixel, 1 = 100 %, and where (page points). Screen designs have none. */
export function mostInk(plates: Plates): { total: number; x: number; y: number } {
  const { data, region } = plates;
  let best = 0;
  let at = 0;
  const pixels = region.width * region.height;
  for (let i = 0; i < pixels; i++) {
    let sum = 0;
    for (const plate of data) sum += plate[i];
    if (sum > best) {
      best = sum;
      at = i;
    }
  }
  return { total: best / 255, x: region.x + ((at % region.width) + 0.5) / region.scale, y: region.y + (Math.floor(at / region.width) + 0.5) / region.scale };
}
