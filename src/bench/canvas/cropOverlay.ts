import { apply, multiply, type Matrix } from '@/core/geometry/matrix';
import { draw, transformPath } from '@/core/geometry/path';
import type { Session } from '../session/session';
import { cropGrips, cropped, type CropGrip } from '../tools/crop';
import { screenMatrix } from '../view/frame';
import { tracePath, twoLines, type Ink } from '../view/ink';

/** How much of what lies outside the frame is left to see. */
const DIM = 0.55;
const GHOST = 0.4;
const BRACKET = 11;

/** The picture at work: all but its frame dimmed, what the frame cuts off seen faintly. */
export function drawCrop(ctx: CanvasRenderingContext2D, canvas: HTMLCanvasElement, s: Session, ink: Ink): void {
  const c = cropped(s);
  if (!c) return;
  const toScreen = multiply(screenMatrix(s.state.camera), c.matrix);
  const outside = () => {
    ctx.beginPath();
    ctx.rect(0, 0, canvas.clientWidth, canvas.clientHeight);
    draw(transformPath(c.line.path, toScreen), {
      moveTo: (x, y) => ctx.moveTo(x, y),
      lineTo: (x, y) => ctx.lineTo(x, y),
      curveTo: (a, b, d, e, x, y) => ctx.bezierCurveTo(a, b, d, e, x, y),
      close: () => ctx.closePath(),
    });
    ctx.clip('evenodd');
  };
  const style = getComputedStyle(canvas);
  ctx.save();
  outside();
  ctx.globalAlpha = DIM;
  ctx.fillStyle = style.getPropertyValue('--bench');
  ctx.fillRect(0, 0, canvas.clientWidth, canvas.clientHeight);
  const look = s.pictures.get(c.paint, s.palette);
  const fromUnit = multiply(toScreen, c.paint.geometry);
  if (look) {
    ctx.globalAlpha = GHOST;
    ctx.transform(...(fromUnit as [number, number, number, number, number, number]));
    ctx.drawImage(look.image as CanvasImageSource, 0, 0, 1, 1);
  }
  ctx.restore();
  ctx.setLineDash([4, 3]);
  twoLines(
    ctx,
    ink,
    () => {
      const corners = [
        [0, 0],
        [1, 0],
        [1, 1],
        [0, 1],
      ].map(([x, y]) => apply(fromUnit, { x, y }));
      ctx.beginPath();
      corners.forEach((p, i) => (i ? ctx.lineTo(p.x, p.y) : ctx.moveTo(p.x, p.y)));
      ctx.closePath();
    },
    1,
  );
  ctx.setLineDash([]);
  twoLines(ctx, ink, () => tracePath(ctx, c.line.path, toScreen), 1.25);
  for (const grip of cropGrips(s, c)) drawGrip(ctx, grip, toScreen, ink);
}

function drawGrip(ctx: CanvasRenderingContext2D, g: CropGrip, m: Matrix, ink: Ink): void {
  if (g.kind === 'dot') {
    ctx.beginPath();
    ctx.arc(g.at.x, g.at.y, 4.5, 0, 2 * Math.PI);
    ctx.fillStyle = ink.halo;
    ctx.fill();
    ctx.strokeStyle = ink.accent;
    ctx.lineWidth = 1.75;
    ctx.stroke();
    return;
  }
  const length = (x: number, y: number) => Math.hypot(x, y) || 1;
  const ux = { x: m[0] / length(m[0], m[1]), y: m[1] / length(m[0], m[1]) };
  const uy = { x: m[2] / length(m[2], m[3]), y: m[3] / length(m[2], m[3]) };
  const at = (a: number, b: number): [number, number] => [g.at.x + ux.x * a + uy.x * b, g.at.y + ux.y * a + uy.y * b];
  twoLines(
    ctx,
    ink,
    () => {
      ctx.beginPath();
      if (g.hx && g.hy) {
        ctx.moveTo(...at(-g.hx * BRACKET, 0));
        ctx.lineTo(...at(0, 0));
        ctx.lineTo(...at(0, -g.hy * BRACKET));
      } else {
        ctx.moveTo(...(g.hx ? at(0, -BRACKET / 2) : at(-BRACKET / 2, 0)));
        ctx.lineTo(...(g.hx ? at(0, BRACKET / 2) : at(BRACKET / 2, 0)));
      }
    },
    3.5,
  );
}
