// Looks of paints that a canvas does not know, and of masks, for the quick painter.
import type { Palette } from '../colour/palette';
import type { Leaf } from '../scene/scene';
import type { Canvas2D } from './quickTools';

/** What the colours of a paint come to: while that stays, its picture does. */
export function coloursKey(paint: Leaf['paint'], palette: Palette): string {
  const mixes =
    paint.kind === 'pools'
      ? paint.pools.map((p) => palette.mix(p.colour))
      : paint.kind === 'gradient'
        ? palette.rampOf(paint).stops.map((s) => [s.offset, s.opacity, ...s.mix])
        : [];
  return `${palette.id} ${mixes.join(';')}`;
}

/** One colour for a paint of many: the middle one of those it is made of. */
export function flatLook(paint: Leaf['paint'], palette: Palette): string {
  const mixes =
    paint.kind === 'pools'
      ? paint.pools.map((p) => palette.mix(p.colour))
      : paint.kind === 'gradient'
        ? palette.rampOf(paint).stops.map((s) => s.mix)
        : [];
  const look = mixes.length ? palette.lookOfMix(mixes[mixes.length >> 1]) : [0.5, 0.5, 0.5];
  return `rgb(${look.map((v) => Math.round(v * 255)).join()})`;
}

/** Light becomes cover: a mask's greys say by how light they are how much is left. */
export function lightToCover(ctx: Canvas2D, width: number, height: number): void {
  const image = ctx.getImageData(0, 0, width, height);
  const { data } = image;
  for (let i = 0; i < data.length; i += 4) data[i + 3] = (data[i + 3] * data[i + 1]) / 255 + 0.5;
  ctx.putImageData(image, 0, 0);
}
