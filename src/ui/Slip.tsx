'use client';
import { Popover } from 'radix-ui';
import type { ReactNode } from 'react';

/** A sheet that hangs from the ticket (or from the tray). */
export function Slip({
  title,
  trigger,
  children,
  width = 320,
  side = 'bottom',
  aside = false,
  open,
  onOpenChange,
}: {
  title: string;
  trigger: ReactNode;
  children: ReactNode;
  width?: number;
  side?: 'top' | 'bottom';
  /** It hangs over the pile, whatever it was opened by: the sheet stays in sight. */
  aside?: boolean;
  open?: boolean;
  onOpenChange?: (open: boolean) => void;
}) {
  return (
    <Popover.Root {...(open === undefined ? {} : { open })} {...(onOpenChange ? { onOpenChange } : {})}>
      <Popover.Trigger asChild>{trigger}</Popover.Trigger>
      {aside && <Popover.Anchor className="pointer-events-none fixed top-12 left-16 size-0" />}
      <Popover.Portal>
        <Popover.Content
          side={side}
          align="start"
          sideOffset={side === 'bottom' ? 2 : 6}
          collisionPadding={8}
          aria-label={title}
          style={{
            width,
            boxShadow: 'var(--shadow)',
            maxHeight: 'min(calc(100dvh - 80px), var(--radix-popover-content-available-height))',
          }}
          className="z-40 overflow-auto rounded-b-sm border border-line bg-panel p-4 outline-none"
          onKeyDown={(e) => e.stopPropagation()}
          // Who is already somewhere else by then stays there.
          onCloseAutoFocus={(e) => {
            if (document.activeElement && document.activeElement !== document.body) e.preventDefault();
          }}
        >
          <h2 className="m-0 mb-3 text-[15px] font-semibold">{title}</h2>
          {children}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
