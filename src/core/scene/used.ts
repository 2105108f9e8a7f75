import type { Palette } from '../colour/palette';
import type { PicturePaint } from '../model/schema';
import type { Scene } from './scene';

/** Indexes of the channels that any item of a page inks. */
export function usedChannels(scene: Scene, palette: Palette): number[] {
  const used = palette.channels.map(() => false);
  const note = (i: number) => {
    used[i] = true;
  };
  for (const { paint } of scene.items) {
    if (paint.kind === 'colour') palette.mix(paint.colour).forEach((v, i) => v > 0 && note(i));
    else if (paint.kind === 'pools') for (const p of paint.pools) palette.mix(p.colour).forEach((v, i) => v > 0 && note(i));
    else if (paint.kind === 'picture') pictureChannels(paint, palette).forEach((u, i) => u && note(i));
    else palette.ramp(paint.ramp).used.forEach((u, i) => u && note(i));
  }
  return used.flatMap((u, i) => (u ? [i] : []));
}

/** The channels that a picture can ink, by what is known of it without opening it. */
export function pictureChannels(paint: PicturePaint, palette: Palette): boolean[] {
  if (palette.screen) return palette.channels.map(() => true);
  const inks = paint.tone?.inks;
  if (inks) return palette.channels.map((_, i) => inks.some((ink) => palette.mix(ink.colour)[i] > 0));
  const gray = palette.picture(paint.picture).space === 'gray';
  return palette.channels.map((_, i) => (gray ? i === 3 : i < 4));
}
