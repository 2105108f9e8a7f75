'use client';
import { Search } from 'lucide-react';
import { useState } from 'react';
import { Button } from '@/ui/Button';
import { ListChoice } from '@/ui/Choice';
import { SORTS, type Sort } from './shelfOrder';

interface Looking {
  readonly query: string;
  readonly sort: Sort;
  /** Null: all; empty: those in none. */
  readonly folder: string | null;
}

/** Searching, sorting and folders. */
export function ShelfBar({
  looking,
  folders,
  onLook,
}: {
  looking: Looking;
  folders: readonly string[];
  onLook: (next: Partial<Looking>) => void;
}) {
  const { query, sort, folder } = looking;
  return (
    <div className="mb-4 flex flex-wrap items-center gap-3 rounded-sm border border-line bg-panel px-4 py-2">
      <h1 className="m-0 mr-auto text-[17px] font-semibold">Your designs</h1>
      {folders.length > 0 && (
        <ListChoice
          label="Folder"
          value={folder === null ? 'all' : `in ${folder}`}
          groups={[
            {
              name: '',
              options: [
                { value: 'all', label: 'all' },
                ...folders.map((f) => ({ value: `in ${f}`, label: f })),
                { value: 'in ', label: 'in no folder' },
              ],
            },
          ]}
          onChange={(v) => onLook({ folder: v === 'all' ? null : v.slice(3) })}
        />
      )}
      <ListChoice
        label="Sort"
        value={sort}
        groups={[{ name: '', options: SORTS }]}
        onChange={(next) => onLook({ sort: next })}
      />
      <label className="flex h-7 w-52 items-center gap-2 rounded-sm border border-edge bg-field px-2">
        <Search size={14} aria-hidden className="shrink-0 text-faint" />
        <input
          type="search"
          aria-label="Search your designs"
          placeholder="Search: poster, A5 …"
          className="w-full min-w-0 bg-transparent outline-none"
          value={query}
          onChange={(e) => onLook({ query: e.target.value })}
        />
      </label>
    </div>
  );
}

const NEW = ' new';

/** What can be done with several designs at once. */
export function ChosenBar({
  many,
  folders,
  onMove,
  onDuplicate,
  onRemove,
  onNone,
}: {
  many: number;
  folders: readonly string[];
  onMove: (folder: string) => void;
  onDuplicate: () => void;
  onRemove: () => void;
  onNone: () => void;
}) {
  const [name, setName] = useState<string | null>(null);
  return (
    <div
      role="group"
      aria-label="Chosen designs"
      className="mb-4 flex flex-wrap items-center gap-2 rounded-sm border border-line bg-panel px-3 py-2"
    >
      <span className="font-semibold">{many === 1 ? '1 design' : `${many} designs`} chosen</span>
      <Button onClick={onDuplicate}>Duplicate</Button>
      <Button onClick={onRemove}>Remove</Button>
      {name === null ? (
        <ListChoice
          label="Move to"
          value="choose"
          groups={[
            {
              name: '',
              options: [
                { value: 'choose', label: 'a folder …' },
                ...folders.map((f) => ({ value: `in ${f}`, label: f })),
                { value: NEW, label: 'a new folder' },
                { value: 'in ', label: 'no folder' },
              ],
            },
          ]}
          onChange={(v) => {
            if (v === NEW) setName('');
            else if (v !== 'choose') onMove(v.slice(3));
          }}
        />
      ) : (
        <form
          className="flex items-center gap-2"
          onSubmit={(e) => {
            e.preventDefault();
            if (name.trim()) onMove(name.trim());
            setName(null);
          }}
        >
          <input
            autoFocus
            aria-label="Name of the folder"
            className="h-7 rounded-sm border border-edge bg-field px-2"
            value={name}
            maxLength={80}
            onChange={(e) => setName(e.target.value)}
          />
          <Button type="submit">Move there</Button>
        </form>
      )}
      <Button kind="quiet" className="ml-auto" onClick={onNone}>
        Choose none
      </Button>
    </div>
  );
}
