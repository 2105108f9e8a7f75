import { UNITS, formatNumber, type Unit } from '@/core/units/length';
import type { Camera } from '../session/state';

export const RULER = 20;

/** Steps that a person can count in, per unit. */
const STEPS: Record<Unit, readonly number[]> = {
  mm: [0.1, 0.5, 1, 5, 10, 50, 100, 500, 1000],
  cm: [0.01, 0.05, 0.1, 0.5, 1, 5, 10, 50, 100],
  in: [0.0625, 0.125, 0.25, 0.5, 1, 2, 5, 10, 50],
  pt: [1, 2, 5, 10, 50, 100, 500, 1000, 5000],
  px: [1, 2, 5, 10, 50, 100, 500, 1000, 5000],
};

/** Draws one ruler: ticks at round measures, labels at least 44 px apart, a mark where the pointer is. */
export function drawRuler(
  canvas: HTMLCanvasElement,
  camera: Camera,
  unit: Unit,
  upright: boolean,
  pointer: number | null,
): void {
  const ctx = canvas.getContext('2d')!;
  const k = canvas.width / Math.max(1, canvas.clientWidth);
  const style = getComputedStyle(canvas);
  ctx.setTransform(k, 0, 0, k, 0, 0);
  const length = upright ? canvas.clientHeight : canvas.clientWidth;
  ctx.fillStyle = style.getPropertyValue('--panel');
  ctx.fillRect(0, 0, canvas.clientWidth, canvas.clientHeight);
  const per = UNITS[unit] * camera.scale;
  const offset = upright ? camera.y : camera.x;
  const steps = STEPS[unit];
  const minor = steps.find((s) => s * per >= 5) ?? steps[steps.length - 1];
  const major = steps.find((s) => s * per >= 44 && Math.abs(s / minor - Math.round(s / minor)) < 1e-6) ?? minor * 10;
  ctx.strokeStyle = style.getPropertyValue('--edge');
  ctx.fillStyle = style.getPropertyValue('--faint');
  ctx.font = '10px Archivo, sans-serif';
  ctx.lineWidth = 1;
  ctx.beginPath();
  const first = Math.floor(-offset / per / minor);
  const last = Math.ceil((length - offset) / per / minor);
  const every = Math.round(major / minor);
  for (let i = first; i <= last; i++) {
    const at = Math.round(i * minor * per + offset) + 0.5;
    const long = i % every === 0;
    const tick = long ? 9 : 4;
    if (upright) {
      ctx.moveTo(RULER, at);
      ctx.lineTo(RULER - tick, at);
    } else {
      ctx.moveTo(at, RULER);
      ctx.lineTo(at, RULER - tick);
    }
    if (!long) continue;
    const text = formatNumber(i * minor, 3);
    if (upright) {
      ctx.save();
      ctx.translate(8, at - 3);
      ctx.rotate(-Math.PI / 2);
      ctx.fillText(text, 0, 0);
      ctx.restore();
    } else ctx.fillText(text, at + 3, 9);
  }
  ctx.stroke();
  if (pointer !== null) {
    ctx.strokeStyle = style.getPropertyValue('--accent');
    ctx.beginPath();
    if (upright) {
      ctx.moveTo(0, pointer + 0.5);
      ctx.lineTo(RULER, pointer + 0.5);
    } else {
      ctx.moveTo(pointer + 0.5, 0);
      ctx.lineTo(pointer + 0.5, RULER);
    }
    ctx.stroke();
  }
}
