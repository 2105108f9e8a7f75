'use client';
import { Dialog } from 'radix-ui';
import { useState } from 'react';
import { backToBench } from './session/focus';
import { COMMAND_IDS, COMMAND_TABLE } from './commands/commands';
import { keyText } from './commands/keys';
import { Button } from '@/ui/Button';

const HELD: readonly [string, string][] = [
  ['Shift', 'keeps proportion, holds to steps of angle'],
  [
    'Alt',
    'from the centre; copies while moving or turning; one corner, one handle alone; only what lies wholly in the box',
  ],
  ['Ctrl or Cmd', 'suspends snapping'],
  ['Space', 'moves the sheet'],
  ['. (full stop)', 'shows the reference alone while it is held'],
  ['Button held still', 'lists what lies under the pointer'],
  [
    'Enter',
    'writes in a text or a closed shape, goes into a group; ends the pen’s line; draws in the middle of the page',
  ],
  ['Esc', 'one step out'],
];

/** In the order of the work: which commands, by the beginnings of their ids. */
const GROUPS: readonly { readonly title: string; readonly of: readonly string[] }[] = [
  { title: 'Tools', of: ['tool.'] },
  { title: 'Choosing', of: ['edit.select', 'select.'] },
  { title: 'Copying and taking back', of: ['edit.'] },
  { title: 'Moving and turning', of: ['nudge.', 'object.turn', 'object.flip'] },
  { title: 'Order, groups and combining', of: ['object.', 'layer.', 'combine.'] },
  { title: 'Nodes', of: ['nodes.'] },
  { title: 'Pages and views', of: ['page.', 'view.'] },
  { title: 'All else', of: [''] },
];

function keyGroups(query: string): { title: string; rows: { keys: string; what: string }[] }[] {
  const wanted = query.trim().toLowerCase();
  const taken = new Set<string>();
  const made = GROUPS.map(({ title, of }) => ({
    title,
    rows: COMMAND_IDS.filter(
      (id) => COMMAND_TABLE[id].keys.length && !taken.has(id) && of.some((o) => id.startsWith(o)),
    ).map((id) => {
      taken.add(id);
      return { keys: COMMAND_TABLE[id].keys.map(keyText).join(', '), what: COMMAND_TABLE[id].label };
    }),
  }));
  const held = { title: 'Held, or pressed by themselves', rows: HELD.map(([keys, what]) => ({ keys, what })) };
  return [held, ...made]
    .map((g) => ({ ...g, rows: g.rows.filter((r) => !wanted || `${r.what} ${r.keys}`.toLowerCase().includes(wanted)) }))
    .filter((g) => g.rows.length);
}

export function KeysSheet({ open, onOpenChange }: { open: boolean; onOpenChange: (open: boolean) => void }) {
  const [query, setQuery] = useState('');
  const groups = keyGroups(query);
  return (
    <Dialog.Root open={open} onOpenChange={onOpenChange}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-black/25" />
        <Dialog.Content
          onCloseAutoFocus={backToBench}
          style={{ boxShadow: 'var(--shadow)' }}
          aria-describedby={undefined}
          className="fixed top-1/2 left-1/2 z-50 max-h-[88dvh] w-[640px] max-w-[94vw] -translate-x-1/2 -translate-y-1/2 overflow-auto rounded-sm border border-line bg-panel p-5"
        >
          <Dialog.Title className="m-0 mb-3 text-[17px] font-semibold">Keys</Dialog.Title>
          <input
            aria-label="Search the keys"
            placeholder="Search: group, nudge, Ctrl+D …"
            className="mb-3 h-8 w-full rounded-sm border border-edge bg-field px-2 outline-none focus:border-accent"
            value={query}
            onChange={(e) => setQuery(e.target.value)}
          />
          <div className="columns-2 gap-6">
            {groups.map(({ title, rows }) => (
              <section key={title} className="mb-3 break-inside-avoid-column">
                <h3 className="m-0 text-[12px] font-semibold text-faint">{title}</h3>
                <dl className="m-0">
                  {rows.map((r) => (
                    <Row key={r.what} {...r} />
                  ))}
                </dl>
              </section>
            ))}
          </div>
          {!groups.length && (
            <p className="m-0 text-faint">No key does that. Find a command ({keyText('Mod+K')}) knows what has none.</p>
          )}
          <div className="mt-4 text-right">
            <Dialog.Close asChild>
              <Button>Close</Button>
            </Dialog.Close>
          </div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

function Row({ keys, what }: { keys: string; what: string }) {
  return (
    <div className="flex break-inside-avoid justify-between gap-3 border-b border-line py-1">
      <dt>{what}</dt>
      <dd className="m-0 shrink-0 text-faint">{keys}</dd>
    </div>
  );
}
