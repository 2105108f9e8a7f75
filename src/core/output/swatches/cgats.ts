import { levelText, percentText, plainDecimal, type ExchangeSwatch } from '../../colour/exchange';
import type { Triple } from '../../colour/spaces';
import type { Cmyk } from '../../model/schema';

/** A swatch with the numbers that every row of a table carries: its recipe, its look on paper, its look on a screen. */
export interface WrittenSwatch extends ExchangeSwatch {
  readonly cmyk: Cmyk;
  readonly lab: Triple;
  readonly rgb: Triple;
}

const OWN = [
  'HOLVET_KIND',
  'HOLVET_GROUP',
  'HOLVET_INK',
  'HOLVET_TINT',
  'INK_L',
  'INK_A',
  'INK_B',
  'INK_C',
  'INK_M',
  'INK_Y',
  'INK_K',
  'HOLVET_GREY',
];
const COLUMNS = [
  'SAMPLE_ID',
  'SAMPLE_NAME',
  'CMYK_C',
  'CMYK_M',
  'CMYK_Y',
  'CMYK_K',
  'LAB_L',
  'LAB_A',
  'LAB_B',
  'RGB_R',
  'RGB_G',
  'RGB_B',
  ...OWN,
];

const quote = (s: string) => `"${s.replace(/\s+/g, ' ').replace(/"/g, '""')}"`;

/**
 * A CGATS text table (ISO 28178). Inks 0…100, Lab D50, RGB 0…255; what a swatch is kept as stands in columns of our
 * own.
 */
export function writeCgats(swatches: readonly WrittenSwatch[], title: string, created: string): string {
  const rows = swatches.map((s, i) => {
    const c = s.colour;
    const kind = 'spot' in c ? 'spot' : 'cmyk' in c ? 'cmyk' : 'rgb' in c ? 'rgb' : 'lab' in c ? 'lab' : 'grey';
    const spot = 'spot' in c ? c : null;
    return [
      i + 1,
      quote(s.name),
      ...('gray' in c ? ['0', '0', '0', percentText(1 - c.gray)] : s.cmyk.map(percentText)),
      ...s.lab.map(plainDecimal),
      ...s.rgb.map(levelText),
      kind,
      quote(s.group ?? ''),
      quote(spot?.spot.name ?? ''),
      spot ? percentText(spot.tint) : 0,
      ...(spot?.spot.lab ?? [0, 0, 0]).map(plainDecimal),
      ...(spot?.spot.alternate ?? [0, 0, 0, 0]).map(percentText),
      'gray' in c ? percentText(c.gray) : 0,
    ].join('\t');
  });
  return [
    'CGATS.17',
    'ORIGINATOR "Holvet"',
    `DESCRIPTOR ${quote(title)}`,
    `CREATED ${quote(created.slice(0, 10))}`,
    ...OWN.map((name) => `KEYWORD "${name}"`),
    `NUMBER_OF_FIELDS ${COLUMNS.length}`,
    'BEGIN_DATA_FORMAT',
    COLUMNS.join('\t'),
    'END_DATA_FORMAT',
    `NUMBER_OF_SETS ${rows.length}`,
    'BEGIN_DATA',
    ...rows,
    'END_DATA',
    '',
  ].join('\n');
}
