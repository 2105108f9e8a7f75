import type { Session } from '../session/session';
import type { Ink } from '../view/ink';
import { toScreen } from '../view/camera';

/** What a press remarked on this page: each framed where it is; the one that is shown in full, the others faintly. */
export function drawPressRemarks(ctx: CanvasRenderingContext2D, s: Session, ink: Ink): void {
  const { pressAnswer, pressRemark, camera } = s.state;
  // What has changed since may lie elsewhere.
  if (!pressAnswer || pressAnswer.of !== s.state.design) return;
  const number = s.design.pages.findIndex((p) => p.id === s.page.id) + 1;
  pressAnswer.answer.remarks.forEach((r, i) => {
    if (r.page !== number || !r.box) return;
    const a = toScreen(camera, { x: r.box.x0, y: r.box.y0 });
    const b = toScreen(camera, { x: r.box.x1, y: r.box.y1 });
    const shown = i === pressRemark;
    ctx.setLineDash(shown ? [] : [4, 4]);
    ctx.strokeStyle = ink.halo;
    ctx.lineWidth = shown ? 5 : 3;
    ctx.strokeRect(a.x - 3, a.y - 3, b.x - a.x + 6, b.y - a.y + 6);
    ctx.strokeStyle = r.refuses ? '#b3261e' : ink.text;
    ctx.lineWidth = shown ? 2.5 : 1.25;
    ctx.strokeRect(a.x - 3, a.y - 3, b.x - a.x + 6, b.y - a.y + 6);
    ctx.setLineDash([]);
    const text = String(i + 1);
    ctx.font = '600 11px Archivo, sans-serif';
    const width = ctx.measureText(text).width + 10;
    ctx.fillStyle = r.refuses ? '#b3261e' : '#5c5c5c';
    ctx.fillRect(a.x - 3, a.y - 21, width, 18);
    ctx.fillStyle = '#ffffff';
    ctx.fillText(text, a.x + 2, a.y - 8);
  });
}
