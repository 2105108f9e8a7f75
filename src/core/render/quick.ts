import type { Palette } from '../colour/palette';
import { determinant, invert, multiply } from '../geometry/matrix';
import { transformPath, type PathData } from '../geometry/path';
import { grow, intersect, isEmpty, overlaps, transformRect, type Rect } from '../geometry/rect';
import { dashPath, type Dash } from '../geometry/dash';
import { strokeOutline } from '../geometry/stroke';
import type { Effect, GradientPaint, PicturePaint } from '../model/schema';
import { drawOn, drawPlaced } from './canvasPath';
import { PlacedPath } from '../scene/placedPath';
import { asLight } from './asLight';
import type { Bitmap } from './bitmap';
import type { Bitmaps } from './bitmaps';
import { coloursKey, flatLook, lightToCover } from './quickLooks';
import { IN_BROWSER, type Canvas2D, type QuickPicture, type QuickTools } from './quickTools';
import { rampSteps } from './rampSteps';
import { regionWith } from './region';
import { effectRow } from '../scene/effects/table';
import { overprints } from '../scene/overprints';
import { bodyOf, isOwn, isPlain, type Group, type Leaf, type Part } from '../scene/scene';

/** Maps page points to device pixels: px = pt·scale + offset. */
export interface View {
  readonly scale: number;
  readonly x: number;
  readonly y: number;
}

/** Pixels of the picture that stands for a paint which a canvas does not know. */
const QUICK_PIXELS = 60_000;
/** Pixels of the largest canvas on which what throws an effect is drawn. */
const THROWER_PIXELS = 8_000_000;
/** Pools are smooth: fewer will do. */
const POOL_PIXELS = 10_000;

/** A flat area that covers what is below. */
interface Plain {
  readonly placed: PlacedPath;
  readonly style: string;
  readonly rule: CanvasFillRule;
  path: Path2D | null;
  drawn: boolean;
}
const NOT_PLAIN: Plain = { placed: PlacedPath.onPage([]), style: '', rule: 'nonzero', path: null, drawn: false };
const ruleOf = (leaf: Leaf): CanvasFillRule =>
  leaf.type === 'fill' && leaf.rule === 'evenOdd' ? 'evenodd' : 'nonzero';

/**
 * Draws parts straight onto a canvas, for as long as something moves. Overprint is the blend mode multiply; colours are
 * the press's looks. Paths are made once a form.
 */
export class QuickPainter {
  private readonly paths = new WeakMap<PathData | PlacedPath, Path2D>();
  private readonly unitPaths = new WeakMap<Leaf, Path2D>();
  private styles = new WeakMap<object, string>();
  private ramps = new WeakMap<object, { offset: number; css: string }[]>();
  private readonly images = new WeakMap<Leaf, { readonly key: string; readonly image: CanvasImageSource }>();
  private readonly maps = new WeakMap<Leaf, Uint16Array>();
  private readonly outlines = new WeakMap<Leaf, PathData>();
  private palette: Palette | null = null;

  private readonly tools: QuickTools;

  constructor(tools: Partial<QuickTools> = {}) {
    this.tools = { ...IN_BROWSER, ...tools };
  }

  /** Paints what touches `dirty` (page points), in order. The caller clips and clears. */
  paint(ctx: Canvas2D, content: readonly Part[], palette: Palette, view: View, dirty: Rect): void {
    if (this.palette !== palette) {
      this.palette = palette;
      this.styles = new WeakMap();
      this.ramps = new WeakMap();
      this.plain.length = 0;
    }
    ctx.setTransform(view.scale, 0, 0, view.scale, view.x, view.y);
    this.plain.length = this.plainParts.length = Math.min(this.plain.length, content.length);
    // What the canvas fills with just now; empty where it is not known.
    let filling = '';
    const boxes = this.boxesOf(content);
    const { x0, y0, x1, y1 } = dirty;
    for (let i = 0; i < content.length; i++) {
      if (boxes) {
        const k = 4 * i;
        if (!(boxes[k] <= x1 && boxes[k + 2] >= x0 && boxes[k + 1] <= y1 && boxes[k + 3] >= y0)) continue;
      } else if (!overlaps(content[i].paintBounds, dirty)) continue;
      const part = content[i];
      const known = this.plainAt(i, part, palette);
      if (known !== NOT_PLAIN) {
        if (known.style !== filling) ctx.fillStyle = filling = known.style;
        this.fillPlain(ctx, known);
        continue;
      }
      filling = '';
      if (part.type === 'group') this.composite(ctx, part, palette, view, dirty);
      else this.drawLeaf(ctx, part, palette, view);
    }
    this.mode(ctx, 'source-over');
  }

