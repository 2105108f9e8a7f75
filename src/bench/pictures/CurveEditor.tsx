'use client';
import { useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import { curveThrough } from '@/core/colour/curve';
import { formatNumber } from '@/core/units/length';

type Point = readonly [number, number];
type Points = readonly Point[];
const WIDTH = 216;
const HEIGHT = 84;
const PAD = 8;
const STRAIGHT: Points = [
  [0, 0],
  [1, 1],
];
const MOST = 12;

const clamp = (v: number) => Math.min(1, Math.max(0, v));
/** Whole thousandths: a document need not know more of a hand's place. */
const rounded = ([x, y]: Point): Point => [Math.round(x * 1000) / 1000, Math.round(y * 1000) / 1000];

/**
 * From how dark a picture is (across) to how much ink that gets (up). Drag beads, click for a new one, pull one out to
 * take it away.
 */
export function CurveEditor({
  label,
  points,
  onChange,
}: {
  label: string;
  points: Points | undefined;
  onChange: (points: Points, done: boolean) => void;
}) {
  const kept = points ?? STRAIGHT;
  const [moving, setMoving] = useState<Points | null>(null);
  const [chosen, setChosen] = useState<number | null>(null);
  const box = useRef<SVGSVGElement>(null);
  const dragging = useRef<number | null>(null);
  const shown = moving ?? kept;
  const at = curveThrough(shown);
  const place = (e: PointerEvent): Point => {
    const r = box.current!.getBoundingClientRect();
    return [clamp((e.clientX - r.left - PAD) / (WIDTH - 2 * PAD)), 1 - (e.clientY - r.top - PAD) / (HEIGHT - 2 * PAD)];
  };
  /** Ends stay at the ends; others between their neighbours. */
  const moved = (i: number, [x, y]: Point): Points => {
    const first = i === 0;
    const last = i === shown.length - 1;
    const low = first ? 0 : shown[i - 1][0] + 0.01;
    const high = last ? 1 : shown[i + 1][0] - 0.01;
    return shown.map((p, k) =>
      k === i ? rounded([first || last ? p[0] : Math.min(high, Math.max(low, x)), clamp(y)]) : p,
    );
  };
  const end = (next: Points | null) => {
    dragging.current = null;
    setMoving(null);
    if (next) onChange(next, true);
  };
  const onKey = (i: number) => (e: KeyboardEvent) => {
    const step = e.shiftKey ? 0.1 : 0.02;
    const by: Record<string, Point> = {
      ArrowLeft: [-step, 0],
      ArrowRight: [step, 0],
      ArrowUp: [0, step],
      ArrowDown: [0, -step],
    };
    if (e.ctrlKey || e.metaKey) return;
    e.stopPropagation();
    if (by[e.key]) {
      e.preventDefault();
      onChange(moved(i, [shown[i][0] + by[e.key][0], shown[i][1] + by[e.key][1]]), true);
    } else if ((e.key === 'Delete' || e.key === 'Backspace') && i > 0 && i < shown.length - 1)
      onChange(
        shown.filter((_, k) => k !== i),
        true,
      );
  };
  const px = (x: number) => PAD + x * (WIDTH - 2 * PAD);
  const py = (y: number) => PAD + (1 - y) * (HEIGHT - 2 * PAD);
  return (
    <svg
      ref={box}
      role="group"
      aria-label={label}
      width={WIDTH}
      height={HEIGHT}
      className="touch-none rounded-sm border border-edge bg-field select-none"
      onPointerDown={(e) => {
        if (e.button !== 0) return;
        e.currentTarget.setPointerCapture(e.pointerId);
        const p = place(e);
        const near = shown.findIndex((q) => Math.hypot(px(q[0]) - px(p[0]), py(q[1]) - py(p[1])) < 10);
        if (near >= 0) dragging.current = near;
        else if (shown.length < MOST && p[0] > 0.01 && p[0] < 0.99) {
          const i = shown.findIndex((q) => q[0] > p[0]);
          setMoving([...shown.slice(0, i), rounded([p[0], clamp(p[1])]), ...shown.slice(i)]);
          dragging.current = i;
        }
        setChosen(dragging.current);
      }}
      onPointerMove={(e) => {
        const i = dragging.current;
        if (i === null) return;
        const p = place(e);
        const next = moved(i, p);
        setMoving(next);
        onChange(next, false);
      }}
      onPointerUp={(e) => {
        const i = dragging.current;
        if (i === null) return;
        const [, y] = place(e);
        // Pulled well out of the field, a bead between the ends is gone.
        end(i > 0 && i < shown.length - 1 && (y < -0.4 || y > 1.4) ? shown.filter((_, k) => k !== i) : shown);
      }}
      onPointerCancel={() => {
        onChange(kept, false);
        end(null);
      }}
    >
      <path d={`M${px(0)} ${py(0)}L${px(1)} ${py(1)}`} className="stroke-line" fill="none" />
      <path
        d={Array.from({ length: 41 }, (_, i) => `${i ? 'L' : 'M'}${px(i / 40)} ${py(at(i / 40))}`).join('')}
        className="stroke-accent"
        fill="none"
        strokeWidth={1.75}
      />
      {shown.map(([x, y], i) => (
        <circle
          key={i}
          cx={px(x)}
          cy={py(y)}
          r={5}
          tabIndex={0}
          role="slider"
          aria-label={`${label}, bead ${i + 1}`}
          aria-valuemin={0}
          aria-valuemax={100}
          aria-valuenow={Math.round(y * 100)}
          aria-valuetext={`${formatNumber(y * 100, 0)} % ink where the picture is ${formatNumber(x * 100, 0)} % dark`}
          className={`fill-field stroke-accent ${chosen === i ? 'stroke-3' : 'stroke-2'}`}
          onKeyDown={onKey(i)}
          onFocus={() => setChosen(i)}
        />
      ))}
    </svg>
  );
}
