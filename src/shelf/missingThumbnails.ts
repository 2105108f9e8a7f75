import type { DesignRow } from '@/store/database';
import { designStore } from '@/store/open';
import { PressClient } from '@/workers/pressClient';

/** Draws the thumbnails that are not there yet, one after another, by the same press as everything else. */
export async function drawMissing(
  rows: readonly DesignRow[],
  wanted: () => boolean,
  refresh: () => Promise<unknown>,
): Promise<void> {
  const missing = rows.filter((r) => !r.thumbnail);
  if (!missing.length) return;
  const press = new PressClient();
  try {
    for (const row of missing) {
      const loaded = await designStore().load(row.id);
      if (!loaded.ok || !wanted()) continue;
      await press.open(loaded.value.design);
      await designStore().setThumbnail(row.id, await press.thumbnail(320));
      if (wanted()) await refresh();
    }
  } catch {
    // A shelf without pictures still works; the bench says what is wrong with the press.
  } finally {
    press.dispose();
  }
}
