'use client';
import { useEffect, type ReactNode, type SyntheticEvent } from 'react';
import { flushSync } from 'react-dom';
import { StateContext, useSession } from './context';

/** What shows what it was told itself, and would show its old value for a moment. */
const FIELDS = 'input, textarea, select, [role=slider], [role=spinbutton], [role=switch]';

/**
 * Panels that show the state one paint later: the sheet answers first. Whatever is done in them meets them as things
 * are: they catch up before a press or a key in them is heard, and after one that changed a field.
 */
export function Follows({ children }: { children: ReactNode }) {
  const { following } = useSession();
  useEffect(() => {
    following.draw = flushSync;
  }, [following]);
  const before = () => following.catchUp();
  const after = (e: SyntheticEvent) => {
    if ((e.target as Element).matches(FIELDS)) following.catchUp();
  };
  return (
    <StateContext value={following.store}>
      <div
        className="contents"
        onPointerDownCapture={before}
        onPointerUpCapture={before}
        onClickCapture={before}
        onKeyDownCapture={before}
        onDropCapture={before}
        onContextMenuCapture={before}
        onKeyDown={after}
        onChange={after}
        onBlur={after}
        onPointerUp={after}
      >
        {children}
      </div>
    </StateContext>
  );
}
