import type { Design } from '@/core/model/schema';
import { packWhole } from '@/store/pack';
import { download, fileName } from '@/ui/download';

/** Hands a design over as a file, with all that belongs to it. */
export async function saveCopy(design: Design, thumbnail: Uint8Array | null = null): Promise<void> {
  download(await packWhole(design, thumbnail), fileName(design.name, 'holvet'), 'application/zip');
}
