'use client';
import { Popover } from 'radix-ui';
import { useState } from 'react';
import { KeptStates } from './KeptStates';
import { useBench, useSession } from './session/context';
import { link } from '@/ui/link';

/**
 * The steps that can be taken back or done again, latest first, by name: press one to have the design as it was after
 * it.
 */
export function Earlier() {
  const session = useSession();
  const entries = useBench((s) => s.entries);
  const cursor = useBench((s) => s.cursor);
  const readOnly = useBench((s) => s.readOnly);
  const [open, setOpen] = useState(false);
  const row = (to: number, label: string) => (
    <li key={to}>
      <button
        type="button"
        aria-current={to === cursor ? 'step' : undefined}
        className={`flex w-full cursor-pointer items-center gap-2 border-0 border-l-3 px-3 py-1 text-left hover:bg-raised ${to === cursor ? 'border-l-accent bg-field font-semibold' : `border-l-transparent bg-transparent ${to > cursor ? 'text-faint' : ''}`}`}
        onClick={() => session.goTo(to)}
      >
        <span title={label} className="min-w-0 flex-1 truncate">
          {label}
        </span>
        {to === cursor && <span className="text-[12px] text-accent">now</span>}
        {to > cursor && <span className="text-[12px]">taken back</span>}
      </button>
    </li>
  );
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger asChild>
        <button type="button" data-opens="Earlier" disabled={readOnly} className={`${link} disabled:opacity-45`}>
          Earlier
        </button>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          side="top"
          align="start"
          sideOffset={6}
          collisionPadding={8}
          aria-label="Earlier states"
          style={{ boxShadow: 'var(--shadow)' }}
          className="z-40 flex max-h-[60dvh] w-[300px] flex-col rounded-sm border border-line bg-panel outline-none"
          onKeyDown={(e) => e.key !== 'Escape' && e.stopPropagation()}
        >
          <h2 className="m-0 px-3 pt-2 text-[13px] font-semibold">States under a name</h2>
          {open && <KeptStates onDone={() => setOpen(false)} />}
          <h2 className="m-0 border-b border-line px-3 py-2 text-[13px] font-semibold">Earlier states, latest first</h2>
          {entries.length === 0 ? (
            <p className="m-0 p-3 text-faint">
              Nothing was changed yet. Every step you take stands here, and stays here after a reload.
            </p>
          ) : (
            <ol className="m-0 min-h-0 flex-1 list-none overflow-auto p-0">
              {[...entries.map((e, i) => row(i + 1, e.label)).reverse(), row(0, 'Before the first of these steps')]}
            </ol>
          )}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
