'use client';
import { useState, type ReactNode } from 'react';
import { Slip } from '@/ui/Slip';

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
        <button
          type="button"
          data-opens={opens}
          className="cursor-pointer border-0 bg-transparent p-0 text-left key-line hover:text-accent"
        >
          {word}
        </button>
      }
    >
      {children}
    </Slip>
  );
}
