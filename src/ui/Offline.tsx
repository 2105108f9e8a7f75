'use client';
import { useEffect } from 'react';
import { calm } from '@/env/calm';

/**
 * When nothing was done on a page for so long, what is not urgent may be fetched; and after so long however busy it is.
 */
const REST_MS = 4000;
const LATEST_MS = 120_000;

/**
 * Makes the program work without a network once it was loaded (scripts/sw.template.js). Nothing is shown. The browser
 * takes seconds of work for what it keeps: it waits until the person rests.
 */
export function Offline() {
  useEffect(() => {
    if (process.env.NODE_ENV !== 'production' || !('serviceWorker' in navigator)) return;
    void (async () => {
      await calm(REST_MS, LATEST_MS);
      await navigator.serviceWorker.register('/sw.js', { updateViaCache: 'none' });
      const { active } = await navigator.serviceWorker.ready;
      await calm(REST_MS, LATEST_MS);
      active?.postMessage('rest');
    })().catch(() => {
      // A browser that does not allow it works as ever, with a network.
    });
  }, []);
  return null;
}
