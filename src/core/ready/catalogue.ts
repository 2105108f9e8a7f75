import { ADDRESSES, TEAR_OFFS } from './blocks';
import { DATES } from './dates';
import { CORNERS, DIVIDERS, EDGES } from './edges';
import { PRICE_TAGS, SEALS } from './marks';
import { TITLES } from './titles';
import type { Ready } from './types';

/** All ready-mades that ship. */
export const READY_MADES: readonly Ready[] = [
  ...TITLES,
  ...EDGES,
  ...CORNERS,
  ...DATES,
  ...SEALS,
  ...TEAR_OFFS,
  ...ADDRESSES,
  ...DIVIDERS,
  ...PRICE_TAGS,
];

/** The ready-made of that id. */
export const readyById = (id: string): Ready | undefined => READY_MADES.find((r) => r.id === id);

/** Those whose name, family or words begin with every word asked for; all for none. */
export function findReady(query: string): readonly Ready[] {
  const asked = split(query);
  return READY_MADES.filter((r) => {
    const words = split(`${r.name} ${r.family} ${r.keywords.join(' ')}`);
    return asked.every((a) => words.some((w) => w.startsWith(a)));
  });
}

const split = (text: string): string[] =>
  text
    .toLowerCase()
    .split(/[\s,-]+/)
    .filter(Boolean);
