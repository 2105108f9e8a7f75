import { parseClip } from '@/core/edit/clip';
import { receiveFiles } from './pictures';
import { runCommand } from './commands';
import { copySelection, pasteFrom, readClip } from './copyPaste';
import type { Session } from '../session/session';

const TYPE = 'application/x-holvet-clip+json';

const inField = (e: Event) =>
  e.target instanceof HTMLElement && e.target.closest('input, textarea, select, [contenteditable=true]') !== null;

/** The system's own clipboard, so that objects go between designs and tabs. */
export function clipboardHandlers(s: Session) {
  /** Puts the chosen objects on the clipboard; false where there is nothing of ours to copy. */
  const copied = (e: ClipboardEvent): boolean => {
    const text = inField(e) ? null : copySelection(s);
    if (!text) return false;
    e.clipboardData?.setData(TYPE, text);
    e.preventDefault();
    return true;
  };
  return {
    copy: (e: ClipboardEvent) => void copied(e),
    cut(e: ClipboardEvent) {
      if (copied(e)) runCommand(s, 'object.delete');
    },
    paste(e: ClipboardEvent) {
      if (inField(e)) return;
      e.preventDefault();
      const files = [...(e.clipboardData?.files ?? [])];
      if (files.length) {
        void receiveFiles(s, files, s.pointer?.page ?? null, null);
        return;
      }
      const text = e.clipboardData?.getData(TYPE);
      pasteFrom(s, text ? parseClip(text) : readClip());
    },
  };
}
