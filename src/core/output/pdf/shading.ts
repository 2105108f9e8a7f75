import type { Palette, ResolvedRamp } from '../../colour/palette';
import type { GradientPaint } from '../../model/schema';
import type { ColourSpaces } from './colour';
import type { Value } from './file';

/** The least step between two bounds of a stitching function: hard stops need strictly rising bounds. */
const HARD_STEP = 1e-4;

/** A gradient as a real shading in unit space: linear 0→1 along x, radial from the centre to the unit circle. */
export async function makeShading(paint: GradientPaint, palette: Palette, spaces: ColourSpaces): Promise<Value> {
  const ramp = palette.ramp(paint.ramp);
  const { space, channels } = await spaces.rampSpace(ramp, paint.overprint);
  const radial = paint.gradient === 'radial';
  return {
    ShadingType: radial ? 3 : 2,
    ColorSpace: space,
    Coords: radial ? [0, 0, 0, 0, 0, 1] : [0, 0, 1, 0],
    Function: rampFunction(ramp, channels),
    Extend: [true, true],
  };
}

function rampFunction(ramp: ResolvedRamp, channels: readonly number[]): Value {
  const stops = ramp.stops.map((s) => ({ t: s.offset, c: channels.map((i) => s.mix[i]) }));
  if (stops[0].t > 0) stops.unshift({ ...stops[0], t: 0 });
  if (stops[stops.length - 1].t < 1) stops.push({ ...stops[stops.length - 1], t: 1 });
  for (let i = 1; i < stops.length - 1; i++) if (stops[i].t <= stops[i - 1].t) stops[i].t = stops[i - 1].t + HARD_STEP;
  // Stops crowded at the very end are pushed back the same way.
  for (let i = stops.length - 2; i > 0; i--) if (stops[i].t >= stops[i + 1].t) stops[i].t = stops[i + 1].t - HARD_STEP;
  const piece = (a: { c: number[] }, b: { c: number[] }): Value => ({ FunctionType: 2, Domain: [0, 1], N: 1, C0: a.c, C1: b.c });
  if (stops.length === 2) return piece(stops[0], stops[1]);
  return {
    FunctionType: 3,
    Domain: [0, 1],
    Functions: stops.slice(1).map((b, i) => piece(stops[i], b)),
    Bounds: stops.slice(1, -1).map((s) => s.t),
    Encode: stops.slice(1).flatMap(() => [0, 1]),
  };
}
