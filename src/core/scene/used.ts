import type { Palette } from '../colour/palette';
import { overlaps } from '../geometry/rect';
import type { PicturePaint } from '../model/schema';
import { bleedRect, type Leaf, type Scene } from './scene';
import { walkPaints } from './walk';

/**
 * Indexes of the channels that anything on a page inks, its bleed included: for the ticket, the plates' list and the
 * colour bar.
 */
export function usedChannels(scene: Scene, palette: Palette): readonly number[] {
  const last = asked.get(scene);
  if (last?.palette === palette) return last.channels;
  const used = palette.channels.map(() => false);
  const known = inked.get(palette) ?? new WeakMap<Leaf['paint'], readonly number[]>();
  inked.set(palette, known);
  const note = (paint: Leaf['paint']) => {
    let channels = known.get(paint);
    if (!channels) known.set(paint, (channels = channelsOf(paint, palette)));
    for (const i of channels) used[i] = true;
  };
  // What lies beside the sheet is on no plate.
  const sheet = bleedRect(scene);
  for (const part of scene.root.content) {
    if (!overlaps(part.paintBounds, sheet)) continue;
    if (part.type === 'group') walkPaints(part, note);
    else note(part.paint);
  }
  const channels = used.flatMap((u, i) => (u ? [i] : []));
  asked.set(scene, { palette, channels });
  return channels;
}

/** Several panels ask for the same page. */
const asked = new WeakMap<Scene, { readonly palette: Palette; readonly channels: readonly number[] }>();
/** By paint: thousands of objects keep theirs while they move. */
const inked = new WeakMap<Palette, WeakMap<Leaf['paint'], readonly number[]>>();

function channelsOf(paint: Leaf['paint'], palette: Palette): number[] {
  const some = (list: readonly (number | boolean)[]) =>
    list.flatMap((v, i) => (v === true || (v !== false && v > 0) ? [i] : []));
  if (paint.kind === 'colour') return some(palette.mix(paint.colour));
  if (paint.kind === 'pools') return paint.pools.flatMap((p) => some(palette.mix(p.colour)));
  if (paint.kind === 'picture') return some(pictureChannels(paint, palette));
  return some(palette.ramp(paint.ramp).used);
}

/** The channels that a picture can ink, by what is known of it without opening it. */
function pictureChannels(paint: PicturePaint, palette: Palette): boolean[] {
  if (palette.screen) return palette.channels.map(() => true);
  const inks = paint.tone?.inks;
  if (inks) return palette.channels.map((_, i) => inks.some((ink) => palette.mix(ink.colour)[i] > 0));
  const gray = palette.picture(paint.picture).space === 'gray';
  return palette.channels.map((_, i) => (gray ? i === 3 : i < 4));
}
