import { useEffect } from 'react';
import { afterPaint } from './session/afterPaint';
import { useSession } from './session/context';

const scripts = afterPaint(() => Promise.all([import('./commands/keys'), import('./commands/clipboard')]));

/** Keys and clipboard of the whole bench. Keys that are pressed before their script is there wait for it. */
export function useKeys(open: { readonly find: () => void; readonly keys: () => void }): void {
  const session = useSession();
  const { find, keys } = open;
  useEffect(() => {
    const ending = new AbortController();
    const { signal } = ending;
    const early: KeyboardEvent[] = [];
    const wait = (e: KeyboardEvent) => void early.push(e);
    window.addEventListener('keydown', wait, { signal });
    const ready = scripts.get().then(([{ finderKey, keyHandler }, { clipboardHandlers }]) => {
      if (signal.aborted) return;
      window.removeEventListener('keydown', wait);
      const onKey = keyHandler(session, { keys });
      const onFind = finderKey(find);
      const clip = clipboardHandlers(session);
      window.addEventListener('keydown', onFind, { signal, capture: true });
      window.addEventListener('keydown', onKey, { signal });
      document.addEventListener('copy', clip.copy, { signal });
      document.addEventListener('cut', clip.cut, { signal });
      document.addEventListener('paste', clip.paste, { signal });
      for (const e of early) {
        onFind(e);
        onKey(e);
      }
    });
    ready.catch(() => session.say('Keys could not be fetched: the program does not answer. Reload this page.', 'stop'));
    return () => ending.abort();
  }, [session, find, keys]);
}
