'use client';
import { Slider } from 'radix-ui';
import { useRef, useState } from 'react';

interface Props {
  readonly label: string;
  /** What stands at the two ends. */
  readonly ends: readonly [string, string];
  readonly value: number;
  readonly min: number;
  readonly max: number;
  readonly step: number;
  readonly says: (value: number) => string;
  readonly onPreview: (value: number | null) => void;
  readonly onCommit: (value: number) => void;
}

/** A slider between two words. It shows as it goes and is one step in the end; Escape lets it go back. */
export function PlainSlider({ label, ends, value, min, max, step, says, onPreview, onCommit }: Props) {
  const [moving, setMoving] = useState<number | null>(null);
  const shown = moving ?? value;
  /** Taken back by Escape: what the hand still does until it lets go counts for nothing. */
  const takenBack = useRef(false);
  /**
   * What was kept just now: of keys the slider tells first that a value is to be kept, and then that it has changed.
   */
  const kept = useRef<number | null>(null);
  return (
    <div className="grid grid-cols-[auto_1fr_auto] items-center gap-2">
      <span aria-hidden className="text-faint">
        {ends[0]}
      </span>
      <Slider.Root
        className="relative flex h-6 touch-none items-center select-none"
        min={min}
        max={max}
        step={step}
        value={[shown]}
        onPointerDownCapture={() => {
          takenBack.current = false;
          kept.current = null;
        }}
        onPointerUp={() => void (takenBack.current = false)}
        onKeyDownCapture={() => void (kept.current = null)}
        onValueChange={([v]) => {
          if (takenBack.current || kept.current === v) return;
          setMoving(v);
          onPreview(v);
        }}
        onValueCommit={([v]) => {
          if (takenBack.current) return;
          kept.current = v;
          setMoving(null);
          onCommit(v);
        }}
        onKeyDown={(e) => {
          // Keys with Ctrl are the bench's: undo above all.
          if (!e.ctrlKey && !e.metaKey) e.stopPropagation();
          if (e.key !== 'Escape' || moving === null) return;
          takenBack.current = true;
          setMoving(null);
          onPreview(null);
        }}
      >
        <Slider.Track className="relative h-1.5 grow rounded-full bg-edge">
          <Slider.Range className="absolute h-full rounded-full bg-accent" />
        </Slider.Track>
        <Slider.Thumb
          aria-label={label}
          aria-valuetext={says(shown)}
          title={says(shown)}
          className="block size-4 rounded-full border-2 border-accent bg-field"
        />
      </Slider.Root>
      <span aria-hidden className="text-faint">
        {ends[1]}
      </span>
    </div>
  );
}
