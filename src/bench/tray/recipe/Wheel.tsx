'use client';
import { useRef } from 'react';
import { hexOf } from '@/core/colour/spaces';
import { hsbToRgb } from '@/core/colour/models';

interface Props {
  /** Hue in degrees, saturation and brightness 0…1. */
  readonly hsb: readonly [number, number, number];
  readonly onPreview: (hsb: [number, number, number] | null) => void;
  readonly onCommit: (hsb: [number, number, number]) => void;
}

const SIZE = 112;
const RIM = Array.from({ length: 13 }, (_, i) => hexOf(hsbToRgb([i * 30, 1, 1]))).join(', ');

/** Hue round the rim, saturation from the middle out, at the brightness of the colour. Arrow keys turn and pull it. */
export function Wheel({ hsb: [h, s, b], onPreview, onCommit }: Props) {
  const el = useRef<HTMLDivElement>(null);
  const drag = useRef<[number, number, number] | null>(null);
  const at = (e: React.PointerEvent): [number, number, number] => {
    const r = el.current!.getBoundingClientRect();
    const x = (e.clientX - r.left) / (r.width / 2) - 1;
    const y = (e.clientY - r.top) / (r.height / 2) - 1;
    // A black has no hue to turn: the wheel brings it to light.
    return [((Math.atan2(x, -y) * 180) / Math.PI + 360) % 360, Math.min(1, Math.hypot(x, y)), b < 0.02 ? 1 : b];
  };
  const angle = (h * Math.PI) / 180;
  return (
    <div
      ref={el}
      role="slider"
      tabIndex={0}
      aria-label="Colour wheel"
      aria-valuemin={0}
      aria-valuemax={360}
      aria-valuenow={Math.round(h)}
      aria-valuetext={`Hue ${Math.round(h)}°, saturation ${Math.round(s * 100)} %. Left and right turn, up and down change saturation.`}
      title="Hue round the rim, saturation from the middle out"
      className="relative shrink-0 touch-none rounded-full border border-edge"
      style={{
        width: SIZE,
        height: SIZE,
        background: `radial-gradient(closest-side, #ffffff, #ffffff00), conic-gradient(${RIM})`,
      }}
      onPointerDown={(e) => {
        e.currentTarget.setPointerCapture(e.pointerId);
        drag.current = at(e);
        onPreview(drag.current);
      }}
      onPointerMove={(e) => {
        if (!drag.current) return;
        drag.current = at(e);
        onPreview(drag.current);
      }}
      onPointerUp={() => {
        if (drag.current) onCommit(drag.current);
        drag.current = null;
      }}
      onPointerCancel={() => {
        drag.current = null;
        onPreview(null);
      }}
      onKeyDown={(e) => {
        const by = e.shiftKey ? 10 : 1;
        const turn = e.key === 'ArrowRight' ? by : e.key === 'ArrowLeft' ? -by : 0;
        const pull = e.key === 'ArrowUp' ? by / 100 : e.key === 'ArrowDown' ? -by / 100 : 0;
        if (!turn && !pull) return;
        e.preventDefault();
        onCommit([(h + turn + 360) % 360, Math.min(1, Math.max(0, s + pull)), b < 0.02 ? 1 : b]);
      }}
    >
      <span
        aria-hidden
        className="pointer-events-none absolute inset-0 rounded-full bg-black"
        style={{ opacity: (1 - b) * 0.85 }}
      />
      <span
        aria-hidden
        className="pointer-events-none absolute size-3.5 rounded-full border-2 border-[#1a1a1a] ring-[1.5px] ring-white"
        style={{
          left: SIZE / 2 + (Math.sin(angle) * s * SIZE) / 2 - 8,
          top: SIZE / 2 - (Math.cos(angle) * s * SIZE) / 2 - 8,
          background: hexOf(hsbToRgb([h, s, b])),
        }}
      />
    </div>
  );
}
