import type { Mixing, Stop } from '../model/schema';
import { deltaE00 } from './compare';
import { labToLch } from './models';
import { mixLooks } from './mixing';
import type { Palette } from './palette';
import { hasSpot, mixAt, resolveRamp } from './ramp';
import { labToSrgb, srgbToLab, type Triple } from './spaces';

/** What becomes of a ramp's middles in one way of mixing. */
export interface Middle {
  readonly mixing: Mixing;
  /**
   * The most chroma (Lab units) that a middle loses against the straight way between its ends, and the most lightness.
   */
  readonly dull: number;
  /** How far the printed middle is from the mixture that was asked for, ΔE00; 0 for ink, which is always what it is. */
  readonly beyond: number;
  /** The most that the hue turns between two neighbouring stops, degrees. */
  readonly turn: number;
}

const SAMPLES = 15;
const ORDER: readonly Mixing[] = ['ink', 'oklab', 'srgb', 'oklch'];

/** Every way of mixing a ramp that makes a difference, measured. With spot inks, only ink does. */
export function middles(stops: readonly Stop[], palette: Palette): Middle[] {
  const mixes = stops.map((s) => palette.mix(s.colour));
  const only = !palette.screen && mixes.some(hasSpot);
  return ORDER.filter((m) => (m === 'ink' ? !palette.screen : !only)).map((mixing) => measure(stops, mixing, palette));
}

function measure(stops: readonly Stop[], mixing: Mixing, palette: Palette): Middle {
  const look = (mix: readonly number[]): Triple =>
    palette.screen ? srgbToLab([mix[0], mix[1], mix[2]]) : palette.labOfMix(mix);
  const sorted = [...stops].sort((a, b) => a.offset - b.offset);
  let [dull, beyond, turn] = [0, 0, 0];
  for (let i = 1; i < sorted.length; i++) {
    const span = resolveRamp(
      {
        stops: [
          { ...sorted[i - 1], offset: 0, midpoint: 0.5 },
          { ...sorted[i], offset: 1 },
        ],
        mixing,
      },
      palette,
    );
    const [a, b] = [look(mixAt(span, 0)), look(mixAt(span, 1))];
    const [ca, cb] = [labToLch(a), labToLch(b)];
    if (ca[1] > 5 && cb[1] > 5) turn = Math.max(turn, Math.abs(((cb[2] - ca[2] + 540) % 360) - 180));
    for (let k = 1; k <= SAMPLES; k++) {
      const t = k / (SAMPLES + 1);
      const is = look(mixAt(span, t));
      const chroma = ca[1] + t * (cb[1] - ca[1]) - labToLch(is)[1];
      const dark = Math.min(a[0], b[0]) - is[0];
      dull = Math.max(dull, chroma, dark);
      if (mixing === 'ink') continue;
      const wanted = srgbToLab(mixLooks(mixing, labToSrgb(a), labToSrgb(b), t));
      beyond = Math.max(beyond, deltaE00(wanted, is));
    }
  }
  return { mixing, dull, beyond, turn };
}

/**
 * A mixture may print this far from what was asked for and still count as within reach (common practice: a tolerance of
 * proofs).
 */
const WITHIN = 3;
/** Round the circle further than this, colours come in that neither end has. */
const NO_RAINBOW = 100;
/** Less gain than this is not worth leaving ink for. */
const WORTH = 4;

/**
 * The way of mixing that keeps the middles cleanest without leaving what the profile can print, and without going round
 * the colour circle through colours that nobody chose. Where several do as well, the plainest.
 */
export function cleanest(list: readonly Middle[]): Middle {
  const fit = list.filter((m) => m.beyond <= WITHIN && (m.mixing !== 'oklch' || m.turn <= NO_RAINBOW));
  const from = fit.length ? fit : [...list];
  const least = Math.min(...from.map((m) => m.dull));
  return from.find((m) => m.dull <= least + WORTH)!;
}
