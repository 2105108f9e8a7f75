/**
 * OpenType features that a person may switch, by their plain names; the rest are the shaper's own affair. Registered
 * tags.
 */
const NAMES: readonly (readonly [tag: string, name: string])[] = [
  ['lnum', 'Capital figures'],
  ['onum', 'Old-style figures'],
  ['tnum', 'Figures of one width'],
  ['pnum', 'Figures of their own width'],
  ['zero', 'Slashed zero'],
  ['frac', 'Fractions'],
  ['ordn', 'Ordinals'],
  ['dlig', 'Rare ligatures'],
  ['hlig', 'Historic ligatures'],
  ['hist', 'Historic forms'],
  ['swsh', 'Swashes'],
  ['cswh', 'Swashes by neighbour'],
  ['salt', 'Other forms'],
  ['titl', 'Titling capitals'],
  ['case', 'Signs for capitals'],
  ['c2sc', 'Small capitals for capitals'],
];

/** What a face can switch, in the order of the table, then its own sets. */
export function switchable(features: ReadonlySet<string>): { readonly tag: string; readonly name: string }[] {
  const named = NAMES.flatMap(([tag, name]) => (features.has(tag) ? [{ tag, name }] : []));
  const sets = [...features]
    .filter((tag) => /^ss\d\d$/.test(tag))
    .sort()
    .map((tag) => ({ tag, name: `Set ${Number(tag.slice(2))}` }));
  return [...named, ...sets];
}