  /**
   * What is known of the parts, place by place: most are flat areas, and there are thousands. In a list that differs in
   * some from the last one, as each frame of a drag does, the others are still known.
   */
  private readonly plain: (Plain | undefined)[] = [];
  private readonly plainParts: (Part | undefined)[] = [];
  private plainAt(i: number, part: Part, palette: Palette): Plain {
    let known = this.plain[i];
    if (!known || this.plainParts[i] !== part) {
      this.plainParts[i] = part;
      this.plain[i] = known = this.asPlain(part, palette) ?? NOT_PLAIN;
    }
    return known;
  }
  private asPlain(part: Part, palette: Palette): Plain | null {
    if (part.type !== 'fill') return null;
    const { paint } = part;
    if (paint.kind !== 'colour' || (paint.overprint && !palette.screen)) return null;
    return { placed: part.placed, style: this.style(paint, palette), rule: ruleOf(part), path: null, drawn: false };
  }

  private readonly boxes = new WeakMap<readonly Part[], Float64Array | null>();
  /**
   * Where the parts of a list lie, side by side: a pan looks through thousands for few. Null for a list that is met the
   * first time.
   */
  private boxesOf(content: readonly Part[]): Float64Array | null {
    let known = this.boxes.get(content);
    if (known === undefined) this.boxes.set(content, null);
    else if (known === null) {
      known = new Float64Array(4 * content.length);
      for (let i = 0; i < content.length; i++) {
        const { x0, y0, x1, y1 } = content[i].paintBounds;
        known.set([x0, y0, x1, y1], 4 * i);
      }
      this.boxes.set(content, known);
    }
    return known ?? null;
  }

  /** Paths are made for what is drawn again: what moves is drawn once and gone, and thousands of paths are dear. */
  private fillPlain(ctx: Canvas2D, plain: Plain): void {
    this.mode(ctx, 'source-over');
    if (plain.drawn) plain.path ??= this.path(plain.placed);
    plain.drawn = true;
    // A rule that is told is read anew each time: the usual one is not told.
    if (plain.path) {
      if (plain.rule === 'nonzero') ctx.fill(plain.path);
      else ctx.fill(plain.path, plain.rule);
    } else {
      ctx.beginPath();
      drawPlaced(ctx, plain.placed);
      ctx.fill(plain.rule);
    }
  }

  private blending: GlobalCompositeOperation = 'source-over';
  private mode(ctx: Canvas2D, mode: GlobalCompositeOperation): void {
    if (mode !== this.blending) ctx.globalCompositeOperation = mode;
    this.blending = mode;
  }

  private drawAll(ctx: Canvas2D, content: readonly Part[], palette: Palette, view: View, dirty: Rect): void {
    for (const part of content) {
      if (!overlaps(part.paintBounds, dirty)) continue;
      if (part.type === 'group') this.composite(ctx, part, palette, view, dirty);
      else this.drawLeaf(ctx, part, palette, view);
    }
  }

