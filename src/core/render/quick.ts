import type { Palette } from '../colour/palette';
import { mixAt } from '../colour/palette';
import { hexOf } from '../colour/spaces';
import { invert, multiply } from '../geometry/matrix';
import { draw, transformPath, type PathData } from '../geometry/path';
import { overlaps, type Rect } from '../geometry/rect';
import { strokeOutline } from '../geometry/stroke';
import type { GradientPaint } from '../model/schema';
import type { Item } from '../scene/scene';

/** What a 2D canvas must be able to do; the page, its workers and the test canvas all can. */
export type Canvas2D = Pick<
  CanvasRenderingContext2D,
  'save' | 'restore' | 'setTransform' | 'transform' | 'fill' | 'stroke' | 'clip' | 'beginPath' | 'rect' | 'fillRect' | 'createLinearGradient' | 'createRadialGradient'
> & {
  fillStyle: unknown;
  strokeStyle: unknown;
  lineWidth: number;
  lineCap: CanvasLineCap;
  lineJoin: CanvasLineJoin;
  miterLimit: number;
  globalCompositeOperation: GlobalCompositeOperation;
};

/** Maps page points to device pixels: px = pt·scale + offset. */
export interface View {
  readonly scale: number;
  readonly x: number;
  readonly y: number;
}

/** Stops a gradient is drawn with, so that mixing in ink is followed closely. */
const STEPS = 16;

/**
 * Draws items straight onto a canvas, for as long as something moves. Overprint is the blend mode multiply; colours are
 * the press's looks. Paths are made once an item.
 */
export class QuickPainter {
  private readonly paths = new WeakMap<PathData, Path2D>();
  private readonly unitPaths = new WeakMap<Item, Path2D>();
  private styles = new WeakMap<object, string>();
  private ramps = new WeakMap<object, { offset: number; css: string }[]>();
  private palette: Palette | null = null;

  constructor(private readonly newPath: () => Path2D = () => new Path2D()) {}

  /** Paints the items that touch `dirty` (page points), in order. The caller clips and clears. */
  paint(ctx: Canvas2D, items: Iterable<Item>, palette: Palette, view: View, dirty: Rect): void {
    if (this.palette !== palette) {
      this.palette = palette;
      this.styles = new WeakMap();
      this.ramps = new WeakMap();
    }
    const multiplyBlend = !palette.screen;
    let blending = false;
    ctx.setTransform(view.scale, 0, 0, view.scale, view.x, view.y);
    for (const item of items) {
      if (!overlaps(item.bounds, dirty)) continue;
      const overprint = multiplyBlend && item.paint.overprint && !(item.paint.kind === 'colour' && palette.hides(palette.mix(item.paint.colour)));
      if (overprint !== blending) {
        ctx.globalCompositeOperation = overprint ? 'multiply' : 'source-over';
        blending = overprint;
      }
      if (item.paint.kind === 'gradient') this.gradient(ctx, item, item.paint, palette, view);
      else {
        const style = this.style(item.paint, palette);
        if (item.type === 'fill') {
          ctx.fillStyle = style;
          ctx.fill(this.path(item.path), item.rule === 'evenOdd' ? 'evenodd' : 'nonzero');
        } else if (item.stroke) {
          ctx.strokeStyle = style;
          ctx.lineWidth = item.stroke.width;
          ctx.lineCap = item.stroke.cap;
          ctx.lineJoin = item.stroke.join;
          ctx.miterLimit = item.stroke.miterLimit;
          ctx.stroke(this.path(item.path));
        } else {
          ctx.fillStyle = style;
          ctx.fill(this.path(item.path));
        }
      }
    }
    if (blending) ctx.globalCompositeOperation = 'source-over';
  }

  /** A gradient is filled in its own unit space, where every geometry is simple. */
  private gradient(ctx: Canvas2D, item: Item, paint: GradientPaint, palette: Palette, view: View): void {
    const toPage = multiply(item.matrix, paint.geometry);
    let path = this.unitPaths.get(item);
    if (!path) {
      const back = invert(toPage);
      if (!back) return;
      const solid = item.type !== 'fill' && item.stroke ? strokeOutline(item.path, item.stroke, 0.05) : item.path;
      path = this.make(transformPath(solid, back));
      this.unitPaths.set(item, path);
    }
    const fill = paint.gradient === 'radial' ? ctx.createRadialGradient(0, 0, 0, 0, 0, 1) : ctx.createLinearGradient(0, 0, 1, 0);
    for (const { offset, css } of this.ramp(paint, palette)) fill.addColorStop(offset, css);
    ctx.transform(...toPage);
    ctx.fillStyle = fill;
    ctx.fill(path, item.type === 'fill' && item.rule === 'evenOdd' ? 'evenodd' : 'nonzero');
    ctx.setTransform(view.scale, 0, 0, view.scale, view.x, view.y);
  }

  private ramp(paint: GradientPaint, palette: Palette): { offset: number; css: string }[] {
    const known = this.ramps.get(paint);
    if (known) return known;
    const { stops } = palette.ramp(paint.ramp);
    const out: { offset: number; css: string }[] = [];
    stops.forEach((b, i) => {
      const a = stops[i - 1];
      if (a && b.offset > a.offset)
        for (let k = 1; k < STEPS; k++) {
          const t = a.offset + ((b.offset - a.offset) * k) / STEPS;
          out.push({ offset: t, css: hexOf(palette.lookOfMix(mixAt({ stops: [a, b], used: [] }, t))) });
        }
      out.push({ offset: b.offset, css: hexOf(palette.lookOfMix(b.mix)) });
    });
    this.ramps.set(paint, out);
    return out;
  }

  private style(paint: Extract<Item['paint'], { kind: 'colour' }>, palette: Palette): string {
    let css = this.styles.get(paint);
    if (css === undefined) {
      css = palette.css(paint.colour);
      this.styles.set(paint, css);
    }
    return css;
  }

  private path(data: PathData): Path2D {
    let path = this.paths.get(data);
    if (!path) {
      path = this.make(data);
      this.paths.set(data, path);
    }
    return path;
  }

  private make(data: PathData): Path2D {
    const path = this.newPath();
    draw(data, {
      moveTo: (x, y) => path.moveTo(x, y),
      lineTo: (x, y) => path.lineTo(x, y),
      curveTo: (a, b, c, d, x, y) => path.bezierCurveTo(a, b, c, d, x, y),
      close: () => path.closePath(),
    });
    return path;
  }
}
