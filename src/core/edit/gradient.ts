import { invert, multiply, type Matrix, type Point } from '../geometry/matrix';
import { centre, height, width, type Rect } from '../geometry/rect';
import type { Colour, GradientPaint, Paint, Stop } from '../model/schema';
import { tinted } from '../colour/tints';

/**
 * Press and release points give a linear gradient's line, or the centre and the edge of a radial or box one (own space
 * of the object).
 */
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

/** A first gradient across a box: linear from left to right, the others from the middle out to its sides. */
export function firstGradient(
  kind: GradientPaint['gradient'],
  box: Rect,
  stops: readonly Stop[],
  overprint: boolean,
): GradientPaint {
  const mid = centre(box);
  const geometry: Matrix =
    kind === 'linear'
      ? geometryFrom('linear', { x: box.x0, y: mid.y }, { x: box.x1, y: mid.y })
      : [width(box) / 2, 0, 0, height(box) / 2, mid.x, mid.y];
  return { kind: 'gradient', gradient: kind, ramp: { stops }, geometry, overprint };
}

/** What a paint becomes when a gradient is asked for: from its colour to a faint tint of it. */
export function stopsFrom(paint: Paint, fallback: Colour): Stop[] {
  const colour = paint.kind === 'colour' ? paint.colour : paint.kind === 'pools' ? paint.pools[0].colour : fallback;
  return [
    { offset: 0, colour },
    { offset: 1, colour: paint.kind === 'pools' && paint.pools[1] ? paint.pools[1].colour : faint(colour) },
  ];
}

function faint(c: Colour): Colour {
  return 'swatch' in c ? { ...c, tint: c.tint * 0.15 } : tinted(c, 0.15);
}

// ——— stops

/** Stops in the opposite order, at the places that makes. */
export function reverseStops(stops: readonly Stop[]): Stop[] {
  // A midpoint belongs to the span after its stop: turned round, to the one before.
  return stops.map((_, i) => {
    const s = stops[stops.length - 1 - i];
    const { midpoint: _own, ...plain } = s;
    const before = stops[stops.length - 2 - i]?.midpoint;
    return { ...plain, offset: 1 - s.offset, ...(before !== undefined && { midpoint: 1 - before }) };
  });
}