  private composite(ctx: Canvas2D, group: Group, palette: Palette, view: View, dirty: Rect): void {
    for (const e of group.effects) this.layEffect(ctx, group, e, palette, view, dirty);
    const box = intersect(group.bodyBounds, dirty);
    if (isEmpty(box)) return;
    const own = isOwn(group);
    if (isPlain(group)) return this.drawAll(ctx, group.content, palette, view, dirty);
    this.mode(ctx, 'source-over');
    ctx.save();
    for (const clip of group.clips) ctx.clip(this.path(clip.path), clip.rule === 'evenOdd' ? 'evenodd' : 'nonzero');
    if (!own) this.drawAll(ctx, group.content, palette, view, box);
    else {
      const art = this.apart(group.content, palette, view, box);
      for (const { root, light } of group.masks) {
        const shape = this.apart(light ? asLight(root.content, palette) : root.content, palette, view, box);
        if (light) lightToCover(shape.ctx, shape.width, shape.height);
        art.ctx.setTransform(1, 0, 0, 1, 0, 0);
        art.ctx.globalCompositeOperation = 'destination-in';
        art.ctx.drawImage(shape.image, 0, 0, art.width, art.height);
      }
      ctx.setTransform(1, 0, 0, 1, 0, 0);
      ctx.globalAlpha = group.opacity;
      ctx.globalCompositeOperation = group.blend ?? 'source-over';
      ctx.drawImage(art.image, art.x, art.y, art.width, art.height);
    }
    this.mode(ctx, 'source-over');
    ctx.restore();
    ctx.setTransform(view.scale, 0, 0, view.scale, view.x, view.y);
  }

  /** An effect of a group, laid below it. What throws it may lie outside of what is drawn anew. */
  private layEffect(ctx: Canvas2D, group: Group, effect: Effect, palette: Palette, view: View, dirty: Rect): void {
    const row = effectRow(effect);
    const source = intersect(row.source(effect, dirty), group.bodyBounds);
    if (isEmpty(source)) return;
    // Far enlarged, a wide blur reaches far beyond the screen: what throws it is then drawn smaller.
    const pixels = (source.x1 - source.x0) * (source.y1 - source.y0) * view.scale ** 2;
    const less = Math.max(1, Math.sqrt(pixels / THROWER_PIXELS));
    const small = this.apart(
      [bodyOf(group)],
      palette,
      { scale: view.scale / less, x: view.x / less, y: view.y / less },
      source,
    );
    const { image, x, y, width, height } = small;
    const art = { image, x: x * less, y: y * less, width: width * less, height: height * less };
    const [r, g, b] = palette.lookOfMix(palette.mix(effect.paint.colour));
    const colour = `rgba(${[r, g, b].map((v) => Math.round(v * 255)).join()},${effect.opacity * group.opacity})`;
    this.mode(ctx, effect.paint.overprint && !palette.screen ? 'multiply' : 'source-over');
    ctx.setTransform(1, 0, 0, 1, 0, 0);
    row.quick(effect, { ...art, ctx }, colour, view.scale);
    this.mode(ctx, 'source-over');
    ctx.setTransform(view.scale, 0, 0, view.scale, view.x, view.y);
  }

  /** Things drawn by themselves, on a canvas as large as the box on the screen. */
  private apart(
    content: readonly Part[],
    palette: Palette,
    view: View,
    box: Rect,
  ): { ctx: Canvas2D; image: CanvasImageSource; x: number; y: number; width: number; height: number } {
    const x = Math.floor(box.x0 * view.scale + view.x);
    const y = Math.floor(box.y0 * view.scale + view.y);
    const width = Math.max(1, Math.ceil(box.x1 * view.scale + view.x) - x);
    const height = Math.max(1, Math.ceil(box.y1 * view.scale + view.y) - y);
    const { ctx, image } = this.tools.newCanvas(width, height);
    const inner = { scale: view.scale, x: view.x - x, y: view.y - y };
    const outer = this.blending;
    this.blending = 'source-over';
    ctx.setTransform(inner.scale, 0, 0, inner.scale, inner.x, inner.y);
    this.drawAll(ctx, content, palette, inner, box);
    this.mode(ctx, 'source-over');
    this.blending = outer;
    return { ctx, image, x, y, width, height };
  }

