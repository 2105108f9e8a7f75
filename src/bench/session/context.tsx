'use client';
import { createContext, useContext, type ReactNode } from 'react';
import { useStore } from 'zustand';
import type { Session } from './session';
import type { BenchState } from './state';

const SessionContext = createContext<Session | null>(null);

export function SessionProvider({ session, children }: { session: Session; children: ReactNode }) {
  return <SessionContext value={session}>{children}</SessionContext>;
}

export function useSession(): Session {
  const session = useContext(SessionContext);
  if (!session) throw new Error('no design is open here');
  return session;
}

/** A stored value; derived values come from what this returns, not from the selector. */
export function useBench<T>(select: (s: BenchState) => T): T {
  return useStore(useSession().store, select);
}
