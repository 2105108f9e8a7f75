import { multiply } from '@/core/geometry/matrix';
import type { Session } from '../session/session';
import { openPaths, spotsOf } from '../tools/nodeSpots';
import { screenMatrix } from './frame';
import { tracePath, twoLines, type Ink } from './ink';

/**
 * The nodes of the chosen paths: a square with a cut corner where it turns, a round one where it runs smoothly, one with a
 * bar across where both handles are alike. Chosen ones are filled, and show their handles as small rings on a stem.
 */
export function drawNodes(ctx: CanvasRenderingContext2D, s: Session, ink: Ink): void {
  for (const p of openPaths(s)) {
    const node = s.design.nodes[p.id];
    if (node.kind !== 'path') continue;
    twoLines(ctx, ink, () => tracePath(ctx, node.path, multiply(screenMatrix(s.state.camera), p.matrix)), 1);
  }
  const { nodes, handles } = spotsOf(s);
  for (const h of handles) {
    twoLines(ctx, ink, () => {
      ctx.beginPath();
      ctx.moveTo(h.from.x, h.from.y);
      ctx.lineTo(h.at.x, h.at.y);
    }, 1);
    ctx.beginPath();
    ctx.arc(h.at.x, h.at.y, 3.5, 0, 2 * Math.PI);
    ctx.fillStyle = ink.halo;
    ctx.fill();
    ctx.strokeStyle = ink.accent;
    ctx.lineWidth = 1.5;
    ctx.stroke();
  }
  for (const n of nodes) {
    const { x, y } = n.at;
    const r = n.chosen ? 5 : 4;
    ctx.beginPath();
    if (n.kind === 'corner') {
      ctx.moveTo(x - r, y - r);
      ctx.lineTo(x + r * 0.3, y - r);
      ctx.lineTo(x + r, y - r * 0.3);
      ctx.lineTo(x + r, y + r);
      ctx.lineTo(x - r, y + r);
      ctx.closePath();
    } else ctx.arc(x, y, r, 0, 2 * Math.PI);
    ctx.fillStyle = n.chosen ? ink.accent : ink.halo;
    ctx.fill();
    ctx.strokeStyle = n.chosen ? ink.halo : ink.accent;
    ctx.lineWidth = 1.5;
    ctx.stroke();
    if (n.kind === 'symmetric') {
      ctx.beginPath();
      ctx.moveTo(x - r, y);
      ctx.lineTo(x + r, y);
      ctx.stroke();
    }
  }
}
