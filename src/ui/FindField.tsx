import type { ReactElement } from 'react';

/**
 * A field that finds in a list below it: arrows go through what is found, Enter takes it. `list` begins the ids of list
 * and rows.
 */
export function FindField({
  label,
  list,
  placeholder,
  value,
  at,
  count,
  onChange,
  onMove,
  onTake,
}: {
  label: string;
  list: string;
  placeholder: string;
  value: string;
  /** Which row is meant, of how many. */
  at: number;
  count: number;
  onChange: (value: string) => void;
  onMove: (at: number) => void;
  onTake: (at: number) => void;
}): ReactElement {
  return (
    <input
      autoFocus
      aria-label={label}
      role="combobox"
      aria-expanded
      aria-controls={`${list}-list`}
      aria-activedescendant={at < count ? `${list}-${at}` : undefined}
      placeholder={placeholder}
      className="h-8 w-full rounded-sm border border-edge bg-field px-2"
      value={value}
      onChange={(e) => onChange(e.target.value)}
      onKeyDown={(e) => {
        if (e.key === 'ArrowDown' || e.key === 'ArrowUp') {
          e.preventDefault();
          const next = Math.max(0, Math.min(count - 1, at + (e.key === 'ArrowDown' ? 1 : -1)));
          onMove(next);
          document.getElementById(`${list}-${next}`)?.scrollIntoView({ block: 'nearest' });
        } else if (e.key === 'Enter' && at < count) {
          e.preventDefault();
          onTake(at);
        }
      }}
    />
  );
}
