'use client';
import { Fragment, useEffect, useState } from 'react';
import { link } from '@/ui/link';
import { useBench, useSession } from './session/context';
import { count } from './session/commandDef';
import { comesLater } from './session/comesLater';
import { allFetched } from './session/afterPaint';
import { saving } from './session/saving';

const Earlier = comesLater(
  () => import('./Earlier').then((m) => m.Earlier),
  () => <span className="text-faint">Earlier</span>,
);
const Viewing = comesLater(
  () => import('./Viewing').then((m) => m.Viewing),
  () => <span aria-busy className="w-[526px] shrink-0" />,
);

/** What happened, whether it is kept, and how near one stands. */
export function StatusStrip({ onKeys }: { onKeys: () => void }) {
  const message = useBench((s) => s.message);
  return (
    <footer className="flex items-center gap-4 border-t border-line bg-panel px-3 text-[12px]">
      <SaveState />
      <Earlier />
      {/* What does not go on one line grows upward: nothing that is said is cut off. */}
      <div className="relative z-20 min-w-0 flex-1 self-stretch">
        <span
          role="status"
          style={{ boxShadow: '0 -1px 0 var(--line)' }}
          className={`pointer-events-none absolute inset-x-0 bottom-0 block min-h-full bg-panel py-[3px] leading-[17px] ${message?.tone === 'stop' ? 'text-stop' : message?.tone === 'warn' ? 'text-warn' : ''}`}
          data-testid="message"
        >
          {message?.text}
          {message?.actions?.map((a, i) => (
            <Fragment key={a.label}>
              {i ? ' or ' : ' — '}
              <button type="button" className={`${link} pointer-events-auto`} onClick={a.run}>
                {a.label}
              </button>
            </Fragment>
          ))}
        </span>
      </div>
      <button type="button" data-opens="Keys" className={link} onClick={onKeys}>
        Keys
      </button>
      <Viewing />
    </footer>
  );
}

/**
 * Saved is said only of what is kept; till then: why not, since when, how many steps, and a way to have them all the
 * same.
 */
function SaveState() {
  const session = useSession();
  const save = useBench((s) => s.save);
  const readOnly = useBench((s) => s.readOnly);
  useEffect(() => {
    if (save.kind === 'saved') return;
    const ask = (e: BeforeUnloadEvent) => e.preventDefault();
    window.addEventListener('beforeunload', ask);
    return () => window.removeEventListener('beforeunload', ask);
  }, [save.kind]);
  const waiting = save.kind === 'waiting';
  const [whole, setWhole] = useState(false);
  useEffect(() => void allFetched.then(() => setWhole(true)), []);
  if (!whole)
    return (
      <span role="status" className="text-faint">
        Fetching the rest …
      </span>
    );
  return (
    <>
      <span role="status" className={waiting ? 'font-semibold text-stop' : 'text-faint'} data-testid="save-state">
        {waiting
          ? `Not saved yet: ${count(save.steps, 'step')} since ${new Date(save.since).toTimeString().slice(0, 5)}, ${save.why}`
          : readOnly
            ? 'Looking only'
            : save.kind === 'saved'
              ? 'Saved'
              : 'Saving …'}
      </span>
      {waiting && (
        <button
          type="button"
          className={link}
          onClick={() =>
            void saving
              .get()
              .then((m) => m.saveCopy(session.state.design))
              .then(
                (note) => note && session.say(note, 'warn'),
                () => session.say('The copy could not be made: the program does not answer. Try once more.', 'stop'),
              )
          }
        >
          Download it now
        </button>
      )}
    </>
  );
}
