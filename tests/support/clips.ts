import { parseClip, type Clip } from '@/core/edit/clip';

/** A clip after its way over the clipboard. */
export function clipOf(clip: Clip | null): Clip {
  const read = parseClip(JSON.stringify(clip));
  if (!read.ok) throw new Error(read.why);
  return read.clip;
}
