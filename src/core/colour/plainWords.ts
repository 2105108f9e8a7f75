import { table } from '../model/own';
import { parseCssColour } from './css';
import { oklabToSrgb, srgbToOklab } from './models';
import { clip01, parseHex, type Triple } from './spaces';
import { mapTuple } from '../units/tuple';

/**
 * Everyday words for colours that CSS has no keyword for, or another one than most people mean. Values from memory of
 * what the words name.
 */
const WORDS = table<string>({
  amber: '#f2a900',
  apricot: '#f7b787',
  ash: '#b7b9b4',
  aubergine: '#3d1f3a',
  bark: '#5b4636',
  beetroot: '#7a1f3d',
  blood: '#8a0a12',
  bone: '#e8dfcb',
  bottle: '#0d4d3a',
  brass: '#b08d3c',
  brick: '#a23b2a',
  bronze: '#8c6a3f',
  butter: '#f7e08b',
  buttermilk: '#f6edc7',
  caramel: '#b06c2d',
  charcoal: '#36393d',
  cherry: '#b0122f',
  chestnut: '#7a3b23',
  cinnamon: '#a8592f',
  claret: '#6d1027',
  clay: '#b0694b',
  coal: '#26282b',
  cobalt: '#1d4fa3',
  cocoa: '#5a3a2a',
  coffee: '#5b4030',
  copper: '#b5682f',
  cream: '#f8f0d8',
  curry: '#c98f14',
  damson: '#5c2249',
  denim: '#3f628d',
  dove: '#a5a6aa',
  dusk: '#4b4f78',
  earth: '#6b5137',
  emerald: '#0f8a5f',
  fern: '#4f7942',
  flame: '#e2521d',
  fog: '#c9cdd0',
  forest: '#1f5130',
  fox: '#b4552a',
  ginger: '#b8651b',
  grape: '#5b3a82',
  grass: '#4c9a2a',
  hay: '#dcc57a',
  heather: '#9c7fb0',
  honey: '#e0a526',
  ice: '#dff0f5',
  ink: '#14203a',
  iron: '#52575c',
  ivy: '#2f5d3a',
  jade: '#1c9a77',
  lead: '#6c7177',
  leaf: '#4e8f2e',
  lemon: '#f4e23c',
  lilac: '#c3a5d4',
  mahogany: '#5a2318',
  mauve: '#a98bb0',
  mint: '#a5dcc0',
  moss: '#6b7f3a',
  mud: '#6d573d',
  mulberry: '#77254f',
  mustard: '#d2a021',
  navy: '#12244d',
  night: '#0f1833',
  oat: '#dccfb4',
  ochre: '#c1862a',
  olive: '#747a2b',
  onyx: '#1d1d20',
  paper: '#f7f4ea',
  parchment: '#efe5c9',
  peach: '#f9c4a0',
  pear: '#cfd24a',
  petrol: '#145266',
  pewter: '#8a8f94',
  pine: '#1d4b3a',
  pistachio: '#b9d38f',
  plum: '#6a2a5c',
  poppy: '#d8301f',
  putty: '#cfc6b0',
  raspberry: '#b51c50',
  rose: '#e0708c',
  rosewood: '#6b2a2a',
  ruby: '#9b1132',
  rust: '#a3461c',
  saffron: '#eeb020',
  sage: '#a3b08f',
  sand: '#dcc9a0',
  sapphire: '#15489a',
  scarlet: '#d3231d',
  sea: '#2b7a89',
  shell: '#f3dccb',
  sky: '#8cc4ea',
  slate: '#566069',
  smoke: '#9a9ea1',
  snow: '#fbfbf9',
  soot: '#2d2c2b',
  steel: '#7d8a94',
  stone: '#b8b1a2',
  straw: '#e3cf86',
  sulphur: '#e8dc4f',
  sunflower: '#f6bf1d',
  tar: '#1b1a19',
  teal: '#0f7b7d',
  terracotta: '#c06a4a',
  toffee: '#9a5c2b',
  turquoise: '#2bb9b0',
  vermilion: '#dd3d1f',
  walnut: '#5c4331',
  water: '#6fb0c9',
  wheat: '#e6d2a0',
  wine: '#701c33',
  pink: '#f08cae',
  orange: '#f08a1d',
  purple: '#6b3fa0',
  violet: '#7b4fb5',
  brown: '#7a4b28',
  green: '#2f9e44',
  grey: '#808080',
  gray: '#808080',
});

/** Lightness and strength that a word in front asks for, in OKLab. */
const SHADES = table<(lab: Triple) => Triple>({
  light: ([l, a, b]) => [l + (1 - l) * 0.5, a * 0.6, b * 0.6],
  pale: ([l, a, b]) => [l + (1 - l) * 0.7, a * 0.4, b * 0.4],
  soft: ([l, a, b]) => [l + (1 - l) * 0.35, a * 0.55, b * 0.55],
  bright: ([l, a, b]) => [Math.min(0.92, l * 1.08), a * 1.25, b * 1.25],
  dark: ([l, a, b]) => [l * 0.62, a * 0.75, b * 0.75],
  deep: ([l, a, b]) => [l * 0.72, a * 0.95, b * 0.95],
  dull: ([l, a, b]) => [l * 0.95, a * 0.5, b * 0.5],
});

/** The colour that a word or two name (`rust`, `dark green`, `sky blue`, `tomato`), sRGB 0…1; null for none. */
export function colourOfWords(text: string): Triple | null {
  const words = text
    .trim()
    .toLowerCase()
    .split(/[\s-]+/);
  if (!words.length || words.length > 3 || !words.every((w) => /^[a-z]+$/.test(w))) return null;
  const joined = words.join('');
  const known = WORDS[joined] ?? null;
  if (known) return triple(parseHex(known));
  const css = parseCssColour(joined);
  if (css && 'rgb' in css) return [css.rgb[0], css.rgb[1], css.rgb[2]];
  const shade = SHADES[words[0]];
  if (shade && words.length > 1) {
    const base = colourOfWords(words.slice(1).join(' '));
    return base && mapTuple(oklabToSrgb(shade(srgbToOklab(base))), clip01);
  }
  // Two words of which the last is plain and the first a thing of that colour: brick red, bottle green.
  if (words.length === 2 && WORDS[words[0]] && colourOfWords(words[1])) return triple(parseHex(WORDS[words[0]]));
  return null;
}

const triple = (v: readonly number[] | null): Triple | null => v && [v[0], v[1], v[2]];
