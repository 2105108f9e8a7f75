import { converter, parse } from 'culori';
import type { ExchangeColour } from './exchange';
import type { OwnColour } from '../model/schema';

const toLab = converter('lab');
const toRgb = converter('rgb');

/**
 * A colour of CSS Color 4 and 5: hex, names, rgb(), hsl(), hwb(), lab(), lch(), oklab(), oklch(), color(), and
 * device-cmyk() with four inks. What sRGB holds stays RGB, what it does not becomes Lab. Null for anything else.
 */
export function parseCssColour(text: string): Extract<ExchangeColour & OwnColour, object> | null {
  const source = text.trim();
  const inks = /^device-cmyk\(\s*([^)]*)\)$/i.exec(source);
  if (inks) {
    const parts = inks[1]
      .split(/[\s,/]+/)
      .filter(Boolean)
      .slice(0, 4);
    const values = parts.map((p) => (p === 'none' ? 0 : p.endsWith('%') ? Number(p.slice(0, -1)) / 100 : Number(p)));
    return values.length === 4 && values.every((v) => v >= 0 && v <= 1)
      ? { cmyk: [values[0], values[1], values[2], values[3]] }
      : null;
  }
  let colour;
  try {
    colour = parse(source);
  } catch {
    return null;
  }
  if (!colour) return null;
  const rgb = toRgb(colour);
  const inGamut = rgb && [rgb.r, rgb.g, rgb.b].every((v) => v >= -1e-4 && v <= 1 + 1e-4);
  if (rgb && inGamut && colour.mode !== 'lab' && colour.mode !== 'lch') {
    const clip = (v: number) => Math.min(1, Math.max(0, v));
    return { rgb: [clip(rgb.r), clip(rgb.g), clip(rgb.b)] };
  }
  const lab = colour.mode === 'lab' ? colour : toLab(colour);
  if (!lab) return null;
  const bound = (v: number | undefined, lo: number, hi: number) => Math.min(hi, Math.max(lo, v ?? 0));
  return { lab: [bound(lab.l, 0, 100), bound(lab.a, -128, 128), bound(lab.b, -128, 128)] };
}
