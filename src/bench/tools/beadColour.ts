import type { Recipe } from '@/core/edit/history';
import { rampOf, setPaint, stopsOf } from '@/core/edit/paint';
import { changePool } from '@/core/edit/pools';
import type { Colour } from '@/core/model/schema';
import { freeSelection } from '../session/commandDef';
import type { Session } from '../session/session';
import { aimedGradient, aimedPools, mixingFor, withStops } from './gradientTarget';
import { withPools } from './pools';

export interface BeadColour {
  readonly what: 'Stop' | 'Pool';
  readonly count: number;
  readonly recipe: Recipe;
}

/** Another colour for a stop or a pool of what is aimed at; null where there is none. */
export function withBeadColour(s: Session, index: number, colour: Colour): BeadColour | null {
  const target = aimedGradient(s);
  if (target) {
    const stops = stopsOf(s.design, target.paint);
    return stops[index]
      ? {
          what: 'Stop',
          count: stops.length,
          recipe: withStops(
            s,
            target,
            stops.map((x, i) => (i === index ? { ...x, colour } : x)),
          ),
        }
      : null;
  }
  const pools = aimedPools(s);
  return pools?.paint.pools[index]
    ? {
        what: 'Pool',
        count: pools.paint.pools.length,
        recipe: withPools(pools, (p) => changePool(p, index, { colour })),
      }
    : null;
}

/**
 * The last bead of what is aimed at in another colour, where that is one gradient or one set of pools. A ramp that
 * others use too is left as it is: what is chosen gets stops of its own. Null where there is no such bead, or nothing
 * may be changed.
 */
export function withLastBead(s: Session, colour: Colour): (BeadColour & { readonly index: number }) | null {
  if (!freeSelection(s).length) return null;
  const target = aimedGradient(s);
  const index = target ? stopsOf(s.design, target.paint).length - 1 : (aimedPools(s)?.paint.pools.length ?? 0) - 1;
  const bead = index < 0 ? null : withBeadColour(s, index, colour);
  if (!bead || !target || 'stops' in target.paint.ramp) return bead && { ...bead, index };
  const ramp = rampOf(s.design, target.paint);
  const stops = ramp.stops.map((x, i) => (i === index ? { ...x, colour } : x));
  const mixing = mixingFor(s.palette, ramp, stops);
  return {
    ...bead,
    index,
    recipe: (d) =>
      setPaint(d, target.nodes, target.aim, (old) =>
        old.kind === 'gradient' ? { ...old, ramp: { stops, ...(mixing && { mixing }) } } : old,
      ),
  };
}
