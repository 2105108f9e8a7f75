import { mixAt, type Mix, type Palette } from '../colour/palette';
import { invert, multiply, type Matrix } from '../geometry/matrix';
import { overlaps, type Rect } from '../geometry/rect';
import { strokeOutline } from '../geometry/stroke';
import type { GradientPaint } from '../model/schema';
import type { Item, Scene } from '../scene/scene';
import { Coverage, type Region, type RowSink } from './coverage';

/** One raster a channel, 0…255 = none…full. For inks 0 is bare paper; a screen's channels start at full light. */
export interface Plates {
  readonly region: Region;
  readonly channels: readonly string[];
  readonly data: readonly Uint8Array[];
}

/** Steps of a gradient's table; far finer than the 256 levels of a plate. */
const RAMP_STEPS = 2048;

/** Which channels a paint writes, and which value each gets. Null: leaves that plate as it is. */
type Writes = readonly ({ readonly table: Uint8Array; readonly constant: number | null } | null)[];

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

export function regionRect(r: Region): Rect {
  return { x0: r.x, y0: r.y, x1: r.x + r.width / r.scale, y1: r.y + r.height / r.scale };
}

/** The pixels of a rectangle in page points at a resolution: whole pixels, the first at its top left. */
export function regionOf(r: Rect, dpi: number): Region {
  const scale = dpi / 72;
  return { x: r.x0, y: r.y0, scale, width: Math.max(1, Math.round((r.x1 - r.x0) * scale)), height: Math.max(1, Math.round((r.y1 - r.y0) * scale)) };
}

class PlatePainter {
  readonly data: Uint8Array[];
  private readonly coverage: Coverage;

  constructor(
    private readonly palette: Palette,
    private readonly region: Region,
  ) {
    const pixels = region.width * region.height;
    this.data = palette.channels.map(() => (palette.screen ? new Uint8Array(pixels).fill(255) : new Uint8Array(pixels)));
    this.coverage = new Coverage(region.width, region.height);
  }

  paint(item: Item): void {
    const stroke = item.type === 'fill' ? null : item.stroke;
    if (stroke) this.coverage.add(strokeOutline(item.path, stroke, 0.08 / this.region.scale), this.region);
    else this.coverage.add(item.path, this.region);
    const rule = item.type === 'fill' ? item.rule : 'nonZero';
    if (item.paint.kind === 'colour') {
      const writes = flatWrites(this.palette.mix(item.paint.colour), item.paint.overprint, this.palette.screen);
      this.coverage.sweep(rule, this.flat(writes));
    } else {
      const sink = this.gradient(item.paint, item.matrix);
      if (sink) this.coverage.sweep(rule, sink);
      else this.coverage.sweep(rule, () => {});
    }
  }

  private flat(writes: readonly (number | null)[]): RowSink {
    const { data } = this;
    const stride = this.region.width;
    return (y, from, to, cover) => {
      for (let i = 0; i < data.length; i++) {
        const v = writes[i];
        if (v !== null) flatRow(data[i], y * stride, from, to, cover, v);
      }
    };
  }

  private gradient(paint: GradientPaint, matrix: Matrix): RowSink | null {
    const toUnit = invert(multiply(matrix, paint.geometry));
    if (!toUnit) return null;
    const writes = rampWrites(paint, this.palette);
    const { data } = this;
    const { x: ox, y: oy, scale, width: stride } = this.region;
    const radial = paint.gradient === 'radial';
    const index = new Uint16Array(stride);
    const [ma, mb, mc, md, me, mf] = toUnit;
    const step = ma / scale;
    // Across such a line the colour is the same all along a row.
    const level = !radial && Math.abs(step) * stride < 0.5 / RAMP_STEPS;
    return (y, from, to, cover) => {
      const py = oy + (y + 0.5) / scale;
      const x0 = ox + (from + 0.5) / scale;
      const u0 = ma * x0 + mc * py + me;
      if (!level) {
        if (radial) {
          const v0 = mb * x0 + md * py + mf;
          const vStep = mb / scale;
          for (let x = from; x < to; x++) {
            const u = u0 + (x - from) * step;
            const v = v0 + (x - from) * vStep;
            index[x] = rampIndex(Math.sqrt(u * u + v * v));
          }
        } else for (let x = from; x < to; x++) index[x] = rampIndex(u0 + (x - from) * step);
      }
      const rowIndex = rampIndex(u0);
      const base = y * stride;
      for (let i = 0; i < data.length; i++) {
        const ramp = writes[i];
        if (!ramp) continue;
        const plate = data[i];
        const same = level ? ramp.table[rowIndex] : ramp.constant;
        if (same !== null) {
          flatRow(plate, base, from, to, cover, same);
          continue;
        }
        const { table } = ramp;
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
}

const rampIndex = (t: number): number => (t <= 0 ? 0 : t >= 1 ? RAMP_STEPS : (t * RAMP_STEPS + 0.5) | 0);

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

function rampWrites(paint: GradientPaint, palette: Palette): Writes {
  const ramp = palette.ramp(paint.ramp);
  const tables = palette.channels.map((_, i) => (paint.overprint && !palette.screen && !ramp.used[i] ? null : new Uint8Array(RAMP_STEPS + 1)));
  for (let n = 0; n <= RAMP_STEPS; n++) {
    const mix = mixAt(ramp, n / RAMP_STEPS);
    tables.forEach((t, i) => {
      if (t) t[n] = level(mix[i]);
    });
  }
  return tables.map((table) => table && { table, constant: table.every((v) => v === table[0]) ? table[0] : null });
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
