import type { Palette } from '@/core/colour/palette';
import { hexOf } from '@/core/colour/spaces';
import type { Point } from '@/core/geometry/matrix';
import { contains, grow, isEmpty, union, type Rect } from '@/core/geometry/rect';
import type { Region } from '@/core/render/coverage';
import { regionRect } from '@/core/render/region';
import type { QuickPainter, View } from '@/core/render/quick';
import { newPainter } from '../session/painter';
import { bleedRect, type Part, type Scene } from '@/core/scene/scene';
import { changedArea, movedBy } from '@/core/scene/walk';
import type { Session } from '../session/session';
import { onPress, pressOrder, type BenchState, type Camera } from '../session/state';
import { facingSeen, sheetSeen } from '../view/facing';
import { afterPaint } from '../session/afterPaint';
import type { Beside, FacingArt } from './facingArt';

/** What few designs need: pages that face each other. */
export const facingArt = afterPaint(() => import('./facingArt'));

/** After the last change, how long until the plates' truth takes over from the quick drawing. */
const REST_MS = 90;

/** Fewer parts are drawn anew as quickly as they are compared. */
const MANY_PARTS = 300;

/** When plates that lack a picture are asked for again. */
const AGAIN_MS = [1000, 2000, 5000, 15_000, 30_000];

interface Truth {
  readonly scene: Scene;
  readonly palette: Palette;
  /** What is on the press, as `onPress` says it. */
  readonly shown: string;
  readonly region: Region;
  readonly bitmap: HTMLCanvasElement;
}

/**
 * Draws the sheet and its art. While something moves: quick, and only where it changed. At rest: the plates, made by
 * the press worker, laid over it. Panning and zooming show the last picture moved and scaled, then sharpen.
 */
export class ArtPainter {
  private readonly ctx: CanvasRenderingContext2D;
  private readonly quick: QuickPainter;
  /** The page beside this one, where pages face each other. */
  private facing: FacingArt | null = null;
  private beside: Beside | null = null;
  private frame = 0;
  private rest: ReturnType<typeof setTimeout> | null = null;
  private drawn: {
    scene: Scene;
    beside: Beside | null;
    palette: Palette;
    camera: Camera;
    view: string;
    shown: string;
    width: number;
    height: number;
  } | null = null;
  private truth: Truth | null = null;
  private asked = 0;
  private stopListening: () => void;
  private disposed = false;
  /** Time spent in the last frame's script, for the bench. */
  lastFrameMs = 0;
  onRest: (() => void) | null = null;

  constructor(
    private readonly canvas: HTMLCanvasElement,
    private readonly session: Session,
  ) {
    this.quick = newPainter(session);
    // Few designs have pages that face each other.
    void facingArt.get().then(
      (m) => {
        this.facing = new m.FacingArt(session, this.quick);
        this.schedule();
      },
      () => {},
    );
    // No alpha: the bench top fills it, and letters on it stay crisp.
    this.ctx = canvas.getContext('2d', { alpha: false })!;
    this.stopListening = session.store.subscribe((s, before) => {
      if (this.concerns(s, before)) this.schedule();
      // Pictures have come: what was drawn without them is drawn anew.
      if (s.picturesEpoch !== before.picturesEpoch) {
        this.drawn = null;
        this.schedule();
      }
    });
    this.schedule();
  }

  private concerns(s: BenchState, b: BenchState): boolean {
    return (
      s.design !== b.design ||
      s.preview !== b.preview ||
      s.page !== b.page ||
      s.camera !== b.camera ||
      s.view !== b.view ||
      s.shownInks !== b.shownInks ||
      s.plateLook !== b.plateLook ||
      s.pair !== b.pair ||
      s.against !== b.against ||
      s.fontsEpoch !== b.fontsEpoch
    );
  }

  resized(): void {
    this.ratio = this.canvas.width / Math.max(1, this.canvas.clientWidth);
    this.drawn = null;
    this.schedule();
  }

  schedule(): void {
    if (!this.frame && !this.disposed) this.frame = requestAnimationFrame(() => this.paint());
  }