  private drawLeaf(ctx: Canvas2D, item: Leaf, palette: Palette, view: View): void {
    const { paint } = item;
    const overprint =
      overprints(item, palette) && !(paint.kind === 'colour' && palette.hides(palette.mix(paint.colour)));
    this.mode(ctx, overprint ? 'multiply' : 'source-over');
    if (paint.kind === 'picture') this.picture(ctx, item, paint, palette, view);
    else if (paint.kind !== 'colour') {
      if (paint.kind === 'gradient' && paint.gradient !== 'box' && !(paint.strokeMapping && item.type !== 'fill'))
        this.gradient(ctx, item, paint, palette, view);
      else this.bitmap(ctx, item, palette, view);
    } else {
      const style = this.style(paint, palette);
      const stroke = item.type === 'fill' ? null : item.stroke;
      const dash = stroke?.dash;
      const path = dash?.fit ? this.pieces(item, dash) : this.path(item.placed);
      if (stroke) {
        ctx.strokeStyle = style;
        ctx.lineWidth = stroke.width;
        ctx.lineCap = stroke.cap;
        ctx.lineJoin = stroke.join;
        ctx.miterLimit = stroke.miterLimit;
        if (dash && !dash.fit) {
          ctx.setLineDash([...dash.lengths]);
          ctx.lineDashOffset = dash.offset;
        }
        ctx.stroke(path);
        if (dash) ctx.setLineDash([]);
      } else {
        ctx.fillStyle = style;
        ctx.fill(path, ruleOf(item));
      }
    }
  }

  /** A picture laid into the item's form; tiles as a pattern of it. */
  private picture(ctx: Canvas2D, item: Leaf, paint: PicturePaint, palette: Palette, view: View): void {
    const known = this.tools.picture(paint, palette);
    const toPage = multiply(item.matrix, paint.geometry);
    const back = invert(toPage);
    if (!known || !back) return;
    const solid = item.type !== 'fill' && item.stroke ? this.outline(item) : item.placed;
    ctx.save();
    ctx.clip(this.path(solid), ruleOf(item));
    // Enlarged, a pixel is a square: as it prints.
    ctx.imageSmoothingEnabled =
      view.scale * Math.sqrt(Math.abs(determinant(toPage))) < Math.sqrt(known.width * known.height) * 1.5;
    ctx.transform(...toPage);
    if (!paint.tile) ctx.drawImage(known.image, 0, 0, 1, 1);
    else {
      const tile = paint.tile === 'mirror' ? this.mirrored(known) : known;
      ctx.transform(1 / known.width, 0, 0, 1 / known.height, 0, 0);
      ctx.fillStyle = ctx.createPattern(tile.image, 'repeat') ?? 'transparent';
      const { x0, y0, x1, y1 } = transformRect(back, item.inkBounds);
      ctx.fillRect(x0 * known.width, y0 * known.height, (x1 - x0) * known.width, (y1 - y0) * known.height);
    }
    ctx.restore();
    ctx.setTransform(view.scale, 0, 0, view.scale, view.x, view.y);
  }

  private readonly mirrors = new WeakMap<object, QuickPicture>();
  /** A picture and its three mirror images, so that it can be laid side by side. */
  private mirrored(p: QuickPicture): QuickPicture {
    let made = this.mirrors.get(p.image as object);
    if (!made) {
      const { width: w, height: h } = p;
      const { ctx, image } = this.tools.newCanvas(2 * w, 2 * h);
      for (const [sx, sy] of [
        [1, 1],
        [-1, 1],
        [1, -1],
        [-1, -1],
      ] as const) {
        ctx.setTransform(sx, 0, 0, sy, sx < 0 ? 2 * w : 0, sy < 0 ? 2 * h : 0);
        ctx.drawImage(p.image, 0, 0, w, h);
      }
      made = { image, width: 2 * w, height: 2 * h };
      this.mirrors.set(p.image as object, made);
    }
    return made;
  }

