'use client';
import { useState, type ReactNode } from 'react';
import { Slip } from '@/ui/Slip';
import { link } from '@/ui/link';

/** A word of the tray that opens a slip above it. What the slip holds is made when it opens. */
export function TraySlip({
  word,
  opens = word,
  title,
  width,
  children,
}: {
  word: string;
  /** What it is found by, where its word changes. */ opens?: string;
  title: string;
  width: number;
  children: ReactNode;
}) {
  const [open, setOpen] = useState(false);
  return (
    <Slip
      title={title}
      side="top"
      width={width}
      open={open}
      onOpenChange={setOpen}
      trigger={
        <button type="button" data-opens={opens} className={`${link} text-left`}>
          {word}
        </button>
      }
    >
      {children}
    </Slip>
  );
}
