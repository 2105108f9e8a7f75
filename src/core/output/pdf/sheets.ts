import { intersect, type Rect } from '../../geometry/rect';
import type { Design, Page } from '../../model/schema';
import { spreadOf } from '../../model/tree';
import { bleedRect, trimRect, type Scene } from '../../scene/scene';

/** Pages that are one page of a file: one, or two that face each other, side by side. */
export type Sheet = readonly [Page] | readonly [left: Page, right: Page];

/** The sheets of some pages in their order; a spread of which only one page is asked for is that page alone. */
export function sheetsOf(design: Design, pages: readonly Page[], spreads: boolean): Sheet[] {
  const sheets: Sheet[] = [];
  /** Those that came with the page that they face. */
  const laid = new Set<Page>();
  for (const page of pages) {
    if (laid.delete(page)) continue;
    const spread = spreads ? spreadOf(design, page) : null;
    const other = spread?.other;
    if (!spread || !other || !pages.includes(other)) {
      sheets.push([page]);
      continue;
    }
    laid.add(other);
    sheets.push(spread.side === 'left' ? [page, other] : [other, page]);
  }
  return sheets;
}

/** A scene on a sheet: moved so far to the right, and cut there (page points); null: by nothing. */
export interface Laid {
  readonly scene: Scene;
  readonly dx: number;
  readonly cut: Rect | null;
}

/** How scenes lie on one sheet, which is cut and bleeds like this; points from the first one's top left. */
export interface SheetPlan {
  readonly laid: readonly Laid[];
  readonly trim: Rect;
  readonly bleed: Rect;
}

/** Lays the scenes of a sheet side by side. `bleed` false: nothing beyond the cut. */
export function planOf(scenes: readonly Scene[], bleed: boolean): SheetPlan {
  const first = scenes[0];
  const outer = (s: Scene) => (bleed ? bleedRect(s) : trimRect(s));
  if (scenes.length === 1)
    return {
      laid: [{ scene: first, dx: 0, cut: first.fold || !bleed ? outer(first) : null }],
      trim: trimRect(first),
      bleed: outer(first),
    };
  const second = scenes[1];
  const fold = first.width;
  const trim = { x0: 0, y0: 0, x1: fold + second.width, y1: first.height };
  const by = bleed ? first.bleed : 0;
  const all = { x0: trim.x0 - by, y0: trim.y0 - by, x1: trim.x1 + by, y1: trim.y1 + by };
  return {
    // What runs on over the fold is in the other page's scene too.
    laid: [
      { scene: first, dx: 0, cut: intersect(all, { ...all, x1: fold }) },
      { scene: second, dx: fold, cut: { ...all, x0: 0, x1: all.x1 - fold } },
    ],
    trim,
    bleed: all,
  };
}