  /** A gradient is filled in its own unit space, where every geometry is simple. */
  private gradient(ctx: Canvas2D, item: Leaf, paint: GradientPaint, palette: Palette, view: View): void {
    const toPage = multiply(item.matrix, paint.geometry);
    let path = this.unitPaths.get(item);
    if (!path) {
      const back = invert(toPage);
      if (!back) return;
      const solid =
        item.type !== 'fill' && item.stroke ? strokeOutline(item.placed.path, item.stroke, 0.05) : item.placed.path;
      path = this.make(transformPath(solid, back));
      this.unitPaths.set(item, path);
    }
    const [fx, fy] = paint.focus ?? [0, 0];
    const fill =
      paint.gradient === 'radial' ? ctx.createRadialGradient(fx, fy, 0, 0, 0, 1) : ctx.createLinearGradient(0, 0, 1, 0);
    for (const { offset, css } of this.ramp(paint, palette)) fill.addColorStop(offset, css);
    ctx.transform(...toPage);
    ctx.fillStyle = fill;
    ctx.fill(path, ruleOf(item));
    ctx.setTransform(view.scale, 0, 0, view.scale, view.x, view.y);
  }

  /** Kinds that a canvas has no gradient for: a small picture of the paint, cut out by the item's form. */
  private bitmap(ctx: Canvas2D, item: Leaf, palette: Palette, view: View): void {
    const solid = item.type !== 'fill' && item.stroke ? this.outline(item) : item.placed;
    const box = grow(item.inkBounds, 0.5);
    const key = coloursKey(item.paint, palette);
    const bitmaps = this.tools.bitmaps();
    if (!bitmaps) {
      ctx.fillStyle = flatLook(item.paint, palette);
      ctx.fill(this.path(solid), ruleOf(item));
      return;
    }
    let known = this.images.get(item);
    if (known?.key !== key) {
      known = { key, image: this.tools.newImage(this.pictureOf(bitmaps, item, palette, box)) };
      this.images.set(item, known);
    }
    ctx.save();
    ctx.clip(this.path(solid), ruleOf(item));
    ctx.imageSmoothingEnabled = true;
    ctx.drawImage(known.image, box.x0, box.y0, box.x1 - box.x0, box.y1 - box.y0);
    ctx.restore();
    ctx.setTransform(view.scale, 0, 0, view.scale, view.x, view.y);
  }

  /** Where each pixel lies on the ramp is worked out once an item; other colours are then looked up. */
  private pictureOf({ paintBitmap, fieldMap, mapBitmap }: Bitmaps, item: Leaf, palette: Palette, box: Rect): Bitmap {
    const { paint } = item;
    if (paint.kind !== 'gradient') return paintBitmap(item, palette, box, POOL_PIXELS);
    const region = regionWith(box, QUICK_PIXELS);
    let map = this.maps.get(item);
    if (!map)
      this.maps.set(item, (map = fieldMap(item, paint, region) ?? new Uint16Array(region.width * region.height)));
    return mapBitmap(map, region.width, region.height, palette.rampOf(paint), palette);
  }

  private outline(item: Exclude<Leaf, { type: 'fill' }>): PathData {
    let path = this.outlines.get(item);
    if (!path) {
      path = strokeOutline(item.placed.path, item.stroke!, 0.05);
      this.outlines.set(item, path);
    }
    return path;
  }

  private ramp(paint: GradientPaint, palette: Palette): { offset: number; css: string }[] {
    const known = this.ramps.get(paint);
    if (known) return known;
    const out = rampSteps(palette.rampOf(paint), palette);
    this.ramps.set(paint, out);
    return out;
  }

  private style(paint: Extract<Leaf['paint'], { kind: 'colour' }>, palette: Palette): string {
    let css = this.styles.get(paint);
    if (css === undefined) {
      css = palette.css(paint.colour);
      this.styles.set(paint, css);
    }
    return css;
  }

  private path(of: PathData | PlacedPath): Path2D {
    let path = this.paths.get(of);
    if (!path) {
      path = this.make(of);
      this.paths.set(of, path);
    }
    return path;
  }

  /** A line in dashes that a canvas cannot lay out by itself. */
  private pieces(item: Leaf, dash: Dash): Path2D {
    let path = this.unitPaths.get(item);
    if (!path) this.unitPaths.set(item, (path = this.make(dashPath(item.placed.path, dash))));
    return path;
  }

  private make(of: PathData | PlacedPath): Path2D {
    const path = this.tools.newPath();
    if (of instanceof PlacedPath) drawPlaced(path, of);
    else drawOn(path, of);
    return path;
  }
}
