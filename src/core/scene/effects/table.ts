import type { Effect } from '../../model/effects';
import type { EffectRow, EffectRows } from './effect';
import { shadow } from './shadow';

/** One row a kind. */
const EFFECTS = { shadow } satisfies EffectRows;

/** What is known of an effect’s kind. */
export const effectRow = (e: Effect): EffectRow<Effect> => EFFECTS[e.kind];
