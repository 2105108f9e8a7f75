'use client';
import { useCallback, useEffect, useState } from 'react';
import { openEngines, equip, type Engines } from '@/core/engines';
import { storeEnv } from '@/store/storeEnv';
import { designStore, storageProblem } from '@/store/open';
import { PictureClient } from '@/workers/pictureClient';
import { PressClient } from '@/workers/pressClient';
import { afterPaint, firstPaint } from './afterPaint';
import { Session } from './session';
import { loadLibraries } from './libraries';

export type SessionState =
  | { readonly kind: 'loading'; readonly doing: string }
  | { readonly kind: 'open'; readonly session: Session }
  | { readonly kind: 'unknown' }
  | { readonly kind: 'broken' }
  | { readonly kind: 'storage'; readonly why: string }
  | { readonly kind: 'engine'; readonly why: string };

let engines: Promise<Engines> | null = null;
const kept = afterPaint(() => import('./loadSettings').then((m) => m.loadSettings));

/** The page's engines, shared by all designs that it opens; a failure is not remembered. */
function pageWorkshop(): Promise<Engines> {
  engines ??= openEngines(storeEnv, { pictures: false }).catch((e: unknown) => {
    engines = null;
    throw e;
  });
  return engines;
}

/** Holds the design for this tab; resolves to false when another tab has it. The release ends the hold. */
function takeLock(id: string, steal: boolean, onStolen: () => void): { got: Promise<boolean>; release: () => void } {
  let release = () => {};
  const until = new Promise<void>((resolve) => {
    release = resolve;
  });
  if (!('locks' in navigator)) return { got: Promise.resolve(true), release };
  const got = new Promise<boolean>((resolve) => {
    navigator.locks
      .request(`holvet:${id}`, steal ? { steal: true } : { ifAvailable: true }, async (lock) => {
        resolve(lock !== null);
        if (lock) await until;
      })
      .catch(() => onStolen());
  });
  return { got, release };
}

/** The design that the address names: without a network the page itself may have been made for another. */
export function addressed(): string {
  const last = location.pathname.split('/').pop() ?? '';
  try {
    return decodeURIComponent(last);
  } catch {
    return last; // no id that anything has
  }
}

/**
 * Opens a design: engines, the kept state, the hold on it. `again` starts over; with `steal` it takes the hold from
 * another tab.
 */
export function useDesignSession(given: string): { state: SessionState; again: (steal?: boolean) => void } {
  const [state, setState] = useState<SessionState>({ kind: 'loading', doing: 'Fetching the design' });
  const [attempt, setAttempt] = useState({ n: 0, steal: false });

  useEffect(() => {
    const id = addressed();
    let alive = true;
    let session: Session | null = null;
    const lock = takeLock(id, attempt.steal, () => session?.becomeReadOnly());
    const put = (s: SessionState) => {
      if (alive) setState(s);
    };
    void (async () => {
      const designs = designStore();
      const holds = await lock.got;
      let loaded;
      try {
        loaded = await designs.load(id);
      } catch (e) {
        put({ kind: 'storage', why: storageProblem(e) });
        return;
      }
      if (!loaded.ok) {
        put({ kind: loaded.reason });
        return;
      }
      put({ kind: 'loading', doing: 'Setting up the press' });
      try {
        const engines = await pageWorkshop();
        await equip(engines, loaded.value.design);
        if (!alive) return;
        const made = new Session(loaded.value, engines, designs, new PressClient(), new PictureClient(), !holds);
        session = made;
        void firstPaint.then(() => kept.get()).then((load) => load(made));
        void loadLibraries(made);
        put({ kind: 'open', session: made });
      } catch (e) {
        put({ kind: 'engine', why: e instanceof Error ? e.message : String(e) });
      }
    })();
    return () => {
      alive = false;
      const open = session;
      // What is still being written keeps the hold until it is kept.
      void (open ? open.settled() : Promise.resolve()).then(() => {
        open?.dispose();
        lock.release();
      });
    };
  }, [given, attempt]);

  const again = useCallback((steal = false) => {
    setState({ kind: 'loading', doing: 'Fetching the design' });
    setAttempt((a) => ({ n: a.n + 1, steal }));
  }, []);
  return { state, again };
}
