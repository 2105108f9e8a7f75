import { useEffect, useEffectEvent } from 'react';

/** What was done is shown first; small pictures of it follow. */
const LATER_MS = 120;

/** Runs a little after something changed, once it has stopped changing. */
export function useLater(run: () => void, changed: readonly unknown[]): void {
  const event = useEffectEvent(run);
  useEffect(() => {
    const later = setTimeout(event, LATER_MS);
    return () => clearTimeout(later);
    // The list is the caller's own.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, changed);
}
