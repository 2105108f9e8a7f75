import type { Palette } from '../colour/palette';
import type { Colour, Paint, Stop } from '../model/schema';
import type { Leaf, Part } from '../scene/scene';
import { mapLeaves } from '../scene/walk';

/** Luma of a look by the weights of ITU-R BT.709: how much a mask of light lets through (SVG 1.1, 14.4). */
const luma = (rgb: readonly number[]): number => 0.2126 * rgb[0] + 0.7152 * rgb[1] + 0.0722 * rgb[2];

const known = new WeakMap<Palette, WeakMap<Paint, Leaf['paint']>>();

/**
 * Parts in greys as light as their colours look: black ink alone, so that light is what black leaves. Every painter and
 * the PDF take masks of light from these.
 */
export function asLight(content: readonly Part[], palette: Palette): Part[] {
  let paints = known.get(palette);
  if (!paints) known.set(palette, (paints = new WeakMap()));
  const grey = <P extends Leaf['paint']>(p: P): P => {
    let paint = paints.get(p);
    if (!paint) paints.set(p, (paint = greyOf(p, palette)));
    return paint as P;
  };
  const leaf = (l: Leaf): Leaf => ({ ...l, paint: grey(l.paint) });
  return mapLeaves(content, leaf, ({ effects }) => effects.map((e) => ({ ...e, paint: grey(e.paint) })));
}

function greyOf(paint: Leaf['paint'], palette: Palette): Leaf['paint'] {
  const grey = (look: readonly number[]): Colour => ({ gray: Math.min(1, Math.max(0, luma(look))) });
  const ofColour = (c: Colour) => grey(palette.lookOfMix(palette.mix(c)));
  switch (paint.kind) {
    case 'colour':
      return { ...paint, overprint: false, colour: ofColour(paint.colour) };
    case 'pools':
      return { ...paint, overprint: false, pools: paint.pools.map((p) => ({ ...p, colour: ofColour(p.colour) })) };
    case 'gradient': {
      const { stops } = palette.rampOf(paint);
      const own = stops.map((s): Stop => ({
        offset: Math.min(1, Math.max(0, s.offset)),
        colour: grey(palette.lookOfMix(s.mix)),
        ...(s.opacity < 1 && { opacity: s.opacity }),
      }));
      // There and back is already in the ramp.
      const { thereAndBack: _, grain: __, ...rest } = paint;
      return { ...rest, overprint: false, ramp: { stops: thinned(own), mixing: 'ink' } };
    }
    case 'picture':
      return { ...paint, overprint: false, tone: { ...paint.tone, inks: [{ colour: { gray: 0 } }] } };
  }
}

/** No ramp has more stops than the document allows. */
function thinned(stops: readonly Stop[]): Stop[] {
  if (stops.length <= 64) return [...stops];
  return Array.from({ length: 64 }, (_, i) => stops[Math.round((i * (stops.length - 1)) / 63)]);
}
