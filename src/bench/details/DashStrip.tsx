'use client';
import { useRef, useState } from 'react';
import { formatLength, type Unit } from '@/core/units/length';

const WIDE = 232;
/** A dash or gap never becomes shorter than nothing, nor the pattern shorter than this share of itself. */
const LEAST = 0.02;

/**
 * One round of the dashes as a strip with a bead where each dash or gap ends: dragged, or moved by arrow keys, a bead
 * makes the length before it longer or shorter.
 */
export function DashStrip({
  dashes,
  unit,
  round,
  onShow,
  onPut,
}: {
  dashes: readonly number[];
  unit: Unit;
  /** Dots are round. */
  round: boolean;
  onShow: (dashes: readonly number[] | null) => void;
  onPut: (dashes: readonly number[]) => void;
}) {
  const [drag, setDrag] = useState<{
    readonly at: number;
    readonly x: number;
    readonly from: readonly number[];
  } | null>(null);
  const latest = useRef<readonly number[]>(dashes);
  const whole = dashes.reduce((a, b) => a + b, 0);
  // While a bead is dragged the strip keeps its scale, so that the bead stays at the pointer.
  const scale = (drag ? drag.from.reduce((a, b) => a + b, 0) : whole) || 1;
  const k = WIDE / scale;
  const changed = (from: readonly number[], i: number, by: number): readonly number[] => {
    const next = from.map((v, j) => (j === i ? Math.max(0, v + by) : v));
    return next.reduce((a, b) => a + b, 0) > LEAST * scale ? next : from;
  };
  const ends = dashes.map((_, i) => dashes.slice(0, i + 1).reduce((a, b) => a + b, 0));
  const step = whole / 40;
  return (
    <div className="col-span-2 overflow-x-clip px-1.5">
      <div className="relative h-7" style={{ width: WIDE }} role="group" aria-label="Dashes and gaps as a strip">
        <div className="absolute inset-x-0 top-3 border-t border-line" aria-hidden />
        {dashes.map((v, i) =>
          i % 2 ? null : (
            <span
              key={i}
              aria-hidden
              className={`absolute top-2.5 h-1.5 bg-text ${round ? 'rounded-full' : ''}`}
              style={{ left: (ends[i] - v) * k - (round ? 3 : 0), width: Math.max(v * k, 0) + (round ? 6 : 0) }}
            />
          ),
        )}
        {dashes.map((v, i) => (
          <button
            key={i}
            type="button"
            role="slider"
            aria-label={`${i % 2 ? 'Gap' : 'Dash'} ${Math.floor(i / 2) + 1}`}
            aria-valuenow={Math.round(v * 1000) / 1000}
            aria-valuemin={0}
            aria-valuemax={1440}
            aria-valuetext={formatLength(v, unit, 2)}
            title={`${i % 2 ? 'Gap' : 'Dash'}: ${formatLength(v, unit, 2)}. Drag it, or use the arrow keys.`}
            className={`absolute top-0.5 size-3 -translate-x-1/2 cursor-ew-resize rounded-full border-2 border-accent p-0 ${i % 2 ? 'translate-y-3 bg-panel' : 'bg-accent'}`}
            style={{ left: ends[i] * k }}
            onPointerDown={(e) => {
              e.currentTarget.setPointerCapture(e.pointerId);
              latest.current = dashes;
              setDrag({ at: i, x: e.clientX, from: dashes });
            }}
            onPointerMove={(e) => {
              if (!drag || drag.at !== i) return;
              latest.current = changed(drag.from, i, (e.clientX - drag.x) / k);
              onShow(latest.current);
            }}
            onPointerUp={() => {
              if (!drag) return;
              setDrag(null);
              onShow(null);
              if (latest.current !== drag.from) onPut(latest.current);
            }}
            onPointerCancel={() => {
              setDrag(null);
              onShow(null);
            }}
            onKeyDown={(e) => {
              const way = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1 }[e.key];
              if (!way) return;
              e.preventDefault();
              e.stopPropagation();
              onPut(changed(dashes, i, way * step * (e.shiftKey ? 5 : 1)));
            }}
          />
        ))}
      </div>
    </div>
  );
}
