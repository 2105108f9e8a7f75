import type { Design, Page, Setup } from './schema';
import { mastersOf, spreadOf } from './tree';
import { resized } from './defaults';

/** The set-up of a sheet; `fold`: the side on which it ends at its trim, having no bleed there. */
export type SheetSetup = Setup & { readonly fold?: 'left' | 'right' };

interface Known {
  readonly of: Pick<Page, 'format' | 'grid'>;
  readonly grid: Page['grid'];
  readonly fold: SheetSetup['fold'];
  readonly setup: SheetSetup;
}
const known = new WeakMap<Setup, Map<string, Known>>();

/**
 * The set-up of a sheet, points: the design's, in the format of its own where it has one, with the margins, columns and
 * baseline grid that are its own or the nearest of its masters'. The same object for the same.
 */
export function setupOn(d: Pick<Design, 'pages' | 'masters' | 'setup'>, page: Page): SheetSetup {
  const grid = gridFor(d, page);
  const fold = foldOf(d, page);
  if (!page.format && !grid && !fold) return d.setup;
  let ofSetup = known.get(d.setup);
  if (!ofSetup) known.set(d.setup, (ofSetup = new Map()));
  const old = ofSetup.get(page.id);
  if (old && old.of.format === page.format && old.grid === grid && old.fold === fold) return old.setup;
  const { format } = page;
  const sized = format ? { ...resized(d.setup, format.width, format.height), round: format.round } : d.setup;
  const setup = { ...sized, ...(grid && { ...grid, baseline: grid.baseline }), ...(fold && { fold }) };
  ofSetup.set(page.id, { of: page, grid, fold, setup });
  return setup;
}

/** Margins, columns and baseline grid of a sheet's own, or of the nearest of its masters; undefined: the design's. */
function gridFor(d: Pick<Design, 'pages' | 'masters' | 'setup'>, page: Page): Page['grid'] {
  if (page.grid) return page.grid;
  if (page.master === undefined) return undefined;
  return mastersOf(d, page).findLast((m) => m.grid)?.grid;
}

/** The side on which a page goes no further than the fold to the one that faces it. */
function foldOf(d: Pick<Design, 'pages' | 'setup'>, page: Page): SheetSetup['fold'] {
  if (!d.setup.endAtFold || !d.setup.facing) return undefined;
  const spread = spreadOf(d, page);
  return spread?.other ? (spread.side === 'left' ? 'right' : 'left') : undefined;
}
