// Copying and pasting objects: within the design, into another, through the browser's small store into another tab.
import { copyNodes, parseClip, pasteClip, type Clip, type ReadClip } from '@/core/edit/clip';
import { isOwnAsset } from '@/core/file/assets';
import { translation } from '@/core/geometry/matrix';
import { mm } from '@/core/units/length';
import { count } from '../session/commandDef';
import type { Session } from '../session/session';
import { copyThrough } from './copying';

const CLIP_KEY = 'holvet-clip';
let memoryClip: string | null = null;

function storeClip(text: string): void {
  memoryClip = text;
  try {
    localStorage.setItem(CLIP_KEY, text);
  } catch {
    // A clip too large for the browser's small store still works in this tab.
  }
}
/** What was copied last, in this tab or another. */
export function readClip(): ReadClip | null {
  let text = memoryClip;
  try {
    text = localStorage.getItem(CLIP_KEY) ?? memoryClip;
  } catch {
    // as above
  }
  return text ? parseClip(text) : null;
}

/** Copies what is chosen; answers it as text, null for nothing. */
export function copySelection(s: Session): string | null {
  const clip = copyNodes(s.design, s.page, s.state.selection);
  if (!clip) return null;
  const text = JSON.stringify(clip);
  storeClip(text);
  s.say(`Copied ${count(clip.roots.length, 'object')}.`);
  return text;
}

const STEP_ASIDE = mm(5);

/** Pastes what was read, a step aside. */
export function pasteFrom(s: Session, read: ReadClip | null, aside = STEP_ASIDE): void {
  if (!read) {
    s.say('There is nothing to paste yet. Copy some objects first.');
    return;
  }
  if (!read.ok) {
    s.say(`What was copied cannot be pasted: ${read.why}`, 'warn');
    return;
  }
  const { clip } = read;
  const known = new Set(s.design.pictures?.map((p) => p.file));
  const brought = (clip.pictures ?? []).filter((p) => isOwnAsset(p.file) && !known.has(p.file));
  if (!brought.length) {
    paste(s, clip, aside);
    return;
  }
  // Files of pictures do not travel with a clip: they must be in this browser.
  void (async () => {
    for (const p of brought) {
      const bytes = await s.designs.asset(p.file).catch(() => null);
      if (bytes) continue;
      s.say(
        `What was copied cannot be pasted: its picture ${p.name} is not in this browser. Place the picture here first, or hand the design over as a file.`,
        'warn',
      );
      return;
    }
    paste(s, clip, aside);
  })();
}

function paste(s: Session, clip: Clip, aside: number): void {
  let ids: string[] = [];
  if (
    !s.commit('Paste', (d) => {
      ids = pasteClip(d, s.page.id, clip, s.newId, translation(aside, aside));
    })
  )
    return;
  s.select(ids.filter((id) => s.design.nodes[id]));
  s.say(`Pasted ${count(ids.length, 'object')}.`);
}

/** A copy beside what is chosen. */
export function duplicate(s: Session): void {
  const ids = copyThrough(s, translation(STEP_ASIDE, STEP_ASIDE), 'Duplicate');
  if (ids.length) s.say(`Duplicated ${count(ids.length, 'object')}.`);
}
