import type { Palette } from '@/core/colour/palette';
import { hexOf } from '@/core/colour/spaces';
import { overlaps, type Rect } from '@/core/geometry/rect';
import type { Region } from '@/core/render/coverage';
import type { QuickPainter, View } from '@/core/render/quick';
import type { Scene } from '@/core/scene/scene';
import { onPress, pressOrder } from '../session/state';
import type { Session } from '../session/session';
import { facingOf, facingSeen, type Facing } from '../view/facing';

export { acrossTheFold } from '../tools/facing';
export { keepSpread } from '../view/keepSpread';

/** A page as it stands beside the one at work. */
export interface Beside {
  readonly facing: Facing;
  readonly scene: Scene;
}

interface Truth {
  readonly scene: Scene;
  readonly palette: Palette;
  /** What is on the press, as `onPress` says it. */
  readonly shown: string;
  readonly region: Region;
  readonly bitmap: HTMLCanvasElement;
}

const shifted = (r: Rect, by: number): Rect => ({ ...r, x0: r.x0 + by, x1: r.x1 + by });

/** The page that faces the one at work, drawn where it lies: quick while something moves, by the plates at rest. */
export class FacingArt {
  private truth: Truth | null = null;
  private asked = 0;

  constructor(
    private readonly session: Session,
    private readonly quick: QuickPainter,
  ) {}

  /**
   * What faces the page now; null for nothing. `last` stands where what changed (page points, null: unknown) is far
   * from it.
   */
  now(last: Beside | null, changed: Rect | null): Beside | null {
    const { session } = this;
    const facing = facingOf(session);
    if (!facing) return null;
    if (last && changed && session.state.preview && last.facing.page.id === facing.page.id)
      if (!overlaps(changed, facingSeen(session, facing))) return last;
    return { facing, scene: session.engines.builder.build(session.looked, facing.page) };
  }

  /** A part of it, in points of the page at work. */
  changed({ facing }: Beside, part: Rect): Rect {
    return shifted(part, facing.x);
  }

  /** Draws it, stock and all, within a part of the plane of the page at work. */
  paint(ctx: CanvasRenderingContext2D, { facing, scene }: Beside, palette: Palette, v: View, part: Rect): void {
    const { session, truth } = this;
    const seen = facingSeen(session, facing);
    if (!overlaps(part, seen)) return;
    ctx.save();
    ctx.setTransform(1, 0, 0, 1, 0, 0);
    ctx.beginPath();
    ctx.rect(
      seen.x0 * v.scale + v.x,
      seen.y0 * v.scale + v.y,
      (seen.x1 - seen.x0) * v.scale,
      (seen.y1 - seen.y0) * v.scale,
    );
    ctx.clip();
    ctx.fillStyle = palette.screen ? '#ffffff' : hexOf(palette.lookOfMix(palette.channels.map(() => 0)));
    ctx.fillRect(0, 0, ctx.canvas.width, ctx.canvas.height);
    const own: View = { ...v, x: v.x + facing.x * v.scale };
    const { view } = session.state;
    const current =
      truth && truth.scene === scene && truth.palette === palette && truth.shown === onPress(session.state);
    if (current || (view === 'plates' && truth)) {
      const { region, bitmap } = truth;
      const k = v.scale / region.scale;
      ctx.imageSmoothingEnabled = k < 4;
      ctx.drawImage(
        bitmap,
        region.x * v.scale + own.x,
        region.y * v.scale + own.y,
        region.width * k,
        region.height * k,
      );
    } else if (view !== 'plates') this.quick.paint(ctx, scene.root.content, palette, own, shifted(part, -facing.x));
    ctx.restore();
  }

  /** Has it the plates' truth as large as it is shown? */
  settled({ facing, scene }: Beside, palette: Palette, v: View, canvas: HTMLCanvasElement): boolean {
    const { truth } = this;
    const want = this.wanted(facing, v, canvas);
    if (!want) return true;
    if (!truth || truth.scene !== scene || truth.palette !== palette || truth.shown !== onPress(this.session.state))
      return false;
    const r = truth.region;
    return (
      r.scale === want.scale && r.x === want.x && r.y === want.y && r.width === want.width && r.height === want.height
    );
  }

  /** Asks the press for its plates. Answers whether something came that is still of today. */
  async ask(beside: Beside, palette: Palette, v: View, canvas: HTMLCanvasElement): Promise<boolean> {
    const { session } = this;
    const ask = ++this.asked;
    const shown = onPress(session.state);
    const region = this.wanted(beside.facing, v, canvas);
    if (!region || session.state.preview) return false;
    const rendered = await session.press.render({
      page: beside.facing.page.id,
      region,
      ...pressOrder(session.state),
    });
    if (!rendered || ask !== this.asked || session.state.preview || onPress(session.state) !== shown) return false;
    const bitmap = document.createElement('canvas');
    [bitmap.width, bitmap.height] = [rendered.width, rendered.height];
    bitmap.getContext('2d')!.putImageData(new ImageData(rendered.pixels, rendered.width, rendered.height), 0, 0);
    this.truth = { scene: beside.scene, palette, shown, region, bitmap };
    return true;
  }

  /** What of it is in sight, on whole device pixels, in its own points. */
  private wanted(facing: Facing, v: View, canvas: HTMLCanvasElement): Region | null {
    const seen = facingSeen(this.session, facing);
    const x0 = Math.max(0, Math.floor(seen.x0 * v.scale + v.x));
    const y0 = Math.max(0, Math.floor(seen.y0 * v.scale + v.y));
    const x1 = Math.min(canvas.width, Math.ceil(seen.x1 * v.scale + v.x));
    const y1 = Math.min(canvas.height, Math.ceil(seen.y1 * v.scale + v.y));
    if (x1 <= x0 || y1 <= y0) return null;
    const left = v.x + facing.x * v.scale;
    return { x: (x0 - left) / v.scale, y: (y0 - v.y) / v.scale, scale: v.scale, width: x1 - x0, height: y1 - y0 };
  }
}
