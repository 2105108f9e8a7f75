'use client';
import { useRef, type KeyboardEvent, type PointerEvent } from 'react';
import { mixAt, type Palette } from '@/core/colour/palette';
import { hexOf } from '@/core/colour/spaces';
import { insertStop, moveStop, removeStop } from '@/core/edit/gradient';
import type { Stop } from '@/core/model/schema';
import { formatNumber } from '@/core/units/length';
import { NumberField } from '@/ui/NumberField';
import { useSession } from '../session/context';
import { colourName } from '../session/naming';

/** The look of a ramp as CSS, mixed in ink. */
export function rampCss(palette: Palette, stops: readonly Stop[]): string {
  const ramp = palette.ramp({ stops: [...stops] });
  const parts = Array.from({ length: 25 }, (_, i) => `${hexOf(palette.lookOfMix(mixAt(ramp, i / 24)))} ${formatNumber((i / 24) * 100, 2)}%`);
  return `linear-gradient(90deg, ${parts.join(', ')})`;
}

interface Props {
  readonly stops: readonly Stop[];
  readonly chosen: number | null;
  readonly onChoose: (index: number | null) => void;
  /** `label` names the step; a preview has none. */
  readonly onChange: (stops: Stop[], label: string) => void;
  readonly onPreview: (stops: Stop[] | null) => void;
}

/** A ramp with its beads: click to add, drag to move, pull down to take out. */
export function RampEditor({ stops, chosen, onChoose, onChange, onPreview }: Props) {
  const session = useSession();
  const bar = useRef<HTMLDivElement>(null);
  const drag = useRef<{ index: number; base: readonly Stop[]; now: Stop[]; out: boolean; moved: boolean } | null>(null);

  const offsetAt = (clientX: number) => {
    const r = bar.current!.getBoundingClientRect();
    return Math.min(1, Math.max(0, (clientX - r.left) / r.width));
  };
  const onPointerMove = (e: PointerEvent) => {
    const d = drag.current;
    if (!d) return;
    d.moved = true;
    d.out = d.base.length > 2 && Math.abs(e.clientY - bar.current!.getBoundingClientRect().bottom) > 40;
    d.now = d.out ? removeStop(d.base, d.index) : moveStop(d.base, d.index, offsetAt(e.clientX));
    onPreview(d.now);
  };
  const onPointerUp = () => {
    const d = drag.current;
    drag.current = null;
    if (!d?.moved) return;
    onChange(d.now, d.out ? 'Take out a stop' : 'Move a stop');
    if (d.out) onChoose(null);
  };
  const onKey = (e: KeyboardEvent, i: number) => {
    const step = (e.shiftKey ? 0.1 : 0.01) * (e.key === 'ArrowLeft' ? -1 : 1);
    if (e.key === 'ArrowLeft' || e.key === 'ArrowRight') {
      e.preventDefault();
      e.stopPropagation();
      onChange(moveStop(stops, i, stops[i].offset + step), 'Move a stop');
    } else if ((e.key === 'Delete' || e.key === 'Backspace') && stops.length > 2) {
      e.preventDefault();
      e.stopPropagation();
      onChange(removeStop(stops, i), 'Take out a stop');
      onChoose(null);
    }
  };
  const stop = chosen === null ? undefined : stops[chosen];
  return (
    <div className="grid gap-2">
      <div className="relative mx-2.5 h-[46px]">
        <div
          ref={bar}
          title="Click to add a stop"
          className="h-6 cursor-copy rounded-sm border border-edge"
          style={{ background: rampCss(session.palette, stops) }}
          onClick={(e) => {
            const made = insertStop(stops, offsetAt(e.clientX));
            onChange(made.stops, 'Add a stop');
            onChoose(made.index);
          }}
        />
        {stops.map((s, i) => (
          <button
            key={i}
            type="button"
            role="slider"
            aria-label={`Stop ${i + 1} of ${stops.length}, ${colourName(session.design, s.colour)}`}
            aria-valuemin={0}
            aria-valuemax={100}
            aria-valuenow={Math.round(s.offset * 100)}
            aria-valuetext={`${Math.round(s.offset * 100)} %`}
            className={`absolute top-[22px] size-5 -translate-x-1/2 cursor-ew-resize touch-none rounded-full border-2 ${chosen === i ? 'border-accent outline-2 outline-accent' : 'border-edge'}`}
            style={{ left: `${s.offset * 100}%`, background: session.palette.css(s.colour) }}
            onPointerDown={(e) => {
              e.currentTarget.setPointerCapture(e.pointerId);
              drag.current = { index: i, base: stops, now: [...stops], out: false, moved: false };
              onChoose(i);
            }}
            onPointerMove={onPointerMove}
            onPointerUp={onPointerUp}
            onPointerCancel={() => {
              drag.current = null;
              onPreview(null);
            }}
            onKeyDown={(e) => onKey(e, i)}
            onFocus={() => onChoose(i)}
          />
        ))}
      </div>
      {stop && chosen !== null ? (
        <div className="grid grid-cols-2 items-center gap-2">
          <NumberField label="At" name="Position of the stop" suffix="%" value={stop.offset * 100} min={0} max={100} decimals={1} onCommit={(v) => onChange(moveStop(stops, chosen, v / 100), 'Move a stop')} />
          <p className="m-0 truncate text-faint" title={colourName(session.design, stop.colour)}>
            Stop {chosen + 1}: {colourName(session.design, stop.colour)}
          </p>
        </div>
      ) : (
        <p className="m-0 text-faint">Choose a bead, then click a colour for it.</p>
      )}
    </div>
  );
}