  private paint(): void {
    this.frame = 0;
    const started = performance.now();
    const { session, canvas } = this;
    const { camera, view } = session.state;
    const shown = onPress(session.state);
    const scene = session.scene();
    const palette = session.palette;
    const { width, height } = canvas;
    const before = this.drawn;
    const sameLook =
      before &&
      before.palette === palette &&
      before.view === view &&
      before.shown === shown &&
      before.width === width &&
      before.height === height;
    const sameCamera = before && before.camera === camera;
    const moving = session.state.preview !== null;

    const alike =
      sameLook &&
      sameCamera &&
      view !== 'plates' &&
      before.scene.width === scene.width &&
      before.scene.height === scene.height;
    const by = alike && before.scene !== scene ? this.shiftSince(before.scene, scene, palette) : null;
    const changed = alike && !by ? changedArea(before.scene.root.content, scene.root.content) : null;
    const beside = (this.beside = this.facing?.now(before?.beside ?? null, changed) ?? null);
    const besideWas = before?.beside ?? null;
    const sameBeside = beside?.scene === besideWas?.scene && beside?.facing.x === besideWas?.facing.x;
    if (by) this.repaintMoved(scene, palette, by);
    else if (changed && (sameBeside || (beside && besideWas && beside.facing.x === besideWas.facing.x))) {
      const dirty = sameBeside
        ? changed
        : union(
            changed,
            this.facing!.changed(beside!, changedArea(besideWas!.scene.root.content, beside!.scene.root.content)),
          );
      if (!isEmpty(dirty)) this.repaint(scene, palette, dirty);
    } else if (!sameLook || !sameCamera || before.scene !== scene || !sameBeside) this.repaintAll(scene, palette);
    this.drawn = { scene, beside, palette, camera, view, shown, width, height };
    this.lastFrameMs = performance.now() - started;
    if (this.rest) clearTimeout(this.rest);
    const settled =
      this.truth &&
      this.truthFits(this.truth, scene, palette) &&
      (!beside || this.facing!.settled(beside, palette, this.deviceView(), canvas));
    if (!moving && !settled) this.rest = setTimeout(() => void this.askForTruth(), REST_MS);
  }

  /** How far all of the art has moved since the truth was drawn, as it is in a later scene. */
  private moved: { readonly scene: Scene; readonly x: number; readonly y: number } | null = null;

  /** The same for the scene that is shown now; null where more than that has changed, or little is to be drawn. */
  private shiftSince(before: Scene, scene: Scene, palette: Palette): Point | null {
    const { truth } = this;
    const { camera } = this.session.state;
    const from = truth?.scene === before ? { x: 0, y: 0 } : this.moved?.scene === before ? this.moved : null;
    this.moved = null;
    if (!truth || !from || scene.root.content.length < MANY_PARTS) return null;
    if (
      truth.palette !== palette ||
      truth.shown !== onPress(this.session.state) ||
      truth.region.scale !== camera.scale * this.ratio
    )
      return null;
    const by = movedBy(before.root.content, scene.root.content);
    if (!by) return null;
    this.moved = { scene, x: from.x + by.x, y: from.y + by.y };
    return this.moved;
  }

  /** Thousands of things that moved together: the truth is moved with them, and only what came into sight is drawn. */
  private repaintMoved(scene: Scene, palette: Palette, by: Point): void {
    const { ctx } = this;
    const v = this.deviceView();
    const { region, bitmap } = this.truth!;
    const sheet = regionRect(region);
    const window = this.window(v);
    this.ground(scene, palette, window);
    if (this.session.state.view === 'work') this.paintOutside(scene, palette, v, window);
    ctx.save();
    ctx.setTransform(1, 0, 0, 1, 0, 0);
    this.clipToSheet(scene, v);
    ctx.drawImage(bitmap, (region.x + by.x) * v.scale + v.x, (region.y + by.y) * v.scale + v.y);
    ctx.restore();
    const { x0, y0, x1, y1 } = sheet;
    if (by.x) this.repaint(scene, palette, by.x > 0 ? { x0, y0, x1: x0 + by.x, y1 } : { x0: x1 + by.x, y0, x1, y1 });
    if (by.y) this.repaint(scene, palette, by.y > 0 ? { x0, y0, x1, y1: y0 + by.y } : { x0, y0: y1 + by.y, x1, y1 });
  }

  /** What of the page's plane the canvas shows. */
  private window(v: View): Rect {
    const { width, height } = this.canvas;
    return { x0: -v.x / v.scale, y0: -v.y / v.scale, x1: (width - v.x) / v.scale, y1: (height - v.y) / v.scale };
  }

  /** Device pixels a CSS pixel; measured when the canvas changes size, since asking makes the page lay itself out. */
  private ratio = 1;

  /** Page points to device pixels. */
  private deviceView(): View {
    const { scale, x, y } = this.session.state.camera;
    const k = this.ratio;
    return { scale: scale * k, x: x * k, y: y * k };
  }

