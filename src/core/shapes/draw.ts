import type { PathSink } from '../geometry/path';
import { clamp, type Knob, type ShapeParam } from './types';

/** Helpers that rows of the catalogue are written with. Angles in degrees, clockwise from the right, y down. */

const rad = (degrees: number): number => (degrees * Math.PI) / 180;

/** A point of an ellipse. */
export const onEllipse = (cx: number, cy: number, rx: number, ry: number, degrees: number): [number, number] => [
  cx + rx * Math.cos(rad(degrees)),
  cy + ry * Math.sin(rad(degrees)),
];

/** Draws an arc of an ellipse from where the sink stands (its beginning), in cubics of at most 45°. */
export function arcTo(s: PathSink, cx: number, cy: number, rx: number, ry: number, from: number, to: number): void {
  const parts = Math.max(1, Math.ceil(Math.abs(to - from) / 45 - 1e-9));
  const step = (to - from) / parts;
  const k = (4 / 3) * Math.tan(rad(step) / 4);
  for (let i = 0; i < parts; i++) {
    const [a, b] = [rad(from + i * step), rad(from + (i + 1) * step)];
    s.curveTo(
      cx + rx * (Math.cos(a) - k * Math.sin(a)),
      cy + ry * (Math.sin(a) + k * Math.cos(a)),
      cx + rx * (Math.cos(b) + k * Math.sin(b)),
      cy + ry * (Math.sin(b) - k * Math.cos(b)),
      cx + rx * Math.cos(b),
      cy + ry * Math.sin(b),
    );
  }
}

/** A closed polygon through points given in shares of the box. */
export function polyline(
  s: PathSink,
  w: number,
  h: number,
  points: readonly (readonly [number, number])[],
  closed = true,
): void {
  points.forEach(([x, y], i) => (i ? s.lineTo(x * w, y * h) : s.moveTo(x * w, y * h)));
  if (closed) s.close();
}

/** A knob that is a share, 0…1 being a whole. */
export const ratio = <I extends string>(
  id: I,
  label: string,
  letter: string,
  initial: number,
  min: number,
  max: number,
) => ({ id, label, letter, unit: 'ratio', min, max, initial }) as const;
/** A knob that counts. */
export const number = <I extends string>(id: I, label: string, initial: number, min: number, max: number) =>
  ({ id, label, letter: 'n', unit: 'count', min, max, initial }) as const;
/** A knob in degrees. */
export const angle = <I extends string>(
  id: I,
  label: string,
  letter: string,
  initial: number,
  min: number,
  max: number,
) => ({ id, label, letter, unit: 'angle', min, max, initial }) as const;

/**
 * A knob that travels along a straight way: at the least value it stands at `from`, at the most at `to` (shares of the
 * box). Counts move in whole numbers; `reach` bends the way so that low counts lie far apart.
 */
export function slide<P extends ShapeParam>(
  p: P,
  from: readonly [number, number],
  to: readonly [number, number],
  most = p.max,
): Knob<Record<string, number>> {
  const share = (v: number) => (Math.min(v, most) - p.min) / (most - p.min);
  return {
    param: p.id,
    travels: (Math.atan2(to[1] - from[1], to[0] - from[0]) * 180) / Math.PI,
    at: (v, w, h) => ({
      x: (from[0] + (to[0] - from[0]) * share(v[p.id])) * w,
      y: (from[1] + (to[1] - from[1]) * share(v[p.id])) * h,
    }),
    value(q, _v, w, h) {
      const [dx, dy] = [(to[0] - from[0]) * w, (to[1] - from[1]) * h];
      const t = ((q.x - from[0] * w) * dx + (q.y - from[1] * h) * dy) / (dx * dx + dy * dy || 1);
      const v = clamp(p.min + t * (most - p.min), p.min, p.max);
      return p.unit === 'count' ? Math.round(v) : v;
    },
  };
}

/**
 * A knob that travels round the middle of the box: its value is the angle at which it stands, `share` of the way out.
 */
export function round<P extends ShapeParam>(
  p: P,
  share = 1,
  offset: (v: Record<string, number>) => number = () => 0,
): Knob<Record<string, number>> {
  return {
    param: p.id,
    travels: 90,
    at: (v, w, h) => ({
      x: w / 2 + (w / 2) * share * Math.cos(rad(v[p.id] + offset(v))),
      y: h / 2 + (h / 2) * share * Math.sin(rad(v[p.id] + offset(v))),
    }),
    value(q, v, w, h) {
      let a = (Math.atan2((q.y - h / 2) / h, (q.x - w / 2) / w) * 180) / Math.PI - offset(v);
      while (a < p.min) a += 360;
      while (a > p.max + 1e-9 && a - 360 >= p.min) a -= 360;
      return clamp(a, p.min, p.max);
    },
  };
}

/** A share as a person reads it. */
export const percent = (x: number): string => `${Math.round(x * 100)} %`;
