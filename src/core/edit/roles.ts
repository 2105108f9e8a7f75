import type { Colour, Design } from '../model/schema';

/** Swatches by what they can be; the same one several times where a design has few. */
export interface Roles {
  readonly dark: Colour;
  readonly middle: Colour;
  readonly light: Colour;
  readonly accent: Colour;
  readonly other: Colour;
}

/** A swatch in part strength. */
export const faint = (c: Colour, tint: number): Colour => ('swatch' in c ? { ...c, tint: c.tint * tint } : c);

/** What a design's swatches can be, by how they look: `lab` tells that. */
export function rolesOf(d: Design, lab: (c: Colour) => readonly [number, number, number]): Roles {
  const flat = d.swatches.flatMap((s) => (s.kind === 'colour' ? [{ swatch: s.id, tint: 1 }] : []));
  const plain: Colour = d.setup.medium === 'screen' ? { rgb: [0.2, 0.3, 0.4] } : { cmyk: [0.6, 0.3, 0, 0.3] };
  const all = (flat.length ? flat : [plain]).map((colour) => {
    const [l, a, b] = lab(colour);
    return { colour, l, chroma: Math.hypot(a, b) };
  });
  const by = (of: (c: (typeof all)[number]) => number) => [...all].sort((x, y) => of(x) - of(y)).map((c) => c.colour);
  const light = by((c) => -c.l);
  const vivid = by((c) => -c.chroma);
  const dark = light[light.length - 1];
  const rest = vivid.filter((c) => c !== dark && c !== light[0]);
  // With nothing but paper and ink there are tints of the ink.
  if (!rest.length)
    return { dark, light: light[0], accent: faint(dark, 0.7), other: faint(dark, 0.4), middle: faint(dark, 0.55) };
  const accent = rest[0];
  const other = rest[1] ?? accent;
  // Between dark and light, and neither of the bright ones where there is another.
  const between = light.filter((c) => ![dark, light[0], accent, other].includes(c));
  return { dark, light: light[0], accent, other, middle: between[Math.floor(between.length / 2)] ?? other };
}
