import type { Matrix } from '@/core/geometry/matrix';
import type { Colour, GradientPaint, Paint, Stop } from '@/core/model/schema';

/** Along a line, in points of what it paints (of letters: of their text). */
export const linear = (ramp: GradientPaint['ramp'], from: [number, number], to: [number, number]): Paint => {
  const [dx, dy] = [to[0] - from[0], to[1] - from[1]];
  return {
    kind: 'gradient',
    gradient: 'linear',
    ramp,
    geometry: [dx, dy, -dy, dx, from[0], from[1]],
    overprint: false,
  };
};
/** From a middle outwards to so much across and down. */
export const radial = (
  ramp: GradientPaint['ramp'],
  cx: number,
  cy: number,
  rx: number,
  ry: number,
  overprint = false,
  focus?: [number, number],
): Paint => ({
  kind: 'gradient',
  gradient: 'radial',
  ramp,
  geometry: [rx, 0, 0, ry, cx, cy] as Matrix,
  overprint,
  ...(focus && { focus }),
});
/** A colour of a ramp at a share of it. */
export const stop = (offset: number, colour: Colour, opacity = 1): Stop => ({
  offset,
  colour,
  ...(opacity < 1 && { opacity }),
});
/** A gradient whose steps are broken up. */
export const withGrain = (p: Paint, grain: number): Paint => (p.kind === 'gradient' ? { ...p, grain } : p);
