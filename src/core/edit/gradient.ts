import type { Matrix, Point } from '../geometry/matrix';
import { centre, height, width, type Rect } from '../geometry/rect';
import type { Colour, GradientPaint, Paint, Stop } from '../model/schema';
import { tinted } from './swatches';

/** Press and release points give a linear gradient's line, or a radial one's centre and edge (own space of the object). */
export function geometryFrom(kind: GradientPaint['gradient'], from: Point, to: Point, squash = 1): Matrix {
  const dx = to.x - from.x;
  const dy = to.y - from.y;
  const k = kind === 'linear' ? 1 : squash;
  return [dx, dy, -dy * k, dx * k, from.x, from.y];
}

/** Where a gradient's line begins and ends. */
export function gradientLine(p: GradientPaint): { readonly from: Point; readonly to: Point } {
  const [a, b, , , e, f] = p.geometry;
  return { from: { x: e, y: f }, to: { x: e + a, y: f + b } };
}

/** Degrees clockwise from right, 0 ≤ angle < 360. */
export function gradientAngle(p: GradientPaint): number {
  return ((Math.atan2(p.geometry[1], p.geometry[0]) * 180) / Math.PI + 360) % 360;
}

/** Turns the line about the middle of a linear gradient, or about the centre of a radial one. */
export function withAngle(p: GradientPaint, degrees: number): GradientPaint {
  const { from, to } = gradientLine(p);
  const length = Math.hypot(to.x - from.x, to.y - from.y);
  const rad = (degrees * Math.PI) / 180;
  const [dx, dy] = [length * Math.cos(rad), length * Math.sin(rad)];
  const squash = length ? Math.hypot(p.geometry[2], p.geometry[3]) / length : 1;
  const start = p.gradient === 'linear' ? { x: (from.x + to.x - dx) / 2, y: (from.y + to.y - dy) / 2 } : from;
  return { ...p, geometry: geometryFrom(p.gradient, start, { x: start.x + dx, y: start.y + dy }, squash) };
}

/** A first gradient across a box: linear from left to right, radial from the middle to the corners' circle. */
export function firstGradient(kind: GradientPaint['gradient'], box: Rect, stops: readonly Stop[], overprint: boolean): GradientPaint {
  const mid = centre(box);
  const geometry: Matrix = kind === 'linear' ? geometryFrom('linear', { x: box.x0, y: mid.y }, { x: box.x1, y: mid.y }) : [width(box) / 2, 0, 0, height(box) / 2, mid.x, mid.y];
  return { kind: 'gradient', gradient: kind, ramp: { stops }, geometry, overprint };
}

/** What a paint becomes when a gradient is asked for: from its colour to a faint tint of it. */
export function stopsFrom(paint: Paint, fallback: Colour): Stop[] {
  const colour = paint.kind === 'colour' ? paint.colour : fallback;
  return [
    { offset: 0, colour },
    { offset: 1, colour: faint(colour) },
  ];
}

function faint(c: Colour): Colour {
  return 'swatch' in c ? { ...c, tint: c.tint * 0.15 } : tinted(c, 0.15);
}

export function reverseStops(stops: readonly Stop[]): Stop[] {
  return [...stops].reverse().map((s) => ({ ...s, offset: 1 - s.offset }));
}

/** Adds a stop where the ramp is clicked, in the colour of its nearest neighbour. Answers its index. */
export function insertStop(stops: readonly Stop[], offset: number): { stops: Stop[]; index: number } {
  const nearest = [...stops].sort((a, b) => Math.abs(a.offset - offset) - Math.abs(b.offset - offset))[0];
  const stop: Stop = { offset, colour: nearest.colour };
  const index = stops.findIndex((s) => s.offset > offset);
  const at = index < 0 ? stops.length : index;
  return { stops: [...stops.slice(0, at), stop, ...stops.slice(at)], index: at };
}

/** Moves one stop; it cannot pass its neighbours. */
export function moveStop(stops: readonly Stop[], index: number, offset: number): Stop[] {
  const lo = stops[index - 1]?.offset ?? 0;
  const hi = stops[index + 1]?.offset ?? 1;
  return stops.map((s, i) => (i === index ? { ...s, offset: Math.min(hi, Math.max(lo, offset)) } : s));
}

/** Takes a stop out; two must stay. */
export function removeStop(stops: readonly Stop[], index: number): Stop[] {
  return stops.length > 2 ? stops.filter((_, i) => i !== index) : [...stops];
}
