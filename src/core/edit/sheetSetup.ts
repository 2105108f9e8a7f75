import type { Design, Format, Grid } from '../model/schema';
import { pageById, sheetsOf } from '../model/tree';
import type { DesignDraft } from './history';

/** Formats, margins, columns and baseline grids of single sheets. */

const sheetIn = (d: DesignDraft, id: string): DesignDraft['pages'][number] => {
  const sheet = pageById(d, id);
  if (!sheet) throw new Error(`unknown page: ${id}`);
  return sheet;
};

/** Gives a page a format of its own, points; null, or the design's: it has the design's. */
export function setFormat(d: DesignDraft, id: string, format: Format | null): void {
  const sheet = sheetIn(d, id);
  const { width, height, round } = d.setup;
  if (format && (format.width !== width || format.height !== height || format.round !== round))
    sheet.format = { width: format.width, height: format.height, round: format.round };
  else delete sheet.format;
}

/**
 * Gives a page or a master margins, columns and a baseline grid of its own, points; null: those of its master, or the
 * design's.
 */
export function setGrid(d: DesignDraft, id: string, grid: Grid | null): void {
  const sheet = sheetIn(d, id);
  if (grid) sheet.grid = structuredClone({ ...grid }) as NonNullable<typeof sheet.grid>;
  else delete sheet.grid;
}

/** The sheets that do not have the design's own format. */
export const ofOtherFormat = (d: Pick<Design, 'pages' | 'masters'>): readonly string[] =>
  sheetsOf(d).flatMap((p) => (p.format ? [p.id] : []));