  /** The whole window: the last truth if there is one that can be moved or scaled into place, else quick drawing. */
  private repaintAll(scene: Scene, palette: Palette): void {
    const { ctx } = this;
    const v = this.deviceView();
    const window = this.window(v);
    const { truth } = this;
    const usable =
      truth && truth.scene === scene && truth.palette === palette && truth.shown === onPress(this.session.state);
    const plates = this.session.state.view === 'plates';
    if (!usable && !plates) {
      this.repaint(scene, palette, window);
      return;
    }
    this.ground(scene, palette, window);
    if (!plates && this.session.state.view === 'work') this.paintOutside(scene, palette, v, window);
    const last = this.truth;
    if (last && last.scene.width === scene.width && last.scene.height === scene.height) {
      ctx.save();
      ctx.setTransform(1, 0, 0, 1, 0, 0);
      this.clipToSheet(scene, v);
      const k = v.scale / last.region.scale;
      ctx.imageSmoothingEnabled = k < 4;
      ctx.drawImage(
        last.bitmap,
        last.region.x * v.scale + v.x,
        last.region.y * v.scale + v.y,
        last.region.width * k,
        last.region.height * k,
      );
      ctx.restore();
    }
  }

  /** What hangs over the sheet's edge lies on the bench top: no plate holds it, so it is always drawn quickly. */
  private paintOutside(scene: Scene, palette: Palette, v: View, window: Rect): void {
    const sheet = sheetSeen(this.session);
    let over = this.hanging.get(scene);
    if (!over) {
      over = scene.root.content.filter((p) => !contains(bleedRect(scene), p.paintBounds));
      this.hanging.set(scene, over);
    }
    if (!over.length) return;
    const { ctx, canvas } = this;
    ctx.save();
    ctx.setTransform(1, 0, 0, 1, 0, 0);
    ctx.beginPath();
    ctx.rect(0, 0, canvas.width, canvas.height);
    ctx.rect(
      sheet.x0 * v.scale + v.x,
      sheet.y0 * v.scale + v.y,
      (sheet.x1 - sheet.x0) * v.scale,
      (sheet.y1 - sheet.y0) * v.scale,
    );
    if (this.beside) {
      const other = facingSeen(this.session, this.beside.facing);
      ctx.rect(
        other.x0 * v.scale + v.x,
        other.y0 * v.scale + v.y,
        (other.x1 - other.x0) * v.scale,
        (other.y1 - other.y0) * v.scale,
      );
    }
    ctx.clip('evenodd');
    this.quick.paint(ctx, over, palette, v, window);
    ctx.restore();
  }

  /** Found once a scene: a pan must not look through ten thousand items at every frame. */
  private readonly hanging = new WeakMap<Scene, readonly Part[]>();

  private clipToSheet(scene: Scene, v: View): void {
    const { ctx } = this;
    const r = sheetSeen(this.session);
    ctx.beginPath();
    const [x, y, w, h] = [r.x0 * v.scale + v.x, r.y0 * v.scale + v.y, (r.x1 - r.x0) * v.scale, (r.y1 - r.y0) * v.scale];
    if (scene.round) ctx.ellipse(x + w / 2, y + h / 2, w / 2, h / 2, 0, 0, 2 * Math.PI);
    else ctx.rect(x, y, w, h);
    ctx.clip();
  }

  /** Bench top and bare stock, within a part of the page. */
  private ground(scene: Scene, palette: Palette, part: Rect): void {
    const { ctx } = this;
    const v = this.deviceView();
    ctx.setTransform(1, 0, 0, 1, 0, 0);
    ctx.fillStyle = getComputedStyle(this.canvas).getPropertyValue('--bench') || '#c4c4c4';
    const x0 = Math.floor(part.x0 * v.scale + v.x);
    const y0 = Math.floor(part.y0 * v.scale + v.y);
    ctx.fillRect(x0, y0, Math.ceil(part.x1 * v.scale + v.x) - x0, Math.ceil(part.y1 * v.scale + v.y) - y0);
    ctx.save();
    this.clipToSheet(scene, v);
    ctx.fillStyle = palette.screen ? '#ffffff' : hexOf(palette.lookOfMix(palette.channels.map(() => 0)));
    ctx.fillRect(x0, y0, Math.ceil(part.x1 * v.scale + v.x) - x0, Math.ceil(part.y1 * v.scale + v.y) - y0);
    ctx.restore();
    if (this.beside) this.facing!.paint(ctx, this.beside, palette, v, part);
  }

