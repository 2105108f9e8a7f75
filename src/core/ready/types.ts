import type { ReadyKit } from './kit';

export const READY_FAMILIES = [
  'Titles',
  'Edges',
  'Corners',
  'Dates',
  'Seals',
  'Tear-offs',
  'Address blocks',
  'Dividers',
  'Price tags',
] as const;

/** What of a ready-made can be set, a number; of several choices its place in the list. */
export interface Dial {
  readonly id: string;
  readonly label: string;
  readonly min: number;
  readonly max: number;
  readonly initial: number;
  readonly choices?: readonly string[];
}
export type Values = Readonly<Record<string, number>>;

/** A prepared group to drop in: where it lies and how large it is comes of the page, its colours of the design. */
export interface Ready {
  readonly id: string;
  readonly name: string;
  readonly family: (typeof READY_FAMILIES)[number];
  readonly keywords: readonly string[];
  readonly dials: readonly Dial[];
  /** Draws it with a kit; answers what lies in its group, back to front. */
  readonly make: (k: ReadyKit, v: Values) => string[];
}

type Row = readonly [
  id: string,
  name: string,
  keywords: readonly string[],
  make: Ready['make'],
  dials?: readonly Dial[],
];

/** The rows of a family. */
export const family = (name: Ready['family'], rows: readonly Row[]): readonly Ready[] =>
  rows.map(([id, called, keywords, make, dials = []]) => ({ id, name: called, family: name, keywords, make, dials }));

/** How many of something. */
export const countDial = (label: string, initial: number, min: number, max: number): Dial => ({
  id: 'count',
  label,
  min,
  max,
  initial,
});
