'use client';
import { Component, type ReactNode } from 'react';
import { Button } from '@/ui/Button';
import { Notice } from '@/ui/Notice';
import type { Session } from './session/session';
import { saving } from './session/saving';

/** When the bench itself breaks, the design does not: it can be saved, and the bench set up afresh. */
export class BenchBoundary extends Component<{ session: Session; children: ReactNode }, { failed: string | null }> {
  override state: { failed: string | null } = { failed: null };

  static getDerivedStateFromError(e: unknown): { failed: string } {
    return { failed: e instanceof Error ? e.message : String(e) };
  }

  override render(): ReactNode {
    if (this.state.failed === null) return this.props.children;
    const { design } = this.props.session.state;
    return (
      <Notice
        title="The bench stumbled"
        text={`Your design is safe; only its display failed (${this.state.failed}). Save a copy, then set the bench up again.`}
        action={{ label: 'Go to the shelf', href: '/' }}
      >
        <Button onClick={() => void saving.get().then((m) => m.saveCopy(design))}>Save a copy</Button>
        <Button onClick={() => location.reload()}>Set up again</Button>
      </Notice>
    );
  }
}