/** Adds a stop where the ramp is clicked, in the colour of its nearest neighbour or a given one. Answers its index. */
export function insertStop(stops: readonly Stop[], offset: number, colour?: Colour): { stops: Stop[]; index: number } {
  const nearest = [...stops].sort((a, b) => Math.abs(a.offset - offset) - Math.abs(b.offset - offset))[0];
  const stop: Stop = {
    offset,
    colour: colour ?? nearest.colour,
    ...(nearest.opacity !== undefined && { opacity: nearest.opacity }),
  };
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

/** Stops with the opacity (0…1) of one changed. */
export function setStopOpacity(stops: readonly Stop[], index: number, opacity: number): Stop[] {
  return stops.map((s, i) => {
    if (i !== index) return s;
    const { opacity: _old, ...rest } = s;
    return opacity >= 1 ? rest : { ...rest, opacity: Math.max(0, opacity) };
  });
}

/** The nearest that a midpoint comes to a stop, as a share of their span. */
const NEAREST_MIDPOINT = 0.02;

/** Where between stop `index` and the next half of the change is done, 0…1 of the way; half way is the plain case. */
export function setMidpoint(stops: readonly Stop[], index: number, midpoint: number): Stop[] {
  const at = Math.min(1 - NEAREST_MIDPOINT, Math.max(NEAREST_MIDPOINT, midpoint));
  return stops.map((s, i) => {
    if (i !== index) return s;
    const { midpoint: _old, ...rest } = s;
    return Math.abs(at - 0.5) < 0.005 ? rest : { ...rest, midpoint: at };
  });
}

/** The same stops at equal distances, from end to end. */
export function spreadEvenly(stops: readonly Stop[]): Stop[] {
  return stops.map((s, i) => ({ ...s, offset: i / (stops.length - 1) }));
}

// ——— the clean middle

interface Plateau {
  readonly stop: Stop;
  readonly from: number;
  readonly to: number;
}

const sameStop = (a: Stop, b: Stop): boolean =>
  (a.opacity ?? 1) === (b.opacity ?? 1) && JSON.stringify(a.colour) === JSON.stringify(b.colour);

/**
 * Does anything change between a stop and the next, and is there room for a bead that says where half of it is done?
 */
export function hasMiddle(stops: readonly Stop[], index: number): boolean {
  const [a, b] = [stops[index], stops[index + 1]];
  return b !== undefined && b.offset - a.offset > 0.02 && !sameStop(a, b);
}

/** Neighbouring stops of one colour count as one that is held from the first to the last. */
function plateaus(stops: readonly Stop[]): Plateau[] {
  const out: { stop: Stop; from: number; to: number }[] = [];
  for (const stop of stops) {
    const last = out[out.length - 1];
    if (last && sameStop(last.stop, stop)) last.to = stop.offset;
    else out.push({ stop, from: stop.offset, to: stop.offset });
  }
  return out;
}

/**
 * How firm a ramp is, 0…1: the share of its length on which the colour is held. Soft all the way is 0, hard edges are
 * 1.
 */
export function firmnessOf(stops: readonly Stop[]): number {
  const list = plateaus(stops);
  const length = list[list.length - 1].to - list[0].from;
  return length > 0 ? Math.min(1, list.reduce((sum, p) => sum + p.to - p.from, 0) / length) : 0;
}

/**
 * The same colours with another firmness: each is held on a plateau round its own place, by pairs of equal stops; the
 * first and the last from the very end inward. Changing it again takes the plateaus along, so that 0 is the plain ramp.
 */
export function withFirmness(stops: readonly Stop[], firmness: number): Stop[] {
  const list = plateaus(stops);
  if (list.length < 2) return [...stops];
  const was = firmnessOf(stops);
  const [first, last] = [list[0].from, list[list.length - 1].to];
  // Where each colour has its place when nothing is held.
  const places: number[] = [];
  list.forEach((p, i) => {
    if (i === 0) places.push(first);
    else if (i === list.length - 1) places.push(last);
    else places.push(was < 1 ? (p.from - (was * places[i - 1]) / 2) / (1 - was / 2) : (p.from + p.to) / 2);
  });
  const f = Math.min(1, Math.max(0, firmness));
  return list.flatMap(({ stop }, i) => {
    const at = places[i];
    const from = i === 0 ? first : at - (f * (at - places[i - 1])) / 2;
    const to = i === list.length - 1 ? last : at + (f * (places[i + 1] - at)) / 2;
    const { midpoint, ...held } = stop;
    const after = midpoint !== undefined && f < 1 ? { midpoint } : {};
    return to - from < 1e-9
      ? [{ ...held, offset: clip01(at), ...after }]
      : [
          { ...held, offset: clip01(from) },
          { ...held, offset: clip01(to), ...after },
        ];
  });
}

const clip01 = (v: number): number => Math.min(1, Math.max(0, v));

// ——— several objects

/** A geometry given on the page in the own space of an object; null where the object is flattened. */
export function geometryOnPage(geometry: Matrix, toPage: Matrix): Matrix | null {
  const back = invert(toPage);
  return back && multiply(back, geometry);
}

/** Takes a geometry from one box to another: what it is to the first, it becomes to the second. */
export function geometryBetween(geometry: Matrix, from: Rect, to: Rect): Matrix {
  const [sx, sy] = [width(to) / (width(from) || 1), height(to) / (height(from) || 1)];
  return multiply([sx, 0, 0, sy, to.x0 - from.x0 * sx, to.y0 - from.y0 * sy], geometry);
}

/** The end of one ramp becomes the start of another: colour and opacity. */
export function matchedStops(giving: readonly Stop[], taking: readonly Stop[]): Stop[] {
  const last = giving[giving.length - 1];
  const runs = plateaus(taking)[0];
  // A held start is matched as far as it is held.
  return taking.map((s) => {
    if (s.offset > runs.to || !sameStop(s, runs.stop)) return s;
    const { opacity: _old, ...rest } = s;
    return { ...rest, colour: last.colour, ...(last.opacity !== undefined && { opacity: last.opacity }) };
  });
}
