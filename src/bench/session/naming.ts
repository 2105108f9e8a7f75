import type { Aim } from '@/core/edit/aims';
import { recipeName } from '@/core/edit/recipeName';
import { hexOf } from '@/core/colour/spaces';
import type { Blend, Colour, Design, Page, Paint } from '@/core/model/schema';
import { formatNumber } from '@/core/units/length';

/** A colour in words: its swatch's name, its recipe, its hex; with its strength where it is not full. */
export function colourName(d: Design, c: Colour): string {
  if ('swatch' in c) {
    const name = d.swatches.find((s) => s.id === c.swatch)?.name ?? 'a swatch';
    return c.tint === 1 ? name : `${name} ${formatNumber(c.tint * 100, 0)} %`;
  }
  if ('ink' in c) return `${d.inks.find((i) => i.id === c.ink)?.name ?? 'an ink'} ${formatNumber(c.tint * 100, 0)} %`;
  if ('cmyk' in c) return recipeName(c.cmyk);
  if ('rgb' in c) return hexOf(c.rgb);
  if ('lab' in c) return `Lab ${c.lab.map((v) => formatNumber(v, 0)).join(' ')}`;
  return `grey ${formatNumber((1 - c.gray) * 100, 0)} %`;
}

export const BLEND_WORDS: Readonly<Record<Blend, string>> = {
  multiply: 'Multiply',
  screen: 'Screen',
  overlay: 'Overlay',
  darken: 'Darken',
  lighten: 'Lighten',
  'color-dodge': 'Colour dodge',
  'color-burn': 'Colour burn',
  'hard-light': 'Hard light',
  'soft-light': 'Soft light',
  difference: 'Difference',
  exclusion: 'Exclusion',
  hue: 'Hue',
  saturation: 'Saturation',
  color: 'Colour',
  luminosity: 'Lightness',
};

const COURSE = {
  linear: 'along a line',
  radial: 'from the middle',
  box: 'from the middle of a box',
  along: 'following the line',
  across: 'edge to edge of the line',
} as const;

export function paintName(d: Design, p: Paint | undefined): string {
  if (!p || p.kind === 'none') return 'none';
  if (p.kind === 'colour') return colourName(d, p.colour);
  if (p.kind === 'pools') return `${p.pools.length} pools`;
  if (p.kind === 'picture') return d.pictures?.find((x) => x.id === p.picture)?.name ?? 'a picture';
  const { ramp } = p;
  const name = 'swatch' in ramp ? d.swatches.find((s) => s.id === ramp.swatch)?.name : undefined;
  return `${name ?? 'a gradient'}, ${COURSE[p.strokeMapping ?? p.gradient]}`;
}

export const AIM_WORDS: Readonly<Record<Aim, string>> = {
  fill: 'Fill',
  outline: 'Outline',
  letters: 'Letters',
  letterOutline: 'Letter outline',
  frame: 'Frame',
  frameOutline: 'Frame outline',
  shadow: 'Shadow',
  ground: 'Ground',
  outline2: 'Second outline',
  outline3: 'Third outline',
  outline4: 'Fourth outline',
  outline5: 'Fifth outline',
};

/** What a page or a master is called: by its name, or by its number. */
export function sheetName(d: Design, sheet: Page): string {
  const number = d.pages.findIndex((p) => p.id === sheet.id);
  return sheet.name || (number < 0 ? 'without a name' : `Page ${number + 1}`);
}
