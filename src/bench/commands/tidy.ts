import { labToLch } from '@/core/colour/models';
import type { Palette } from '@/core/colour/palette';
import { mergeDuplicates, removeUnused, sortSwatches } from '@/core/edit/swatches';
import type { Swatch } from '@/core/model/schema';
import type { CommandDef } from '../session/commandDef';
import type { Session } from '../session/session';

const first = (s: Swatch) => (s.kind === 'colour' ? { swatch: s.id, tint: 1 } : s.stops[0].colour);
const look = (s: Swatch, palette: Palette) => labToLch(palette.labOf(first(s)));

/** Greys have no hue: they come first, by lightness. */
function byHue(s: Swatch, palette: Palette): number {
  const [l, c, h] = look(s, palette);
  return c < 5 ? l - 1000 : h;
}

export interface SortRow {
  readonly word: string;
  readonly key: (s: Swatch, palette: Palette) => number | string;
}
/** The orders that the tray can be put in. */
export const SORTS = {
  name: { word: 'Name', key: (s) => s.name },
  hue: { word: 'Hue', key: byHue },
  lightness: { word: 'Lightness', key: (s, palette) => look(s, palette)[0] },
  ink: { word: 'Total ink', key: (s, palette) => palette.totalInk(first(s)) },
} as const satisfies Record<string, SortRow>;

const swatches = (n: number) => (n === 1 ? '1 swatch' : `${n} swatches`);

export function sortTray(s: Session, { word, key }: SortRow): void {
  const { palette } = s;
  if (!s.commit(`Sort by ${word.toLowerCase()}`, (d) => sortSwatches(d, (x) => key(x, palette))))
    s.say(`The tray is sorted by ${word.toLowerCase()} already.`);
}

export function mergeTray(s: Session): void {
  let n = 0;
  s.commit('Merge equal swatches', (d) => {
    n = mergeDuplicates(d);
  });
  s.say(n ? `Merged: ${swatches(n)} went, their users follow the ones that stay.` : 'No two swatches are equal.');
}

export function sweepTray(s: Session): void {
  let n = 0;
  s.commit('Remove unused swatches', (d) => {
    n = removeUnused(d);
  });
  s.say(n ? `Removed ${swatches(n)} that nothing uses.` : 'Every swatch is in use.');
}

export const SWATCH_COMMANDS = {
  'swatches.sortName': {
    label: 'Sort swatches by name',
    keywords: ['colours', 'order', 'alphabet'],
    keys: [],
    run: (s) => sortTray(s, SORTS.name),
  },
  'swatches.sortHue': {
    label: 'Sort swatches by hue',
    keywords: ['colours', 'order', 'rainbow'],
    keys: [],
    run: (s) => sortTray(s, SORTS.hue),
  },
  'swatches.sortLight': {
    label: 'Sort swatches by lightness',
    keywords: ['colours', 'order', 'dark'],
    keys: [],
    run: (s) => sortTray(s, SORTS.lightness),
  },
  'swatches.merge': {
    label: 'Merge duplicate swatches',
    keywords: ['colours', 'equal', 'twice', 'clean up'],
    keys: [],
    run: mergeTray,
  },
  'swatches.sweep': {
    label: 'Remove unused swatches',
    keywords: ['colours', 'clean up', 'delete', 'sweep'],
    keys: [],
    run: sweepTray,
  },
} as const satisfies Record<string, CommandDef>;
