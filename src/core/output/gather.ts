import { zipSync, type Zippable } from 'fflate';
import type { Picture } from '../model/schema';

/**
 * The files of pictures in one zip, under the names that people know them by; and the names of those that are not at
 * hand.
 */
export async function gatherPictures(
  pictures: readonly Picture[],
  asset: (file: string) => Promise<Uint8Array>,
): Promise<{ readonly zip: Uint8Array; readonly missing: readonly string[] }> {
  const files: Zippable = {};
  const missing: string[] = [];
  const taken = new Set<string>();
  for (const p of pictures) {
    const bytes = await asset(p.file).catch(() => null);
    if (!bytes) {
      missing.push(p.name);
      continue;
    }
    const ending = p.file.split('.').pop()!;
    const stem =
      p.name
        .replace(/\.[A-Za-z0-9]{2,5}$/, '')
        .replace(/[\\/:*?"<>|\u0000-\u001f]/g, ' ')
        .trim() || 'picture';
    let name = `${stem}.${ending}`;
    for (let n = 2; taken.has(name.toLowerCase()); n++) name = `${stem} ${n}.${ending}`;
    taken.add(name.toLowerCase());
    files[name] = [bytes, { level: 0 }];
  }
  return { zip: zipSync(files, { mtime: new Date(1980, 0, 1) }), missing };
}
