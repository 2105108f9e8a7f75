'use client';
import { Copy, Download, Pencil, Trash2 } from 'lucide-react';
import { useState } from 'react';
import type { DesignRow } from '@/store/database';
import { Button } from '@/ui/Button';
import { Thumbnail } from './Thumbnail';

interface Props {
  readonly row: DesignRow;
  readonly size: string;
  readonly folder: string | undefined;
  readonly chosen: boolean;
  /** A tab of this browser has it open. */
  readonly open: boolean;
  readonly onChoose: (on: boolean) => void;
  readonly onRename: (name: string) => void;
  readonly onSave: () => void;
  readonly onDuplicate: () => void;
  readonly onRemove: () => void;
}

/** A design on the shelf: opened by its picture, chosen by its box, renamed where its name stands. */
export function DesignCard({
  row,
  size,
  folder,
  chosen,
  open,
  onChoose,
  onRename,
  onSave,
  onDuplicate,
  onRemove,
}: Props) {
  const [renaming, setRenaming] = useState(false);
  const named = (text: string) => {
    setRenaming(false);
    const name = text.trim();
    if (name && name !== row.name) onRename(name);
  };
  return (
    <li className={`group relative rounded-sm border bg-panel ${chosen ? 'border-accent' : 'border-line'}`}>
      <input
        type="checkbox"
        aria-label={`Choose ${row.name}`}
        checked={chosen}
        onChange={(e) => onChoose(e.target.checked)}
        className="absolute top-2 left-2 z-10 size-5 accent-accent not-checked:not-focus-visible:opacity-0 group-hover:opacity-100"
      />
      <a href={`/bench/${row.id}`} className="block no-underline">
        <Thumbnail
          bytes={row.thumbnail}
          name={row.name}
          width={row.width}
          height={row.height}
          round={row.round ?? false}
        />
        {!renaming && (
          <div className="px-3 pt-2">
            <div title={row.name} className="truncate font-semibold text-text">
              {row.name}
            </div>
            <div className="truncate text-faint" title={folder}>
              {open && <span className="font-semibold text-accent">open in a tab · </span>}
              {folder ? `${folder} · ${size}` : size}
            </div>
          </div>
        )}
      </a>
      {renaming && (
        <div className="px-3 pt-2 pb-[21px]">
          <input
            autoFocus
            aria-label="Name of the design"
            className="h-7 w-full rounded-sm border border-edge bg-field px-2"
            defaultValue={row.name}
            maxLength={200}
            onFocus={(e) => e.target.select()}
            onKeyDown={(e) => {
              if (e.key === 'Enter') named(e.currentTarget.value);
              if (e.key === 'Escape') setRenaming(false);
            }}
            onBlur={(e) => named(e.currentTarget.value)}
          />
        </div>
      )}
      <div className="flex justify-end gap-1 px-2 pb-2">
        <Button kind="quiet" aria-label={`Rename ${row.name}`} title="Rename" onClick={() => setRenaming(true)}>
          <Pencil size={15} aria-hidden />
        </Button>
        <Button kind="quiet" aria-label={`Save a copy of ${row.name}`} title="Save a copy as a file" onClick={onSave}>
          <Download size={15} aria-hidden />
        </Button>
        <Button kind="quiet" aria-label={`Duplicate ${row.name}`} title="Duplicate" onClick={onDuplicate}>
          <Copy size={15} aria-hidden />
        </Button>
        <Button kind="quiet" aria-label={`Remove ${row.name}`} title="Remove from the shelf" onClick={onRemove}>
          <Trash2 size={15} aria-hidden />
        </Button>
      </div>
    </li>
  );
}
