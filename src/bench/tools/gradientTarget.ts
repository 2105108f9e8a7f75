import { cleanest, middles } from '@/core/colour/clean';
import type { Palette } from '@/core/colour/palette';
import type { RampSource } from '@/core/colour/ramp';
import { geometryOnPage, gradientLine } from '@/core/edit/gradient';
import type { Recipe } from '@/core/edit/history';
import { aimedNodes, paintAt, type Aim } from '@/core/edit/aims';
import { rampOf, setPaint } from '@/core/edit/paint';
import { isSweep, writeRamp } from '@/core/edit/sweep';
import { apply, multiply, type Matrix, type Point } from '@/core/geometry/matrix';
import { flatten } from '@/core/geometry/path';
import type { GradientPaint, Mixing, PoolsPaint, Stop } from '@/core/model/schema';
import { pageMatrix } from '@/core/model/tree';
import { findLeaf } from '@/core/scene/walk';
import { screenMatrix } from '../view/frame';
import type { Session } from '../session/session';

/** A gradient that the aim points at; several objects that it runs through as one count as one. */
export interface Target<P extends GradientPaint | PoolsPaint = GradientPaint> {
  readonly node: string;
  readonly nodes: readonly string[];
  readonly paint: P;
  readonly aim: Aim;
  /** The space of the gradient's geometry to the page: the object's own, or that of its first letter. */
  readonly matrix: Matrix;
}
export type GradientTarget = Target;
export type PoolsTarget = Target<PoolsPaint>;

/** The one gradient of an aim, which may be another than the one that colour goes to. */
export function aimedAt(
  s: Session,
  aim: Aim,
  nodes: readonly string[] = aimedNodes(s.design, s.state.selection, aim),
): Target<GradientPaint | PoolsPaint> | null {
  const { design, page } = s;
  if (!nodes.length) return null;
  const [node] = nodes;
  const paint = paintAt(design, node, aim);
  if (paint?.kind !== 'gradient' && paint?.kind !== 'pools') return null;
  const matrix = pageMatrix(design, page, node);
  if (nodes.length > 1 && !isSweep(design, page, nodes, aim)) return null;
  if (paint.kind === 'gradient' && paint.eachLetter) {
    const letter = findLeaf(
      s.scene().root,
      (i) =>
        i.node === node &&
        i.paint.kind === 'gradient' &&
        i.paint.eachLetter === true &&
        i.type === 'glyphs' &&
        (aim === 'letterOutline') === (i.stroke !== null),
    );
    return { node, nodes, paint, aim, matrix: letter?.matrix ?? matrix };
  }
  return { node, nodes, paint, aim, matrix };
}

export function aimedGradient(s: Session): GradientTarget | null {
  const t = aimedAt(s, s.state.aim);
  return t?.paint.kind === 'gradient' ? { ...t, paint: t.paint } : null;
}

export function aimedPools(s: Session): PoolsTarget | null {
  const t = aimedAt(s, s.state.aim);
  return t?.paint.kind === 'pools' ? { ...t, paint: t.paint } : null;
}

/** Writes a ramp where it is kept: in its swatch, where all users follow, or in the paints themselves. */
export function withRamp(s: Session, target: GradientTarget, ramp: RampSource): Recipe {
  return (d) => writeRamp(d, target.nodes, target.aim, target.paint.ramp, ramp);
}

/**
 * Other stops; where their colours changed, the way of mixing goes on being the cleanest, unless another was chosen.
 */
export function withStops(s: Session, target: GradientTarget, stops: readonly Stop[]): Recipe {
  const ramp = rampOf(s.state.design, target.paint);
  return withRamp(s, target, { stops, mixing: mixingFor(s.palette, ramp, stops) });
}

const coloursOf = (stops: readonly Stop[]): string => JSON.stringify(stops.map((x) => x.colour));

export function mixingFor(palette: Palette, ramp: RampSource, stops: readonly Stop[]): Mixing | undefined {
  // Stops that were only moved keep their very colours: nothing to weigh.
  const same = ramp.stops.length === stops.length && stops.every((x, i) => x.colour === ramp.stops[i].colour);
  if (same || ramp.stops.length < 2 || coloursOf(ramp.stops) === coloursOf(stops)) return ramp.mixing;
  const followed = (ramp.mixing ?? plainMixing(palette)) === advisedMixing(palette, ramp.stops);
  if (!followed) return ramp.mixing;
  const advised = advisedMixing(palette, stops);
  return advised === plainMixing(palette) ? undefined : advised;
}

/** What an absent way of mixing means. */
export const plainMixing = (palette: Palette): Mixing => (palette.screen ? 'srgb' : 'ink');

export const advisedMixing = (palette: Palette, stops: readonly Stop[]): Mixing =>
  cleanest(middles(stops, palette)).mixing;

