'use client';
import { Dialog } from 'radix-ui';
import { backToBench } from './session/focus';
import { COMMAND_IDS, COMMAND_TABLE } from './session/commands';
import { keyText } from './session/keys';
import { Button } from '@/ui/Button';

const HELD: readonly [string, string][] = [
  ['Shift', 'keeps proportion, holds to steps of angle'],
  ['Alt', 'from the centre; copies while moving or turning; one corner, one handle alone; only what lies wholly in the box'],
  ['Ctrl or Cmd', 'suspends snapping'],
  ['Space', 'moves the sheet'],
  ['Button held still', 'lists what lies under the pointer'],
  ['Enter', 'writes in a text or a closed shape, goes into a group; ends the pen’s line; draws in the middle of the page'],
  ['Esc', 'one step out'],
];

export function KeysSheet({ open, onOpenChange }: { open: boolean; onOpenChange: (open: boolean) => void }) {
  return (
    <Dialog.Root open={open} onOpenChange={onOpenChange}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-black/25" />
        <Dialog.Content onCloseAutoFocus={backToBench} style={{ boxShadow: 'var(--shadow)' }} aria-describedby={undefined} className="fixed top-1/2 left-1/2 z-50 max-h-[88dvh] w-[640px] max-w-[94vw] -translate-x-1/2 -translate-y-1/2 overflow-auto rounded-sm border border-line bg-panel p-5">
          <Dialog.Title className="m-0 mb-3 text-[17px] font-semibold">Keys</Dialog.Title>
          <dl className="m-0 columns-2 gap-6">
            {HELD.map(([k, what]) => (
              <Row key={k} keys={k} what={what} />
            ))}
            {COMMAND_IDS.filter((id) => COMMAND_TABLE[id].keys.length).map((id) => (
              <Row key={id} keys={COMMAND_TABLE[id].keys.map(keyText).join(', ')} what={COMMAND_TABLE[id].label} />
            ))}
          </dl>
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
