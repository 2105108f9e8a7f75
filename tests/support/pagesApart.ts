import type { DesignDraft } from '@/core/edit/history';

/** Puts a copy of any shape of a design on a sheet, by hand. */
export function duplicateInto(d: DesignDraft, sheet: string, newId: () => string): void {
  const like = Object.values(d.nodes).find((n) => n.kind === 'shape');
  if (!like) return;
  const id = newId();
  d.nodes[id] = { ...JSON.parse(JSON.stringify(like)), id } as DesignDraft['nodes'][string];
  [...d.pages, ...(d.masters ?? [])].find((p) => p.id === sheet)!.children.push(id);
}
