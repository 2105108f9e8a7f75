import type { Recipe } from '@/core/edit/history';
import { stopsOf } from '@/core/edit/paint';
import { changePool } from '@/core/edit/pools';
import type { Colour } from '@/core/model/schema';
import { freeSelection } from '../session/commandDef';
import type { Session } from '../session/session';
import { aimedGradient, aimedPools, withStops } from './gradientTarget';
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
    return stops[index] ? { what: 'Stop', count: stops.length, recipe: withStops(s, target, stops.map((x, i) => (i === index ? { ...x, colour } : x))) } : null;
  }
  const pools = aimedPools(s);
  return pools?.paint.pools[index] ? { what: 'Pool', count: pools.paint.pools.length, recipe: withPools(pools, (p) => changePool(p, index, { colour })) } : null;
}

/** The last bead of what is aimed at, where that is one gradient or one set of pools of its own that may be changed; null for anything else. */
export function lastBead(s: Session): number | null {
  if (!freeSelection(s).length) return null;
  const target = aimedGradient(s);
  // A shared ramp has other users: they are changed by a bead that was chosen, not by the way.
  if (target) return 'stops' in target.paint.ramp ? stopsOf(s.design, target.paint).length - 1 : null;
  const pools = aimedPools(s);
  return pools ? pools.paint.pools.length - 1 : null;
}
