'use client';
import { Command } from 'cmdk';
import { Dialog } from 'radix-ui';
import { useLayoutEffect, useMemo, useRef, useState } from 'react';
import { found } from './finder/rank';
import { finderRows, type FinderRow } from './finder/rows';
import { backToBench } from './session/focus';
import { useSession } from './session/context';

const KIND_WORDS = {
  command: '',
  field: 'field',
  part: 'in Details',
  place: 'opens',
  file: 'hand over',
  'not here': 'not here yet',
} as const;
/** More answers than this are no answer. */
const MOST = 60;

/** Every action, tool, field, view and file by everyday and trade words alike, with its keys beside it. */
export function Finder({ open, onOpenChange }: { open: boolean; onOpenChange: (open: boolean) => void }) {
  const session = useSession();
  const [query, setQuery] = useState('');
  // A quick hand chooses the next before what was chosen first has run: none is lost.
  const chosen = useRef<FinderRow[]>([]);
  const opened = useRef(open);
  useLayoutEffect(() => {
    opened.current = open;
  }, [open]);
  const rows = useMemo(
    () => (open ? found(query, finderRows()).slice(0, query.trim() ? MOST : undefined) : []),
    [open, query],
  );
  return (
    <Dialog.Root
      open={open}
      onOpenChange={(on) => {
        onOpenChange(on);
        setQuery('');
      }}
    >
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-black/25" />
        <Dialog.Content
          onCloseAutoFocus={(e) => {
            // First the bench top has the focus again, then what was found takes it where it belongs. This comes a
            // little after the closing: a quick hand has opened it again by then, and is writing in it.
            if (opened.current) e.preventDefault();
            else backToBench(e);
            const rows = chosen.current.splice(0);
            setTimeout(() => rows.forEach((row) => row.run(session)), 0);
          }}
          style={{ boxShadow: 'var(--shadow)' }}
          aria-describedby={undefined}
          className="fixed top-20 left-1/2 z-50 w-[460px] max-w-[92vw] -translate-x-1/2 overflow-hidden rounded-sm border border-line bg-panel"
        >
          <Dialog.Title className="sr-only">Find a command</Dialog.Title>
          <Command label="Find a command" loop shouldFilter={false}>
            <Command.Input
              autoFocus
              value={query}
              onValueChange={setQuery}
              placeholder="What do you want to do? hole, rounder, pdf …"
              className="h-10 w-full border-b border-line bg-field px-3 outline-none"
            />
            <Command.List className="max-h-80 overflow-auto p-1">
              <Command.Empty className="p-3 text-faint">Nothing is called that. Try another word.</Command.Empty>
              {rows.map((row) => {
                const able = !row.applies || row.applies(session);
                return (
                  <Command.Item
                    key={row.id}
                    value={row.id}
                    disabled={!able}
                    title={able ? undefined : 'Choose something that this can be done to first'}
                    onSelect={() => {
                      chosen.current.push(row);
                      onOpenChange(false);
                      setQuery('');
                    }}
                    className="flex h-8 cursor-pointer items-center justify-between gap-3 rounded-sm px-2 aria-disabled:opacity-40 aria-selected:bg-accent aria-selected:text-on-accent"
                  >
                    <span title={row.title} className="truncate">
                      {row.title}
                    </span>
                    <span className="shrink-0 text-[12px]">{row.keys ?? KIND_WORDS[row.kind]}</span>
                  </Command.Item>
                );
              })}
            </Command.List>
          </Command>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
