import type { Palette } from '../colour/palette';
import type { ResolvedRamp } from '../colour/ramp';
import { applyVector, multiply } from '../geometry/matrix';
import { grainOf } from '../render/grain';
import { mm } from '../units/length';
import type { Leaf, Scene } from '../scene/scene';
import { walk } from '../scene/walk';

/** A step of tone wider than this shows as a band (common practice: 0.03 in). */
const SHOWS = mm(0.76);
/**
 * Tones that a plate can hold: eight bits, and about what a screen of 150 lines has at 2,400 dpi (common practice: (dpi
 * / lines)² + 1).
 */
const TONES = 255;
/** Grain of about one and a half steps hides the edge between two tones. */
const GRAIN_STEPS = 1.5;

export interface Banding {
  readonly steps: number;
  /** Points. */
  readonly length: number;
  readonly step: number;
  /** The grain that breaks such steps up, as a share of the ramp. */
  readonly grain: number;
}

/**
 * Where a gradient of a node changes so slowly that its steps would show in print; null if nowhere, or if grain breaks
 * them up.
 */
export function bandingOf(scene: Scene, node: string, palette: Palette): Banding | null {
  let found: Banding | null = null;
  walk(scene.root, (leaf) => {
    if (leaf.node === node) found = bandingIn(leaf, palette);
    return found === null;
  });
  return found;
}

/** The same for one leaf. */
export function bandingIn(leaf: Leaf, palette: Palette): Banding | null {
  const { paint } = leaf;
  if (palette.screen || paint.kind !== 'gradient' || paint.strokeMapping) return null;
  const along = applyVector(multiply(leaf.matrix, paint.geometry), { x: 1, y: 0 });
  const whole = Math.hypot(along.x, along.y);
  const found = widest(palette.ramp(paint.ramp), whole);
  if (!found || found.step < SHOWS) return null;
  const grain = Math.min(0.2, (GRAIN_STEPS * found.step) / Math.max(whole, 1e-6));
  return grainOf(paint, palette.ramp(paint.ramp)) >= grain * 0.6 ? null : { ...found, grain };
}

/** The part of a ramp whose tones are widest; parts in which hardly anything changes have no bands to see. */
function widest(ramp: ResolvedRamp, whole: number): Omit<Banding, 'grain'> | null {
  let best: Omit<Banding, 'grain'> | null = null;
  const { stops } = ramp;
  for (let i = 1; i < stops.length; i++) {
    const [a, b] = [stops[i - 1], stops[i]];
    const length = (b.offset - a.offset) * whole;
    const steps = Math.max(...a.mix.map((v, k) => Math.abs(b.mix[k] - v))) * TONES;
    if (steps < 4 || length <= 0) continue;
    const step = length / steps;
    if (!best || step > best.step) best = { steps, length, step };
  }
  return best;
}
