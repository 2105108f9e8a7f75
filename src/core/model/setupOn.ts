import type { Design, Page, Setup } from './schema';
import { mastersOf } from './tree';
import { resized } from './defaults';

interface Known {
  readonly of: Pick<Page, 'format' | 'grid'>;
  readonly grid: Page['grid'];
  readonly setup: Setup;
}
const known = new WeakMap<Setup, Map<string, Known>>();

/**
 * The set-up of a sheet, points: the design's, in the format of its own where it has one, with the margins, columns and
 * baseline grid that are its own or the nearest of its masters'. The same object for the same.
 */
export function setupOn(d: Pick<Design, 'pages' | 'masters' | 'setup'>, page: Page): Setup {
  const grid = gridFor(d, page);
  if (!page.format && !grid) return d.setup;
  let ofSetup = known.get(d.setup);
  if (!ofSetup) known.set(d.setup, (ofSetup = new Map()));
  const old = ofSetup.get(page.id);
  if (old && old.of.format === page.format && old.grid === grid) return old.setup;
  const { format } = page;
  const sized = format ? { ...resized(d.setup, format.width, format.height), round: format.round } : d.setup;
  const setup: Setup = { ...sized, ...(grid && { ...grid, baseline: grid.baseline }) };
  ofSetup.set(page.id, { of: page, grid, setup });
  return setup;
}

/** Margins, columns and baseline grid of a sheet's own, or of the nearest of its masters; undefined: the design's. */
function gridFor(d: Pick<Design, 'pages' | 'masters' | 'setup'>, page: Page): Page['grid'] {
  if (page.grid) return page.grid;
  if (page.master === undefined) return undefined;
  return mastersOf(d, page).findLast((m) => m.grid)?.grid;
}
