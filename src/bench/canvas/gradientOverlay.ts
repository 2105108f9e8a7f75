import { hasMiddle } from '@/core/edit/gradient';
import { stopsOf } from '@/core/edit/paint';
import type { Point } from '@/core/geometry/matrix';
import type { Colour } from '@/core/model/schema';
import type { Session } from '../session/session';
import { beadPlaces } from '../tools/beads';
import { focusOnScreen, sidePoint } from '../tools/gradient';
import {
  aimedGradient,
  aimedPools,
  midpointAt,
  onTrack,
  trackOf,
  type GradientTarget,
  type PoolsTarget,
} from '../tools/gradientTarget';
import { placedPools } from '../tools/pools';
import { twoLines, type Ink } from '../view/ink';

/** The aimed gradient's line with its beads, or its pools with the ring of the chosen one's reach. */
export function drawGradient(ctx: CanvasRenderingContext2D, s: Session, ink: Ink): void {
  const target = aimedGradient(s);
  if (target) return drawLine(ctx, s, target, ink);
  const pools = aimedPools(s);
  if (pools) drawPools(ctx, s, pools, ink);
}

function drawLine(ctx: CanvasRenderingContext2D, s: Session, target: GradientTarget, ink: Ink): void {
  const track = trackOf(s, target);
  const [a, b] = [track.points[0], track.points[track.points.length - 1]];
  polyline(ctx, ink, track.points, 1.75);
  if (track.ends) {
    const focus = focusOnScreen(s, target);
    const side = sidePoint(s, target);
    if (side) {
      ctx.setLineDash([3, 3]);
      polyline(ctx, ink, [centreOnScreen(s, target), side], 1);
      ctx.setLineDash([]);
      square(ctx, ink, side);
    }
    // The start is a bar across the line (of a radial one its focus, a cross), the end an open ring: which is which
    // shows without colour.
    if (focus) cross(ctx, ink, focus);
    else bar(ctx, ink, a, b);
    ring(ctx, ink, b, 11);
  }
  const stops = stopsOf(s.design, target.paint);
  for (let i = 0; i + 1 < stops.length; i++)
    if (hasMiddle(stops, i)) diamond(ctx, ink, onTrack(track, midpointAt(stops, i)));
  const places = beadPlaces(track, stops);
  stops.forEach((stop, i) => bead(ctx, s, ink, places[i], stop.colour, s.state.stop === i, stop.opacity ?? 1));
}

function centreOnScreen(s: Session, target: GradientTarget): Point {
  const { camera } = s.state;
  const [, , , , e, f] = target.paint.geometry;
  const [a, b, c, d, x, y] = target.matrix;
  return { x: (a * e + c * f + x) * camera.scale + camera.x, y: (b * e + d * f + y) * camera.scale + camera.y };
}

function drawPools(ctx: CanvasRenderingContext2D, s: Session, target: PoolsTarget, ink: Ink): void {
  placedPools(s, target).forEach(({ at, radius, pool }, i) => {
    const chosen = s.state.stop === i;
    if (chosen) {
      ctx.setLineDash([4, 4]);
      ring(ctx, ink, at, radius);
      ctx.setLineDash([]);
    }
    bead(ctx, s, ink, at, pool.colour, chosen, pool.opacity ?? 1);
  });
}

function polyline(ctx: CanvasRenderingContext2D, ink: Ink, points: readonly Point[], width: number): void {
  twoLines(
    ctx,
    ink,
    () => {
      ctx.beginPath();
      points.forEach((p, i) => (i ? ctx.lineTo(p.x, p.y) : ctx.moveTo(p.x, p.y)));
    },
    width,
  );
}

function bar(ctx: CanvasRenderingContext2D, ink: Ink, a: Point, b: Point): void {
  const n = { x: -(b.y - a.y), y: b.x - a.x };
  const len = Math.hypot(n.x, n.y) || 1;
  polyline(
    ctx,
    ink,
    [
      { x: a.x + (n.x / len) * 11, y: a.y + (n.y / len) * 11 },
      { x: a.x - (n.x / len) * 11, y: a.y - (n.y / len) * 11 },
    ],
    1.75,
  );
}

function ring(ctx: CanvasRenderingContext2D, ink: Ink, p: Point, radius: number): void {
  twoLines(
    ctx,
    ink,
    () => {
      ctx.beginPath();
      ctx.arc(p.x, p.y, radius, 0, 2 * Math.PI);
    },
    1.25,
  );
}

function cross(ctx: CanvasRenderingContext2D, ink: Ink, p: Point): void {
  twoLines(
    ctx,
    ink,
    () => {
      ctx.beginPath();
      ctx.moveTo(p.x - 12, p.y);
      ctx.lineTo(p.x + 12, p.y);
      ctx.moveTo(p.x, p.y - 12);
      ctx.lineTo(p.x, p.y + 12);
    },
    1.25,
  );
}

function square(ctx: CanvasRenderingContext2D, ink: Ink, p: Point): void {
  ctx.fillStyle = ink.halo;
  ctx.fillRect(p.x - 4, p.y - 4, 8, 8);
  twoLines(
    ctx,
    ink,
    () => {
      ctx.beginPath();
      ctx.rect(p.x - 4, p.y - 4, 8, 8);
    },
    1.5,
  );
}

function diamond(ctx: CanvasRenderingContext2D, ink: Ink, p: Point): void {
  const path = () => {
    ctx.beginPath();
    ctx.moveTo(p.x, p.y - 5);
    ctx.lineTo(p.x + 5, p.y);
    ctx.lineTo(p.x, p.y + 5);
    ctx.lineTo(p.x - 5, p.y);
    ctx.closePath();
  };
  path();
  ctx.fillStyle = ink.halo;
  ctx.fill();
  twoLines(ctx, ink, path, 1);
}

/** A round bead in its colour; the part of it that lets light through is left open. */
function bead(
  ctx: CanvasRenderingContext2D,
  s: Session,
  ink: Ink,
  p: Point,
  colour: Colour,
  chosen: boolean,
  opacity: number,
): void {
  const r = chosen ? 7.5 : 6;
  ctx.beginPath();
  ctx.arc(p.x, p.y, r, 0, 2 * Math.PI);
  ctx.fillStyle = '#ffffff';
  ctx.fill();
  ctx.beginPath();
  ctx.moveTo(p.x, p.y);
  ctx.arc(p.x, p.y, r, -Math.PI / 2, -Math.PI / 2 + 2 * Math.PI * opacity);
  ctx.closePath();
  ctx.fillStyle = s.palette.css(colour);
  ctx.fill();
  ctx.beginPath();
  ctx.arc(p.x, p.y, r, 0, 2 * Math.PI);
  ctx.strokeStyle = ink.halo;
  ctx.lineWidth = 4;
  ctx.stroke();
  ctx.strokeStyle = ink.accent;
  ctx.lineWidth = chosen ? 2.5 : 1.5;
  ctx.stroke();
}
