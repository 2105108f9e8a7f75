import { pageById } from '@/core/model/tree';
import type { Aim } from '@/core/edit/aims';
import type { Design } from '@/core/model/schema';
import type { BenchState } from './state';

/**
 * What a step in the interface changes of the state, and nothing else. All that follows from it is said here, in one
 * place.
 */
export type Change = { -readonly [K in keyof BenchState]?: BenchState[K] };

/** What only these reducers write: much hangs on it. */
export type Guarded = 'selection' | 'entered' | 'isolated';

/** Chooses objects. A pivot belongs to what was chosen when it was put there, chosen nodes to their paths. */
export function select(s: BenchState, selection: readonly string[]): Change {
  const others = selection.some((id, i) => id !== s.selection[i]);
  return {
    selection,
    ...(s.pivot && (others || selection.length !== s.selection.length) ? { pivot: null } : {}),
    ...(s.nodes.length > 0 && others ? { nodes: [] } : {}),
  };
}

/** Goes into what holds other objects. */
export function enter(s: BenchState, holder: string, selection: readonly string[]): Change {
  return { ...select(s, selection), entered: holder, stop: null };
}

/** Comes out as far as `to`, null: all the way; what was isolated is so no more. */
export function leave(s: BenchState, to: string | null): Change {
  return { entered: to, ...(to === null && s.isolated && { isolated: false }) };
}

/** Shows only what the entered holder holds; or all again. */
export const isolate = (isolated: boolean): Change => ({ isolated });

/** Sends colours to a part; of a gradient, to one of its stops. */
export const aimAt = (aim: Aim, stop: number | null): Change => ({ aim, stop });

export function showPage(s: BenchState, page: string): Change {
  return { ...select(s, []), ...leave(s, null), page, editing: null, stop: null, groundOn: null };
}

/** What of page, selection and writing goes on in another state of the design. */
export function goOn(s: BenchState, design: Design, wanted?: readonly string[]): Change {
  const { page, selection, editing, entered, nodes, pen, crop } = s;
  const alive = (wanted ?? selection).filter((id) => design.nodes[id]);
  return {
    ...(wanted || alive.length !== selection.length ? select(s, alive) : {}),
    ...(nodes.some((n) => !design.nodes[n.object]) ? { nodes: nodes.filter((n) => design.nodes[n.object]) } : {}),
    ...(pen && !design.nodes[pen.object] ? { pen: null } : {}),
    ...(pageById(design, page) ? {} : { page: design.pages[0].id }),
    ...(editing && !design.nodes[editing.node] ? { editing: null } : {}),
    ...(entered && !design.nodes[entered] ? leave(s, null) : {}),
    ...(crop && !design.nodes[crop.node] ? { crop: null } : {}),
  };
}
