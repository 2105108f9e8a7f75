import { copyNodes, parseClip, type Clip } from '@/core/edit/clip';
import { storageProblem } from '@/store/open';
import type { Session } from './session';

/** A group that the person keeps to drop in again, in any design. */
export interface OwnReady {
  readonly id: string;
  readonly name: string;
  /** As on the clipboard. */
  readonly clip: string;
}
const KEY = 'own-readies';

export const ownReadies = async (s: Session): Promise<readonly OwnReady[]> =>
  (await s.designs.setting<OwnReady[]>(KEY).catch(() => undefined)) ?? [];

/** Keeps a group; answers whether it could be. */
export async function keepReady(s: Session, name: string, ids: readonly string[]): Promise<boolean> {
  const clip = copyNodes(s.design, s.page, ids);
  if (!clip) return false;
  try {
    const before = await ownReadies(s);
    await s.designs.setSetting(KEY, [{ id: s.newId(), name, clip: JSON.stringify(clip) }, ...before]);
    return true;
  } catch (e) {
    s.say(`“${name}” could not be kept: ${storageProblem(e)}`, 'stop');
    return false;
  }
}

/** Throws a kept group away; the strip offers to put it back. */
export async function removeReady(s: Session, ready: OwnReady, changed: () => void): Promise<void> {
  const before = await ownReadies(s);
  try {
    await s.designs.setSetting(
      KEY,
      before.filter((r) => r.id !== ready.id),
    );
  } catch (e) {
    return s.say(`“${ready.name}” could not be thrown away: ${storageProblem(e)}`, 'warn');
  }
  changed();
  s.say(`Threw away “${ready.name}”.`, 'plain', {
    label: 'Put it back',
    run: () => void s.designs.setSetting(KEY, before).then(changed),
  });
}

/** What it holds, read by the clipboard's own rules; null where it cannot be. */
export function clipOf(ready: OwnReady): Clip | null {
  const read = parseClip(ready.clip);
  return read.ok ? read.clip : null;
}
