import { setGround } from '@/core/edit/masters';
import type { Recipe } from '@/core/edit/history';
import { rampOf } from '@/core/edit/paint';
import { NO_PAINT, colourPaint } from '@/core/model/defaults';
import type { Colour, Page, Paint } from '@/core/model/schema';
import { groundOf, mastersOf } from '@/core/model/tree';
import type { Session } from './session';

/** Does what is coloured go to the ground? Only while nothing else is chosen. */
export const aimsAtGround = (s: Session): boolean => s.state.aim === 'ground' && s.state.selection.length === 0;

/** Whose ground is changed: this page's, unless one of its masters was chosen by its name. */
export function groundSheet(s: Session): Page {
  const { page, design } = s;
  return mastersOf(design, page).find((m) => m.id === s.state.groundOn) ?? page;
}

/** The ground that is seen where it is changed. */
export const shownGround = (s: Session): Paint => groundOf(s.design, groundSheet(s))?.paint ?? NO_PAINT;

/** Colours from this number of a bead on are those of the pattern over the ground. */
export const PATTERN_BEADS = 1000;

/** Gives the ground a colour: of a gradient or of pools the bead that is chosen, or the last one. */
export function withGroundColour(s: Session, colour: Colour): Recipe {
  const sheet = groundSheet(s).id;
  const old = shownGround(s);
  const { stop } = s.state;
  const pattern = groundOf(s.design, groundSheet(s))?.pattern;
  if (pattern && stop !== null && stop >= PATTERN_BEADS) {
    const paints = pattern.paints.map((p, i) => (i === stop - PATTERN_BEADS ? { ...p, colour } : p));
    return (d) => setGround(d, sheet, old, { ...pattern, paints });
  }
  if (old.kind === 'gradient') {
    const ramp = rampOf(s.design, old);
    const at = Math.min(stop ?? Infinity, ramp.stops.length - 1);
    const stops = ramp.stops.map((x, i) => (i === at ? { ...x, colour } : x));
    return (d) => setGround(d, sheet, { ...old, ramp: { stops, ...(ramp.mixing && { mixing: ramp.mixing }) } });
  }
  if (old.kind === 'pools') {
    const at = Math.min(stop ?? Infinity, old.pools.length - 1);
    return (d) => setGround(d, sheet, { ...old, pools: old.pools.map((p, i) => (i === at ? { ...p, colour } : p)) });
  }
  return (d) => setGround(d, sheet, colourPaint(colour));
}
