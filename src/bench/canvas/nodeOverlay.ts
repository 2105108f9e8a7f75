import { multiply } from '@/core/geometry/matrix';
import type { Session } from '../session/session';
import { openPaths, spotsOf, type NodeSpot } from '../tools/nodeSpots';
import { screenMatrix } from '../view/frame';
import { tracePath, twoLines, type Ink } from '../view/ink';

/**
 * The nodes of the chosen paths: a square with a cut corner where it turns, a round one where it runs smoothly, one
 * with a bar across where both handles are alike. Chosen ones are filled, and show their handles as small rings on a
 * stem.
 */
export function drawNodes(ctx: CanvasRenderingContext2D, s: Session, ink: Ink): void {
  for (const p of openPaths(s)) {
    const node = s.design.nodes[p.id];
    if (node.kind !== 'path') continue;
    twoLines(ctx, ink, () => tracePath(ctx, node.path, multiply(screenMatrix(s.state.camera), p.matrix)), 1);
  }
  const { nodes, handles } = spotsOf(s);
  twoLines(
    ctx,
    ink,
    () => {
      ctx.beginPath();
      for (const h of handles) {
        ctx.moveTo(h.from.x, h.from.y);
        ctx.lineTo(h.at.x, h.at.y);
      }
    },
    1,
  );
  ctx.beginPath();
  for (const h of handles) {
    ctx.moveTo(h.at.x + 3.5, h.at.y);
    ctx.arc(h.at.x, h.at.y, 3.5, 0, 2 * Math.PI);
  }
  ctx.fillStyle = ink.halo;
  ctx.fill();
  ctx.strokeStyle = ink.accent;
  ctx.lineWidth = 1.5;
  ctx.stroke();
  const { clientWidth: w, clientHeight: h } = ctx.canvas;
  const seen = nodes.filter((n) => n.at.x > -8 && n.at.y > -8 && n.at.x < w + 8 && n.at.y < h + 8);
  const free = seen.filter((n) => !n.chosen);
  // So many that marks would lie on each other are dots.
  if (free.length > CROWD) {
    ctx.fillStyle = ink.accent;
    for (const n of free) ctx.fillRect(n.at.x - 1.5, n.at.y - 1.5, 3, 3);
  } else drawMarks(ctx, free, false, ink);
  drawMarks(
    ctx,
    seen.filter((n) => n.chosen),
    true,
    ink,
  );
}

/** More nodes than this in sight are drawn as dots. */
const CROWD = 400;

/** Marks of one look, painted at once. */
function drawMarks(ctx: CanvasRenderingContext2D, nodes: readonly NodeSpot[], chosen: boolean, ink: Ink): void {
  const r = chosen ? 5 : 4;
  ctx.beginPath();
  for (const {
    at: { x, y },
    kind,
  } of nodes) {
    if (kind === 'corner') {
      ctx.moveTo(x - r, y - r);
      ctx.lineTo(x + r * 0.3, y - r);
      ctx.lineTo(x + r, y - r * 0.3);
      ctx.lineTo(x + r, y + r);
      ctx.lineTo(x - r, y + r);
      ctx.closePath();
    } else {
      ctx.moveTo(x + r, y);
      ctx.arc(x, y, r, 0, 2 * Math.PI);
    }
  }
  ctx.fillStyle = chosen ? ink.accent : ink.halo;
  ctx.fill();
  ctx.strokeStyle = chosen ? ink.halo : ink.accent;
  ctx.lineWidth = 1.5;
  ctx.stroke();
  ctx.beginPath();
  for (const {
    at: { x, y },
    kind,
  } of nodes) {
    if (kind !== 'symmetric') continue;
    ctx.moveTo(x - r, y);
    ctx.lineTo(x + r, y);
  }
  ctx.stroke();
}
