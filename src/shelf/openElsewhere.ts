import { useEffect, useState } from 'react';

/** How often is looked: another tab that opens or closes a design says nothing of it. */
const EVERY_MS = 3000;

/** The designs that tabs of this browser hold open, by id. */
export function useOpenDesigns(): ReadonlySet<string> {
  const [open, setOpen] = useState<ReadonlySet<string>>(new Set());
  useEffect(() => {
    if (!('locks' in navigator)) return;
    const look = async () => {
      if (document.hidden) return;
      const { held = [] } = await navigator.locks.query();
      const ids = held.flatMap((l) => (l.name?.startsWith('holvet:') ? [l.name.slice(7)] : []));
      setOpen((now) => (ids.length === now.size && ids.every((id) => now.has(id)) ? now : new Set(ids)));
    };
    const soon = () => void look().catch(() => {});
    soon();
    const timer = setInterval(soon, EVERY_MS);
    document.addEventListener('visibilitychange', soon);
    return () => {
      clearInterval(timer);
      document.removeEventListener('visibilitychange', soon);
    };
  }, []);
  return open;
}