  /** Draws a part of the page quickly: everything that touches it, in order. */
  private repaint(scene: Scene, palette: Palette, part: Rect): void {
    const { ctx } = this;
    const v = this.deviceView();
    // One pixel more on each side, on whole pixels, so that no smoothed edge is left behind.
    const g = 1.5 / v.scale;
    const dirty = grow(part, g);
    const x0 = Math.floor(dirty.x0 * v.scale + v.x);
    const y0 = Math.floor(dirty.y0 * v.scale + v.y);
    const x1 = Math.ceil(dirty.x1 * v.scale + v.x);
    const y1 = Math.ceil(dirty.y1 * v.scale + v.y);
    ctx.save();
    ctx.setTransform(1, 0, 0, 1, 0, 0);
    ctx.beginPath();
    ctx.rect(x0, y0, x1 - x0, y1 - y0);
    ctx.clip();
    this.ground(scene, palette, dirty);
    ctx.save();
    if (this.session.state.view === 'clean') {
      ctx.setTransform(1, 0, 0, 1, 0, 0);
      this.clipToSheet(scene, v);
    }
    this.quick.paint(ctx, scene.root.content, palette, v, dirty);
    ctx.restore();
    // What hangs over the fold lies below all that is the other page's own; its bleed there is not seen.
    if (this.beside) this.facing!.paint(ctx, this.beside, palette, v, dirty);
    ctx.restore();
  }

  private truthFits(t: Truth, scene: Scene, palette: Palette): boolean {
    const v = this.deviceView();
    const want = this.wantedRegion(scene, v);
    const r = t.region;
    return (
      t.scene === scene &&
      t.palette === palette &&
      t.shown === onPress(this.session.state) &&
      want !== null &&
      r.scale === want.scale &&
      r.width === want.width &&
      r.height === want.height &&
      r.x === want.x &&
      r.y === want.y
    );
  }

  /** The visible part of the sheet, on whole device pixels. */
  private wantedRegion(scene: Scene, v: View): Region | null {
    const sheet = sheetSeen(this.session);
    const x0 = Math.max(0, Math.floor(sheet.x0 * v.scale + v.x));
    const y0 = Math.max(0, Math.floor(sheet.y0 * v.scale + v.y));
    const x1 = Math.min(this.canvas.width, Math.ceil(sheet.x1 * v.scale + v.x));
    const y1 = Math.min(this.canvas.height, Math.ceil(sheet.y1 * v.scale + v.y));
    if (x1 <= x0 || y1 <= y0) return null;
    return { x: (x0 - v.x) / v.scale, y: (y0 - v.y) / v.scale, scale: v.scale, width: x1 - x0, height: y1 - y0 };
  }

  private async askForTruth(): Promise<void> {
    const { session } = this;
    const ask = ++this.asked;
    const scene = session.scene();
    const palette = session.palette;
    const shown = onPress(session.state);
    const region = this.wantedRegion(scene, this.deviceView());
    if (!region || session.state.preview) return;
    let rendered;
    try {
      rendered = await session.press.render({
        page: session.page.id,
        region,
        ...pressOrder(session.state),
      });
    } catch (e) {
      session.say(`The plates could not be made: ${e instanceof Error ? e.message : String(e)}`, 'stop');
      return;
    }
    // Something newer has come: what was made would be a look into the past.
    if (
      !rendered ||
      ask !== this.asked ||
      this.disposed ||
      session.state.preview ||
      session.scene() !== scene ||
      onPress(session.state) !== shown
    )
      return;
    const bitmap = document.createElement('canvas');
    bitmap.width = rendered.width;
    bitmap.height = rendered.height;
    bitmap.getContext('2d')!.putImageData(new ImageData(rendered.pixels, rendered.width, rendered.height), 0, 0);
    this.truth = { scene, palette, shown, region, bitmap };
    this.layTruth(scene);
    await this.besideToo();
    this.onRest?.();
    // A picture that was not to be had may come yet: it is asked for again, each time later.
    if (!rendered.lacking) this.tries = 0;
    else if (this.tries < AGAIN_MS.length)
      this.rest = setTimeout(() => void this.askForTruth(), AGAIN_MS[this.tries++]);
  }
  private tries = 0;

  /** The plates of the page beside this one, behind its own. */
  private async besideToo(): Promise<void> {
    const { beside, session } = this;
    if (!beside) return;
    const came = await this.facing!.ask(beside, session.palette, this.deviceView(), this.canvas).catch(() => false);
    if (!came || this.disposed || this.beside !== beside) return;
    this.ctx.save();
    const v = this.deviceView();
    this.facing!.paint(this.ctx, beside, session.palette, v, this.window(v));
    this.ctx.restore();
  }

  private layTruth(scene: Scene): void {
    const { truth, ctx } = this;
    if (!truth) return;
    const v = this.deviceView();
    const { region } = truth;
    ctx.save();
    ctx.setTransform(1, 0, 0, 1, 0, 0);
    this.clipToSheet(scene, v);
    const k = v.scale / region.scale;
    ctx.drawImage(
      truth.bitmap,
      region.x * v.scale + v.x,
      region.y * v.scale + v.y,
      region.width * k,
      region.height * k,
    );
    ctx.restore();
  }

  dispose(): void {
    this.disposed = true;
    this.stopListening();
    if (this.rest) clearTimeout(this.rest);
    cancelAnimationFrame(this.frame);
  }
}
