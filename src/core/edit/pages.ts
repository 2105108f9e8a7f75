import { IDENTITY } from '../geometry/matrix';
import type { Design, Numbering, Page, Setup } from '../model/schema';
import { copyNodes, pasteClip } from './clip';
import type { DesignDraft } from './history';
import { deleteNodes } from './remove';

/** Puts an empty page behind another, on the same master and of the same format. Answers its id. */
export function addPage(d: DesignDraft, after: string, newId: () => string): string {
  const id = newId();
  // Behind a master: at the end, standing on it.
  const at = d.pages.findIndex((p) => p.id === after);
  const master = at < 0 ? after : d.pages[at].master;
  const format = d.pages[at]?.format;
  const page = { id, name: '', children: [], ...(master !== undefined && { master }), ...(format && { format }) };
  d.pages.splice(at < 0 ? d.pages.length : at + 1, 0, page);
  return id;
}

/** A copy of a page with all it holds, behind it. Answers its id. */
export function duplicatePage(d: DesignDraft, pageId: string, newId: () => string): string {
  const page = d.pages.find((p) => p.id === pageId);
  if (!page) throw new Error(`unknown page: ${pageId}`);
  // Copied from plain data: a clip outlives the draft.
  const plain = JSON.parse(JSON.stringify(d)) as Design;
  const clip = copyNodes(
    plain,
    plain.pages.find((p) => p.id === pageId)!,
    page.children,
  );
  const id = addPage(d, pageId, newId);
  const made = d.pages.find((p) => p.id === id)!;
  const was = plain.pages.find((p) => p.id === pageId)!;
  if (was.ground) made.ground = was.ground as NonNullable<typeof made.ground>;
  if (was.format) made.format = was.format;
  if (was.grid) made.grid = was.grid as NonNullable<typeof made.grid>;
  if (was.pattern) made.pattern = was.pattern as NonNullable<typeof made.pattern>;
  const copies = clip ? pasteClip(d, id, clip, newId, IDENTITY) : [];
  // What was taken over of a master is taken over here too.
  if (page.takenOver)
    made.takenOver = Object.fromEntries(
      Object.entries(page.takenOver).map(([from, own]) => [from, copies[page.children.indexOf(own)] ?? own]),
    );
  return id;
}

/** Removes a page with all it holds; the last one stays. Answers the page to look at next. */
export function deletePage(d: DesignDraft, pageId: string): string {
  const index = d.pages.findIndex((p) => p.id === pageId);
  if (index < 0 || d.pages.length === 1) return d.pages[0].id;
  const page = d.pages[index];
  deleteNodes(d, page as Page, [...page.children]);
  d.pages.splice(index, 1);
  return d.pages[Math.min(index, d.pages.length - 1)].id;
}

/**
 * Puts several pages, in the order in which they stand, before the one that has the place `to` now, from 0; at the end
 * for none.
 */
export function movePages(d: DesignDraft, ids: readonly string[], to: number): void {
  const moving = d.pages.filter((p) => ids.includes(p.id));
  const before = d.pages.slice(to).find((p) => !ids.includes(p.id));
  const rest = d.pages.filter((p) => !ids.includes(p.id));
  const at = before ? rest.indexOf(before) : rest.length;
  d.pages = [...rest.slice(0, at), ...moving, ...rest.slice(at)];
}

/** Removes several pages with all they hold; one stays. Answers the page to look at next. */
export function deletePages(d: DesignDraft, ids: readonly string[]): string {
  let next = d.pages[0].id;
  for (const id of ids) next = deletePage(d, id);
  return next;
}

/** Lets numbers begin anew on a page, or (null) go on from the one before. */
export function setNumbering(d: DesignDraft, pageId: string, numbering: Numbering | null): void {
  const page = d.pages.find((p) => p.id === pageId);
  if (!page) throw new Error(`unknown page: ${pageId}`);
  if (numbering) page.numbering = numbering;
  else delete page.numbering;
}

/** Lets pages face each other, the first on a side; null: each stands alone. */
export function setFacing(d: DesignDraft, first: 'left' | 'right' | null): void {
  if (first) d.setup.facing = first;
  else delete d.setup.facing;
}

/** Whether pages that face each other have their bleed at the fold too, or end there. */
export function setEndAtFold(d: DesignDraft, on: boolean): void {
  if (on) d.setup.endAtFold = true;
  else delete d.setup.endAtFold;
}

/** Gives all pages another set-up, but for what a page has of its own; lengths in points. */
export function changeSetup(d: DesignDraft, to: Setup): void {
  d.setup = structuredClone(to) as DesignDraft['setup'];
}
