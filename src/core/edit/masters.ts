import { IDENTITY } from '../geometry/matrix';
import type { Design, Page, Paint, Pattern } from '../model/schema';
import { isMaster, mastersOf, pageById, reachedBy, sheetsOf, type NodeId } from '../model/tree';
import { copyNodes, pasteClip } from './clip';
import { plain, type DesignDraft } from './history';
import { deleteNodes } from './remove';

/** Masters, grounds, and what a page takes over of its master. Sheets are pages and masters. */

function sheetIn(d: DesignDraft, id: string): DesignDraft['pages'][number] {
  const sheet = pageById(d, id);
  if (!sheet) throw new Error(`unknown page: ${id}`);
  return sheet;
}

/**
 * Makes a master of a page: all that lies on it, its ground and its guides are the master's now; the page stands on it.
 */
export function masterFromPage(
  d: DesignDraft,
  pageId: string,
  master: { readonly id: string; readonly name: string },
): void {
  const page = sheetIn(d, pageId);
  const made: Page = {
    ...master,
    children: [...page.children],
    ...(page.guides && { guides: plain(page.guides) }),
    ...(page.ground && { ground: plain(page.ground) as Paint }),
    ...(page.pattern && { pattern: plain(page.pattern) as Pattern }),
    ...(page.format && { format: plain(page.format) }),
    ...(page.grid && { grid: plain(page.grid) }),
    ...(page.master !== undefined && { master: page.master }),
  };
  d.masters = [...(d.masters ?? []), made as DesignDraft['pages'][number]];
  page.children = [];
  delete page.guides;
  delete page.ground;
  delete page.pattern;
  delete page.grid;
  page.master = master.id;
}

/** An empty master. */
export function addMaster(d: DesignDraft, master: { readonly id: string; readonly name: string }): void {
  d.masters = [...(d.masters ?? []), { ...master, children: [] }];
}

/** Would a sheet stand on itself if it stood on that master? */
export const wouldRing = (d: Pick<Design, 'masters'>, sheet: string, master: string): boolean =>
  sheet === master || reachedBy(d, master).has(sheet);

/**
 * Lets sheets stand on a master; null: on none. What they took over of another one lies on them still. A ring is an
 * error.
 */
export function setMaster(d: DesignDraft, sheets: readonly string[], master: string | null): void {
  if (master !== null && !isMaster(d as Design, master)) throw new Error(`unknown master: ${master}`);
  for (const id of sheets) {
    if (master !== null && wouldRing(plain(d) as Design, id, master)) throw new Error('a master would stand on itself');
    const sheet = sheetIn(d, id);
    if (master === null) delete sheet.master;
    else sheet.master = master;
  }
}

/**
 * Lets pages on the left of a fold have another master in the place of one; null: they have the same. A ring is an
 * error.
 */
export function setOnLeft(d: DesignDraft, id: string, other: string | null): void {
  const master = sheetIn(d, id);
  if (other === null) {
    delete master.onLeft;
    return;
  }
  if (!isMaster(d as Design, other)) throw new Error(`unknown master: ${other}`);
  if (wouldRing(plain(d) as Design, id, other)) throw new Error('a master would stand on itself');
  master.onLeft = other;
}

/** Takes a master away with all that lies on it; what stood on it stands on what it stood on. */
export function removeMaster(d: DesignDraft, id: string): void {
  const master = plain(sheetIn(d, id)) as Page;
  for (const sheet of sheetsOf(d)) {
    if (sheet.onLeft === id) delete sheet.onLeft;
    if (sheet.master !== id) continue;
    if (master.master === undefined) delete sheet.master;
    else sheet.master = master.master;
  }
  deleteNodes(d, master, [...master.children]);
  d.masters = d.masters!.filter((m) => m.id !== id);
  if (!d.masters.length) delete d.masters;
}

/**
 * Gives a sheet a ground of its own; null: it has its master's again. Geometry in the unit square over the page with
 * its bleed. `pattern`: what is drawn over it, null for nothing; left out, its own stays.
 */
export function setGround(d: DesignDraft, sheet: string, ground: Paint | null, pattern?: Pattern | null): void {
  const page = sheetIn(d, sheet);
  if (ground) page.ground = ground as NonNullable<typeof page.ground>;
  else delete page.ground;
  if (pattern && ground) page.pattern = pattern as NonNullable<typeof page.pattern>;
  else if (pattern === null || !ground) delete page.pattern;
}

/** What of its masters a page can take over: their own objects, whole. */
export const takeable = (d: Design, page: Page): readonly NodeId[] =>
  mastersOf(d, page)
    .flatMap((m) => m.children)
    .filter((id) => !own(page.takenOver, id));

/**
 * Makes an object of a master the page's own: a copy, below all else that is the page's; the master's is not shown here
 * any more, and goes on everywhere else. Answers its id.
 */
export function takeOver(d: DesignDraft, pageId: string, id: NodeId, newId: () => string): NodeId {
  const design = plain(d) as Design;
  const page = pageById(design, pageId)!;
  const master = mastersOf(design, page).find((m) => m.children.includes(id));
  const clip = master && copyNodes(design, master, [id]);
  if (!clip) throw new Error(`${id} is on no master of this page`);
  const [copy] = pasteClip(d, pageId, clip, newId, IDENTITY);
  const sheet = sheetIn(d, pageId);
  sheet.children = [copy, ...sheet.children.filter((c) => c !== copy)];
  sheet.takenOver = { ...sheet.takenOver, [id]: copy };
  return copy;
}

/** Gives an object back to its master: the page's own goes, the master's is shown again. */
export function giveBack(d: DesignDraft, pageId: string, id: NodeId): void {
  const sheet = sheetIn(d, pageId);
  const copy = own(sheet.takenOver, id);
  if (copy === undefined) return;
  // It may have gone, or have been given to the page that faces this one: then it stays there.
  if (sheet.children.includes(copy)) deleteNodes(d, plain(sheet) as Page, [copy]);
  const { [id]: _, ...rest } = sheet.takenOver!;
  if (Object.keys(rest).length) sheet.takenOver = rest;
  else delete sheet.takenOver;
}

const own = (record: Readonly<Record<string, string>> | undefined, key: string): string | undefined =>
  record && Object.hasOwn(record, key) ? record[key] : undefined;
