'use client';
import { useId } from 'react';
import { explained } from './terms';

export interface Option<T extends string> {
  readonly value: T;
  readonly label: string;
}

/** A row of words of which one is chosen; `tight` where there are many. */
export function WordChoice<T extends string>({
  label,
  value,
  options,
  onChange,
  disabled,
  tight,
}: {
  label: string;
  value: T | null;
  options: readonly Option<T>[];
  onChange: (v: T) => void;
  disabled?: boolean;
  tight?: boolean;
}) {
  return (
    <div
      role="radiogroup"
      aria-label={label}
      title={explained(label)}
      className="flex overflow-hidden rounded-sm border border-edge"
    >
      {options.map((o) => (
        <button
          key={o.value}
          type="button"
          role="radio"
          aria-checked={value === o.value}
          title={explained(o.label)}
          disabled={disabled}
          onClick={() => onChange(o.value)}
          className={`h-[26px] min-w-0 ${tight ? 'flex-auto px-0.5 text-[12px]' : 'flex-1 px-2'} not-first:border-l not-first:border-line disabled:opacity-45 ${value === o.value ? 'bg-accent font-semibold text-on-accent' : 'bg-field hover:bg-raised'}`}
        >
          {o.label}
        </button>
      ))}
    </div>
  );
}

/** A list to choose from; the browser's own, which every reader and keyboard knows. */
export function ListChoice<T extends string>({
  label,
  value,
  groups,
  onChange,
  hideLabel,
  disabled,
}: {
  label: string;
  value: T | null;
  groups: readonly { readonly name: string; readonly options: readonly Option<T>[] }[];
  onChange: (v: T) => void;
  hideLabel?: boolean;
  disabled?: boolean;
}) {
  const id = useId();
  return (
    <div className="flex min-w-0 items-center gap-1.5">
      {!hideLabel && (
        <label htmlFor={id} title={explained(label)} className="shrink-0 text-faint">
          {label}
        </label>
      )}
      <select
        id={id}
        aria-label={label}
        className="h-7 w-full min-w-0 rounded-sm border border-edge bg-field px-1.5"
        disabled={disabled ?? false}
        value={value ?? ''}
        onChange={(e) => onChange(e.target.value as T)}
      >
        {value === null && <option value="">mixed</option>}
        {groups.map((g) =>
          g.name ? (
            <optgroup key={g.name} label={g.name}>
              {g.options.map((o) => (
                <option key={o.value} value={o.value}>
                  {o.label}
                </option>
              ))}
            </optgroup>
          ) : (
            g.options.map((o) => (
              <option key={o.value} value={o.value}>
                {o.label}
              </option>
            ))
          ),
        )}
      </select>
    </div>
  );
}

/** A switch with its words beside it. */
export function Check({
  label,
  checked,
  onChange,
  disabled,
  hint,
}: {
  label: string;
  checked: boolean;
  onChange: (on: boolean) => void;
  disabled?: boolean;
  hint?: string;
}) {
  const id = useId();
  return (
    <div className="flex items-start gap-2">
      <input
        id={id}
        type="checkbox"
        className="mt-0.5 size-4 accent-(--accent)"
        checked={checked}
        disabled={disabled}
        aria-describedby={hint ? `${id}-hint` : undefined}
        onChange={(e) => onChange(e.target.checked)}
      />
      <div>
        <label htmlFor={id} title={explained(label)}>
          {label}
        </label>
        {hint && (
          <p id={`${id}-hint`} className="m-0 text-[12px] text-faint">
            {hint}
          </p>
        )}
      </div>
    </div>
  );
}
