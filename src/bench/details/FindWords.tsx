'use client';
import { Dialog } from 'radix-ui';
import { useMemo, useState } from 'react';
import { changeWords, findWords, type FoundWords } from '@/core/edit/findWords';
import type { Design } from '@/core/model/schema';
import { isLocked, pageById } from '@/core/model/tree';
import { Button } from '@/ui/Button';
import { Check } from '@/ui/Choice';
import { count } from '../session/commandDef';
import { useBench, useSession } from '../session/context';
import { backToBench } from '../session/focus';
import { beginEditing } from '../tools/editing';

/** Words looked for in the texts of all pages, and others put in their place. */
export function FindWords() {
  const session = useSession();
  const open = useBench((s) => s.findingWords);
  const shut = () => session.set({ findingWords: false });
  return (
    <Dialog.Root open={open} onOpenChange={(on) => !on && shut()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-black/25" />
        <Dialog.Content
          onCloseAutoFocus={backToBench}
          onKeyDown={(e) => e.stopPropagation()}
          style={{ boxShadow: 'var(--shadow)' }}
          className="fixed top-24 left-1/2 z-50 flex max-h-[76dvh] w-[520px] -translate-x-1/2 flex-col rounded-sm border border-line bg-panel p-4 outline-none"
        >
          <Dialog.Title className="m-0 mb-3 text-[15px] font-semibold">Find and change words</Dialog.Title>
          <Dialog.Description className="sr-only">In the texts of all pages.</Dialog.Description>
          <Looking shut={shut} />
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

const field = 'h-8 w-full rounded-sm border border-edge bg-field px-2';
/** So many places are listed; all of them are changed. */
const LISTED = 100;

function Looking({ shut }: { shut: () => void }) {
  const session = useSession();
  const design = useBench((s) => s.design);
  const readOnly = useBench((s) => s.readOnly);
  const [words, setWords] = useState('');
  const [others, setOthers] = useState('');
  const [capitals, setCapitals] = useState(false);
  const [whole, setWhole] = useState(false);
  const found = useMemo(() => findWords(design, { words, capitals, whole }), [design, words, capitals, whole]);

  // What is locked is found, and left as it is.
  const free = found.filter((f) => !locked(design, f));
  const change = (places: readonly FoundWords[]) => {
    session.commit(places.length === 1 ? 'Change words' : 'Change words everywhere', (d) => {
      changeWords(d, places, others);
    });
    session.say(`Changed ${count(places.length, 'place')}.`);
  };
  const go = (f: FoundWords) => {
    if (f.page !== session.state.page) session.goToPage(f.page);
    session.select([f.node]);
    shut();
    if (readOnly) return;
    beginEditing(session, f.node, null);
    if (session.state.editing?.node === f.node) session.set({ editing: { node: f.node, anchor: f.from, focus: f.to } });
  };
  const said = found.length
    ? `${count(found.length, 'place')} in ${count(new Set(found.map((f) => f.story)).size, 'text')}${free.length < found.length ? `, ${found.length - free.length} of them locked` : ''}`
    : words
      ? 'Nowhere in this design.'
      : '';
  return (
    <>
      <div className="grid grid-cols-2 gap-2">
        <label>
          <span className="mb-0.5 block text-[12px] text-faint">Find</span>
          <input autoFocus className={field} value={words} onChange={(e) => setWords(e.target.value)} />
        </label>
        <label>
          <span className="mb-0.5 block text-[12px] text-faint">Change to</span>
          <input className={field} value={others} onChange={(e) => setOthers(e.target.value)} />
        </label>
        <Check label="Capitals as written" checked={capitals} onChange={setCapitals} />
        <Check label="Whole words only" checked={whole} onChange={setWhole} />
      </div>
      <p role="status" className="mt-3 mb-1 min-h-5 text-faint">
        {said}
      </p>
      <ul aria-label="Places found" className="m-0 min-h-0 flex-1 list-none overflow-auto p-0">
        {found.slice(0, LISTED).map((f) => (
          <li key={`${f.story} ${f.from}`} className="flex items-center gap-2 border-t border-line py-1">
            <button
              type="button"
              title="Go there"
              className="min-w-0 flex-1 cursor-pointer truncate border-0 bg-transparent p-0 text-left hover:text-accent"
              onClick={() => go(f)}
            >
              <span className="text-faint">{pageNumber(design, f.page)} · </span>
              {f.before}
              <b className="font-semibold">{wordsAt(design, f)}</b>
              {f.after}
            </button>
            {!readOnly && !locked(design, f) && (
              <Button onClick={() => change([f])}>{others === '' ? 'Take out' : 'Change'}</Button>
            )}
          </li>
        ))}
      </ul>
      <div className="mt-3 flex justify-end gap-2">
        <Dialog.Close asChild>
          <Button>Close</Button>
        </Dialog.Close>
        <Button
          {...(others === '' ? {} : { kind: 'primary' as const })}
          disabled={!free.length || readOnly}
          onClick={() => change(free)}
        >
          {others === '' ? 'Take all out' : 'Change all'}
        </Button>
      </div>
    </>
  );
}

const locked = (d: Design, f: FoundWords): boolean => {
  const page = pageById(d, f.page);
  return page !== undefined && isLocked(d, page, f.node);
};
type Shown = Parameters<typeof findWords>[0];
const pageNumber = (d: Shown, id: string) => `page ${d.pages.findIndex((p) => p.id === id) + 1}`;
const wordsAt = (d: Shown, f: FoundWords) =>
  d.stories[f.story].paragraphs
    .map((p) => p.runs.map((r) => r.text).join(''))
    .join('\n')
    .slice(f.from, f.to);
