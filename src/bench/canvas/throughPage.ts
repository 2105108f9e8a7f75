import { bleedRect, type Scene } from '@/core/scene/scene';
import { otherSide } from '../commands/looking';
import { painterOf } from '../session/painter';
import type { Session } from '../session/session';

/** Pixels of the longer side of what is kept of the other side. */
const LARGEST = 1400;
/** How much of it is seen. */
const STRENGTH = 0.3;
const drawn = new WeakMap<
  Scene,
  { readonly palette: object; readonly epoch: number; readonly canvas: HTMLCanvasElement }
>();

/** The other side of the card over the sheet, mirrored and faint, as if it were held against the light. */
export function drawThrough(ctx: CanvasRenderingContext2D, s: Session): void {
  const other = s.state.throughPage && !s.design.setup.facing ? otherSide(s) : null;
  if (!other) return;
  const { setup } = s;
  const scene = s.engines.builder.build(s.design, other);
  const epoch = s.state.picturesEpoch + s.state.fontsEpoch;
  const sheet = bleedRect(setup);
  const [w, h] = [sheet.x1 - sheet.x0, sheet.y1 - sheet.y0];
  let known = drawn.get(scene);
  if (known?.palette !== s.palette || known.epoch !== epoch) {
    const canvas = document.createElement('canvas');
    const scale = LARGEST / Math.max(w, h);
    [canvas.width, canvas.height] = [Math.ceil(w * scale), Math.ceil(h * scale)];
    const view = { scale, x: -sheet.x0 * scale, y: -sheet.y0 * scale };
    painterOf(s).paint(canvas.getContext('2d')!, scene.root.content, s.palette, view, sheet);
    drawn.set(scene, (known = { palette: s.palette, epoch, canvas }));
  }
  const { camera: c } = s.state;
  ctx.save();
  ctx.globalAlpha = STRENGTH;
  // Mirrored about the middle of the page.
  ctx.translate((sheet.x0 + sheet.x1) * c.scale + 2 * c.x, 0);
  ctx.scale(-1, 1);
  ctx.drawImage(known.canvas, sheet.x0 * c.scale + c.x, sheet.y0 * c.scale + c.y, w * c.scale, h * c.scale);
  ctx.restore();
}
