import type { Palette } from '../colour/palette';
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
    else palette.ramp(paint.ramp).used.forEach((u, i) => u && note(i));
  }
  return used.flatMap((u, i) => (u ? [i] : []));
}
