'use client';
import { useEffect } from 'react';

/** When a page has rested this long, what is not urgent may be fetched. */
const REST_MS = 8000;

/** Makes the program work without a network once it was loaded (scripts/sw.template.js). Nothing is shown. */
export function Offline() {
  useEffect(() => {
    if (process.env.NODE_ENV !== 'production' || !('serviceWorker' in navigator)) return;
    let timer: ReturnType<typeof setTimeout>;
    void navigator.serviceWorker
      .register('/sw.js', { updateViaCache: 'none' })
      .then(() => navigator.serviceWorker.ready)
      .then((r) => {
        timer = setTimeout(() => r.active?.postMessage('rest'), REST_MS);
      })
      // A browser that does not allow it works as ever, with a network.
      .catch(() => {});
    return () => clearTimeout(timer);
  }, []);
  return null;
}
