import type { Palette } from '../colour/palette';
import { pointAt, type ResolvedRamp } from '../colour/ramp';
import { hexOf } from '../colour/spaces';

/** Steps that a long piece of a ramp is drawn with, so that mixing in ink is followed closely. */
const STEPS = 16;

/** A ramp as steps of screen colour: its own points, and more where they lie far apart. */
export function rampSteps(
  ramp: ResolvedRamp,
  palette: Palette,
): { offset: number; css: string; hex: string; opacity: number }[] {
  const out: { offset: number; css: string; hex: string; opacity: number }[] = [];
  const put = (offset: number, mix: readonly number[], opacity: number) => {
    const hex = hexOf(palette.lookOfMix(mix));
    out.push({
      offset,
      hex,
      opacity,
      css:
        opacity >= 1
          ? hex
          : `${hex}${Math.round(opacity * 255)
              .toString(16)
              .padStart(2, '0')}`,
    });
  };
  ramp.stops.forEach((b, i) => {
    const a = ramp.stops[i - 1];
    if (a && b.offset > a.offset) {
      const steps = palette.screen ? 1 : Math.max(1, Math.round(STEPS * Math.min(1, 4 * (b.offset - a.offset))));
      for (let k = 1; k < steps; k++) {
        const t = a.offset + ((b.offset - a.offset) * k) / steps;
        const p = pointAt({ ...ramp, stops: [a, b] }, t);
        put(t, p.mix, p.opacity);
      }
    }
    put(b.offset, b.mix, b.opacity);
  });
  return out;
}
