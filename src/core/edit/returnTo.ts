import type { Design } from '../model/schema';
import type { DesignDraft } from './history';

/**
 * Makes a design what another state of it was: one step, in which only what differs is changed. Its id and its birth
 * stay.
 */
export function returnTo(d: DesignDraft, state: Design): void {
  const draft = d as unknown as Record<string, unknown>;
  const wanted = state as unknown as Record<string, unknown>;
  for (const key of new Set([...Object.keys(draft), ...Object.keys(wanted)])) {
    if (key === 'id' || key === 'created' || key === 'modified') continue;
    if (!(key in wanted)) delete draft[key];
    else if (key === 'nodes' || key === 'stories')
      byEntry(draft[key] as Record<string, unknown>, wanted[key] as Record<string, unknown>);
    else if (JSON.stringify(draft[key]) !== JSON.stringify(wanted[key])) draft[key] = wanted[key];
  }
}

/** Objects and stories one by one: what is as it was stays the very same. */
function byEntry(now: Record<string, unknown>, then: Record<string, unknown>): void {
  for (const id of Object.keys(now)) if (!(id in then)) delete now[id];
  for (const [id, value] of Object.entries(then))
    if (JSON.stringify(now[id]) !== JSON.stringify(value)) now[id] = value;
}
