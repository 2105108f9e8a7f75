import { parseClip } from '@/core/edit/clip';
import { copySelection, pasteFrom, readClip, runCommand } from './commands';
import type { Session } from './session';

const TYPE = 'application/x-holvet-clip+json';

const inField = (e: Event) => e.target instanceof HTMLElement && e.target.closest('input, textarea, select, [contenteditable=true]') !== null;

/** The system's own clipboard, so that objects go between designs and tabs. */
export function clipboardHandlers(s: Session) {
  return {
    copy(e: ClipboardEvent) {
      if (inField(e)) return;
      const text = copySelection(s);
      if (!text) return;
      e.clipboardData?.setData(TYPE, text);
      e.preventDefault();
    },
    cut(e: ClipboardEvent) {
      if (inField(e)) return;
      const text = copySelection(s);
      if (!text) return;
      e.clipboardData?.setData(TYPE, text);
      e.preventDefault();
      runCommand(s, 'object.delete');
    },
    paste(e: ClipboardEvent) {
      if (inField(e)) return;
      e.preventDefault();
      const text = e.clipboardData?.getData(TYPE);
      pasteFrom(s, text ? parseClip(text) : readClip());
    },
  };
}
