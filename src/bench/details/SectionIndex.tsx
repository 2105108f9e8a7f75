'use client';
import { useEffect, useRef, useState } from 'react';

const SHORT: Readonly<Record<string, string>> = { 'Step and repeat': 'Repeat', 'Select alike': 'Alike' };

/** Unfolds a section of Details and brings it to the top. Answers whether it is there. */
export function goToSection(name: string): boolean {
  const section = document.querySelector<HTMLElement>(`[data-region=details] [data-section="${CSS.escape(name)}"]`);
  if (!section) return false;
  section.querySelector<HTMLButtonElement>('button[aria-expanded=false]')?.click();
  section.scrollIntoView({ block: 'start' });
  section.querySelector<HTMLElement>('button[aria-expanded]')?.focus({ preventScroll: true });
  return true;
}

/** The sections that stand below, as words that jump. `on` names what they depend on. */
export function SectionIndex({ on }: { on: string }) {
  const [names, setNames] = useState<readonly string[]>([]);
  const here = useRef<HTMLElement>(null);
  useEffect(() => {
    const panel = here.current?.closest('[data-region=details]');
    if (!panel) return;
    const look = () => {
      const found = [...panel.querySelectorAll<HTMLElement>('[data-section]')].map((s) => s.dataset.section!);
      setNames((old) => (old.join() === found.join() ? old : found));
    };
    look();
    const watch = new MutationObserver(look);
    watch.observe(panel, { childList: true });
    return () => watch.disconnect();
  }, [on]);
  return (
    <nav
      ref={here}
      aria-label="Parts of Details"
      className="sticky top-0 z-10 flex flex-wrap gap-x-2 border-b border-line bg-panel px-3 py-1 text-[12px] leading-4"
    >
      {names.map((name) => (
        <button
          key={name}
          type="button"
          aria-label={`${SHORT[name] ?? name}: go to it`}
          className="cursor-pointer border-0 bg-transparent p-0 text-faint hover:text-accent"
          onClick={() => goToSection(name)}
        >
          {SHORT[name] ?? name}
        </button>
      ))}
    </nav>
  );
}
