import type { DesignRow } from '@/store/database';
import { designStore } from '@/store/open';

/** How the shelf is looked through: what is searched for, how it is sorted, and in which folder. */

export type Sort = 'changed' | 'name' | 'size';
export const SORTS: readonly { readonly value: Sort; readonly label: string }[] = [
  { value: 'changed', label: 'last changed first' },
  { value: 'name', label: 'by name' },
  { value: 'size', label: 'largest first' },
];

/** The folder of each design that is in one. */
export type Folders = Readonly<Record<string, string>>;
const FOLDERS = 'shelf-folders';
const SORT = 'shelf-sort';

export const readFolders = async (): Promise<Folders> => (await designStore().setting<Folders>(FOLDERS)) ?? {};
export const readSort = async (): Promise<Sort> => (await designStore().setting<Sort>(SORT)) ?? 'changed';
export const keepSort = (sort: Sort): Promise<void> => designStore().setSetting(SORT, sort);

/** Puts designs into a folder; an empty name: into none. Answers all folders. */
export async function moveTo(ids: readonly string[], folder: string): Promise<Folders> {
  const next = { ...(await readFolders()) };
  for (const id of ids)
    if (folder) next[id] = folder;
    else delete next[id];
  await designStore().setSetting(FOLDERS, next);
  return next;
}

/** The names of folders that hold something, in the order of the alphabet. */
export const folderNames = (folders: Folders, rows: readonly DesignRow[]): readonly string[] =>
  [...new Set(rows.flatMap((r) => folders[r.id] ?? []))].toSorted((a, b) => a.localeCompare(b));

/** The rows that are shown: whose name, format or folder hold every word asked for; of a folder, or of all (null). */
export function shownRows(
  rows: readonly DesignRow[],
  { query, sort, folder, folders }: { query: string; sort: Sort; folder: string | null; folders: Folders },
  sizeOf: (row: DesignRow) => string,
): readonly DesignRow[] {
  const asked = query.toLowerCase().split(/\s+/).filter(Boolean);
  const holds = (r: DesignRow): boolean => {
    const text = `${r.name} ${sizeOf(r)} ${folders[r.id] ?? ''}`.toLowerCase();
    return asked.every((w) => text.includes(w));
  };
  const found = rows.filter((r) => (folder === null || (folders[r.id] ?? '') === folder) && holds(r));
  if (sort === 'name') return found.toSorted((a, b) => a.name.localeCompare(b.name, 'en', { numeric: true }));
  if (sort === 'size') return found.toSorted((a, b) => b.width * b.height - a.width * a.height);
  return found;
}
