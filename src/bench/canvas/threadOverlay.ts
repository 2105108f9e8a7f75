import { isText, layoutOf, threadOf } from '@/core/derive/layout';
import type { Point } from '@/core/geometry/matrix';
import { pageOf } from '@/core/model/tree';
import type { Session } from '../session/session';
import { frameCorners, frameOf } from '../view/frame';
import { twoLines, type Ink } from '../view/ink';

/**
 * The thread of a chosen frame: from the foot of each frame to the head of the next; and a mark where words are left
 * over.
 */
export function drawThread(ctx: CanvasRenderingContext2D, s: Session, ink: Ink): void {
  const { selection } = s.state;
  for (const id of selection.slice(0, 20)) {
    const node = s.design.nodes[id];
    if (!node || !isText(node)) continue;
    const frames = (threadOf(s.design, node)?.map((f) => f.id) ?? [id]).filter(
      (f) => pageOf(s.design, f)?.id === s.page.id,
    );
    const corners = frames.flatMap((f) => {
      const frame = frameOf(s, f);
      return frame ? [frameCorners(frame, s.state.camera)] : [];
    });
    corners.slice(1).forEach((next, i) => {
      const [from, to] = [corners[i][2], next[0]];
      ctx.setLineDash([2, 4]);
      twoLines(ctx, ink, () => {
        ctx.beginPath();
        ctx.moveTo(from.x, from.y);
        ctx.lineTo(to.x, to.y);
      });
      ctx.setLineDash([]);
      dot(ctx, from, ink);
      dot(ctx, to, ink);
    });
    const last = corners[corners.length - 1];
    if (last && oversetOf(s, frames[frames.length - 1])) over(ctx, last[2], ink);
  }
}

function oversetOf(s: Session, id: string): boolean {
  const node = s.design.nodes[id];
  return isText(node) && layoutOf(s.design, node, s.engines.fonts).overset > 0;
}

function dot(ctx: CanvasRenderingContext2D, p: Point, ink: Ink): void {
  ctx.beginPath();
  ctx.arc(p.x, p.y, 3.5, 0, 2 * Math.PI);
  ctx.fillStyle = ink.accent;
  ctx.fill();
}

/** Three dots below the corner where words are left over. */
function over(ctx: CanvasRenderingContext2D, p: Point, ink: Ink): void {
  ctx.beginPath();
  ctx.roundRect(p.x - 26, p.y - 7, 22, 12, 6);
  ctx.fillStyle = ink.halo;
  ctx.fill();
  ctx.fillStyle = ink.accent;
  for (let i = 0; i < 3; i++) {
    ctx.beginPath();
    ctx.arc(p.x - 21 + i * 6, p.y - 1, 1.8, 0, 2 * Math.PI);
    ctx.fill();
  }
}
