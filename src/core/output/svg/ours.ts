import type { Palette } from '../../colour/palette';
import { multiply } from '../../geometry/matrix';
import { coloursOf, mapColours } from '../../model/paints';
import type { Colour, Paint } from '../../model/schema';
import type { Leaf, Scene } from '../../scene/scene';
import { walk, walkPaints } from '../../scene/walk';
import { escapeXml } from '../xml';

/** A paint that stands for itself: no swatches. */
export function freed<P extends Paint>(of: P, palette: Palette): P {
  const own = (c: Colour): Colour => {
    if (!('swatch' in c)) return c;
    const { colour, tint } = palette.own(c);
    if (tint === 1) return colour;
    if ('ink' in colour) return { ...colour, tint: colour.tint * tint };
    if ('cmyk' in colour)
      return { cmyk: [colour.cmyk[0] * tint, colour.cmyk[1] * tint, colour.cmyk[2] * tint, colour.cmyk[3] * tint] };
    // Tints of screen colours are tints of what they print as (or of their light, on a screen).
    const mix = palette.mix(c);
    return palette.screen ? { rgb: [mix[0], mix[1], mix[2]] } : { cmyk: [mix[0], mix[1], mix[2], mix[3]] };
  };
  let paint: Paint = of;
  if (paint.kind === 'gradient') {
    const source = palette.rampSource(paint.ramp);
    const { eachLetter: _, ...rest } = paint;
    paint = { ...rest, ramp: { stops: source.stops, ...(source.mixing && { mixing: source.mixing }) } };
  }
  return mapColours(paint, own) as P;
}

/** The same with its geometry in page points. */
function freedOnPage(leaf: Leaf, palette: Palette): Paint {
  const paint = freed(leaf.paint, palette);
  // What follows a line has no place of its own.
  return 'geometry' in paint ? { ...paint, geometry: multiply(leaf.matrix, paint.geometry) } : paint;
}

/** Attributes that say what is printed, and what SVG sees in its place. */
export function annotate(item: Leaf, palette: Palette, which: 'fill' | 'stroke' | 'whole', seen: string): string {
  let paint = freedOnPage(item, palette);
  let picture = '';
  if (paint.kind === 'picture') {
    const known = palette.picture(paint.picture);
    picture = ` ink:picture="${escapeXml(JSON.stringify(known))}"`;
    paint = { ...paint, picture: known.id };
  }
  const text = escapeXml(JSON.stringify(paint));
  return which === 'whole'
    ? `ink:whole="${text}"${picture}`
    : `ink:${which}="${text}" ink:${which}-as="${escapeXml(seen)}"`;
}

/** The design's spot inks that the page uses, as they are kept. */
export function inksText(scene: Scene, palette: Palette): string {
  const used = new Set<string>();
  const look = (paint: Leaf['paint']) => coloursOf(freed(paint, palette)).forEach((c) => 'ink' in c && used.add(c.ink));
  walkPaints(scene.root, look);
  walk(scene.root, (leaf) => look(leaf.paint), { masks: true });
  return JSON.stringify(palette.allInks.filter((i) => used.has(i.id)));
}
