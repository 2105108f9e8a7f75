import type { ExchangeSwatch } from '@/core/colour/exchange';
import type { LibraryRow } from '@/store/database';
import { storageProblem } from '@/store/open';
import type { Session } from './session';

/** Colours kept for every design of this browser. */
export async function loadLibraries(s: Session): Promise<void> {
  s.set({ libraries: await s.designs.libraries().catch(() => []) });
}

/** Keeps a set of colours. Answers it, or null where it could not be kept. */
export async function keepLibrary(
  s: Session,
  kind: LibraryRow['kind'],
  name: string,
  swatches: readonly ExchangeSwatch[],
): Promise<LibraryRow | null> {
  const row: LibraryRow = { id: s.newId(), name, kind, added: s.engines.env.now(), swatches: [...swatches] };
  try {
    await s.designs.addLibrary(row);
  } catch (e) {
    s.say(`“${name}” could not be kept: ${storageProblem(e)}`, 'stop');
    return null;
  }
  await loadLibraries(s);
  return row;
}

/** Throws a kept set away; the strip offers to put it back. */
export async function removeLibrary(s: Session, row: LibraryRow): Promise<void> {
  await s.designs.removeLibrary(row.id);
  await loadLibraries(s);
  s.say(`Threw away “${row.name}”.`, 'plain', {
    label: 'Put it back',
    run: () => void s.designs.addLibrary(row).then(() => loadLibraries(s)),
  });
}
