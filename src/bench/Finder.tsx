'use client';
import { Command } from 'cmdk';
import { Dialog } from 'radix-ui';
import { backToBench } from './session/focus';
import { useSession } from './session/context';
import { COMMAND_IDS, COMMAND_TABLE } from './session/commands';
import { keyText } from './session/keys';

/** Every action by everyday and trade words alike, with its keys beside it. */
export function Finder({ open, onOpenChange }: { open: boolean; onOpenChange: (open: boolean) => void }) {
  const session = useSession();
  return (
    <Dialog.Root open={open} onOpenChange={onOpenChange}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-black/25" />
        <Dialog.Content onCloseAutoFocus={backToBench} style={{ boxShadow: 'var(--shadow)' }} aria-describedby={undefined} className="fixed top-20 left-1/2 z-50 w-[460px] max-w-[92vw] -translate-x-1/2 overflow-hidden rounded-sm border border-line bg-panel">
          <Dialog.Title className="sr-only">Find a command</Dialog.Title>
          <Command label="Find a command" loop>
            <Command.Input autoFocus placeholder="Find a command: group, front, overprint …" className="h-10 w-full border-b border-line bg-field px-3 outline-none" />
            <Command.List className="max-h-80 overflow-auto p-1">
              <Command.Empty className="p-3 text-faint">Nothing is called that. Try another word.</Command.Empty>
              {COMMAND_IDS.map((id) => {
                const c = COMMAND_TABLE[id];
                const able = !c.applies || c.applies(session);
                return (
                  <Command.Item
                    key={id}
                    value={c.label}
                    keywords={[...c.keywords]}
                    disabled={!able}
                    onSelect={() => {
                      onOpenChange(false);
                      // After the dialog has given the focus back.
                      setTimeout(() => c.run(session), 0);
                    }}
                    className="flex h-8 cursor-pointer items-center justify-between rounded-sm px-2 aria-disabled:opacity-40 aria-selected:bg-accent aria-selected:text-on-accent"
                  >
                    <span>{c.label}</span>
                    <span>{c.keys[0] ? keyText(c.keys[0]) : ''}</span>
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
