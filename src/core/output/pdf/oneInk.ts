import type { Palette } from '../../colour/palette';
import type { Colour, Paint, Stop } from '../../model/schema';
import { mapColours } from '../../model/paints';
import type { Leaf, Scene } from '../../scene/scene';
import { makeGroup } from '../../scene/scene';
import { mapLeaves } from '../../scene/walk';

/**
 * A page in one ink: each colour becomes the tint of it that is as much lighter than the solid ink as the colour is
 * (CIE L*); tints of that very ink stay as they are. `ink` is an ink's id, or `black`. Pictures become its tones.
 */
export function inOneInk(scene: Scene, palette: Palette, ink: string): Scene {
  const spot = palette.inks.find((i) => i.id === ink);
  const channel = spot ? palette.inks.indexOf(spot) + 4 : 3;
  const tinted = (t: number): Colour => (spot ? { ink: spot.id, tint: t } : { cmyk: [0, 0, 0, t] });
  const solid = palette.labOf(tinted(1))[0];
  const ofColour = (colour: Colour): Colour => {
    const mix = palette.mix(colour);
    if (mix.every((v, i) => i === channel || v === 0)) return tinted(mix[channel]);
    const [L] = palette.labOfMix(mix);
    return tinted(Math.min(1, Math.max(0, (100 - L) / (100 - solid))));
  };
  const made = new Map<Paint, Leaf['paint']>();
  const paint = <P extends Leaf['paint']>(p: P): P => {
    let known = made.get(p);
    if (!known) made.set(p, (known = recoloured(p, palette, ofColour, tinted(1))));
    return known as P;
  };
  const content = mapLeaves(
    scene.root.content,
    (l) => ({ ...l, paint: paint(l.paint) }),
    ({ effects }) => effects.map((e) => ({ ...e, paint: paint(e.paint) })),
  );
  return { ...scene, root: makeGroup({ ...scene.root, content }) };
}

function recoloured(
  paint: Leaf['paint'],
  palette: Palette,
  ofColour: (c: Colour) => Colour,
  solid: Colour,
): Leaf['paint'] {
  if (paint.kind === 'picture') return { ...paint, tone: { ...paint.tone, inks: [{ colour: solid }] } };
  if (paint.kind !== 'gradient') return mapColours(paint, ofColour) as Leaf['paint'];
  const { stops, mixing } = palette.rampSource(paint.ramp);
  return {
    ...paint,
    ramp: { stops: stops.map((s): Stop => ({ ...s, colour: ofColour(s.colour) })), ...(mixing && { mixing }) },
  };
}
