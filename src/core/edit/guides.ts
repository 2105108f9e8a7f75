import type { Guide } from '../model/schema';
import { pageById } from '../model/tree';
import type { DesignDraft } from './history';

/** Guides of one page. Commands name a guide by its number in the page's list. */

function listOf(d: DesignDraft, pageId: string): { guides?: Guide[] } {
  const page = pageById(d, pageId);
  if (!page) throw new Error(`unknown page: ${pageId}`);
  return page as { guides?: Guide[] };
}

/** Adds guides, but none where one lies already (within a thousandth of a point). */
export function addGuides(d: DesignDraft, pageId: string, guides: readonly Guide[]): void {
  const page = listOf(d, pageId);
  const known = page.guides ?? [];
  const fresh = guides.filter(
    (g, i) => ![...known, ...guides.slice(0, i)].some((k) => k.axis === g.axis && Math.abs(k.at - g.at) < 1e-3),
  );
  if (fresh.length) page.guides = [...known, ...fresh].slice(0, 1000);
}

/** Changes a guide of a page; `at` in points. */
export function changeGuide(d: DesignDraft, pageId: string, index: number, change: Partial<Guide>): void {
  const page = listOf(d, pageId);
  if (page.guides?.[index]) page.guides = page.guides.map((g, i) => (i === index ? tidy({ ...g, ...change }) : g));
}

/** Takes away the guides of a page that `which` says. */
export function removeGuides(d: DesignDraft, pageId: string, which: (g: Guide, index: number) => boolean): void {
  const page = listOf(d, pageId);
  const kept = (page.guides ?? []).filter((g, i) => !which(g, i));
  if (kept.length === (page.guides ?? []).length) return;
  if (kept.length) page.guides = kept;
  else delete page.guides;
}

/** Locks all guides of the page, or frees all. */
export function lockGuides(d: DesignDraft, pageId: string, locked: boolean): void {
  const page = listOf(d, pageId);
  if (page.guides?.some((g) => (g.locked ?? false) !== locked))
    page.guides = page.guides.map((g) => tidy({ ...g, locked }));
}

function tidy(g: Guide): Guide {
  const { locked, ...rest } = g;
  return locked ? { ...rest, locked } : rest;
}

/** Gives the guides of a page to a master that it stands on: they lie on all its pages then. */
export function guidesToMaster(d: DesignDraft, pageId: string, master: string): void {
  const [page, to] = [pageById(d, pageId), pageById(d, master)];
  if (!page?.guides || !to) return;
  to.guides = [...(to.guides ?? []), ...page.guides];
  delete page.guides;
}
