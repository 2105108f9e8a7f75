'use client';
import { useId, useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import { formatNumber, fromPoints, toPoints, type Unit } from '@/core/units/length';
import { parseLength, parseNumber } from '@/core/units/typed';
import { explained } from './terms';

export interface NumberFieldProps {
  readonly label: string;
  /** Spoken and hovered name when the label is a letter. */
  readonly name?: string;
  /** In points for lengths; null shows “mixed”. */
  readonly value: number | null;
  /** A length in this unit; absent: a plain number. */
  readonly unit?: Unit;
  /** What follows a plain number: `°`, `%`. */
  readonly suffix?: string;
  readonly step?: number;
  readonly min?: number;
  readonly max?: number;
  readonly decimals?: number;
  readonly disabled?: boolean;
  /** Three in a row. */
  readonly tight?: boolean;
  /** Shows a value while it is being scrubbed; null: back to what was. */
  readonly onPreview?: (value: number | null) => void;
  readonly onCommit: (value: number) => void;
}

/** One field for every number: any unit, arithmetic, arrow keys (Shift ×10, Alt ÷10), scrubbing on the label, Esc. */
export function NumberField(p: NumberFieldProps) {
  const id = useId();
  const [text, setText] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const scrub = useRef<{ x: number; start: number; now: number; moved: boolean } | null>(null);

  const shownIn = (v: number) => (p.unit ? fromPoints(v, p.unit) : v);
  const kept = (v: number) => (p.unit ? toPoints(v, p.unit) : v);
  const clamp = (v: number) => Math.min(p.max ?? Infinity, Math.max(p.min ?? -Infinity, v));
  const format = (v: number) => formatNumber(shownIn(v), p.decimals ?? 2);
  const unitText = p.unit ?? p.suffix ?? '';
  const shown = text ?? (p.value === null ? '' : `${format(p.value)}${p.unit ? ` ${p.unit}` : (p.suffix ?? '')}`);

  const commitText = (): boolean => {
    if (text === null) return true;
    const parsed = p.unit ? parseLength(text, p.unit) : parseNumber(text, p.suffix);
    if (!parsed.ok) {
      setProblem(parsed.message);
      return false;
    }
    setText(null);
    setProblem(null);
    const v = clamp(parsed.value);
    if (p.value === null || Math.abs(v - p.value) > 1e-9) p.onCommit(v);
    return true;
  };

  const onKeyDown = (e: KeyboardEvent<HTMLInputElement>) => {
    e.stopPropagation();
    if (e.key === 'Enter') {
      if (commitText()) e.currentTarget.select();
    } else if (e.key === 'Escape') {
      setText(null);
      setProblem(null);
      e.currentTarget.blur();
    } else if ((e.key === 'ArrowUp' || e.key === 'ArrowDown') && p.value !== null) {
      e.preventDefault();
      const size = (p.step ?? 1) * (e.shiftKey ? 10 : e.altKey ? 0.1 : 1);
      setText(null);
      p.onCommit(clamp(kept(shownIn(p.value) + (e.key === 'ArrowUp' ? size : -size))));
    }
  };

  const onScrub = {
    onPointerDown: (e: PointerEvent<HTMLLabelElement>) => {
      if (p.value === null || p.disabled) return;
      e.currentTarget.setPointerCapture(e.pointerId);
      scrub.current = { x: e.clientX, start: p.value, now: p.value, moved: false };
    },
    onPointerMove: (e: PointerEvent<HTMLLabelElement>) => {
      const s = scrub.current;
      if (!s) return;
      const dx = e.clientX - s.x;
      if (!s.moved && Math.abs(dx) < 3) return;
      s.moved = true;
      s.now = clamp(
        kept(shownIn(s.start) + Math.round(dx / 2) * (p.step ?? 1) * (e.shiftKey ? 10 : e.altKey ? 0.1 : 1)),
      );
      p.onPreview?.(s.now);
    },
    onPointerUp: (e: PointerEvent<HTMLLabelElement>) => {
      const s = scrub.current;
      scrub.current = null;
      if (!s?.moved) return;
      e.preventDefault();
      if (s.now !== s.start) p.onCommit(s.now);
      else p.onPreview?.(null);
    },
    onPointerCancel: () => {
      scrub.current = null;
      p.onPreview?.(null);
    },
  };

  return (
    <div className="min-w-0">
      <div
        className={`flex h-7 items-center rounded-sm border bg-field ${p.tight ? 'gap-1 px-1 text-[12px] tracking-tight' : 'gap-1.5 px-2'} focus-within:border-accent ${problem ? 'border-stop' : 'border-edge'} ${p.disabled ? 'opacity-45' : ''}`}
      >
        <label
          htmlFor={id}
          title={explained(p.name ?? p.label) ?? explained(p.label) ?? p.name ?? p.label}
          className="shrink-0 cursor-ew-resize touch-none select-none text-faint"
          {...onScrub}
        >
          {p.label}
        </label>
        <input
          id={id}
          aria-label={p.name ?? p.label}
          aria-invalid={problem !== null}
          aria-describedby={problem ? `${id}-problem` : undefined}
          // Three in a row have room for “99.99 mm”.
          className={`w-full min-w-0 bg-transparent outline-none ${p.tight && shown.length > 8 ? 'text-[11px] tracking-tighter' : ''}`}
          inputMode="decimal"
          autoComplete="off"
          disabled={p.disabled}
          value={shown}
          placeholder={p.value === null ? 'mixed' : unitText}
          onFocus={(e) => e.currentTarget.select()}
          onChange={(e) => {
            setText(e.target.value);
            setProblem(null);
          }}
          onBlur={() => {
            if (!commitText()) {
              setText(null);
              setProblem(null);
            }
          }}
          onKeyDown={onKeyDown}
        />
      </div>
      {problem && (
        <p id={`${id}-problem`} role="alert" className="m-0 mt-0.5 text-[12px] text-stop">
          {problem}
        </p>
      )}
    </div>
  );
}
