'use client';
import { Dialog } from 'radix-ui';
import { Button } from '@/ui/Button';
import { count } from '../session/commandDef';
import { useBench, useSession } from '../session/context';
import { backToBench } from '../session/focus';

/** What of a drawing could not be kept as it was: told once, when it is placed. */
export function ImportReport() {
  const session = useSession();
  const report = useBench((s) => s.report);
  return (
    <Dialog.Root open={report !== null} onOpenChange={(on) => !on && session.set({ report: null })}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-black/25" />
        <Dialog.Content
          onCloseAutoFocus={backToBench}
          onKeyDown={(e) => e.stopPropagation()}
          style={{ boxShadow: 'var(--shadow)' }}
          className="fixed top-24 left-1/2 z-50 flex max-h-[70dvh] w-[460px] -translate-x-1/2 flex-col rounded-sm border border-line bg-panel p-4 outline-none"
        >
          <Dialog.Title className="m-0 mb-1 text-[15px] font-semibold">{report?.title} is placed</Dialog.Title>
          <Dialog.Description className="mt-0 mb-3 text-faint">
            {count(report?.notes.length ?? 0, 'thing')} could not be kept as in the file. Everything else is on the page
            and can be changed.
          </Dialog.Description>
          <ul className="m-0 min-h-0 flex-1 list-disc overflow-auto pl-5">
            {report?.notes.map((n) => (
              <li key={n} className="mb-1">
                {n}
              </li>
            ))}
          </ul>
          <Dialog.Close asChild>
            <Button kind="primary" className="mt-3 self-end">
              Go on
            </Button>
          </Dialog.Close>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
