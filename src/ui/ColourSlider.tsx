'use client';
import { useEffect, useLayoutEffect, useRef } from 'react';
import { NumberField } from './NumberField';

interface Props {
  readonly label: string;
  /** Spoken name when the label is a letter. */
  readonly name: string;
  readonly value: number;
  readonly min: number;
  readonly max: number;
  readonly suffix?: string;
  readonly decimals?: number;
  /** CSS colours along the track: where the slider leads. */
  readonly track: readonly string[];
  /** Null: back to what is kept. */
  readonly onPreview: (value: number | null) => void;
  readonly onCommit: (value: number) => void;
}

/**
 * One channel of a colour: a slider whose track shows where it leads, and its number. The slider shows at most one
 * state a frame and makes it so when it is let go; Tab goes from number to number, where the arrow keys step.
 */
export function ColourSlider({
  label,
  name,
  value,
  min,
  max,
  suffix = '',
  decimals = 0,
  track,
  onPreview,
  onCommit,
}: Props) {
  const slider = useRef<HTMLInputElement>(null);
  const frame = useRef(0);
  const latest = useRef<number | null>(null);
  // The slider keeps its own place while it is dragged; otherwise it stands where the colour is.
  useLayoutEffect(() => {
    if (slider.current && latest.current === null) slider.current.value = String(value);
  }, [value]);
  const show = (v: number) => {
    latest.current = v;
    frame.current ||= requestAnimationFrame(() => {
      frame.current = 0;
      if (latest.current !== null) onPreview(latest.current);
    });
  };
  const finish = (keep: boolean) => {
    const v = latest.current;
    latest.current = null;
    cancelAnimationFrame(frame.current);
    frame.current = 0;
    if (v === null) return;
    if (keep) onCommit(v);
    else {
      onPreview(null);
      if (slider.current) slider.current.value = String(value);
    }
  };
  useEffect(() => () => cancelAnimationFrame(frame.current), []);
  return (
    <div className="grid grid-cols-[1fr_84px] items-center gap-2">
      <input
        type="range"
        tabIndex={-1}
        aria-label={`${name}, slider`}
        min={min}
        max={max}
        step={(max - min) / 1000}
        defaultValue={value}
        ref={slider}
        className="colour-slider"
        style={{ background: `linear-gradient(90deg, ${track.join(', ')})` }}
        onChange={(e) => show(Number(e.currentTarget.value))}
        onPointerUp={() => finish(true)}
        onPointerCancel={() => finish(false)}
        onKeyUp={() => finish(true)}
        onKeyDown={(e) => {
          if (e.key !== 'Escape' || latest.current === null) return;
          e.preventDefault();
          e.stopPropagation();
          finish(false);
        }}
        onBlur={() => finish(true)}
      />
      <NumberField
        label={label}
        name={name}
        suffix={suffix}
        min={min}
        max={max}
        decimals={decimals}
        value={value}
        onPreview={onPreview}
        onCommit={onCommit}
      />
    </div>
  );
}
