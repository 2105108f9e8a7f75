'use client';
import { useRef, type KeyboardEvent, type PointerEvent } from 'react';
import type { RampSource } from '@/core/colour/ramp';
import { hasMiddle, insertStop, moveStop, removeStop, setMidpoint, setStopOpacity } from '@/core/edit/gradient';
import type { Stop } from '@/core/model/schema';
import { NumberField } from '@/ui/NumberField';
import { useSession } from '../session/context';
import { colourName } from '../session/naming';
import { beadsApart } from '../tools/beads';
import { rampCss } from './rampLook';

interface Props {
  readonly ramp: RampSource;
  readonly chosen: number | null;
  readonly onChoose: (index: number | null) => void;
  /** `label` names the step; a preview has none. */
  readonly onChange: (stops: Stop[], label: string) => void;
  readonly onPreview: (stops: Stop[] | null) => void;
}

/** About how long the bar is, in pixels. */
const BAR = 260;

interface Drag {
  readonly index: number;
  readonly mid: boolean;
  now: Stop[];
  out: boolean;
  moved: boolean;
  readonly from: number;
  /** How far the bead stands beside its place, in pixels. */
  readonly beside: number;
}

/** A ramp with its beads: click to add, drag to move, pull down to take out; small ones between them are midpoints. */
export function RampEditor({ ramp, chosen, onChoose, onChange, onPreview }: Props) {
  const session = useSession();
  const { stops } = ramp;
  const apart = beadsApart(
    stops.map((s) => s.offset),
    BAR,
  );
  const bar = useRef<HTMLDivElement>(null);
  const drag = useRef<Drag | null>(null);
  const base = useRef(stops);

  const offsetAt = (clientX: number) => {
    const r = bar.current!.getBoundingClientRect();
    return Math.min(1, Math.max(0, (clientX - r.left) / r.width));
  };
  const midAt = (i: number, clientX: number) =>
    (offsetAt(clientX) - base.current[i].offset) / (base.current[i + 1].offset - base.current[i].offset);
  const onPointerMove = (e: PointerEvent) => {
    const d = drag.current;
    if (!d) return;
    if (
      !d.moved &&
      Math.abs(e.clientX - d.from) < 3 &&
      Math.abs(e.clientY - bar.current!.getBoundingClientRect().bottom) <= 40
    )
      return;
    d.moved = true;
    d.out = !d.mid && base.current.length > 2 && Math.abs(e.clientY - bar.current!.getBoundingClientRect().bottom) > 40;
    d.now = d.mid
      ? setMidpoint(base.current, d.index, midAt(d.index, e.clientX))
      : d.out
        ? removeStop(base.current, d.index)
        : moveStop(base.current, d.index, offsetAt(e.clientX - d.beside));
    onPreview(d.now);
  };
  const onPointerUp = () => {
    const d = drag.current;
    drag.current = null;
    if (!d?.moved) return;
    onChange(d.now, d.mid ? 'Move a midpoint' : d.out ? 'Take out a stop' : 'Move a stop');
    if (d.out) onChoose(null);
  };
  const begin = (e: PointerEvent<HTMLElement>, index: number, mid: boolean) => {
    e.currentTarget.setPointerCapture(e.pointerId);
    base.current = stops;
    drag.current = {
      index,
      mid,
      now: [...stops],
      out: false,
      moved: false,
      from: e.clientX,
      beside: mid ? 0 : apart[index],
    };
    if (!mid) onChoose(index);
  };
  const pulls = {
    onPointerMove,
    onPointerUp,
    onPointerCancel: () => {
      drag.current = null;
      onPreview(null);
    },
  };
  const onKey = (e: KeyboardEvent, i: number, mid: boolean) => {
    const step = (e.shiftKey ? 0.1 : 0.01) * (e.key === 'ArrowLeft' ? -1 : 1);
    if (e.key === 'ArrowLeft' || e.key === 'ArrowRight') {
      e.preventDefault();
      e.stopPropagation();
      if (mid) onChange(setMidpoint(stops, i, (stops[i].midpoint ?? 0.5) + step), 'Move a midpoint');
      else onChange(moveStop(stops, i, stops[i].offset + step), 'Move a stop');
    } else if (!mid && (e.key === 'Delete' || e.key === 'Backspace') && stops.length > 2) {
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
          style={{ background: rampCss(session.palette, ramp) }}
          onClick={(e) => {
            const made = insertStop(stops, offsetAt(e.clientX));
            onChange(made.stops, 'Add a stop');
            onChoose(made.index);
          }}
        />
        {stops.slice(0, -1).map((s, i) => {
          const next = stops[i + 1];
          if (!hasMiddle(stops, i)) return null;
          return (
            <button
              key={`mid${i}`}
              type="button"
              role="slider"
              title="Midpoint: where half of the change is done"
              aria-label={`Midpoint ${i + 1} of ${stops.length - 1}`}
              aria-valuemin={2}
              aria-valuemax={98}
              aria-valuenow={Math.round((s.midpoint ?? 0.5) * 100)}
              aria-valuetext={`${Math.round((s.midpoint ?? 0.5) * 100)} % of the way`}
              className="absolute top-[25px] grid size-4 -translate-x-1/2 cursor-ew-resize touch-none place-items-center border-0 bg-transparent p-0"
              style={{ left: `${(s.offset + (next.offset - s.offset) * (s.midpoint ?? 0.5)) * 100}%` }}
              onPointerDown={(e) => begin(e, i, true)}
              {...pulls}
              onKeyDown={(e) => onKey(e, i, true)}
            >
              <span aria-hidden className="block size-2.5 rotate-45 border border-edge bg-field" />
            </button>
          );
        })}
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
            style={{ left: `calc(${s.offset * 100}% + ${apart[i]}px)`, background: session.palette.css(s.colour) }}
            onPointerDown={(e) => begin(e, i, false)}
            {...pulls}
            onKeyDown={(e) => onKey(e, i, false)}
            onFocus={() => onChoose(i)}
          />
        ))}
      </div>
      {stop && chosen !== null ? (
        <>
          <p className="m-0 truncate text-faint" title={colourName(session.design, stop.colour)}>
            Stop {chosen + 1}: {colourName(session.design, stop.colour)}
          </p>
          <div className="grid grid-cols-2 items-center gap-2">
            <NumberField
              label="At"
              name="Position of the stop"
              suffix="%"
              value={stop.offset * 100}
              min={0}
              max={100}
              decimals={1}
              onCommit={(v) => onChange(moveStop(stops, chosen, v / 100), 'Move a stop')}
            />
            <NumberField
              label="Opacity"
              name="Opacity of the stop"
              suffix="%"
              value={(stop.opacity ?? 1) * 100}
              min={0}
              max={100}
              decimals={0}
              onPreview={(v) => onPreview(v === null ? null : setStopOpacity(stops, chosen, v / 100))}
              onCommit={(v) => onChange(setStopOpacity(stops, chosen, v / 100), 'Opacity of a stop')}
            />
            {hasMiddle(stops, chosen) && (
              <NumberField
                label="Midpoint"
                name="Midpoint after the stop"
                suffix="%"
                value={(stop.midpoint ?? 0.5) * 100}
                min={2}
                max={98}
                decimals={0}
                onCommit={(v) => onChange(setMidpoint(stops, chosen, v / 100), 'Move a midpoint')}
              />
            )}
          </div>
        </>
      ) : (
        <p className="m-0 text-faint">Choose a bead, then click a colour for it.</p>
      )}
    </div>
  );
}
