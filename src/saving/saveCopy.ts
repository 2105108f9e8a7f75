import type { Design } from '@/core/model/schema';
import type { AsideRow } from '@/store/database';
import { packWhole } from '@/store/pack';
import { designStore } from '@/store/open';
import { rawJson } from '@/store/designs';
import { download } from '@/ui/download';
import { fileName } from '@/core/output/fileName';

/** Hands a design over as a file, with all that belongs to it. Answers a sentence where something is lacking in it. */
export async function saveCopy(design: Design, thumbnail: Uint8Array | null = null): Promise<string | null> {
  const { bytes, lacking } = await packWhole(design, thumbnail);
  download(bytes, fileName(design.name, 'holvet'), 'application/zip');
  return lacking.length
    ? `The copy lacks ${lacking.length === 1 ? 'a picture or profile' : `${lacking.length} pictures or profiles`} that this browser does not have: ${lacking.slice(0, 3).join(', ')}.`
    : null;
}

/** Hands out what was put aside of a design. */
export function downloadAside(row: AsideRow): void {
  download(new TextEncoder().encode(row.json), fileName(`${row.designId}, left out`, 'json'), 'application/json');
}

/** Hands out what is kept of a design, whatever can be read of it. Answers what the person should know, if anything. */
export async function saveKept(id: string, thumbnail: Uint8Array | null = null): Promise<string | null> {
  const loaded = await designStore().load(id);
  if (loaded.ok) {
    const lacking = await saveCopy(loaded.value.design, thumbnail);
    const { aside, warning } = loaded.value;
    if (aside) downloadAside(aside);
    return (
      [warning, aside && 'What could not be read is in a second file beside it.', lacking].filter(Boolean).join(' ') ||
      null
    );
  }
  const raw = await designStore().raw(id);
  if (!raw) return 'There is nothing kept of this design any more.';
  download(new TextEncoder().encode(rawJson(raw)), fileName(`${raw.row.name}, damaged`, 'json'), 'application/json');
  return 'This design cannot be read as it lies. All that is kept of it is in the file, as JSON.';
}
