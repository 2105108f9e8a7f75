'use client';
import { createContext, useContext, type ReactNode } from 'react';
import { useStore } from 'zustand';
import type { StoreApi } from 'zustand/vanilla';
import type { Design } from '@/core/model/schema';
import type { Session } from './session';
import { calmDesign, type BenchState } from './state';

const SessionContext = createContext<Session | null>(null);
/** Where the state is read; absent: the session's own. */
export const StateContext = createContext<StoreApi<BenchState> | null>(null);

export function SessionProvider({ session, children }: { session: Session; children: ReactNode }) {
  return <SessionContext value={session}>{children}</SessionContext>;
}

export function useSession(): Session {
  const session = useContext(SessionContext);
  if (!session) throw new Error('no design is open here');
  return session;
}

/**
 * The shown design, for what depends on how things lie and not on how colours look: it is drawn again when nodes,
 * stories, pages or the format change, and left alone while a swatch's slider moves.
 */
export function usePlacedDesign(): Design {
  const session = useSession();
  useBench((s) => calmDesign(s).nodes);
  useBench((s) => calmDesign(s).stories);
  useBench((s) => calmDesign(s).pages);
  useBench((s) => calmDesign(s).setup);
  // Names of swatches and what is kept of them are told when they are kept.
  useBench((s) => s.design);
  return calmDesign(session.state);
}

/** A stored value; derived values come from what this returns, not from the selector. */
export function useBench<T>(select: (s: BenchState) => T): T {
  const { store } = useSession();
  return useStore(useContext(StateContext) ?? store, select);
}
