import type { Palette } from '@/core/colour/palette';
import { pointAt, type RampSource } from '@/core/colour/ramp';
import { hexOf } from '@/core/colour/spaces';
import { formatNumber } from '@/core/units/length';

const SAMPLES = 32;
/** What shows through: light and dark squares. */
const CHECKER = 'repeating-conic-gradient(#ffffff 0 25%, #bdbdbd 0 50%) 0 0 / 10px 10px';

/** Looks that were worked out, by what they hang on: panels are drawn again at each step, whatever it changed. */
const known = new WeakMap<Palette, WeakMap<RampSource['stops'], Map<RampSource['mixing'], string>>>();

/** The look of a ramp as CSS, mixed as it will be; over a checker where it lets something through. */
export function rampCss(palette: Palette, source: RampSource): string {
  let ofPalette = known.get(palette);
  if (!ofPalette) known.set(palette, (ofPalette = new WeakMap()));
  let ofStops = ofPalette.get(source.stops);
  if (!ofStops) ofPalette.set(source.stops, (ofStops = new Map()));
  let css = ofStops.get(source.mixing);
  if (css === undefined) ofStops.set(source.mixing, (css = workOut(palette, source)));
  return css;
}

function workOut(palette: Palette, source: RampSource): string {
  const ramp = palette.ramp({ stops: [...source.stops], ...(source.mixing && { mixing: source.mixing }) });
  const parts = Array.from({ length: SAMPLES + 1 }, (_, i) => {
    const { mix, opacity } = pointAt(ramp, i / SAMPLES);
    const alpha =
      opacity < 1
        ? Math.round(opacity * 255)
            .toString(16)
            .padStart(2, '0')
        : '';
    return `${hexOf(palette.lookOfMix(mix))}${alpha} ${formatNumber((i / SAMPLES) * 100, 2)}%`;
  });
  const gradient = `linear-gradient(90deg, ${parts.join(', ')})`;
  return ramp.solid ? gradient : `${gradient}, ${CHECKER}`;
}
