import { parameterAt, pointOn, segmentLength, tangentOn } from '../geometry/measure';
import type { Contour } from '../geometry/segments';
import type { Turn } from './line';

/** A line that letters stand on, measured where they stand. Points. */
export interface Track {
  readonly length: number;
  readonly closed: boolean;
  /** The place so far along it; beyond the ends of an open one, straight on. */
  at(along: number): Turn;
}

/**
 * A circle about the origin, from its top clockwise, letters outside; `reversed` counter-clockwise, letters inside.
 * `distance` towards the letters' heads.
 */
export function circleTrack(radius: number, distance: number, reversed: boolean): Track {
  const r = Math.max(0.01, reversed ? radius - distance : radius + distance);
  const way = reversed ? -1 : 1;
  return {
    length: 2 * Math.PI * r,
    closed: true,
    at(along) {
      const angle = -Math.PI / 2 + (way * along) / r;
      const [c, s] = [Math.cos(angle), Math.sin(angle)];
      return { x: r * c, y: r * s, cos: -way * s, sin: way * c };
    },
  };
}

/** Places that a stretch of a curve is measured at, where letters stand beside it; and all of a line at most. */
const STEPS = 96;
const MOST_STEPS = 50_000;

/** A contour, letters to the left of the way it runs; `reversed`: of the other way. */
export function contourTrack(contour: Contour, distance: number, reversed: boolean): Track {
  const { segments } = contour;
  const lengths = segments.map((s) => segmentLength(s));
  // How far each stretch begins along the line.
  const starts = new Float64Array(segments.length + 1);
  for (const [i, l] of lengths.entries()) starts[i + 1] = starts[i] + l;
  const whole = starts[segments.length];
  // Seen along the contour itself.
  const on = (along: number): Turn => {
    const inside = Math.min(whole, Math.max(0, along));
    const i = Math.min(segments.length - 1, lastBelow(starts, inside));
    const t = parameterAt(segments[i], inside - starts[i], lengths[i]);
    const [p, d] = [pointOn(segments[i], t), tangentOn(segments[i], t)];
    // What lies beyond an end goes straight on.
    const over = contour.closed ? 0 : along - inside;
    return { x: p.x + d.x * over, y: p.y + d.y * over, cos: d.x, sin: d.y };
  };
  const turned = (along: number): Turn => {
    const at = reversed ? on(whole - along) : on(along);
    return reversed ? { ...at, cos: -at.cos, sin: -at.sin } : at;
  };
  const beside = (along: number): Turn => {
    const at = turned(along);
    return { ...at, x: at.x + at.sin * distance, y: at.y - at.cos * distance };
  };
  if (distance === 0 || !(whole > 0))
    return { length: whole, closed: contour.closed, at: wrapped(turned, whole, contour.closed) };
  // Beside the line the way is longer or shorter: a table from one measure to the other.
  const n = Math.min(MOST_STEPS, segments.length * STEPS);
  const table = new Float64Array(n + 1);
  let before = beside(0);
  for (let i = 1; i <= n; i++) {
    const next = beside((whole * i) / n);
    table[i] = table[i - 1] + Math.hypot(next.x - before.x, next.y - before.y);
    before = next;
  }
  const length = table[n];
  const back = (along: number): number => {
    if (along <= 0) return along;
    if (along >= length) return whole + (along - length);
    const lo = Math.min(n - 1, lastBelow(table, along));
    const step = table[lo + 1] - table[lo];
    return (whole * (lo + (step > 0 ? (along - table[lo]) / step : 0))) / n;
  };
  return { length, closed: contour.closed, at: wrapped((along) => beside(back(along)), length, contour.closed) };
}

/** The number of the last of rising values that is not above one; the first where all are. */
function lastBelow(values: Float64Array, value: number): number {
  let [lo, hi] = [0, values.length];
  while (hi - lo > 1) {
    const mid = (lo + hi) >> 1;
    if (values[mid] > value) hi = mid;
    else lo = mid;
  }
  return lo;
}

const wrapped = (at: (along: number) => Turn, length: number, closed: boolean) => (along: number) =>
  at(closed && length > 0 ? ((along % length) + length) % length : along);