/** Sets the paint of every object that a target runs through; its geometry is given in the space of the first. */
export function withGeometry(s: Session, target: Target<GradientPaint | PoolsPaint>, geometry: Matrix): Recipe {
  const { design } = s.state;
  const { page } = s;
  const { aim } = target;
  const each = target.paint.kind === 'gradient' && target.paint.eachLetter;
  return (d) =>
    setPaint(d, target.nodes, aim, (old, id) => {
      if (old.kind !== 'gradient' && old.kind !== 'pools') return old;
      if (id === target.node || each) return { ...old, geometry };
      const own = geometryOnPage(multiply(target.matrix, geometry), pageMatrix(design, page, id));
      return own ? { ...old, geometry: own } : old;
    });
}

// ——— the line that beads run on

/** The shortest line (CSS pixels) that beads are still told apart on. */
const SHORTEST = 60;

/** Where the ramp lies on the screen: a straight line, or the drawn line itself where the gradient follows it. */
export interface Track {
  readonly points: readonly Point[];
  readonly length: number;
  /** Whether the ends can be taken hold of: only where they say where the gradient lies. */
  readonly ends: boolean;
}

export function trackOf(s: Session, target: GradientTarget): Track {
  const m = multiply(screenMatrix(s.state.camera), target.matrix);
  const { strokeMapping } = target.paint;
  if (strokeMapping) {
    const item = findLeaf(
      s.scene().root,
      (i) => i.node === target.node && i.type !== 'fill' && i.stroke !== null && i.paint.kind === 'gradient',
    );
    const [first] = item ? flatten(item.placed.path, 0.2) : [];
    if (item && item.type !== 'fill' && item.stroke && first && first.points.length >= 4) {
      const camera = screenMatrix(s.state.camera);
      const points: Point[] = [];
      for (let i = 0; i < first.points.length; i += 2)
        points.push(apply(camera, { x: first.points[i], y: first.points[i + 1] }));
      if (strokeMapping === 'along') return made(first.closed ? [...points, points[0]] : points, false);
      // Across: at a place in the middle of the drawn line, long enough to tell its beads apart.
      const k = Math.floor((points.length - 1) / 2);
      const [a, b] = [points[k], points[k + 1]];
      const d = Math.hypot(b.x - a.x, b.y - a.y) || 1;
      const half = Math.max(SHORTEST, item.stroke.width * s.state.camera.scale) / 2;
      const mid = { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 };
      const n = { x: ((b.y - a.y) / d) * half, y: (-(b.x - a.x) / d) * half };
      return made(
        [
          { x: mid.x + n.x, y: mid.y + n.y },
          { x: mid.x - n.x, y: mid.y - n.y },
        ],
        false,
      );
    }
  }
  const { from, to } = gradientLine(target.paint);
  const start = target.paint.gradient === 'radial' && target.paint.focus ? focusPoint(target.paint) : from;
  return made([apply(m, start), apply(m, to)], true);
}

export function focusPoint(paint: GradientPaint): Point {
  const [x, y] = paint.focus ?? [0, 0];
  return apply(paint.geometry, { x, y });
}

function made(points: Point[], ends: boolean): Track {
  let length = 0;
  for (let i = 1; i < points.length; i++)
    length += Math.hypot(points[i].x - points[i - 1].x, points[i].y - points[i - 1].y);
  return { points, length, ends };
}

/** The place at `t` of a track. */
export function onTrack({ points, length }: Track, t: number): Point {
  let rest = Math.min(1, Math.max(0, t)) * length;
  for (let i = 1; i < points.length; i++) {
    const [a, b] = [points[i - 1], points[i]];
    const d = Math.hypot(b.x - a.x, b.y - a.y);
    if (rest <= d || i === points.length - 1) {
      const f = d ? Math.min(1, rest / d) : 0;
      return { x: a.x + (b.x - a.x) * f, y: a.y + (b.y - a.y) * f };
    }
    rest -= d;
  }
  return points[0];
}

/**
 * The place on a track that is nearest to a point: how far along it and how far away. On a straight one `t` may pass
 * its ends.
 */
export function nearestOnTrack({ points, length }: Track, p: Point): { t: number; away: number } {
  let best = { t: 0, away: Infinity };
  let before = 0;
  for (let i = 1; i < points.length; i++) {
    const [a, b] = [points[i - 1], points[i]];
    const [dx, dy] = [b.x - a.x, b.y - a.y];
    const d = Math.hypot(dx, dy);
    const f = d ? ((p.x - a.x) * dx + (p.y - a.y) * dy) / (d * d) : 0;
    const held = Math.min(1, Math.max(0, f));
    const away = Math.hypot(a.x + dx * held - p.x, a.y + dy * held - p.y);
    if (away < best.away) best = { t: length ? (before + held * d) / length : 0, away };
    before += d;
  }
  return best;
}

/** Where the midpoint bead of the span after a stop lies, 0…1 of the track. */
export function midpointAt(stops: readonly Stop[], index: number): number {
  const [a, b] = [stops[index], stops[index + 1]];
  return a.offset + (b.offset - a.offset) * (a.midpoint ?? 0.5);
}
