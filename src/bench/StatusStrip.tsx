'use client';
import { VISIONS, type VisionId } from '@/core/colour/vision';
import { Fragment, useEffect, useRef, useState } from 'react';
import { parseNumber } from '@/core/units/length';
import { BENCH_TOP } from './session/focus';
import { fitPage, wholeSpread } from './view/inSight';
import { REAL_SIZE as UNMEASURED, fitRect, zoomAt } from './view/camera';
import { useBench, useSession } from './session/context';
import { count } from './session/commandDef';
import { comesLater } from './session/comesLater';
import { allFetched } from './session/afterPaint';
import { saving } from './session/saving';

const Earlier = comesLater(
  () => import('./Earlier').then((m) => m.Earlier),
  () => <span className="text-faint">Earlier</span>,
);
const link = 'cursor-pointer border-0 bg-transparent p-0 key-line hover:text-accent';

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
      <SeenBy />
      <Distance />
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

/** Whose eyes the sheet is shown to. */
function SeenBy() {
  const session = useSession();
  const vision = useBench((s) => s.vision);
  return (
    <label
      className={`flex items-center gap-1 ${vision === 'all' ? '' : 'font-semibold text-warn'}`}
      title="How others see the sheet. Nothing in the design changes."
    >
      Seen by
      <select
        aria-label="Seen by"
        className="h-5 rounded-sm border border-transparent bg-transparent text-text hover:border-edge"
        value={vision}
        onChange={(e) => session.set({ vision: e.target.value as VisionId })}
      >
        {VISIONS.map((v) => (
          <option key={v.id} value={v.id} title={v.says}>
            {v.name.toLowerCase()}
          </option>
        ))}
      </select>
    </label>
  );
}

function Distance() {
  const session = useSession();
  const field = useRef<HTMLInputElement>(null);
  // The percent follows the wheel at pointer rate, without a render.
  useEffect(() => {
    const show = () => {
      if (field.current && document.activeElement !== field.current)
        field.current.value = `${Math.round((session.state.camera.scale / session.state.realSize) * 100)} %`;
    };
    show();
    return session.store.subscribe(show);
  }, [session]);
  const middle = () => {
    const el = document.getElementById(BENCH_TOP)!;
    return { x: el.clientWidth / 2, y: el.clientHeight / 2 };
  };
  const setScale = (scale: number) =>
    session.set({ camera: zoomAt(session.state.camera, middle(), scale / session.state.camera.scale) });
  const realSize = () => {
    setScale(session.state.realSize);
    if (session.state.realSize === UNMEASURED)
      session.say('As large as this screen believes. Measured once against a card, it is true.', 'plain', {
        label: 'Measure it',
        run: () => session.set({ measuring: true }),
      });
  };
  /** As large as the sheet looks from this far to an eye that is 0.6 m from the screen. */
  const standBack = (metres: number) => {
    const el = document.getElementById(BENCH_TOP)!;
    const camera = fitRect(wholeSpread(session), el.clientWidth, el.clientHeight);
    session.set({ camera: zoomAt(camera, middle(), (session.state.realSize * 0.6) / metres / camera.scale) });
  };
  return (
    <div className="flex items-center gap-3" role="group" aria-label="Distance">
      <button type="button" data-opens="Whole page" className={link} onClick={() => fitPage(session)}>
        Whole page
      </button>
      <button type="button" data-opens="Real size" className={link} onClick={realSize}>
        Real size
      </button>
      <button type="button" className={link} onClick={() => standBack(0.75)}>
        Arm’s length
      </button>
      <button type="button" className={link} onClick={() => standBack(4)}>
        Across the room
      </button>
      <input
        ref={field}
        aria-label="Zoom in percent of real size"
        defaultValue=""
        className="w-14 rounded-sm border border-transparent bg-transparent text-right hover:border-edge focus:border-accent focus:outline-none"
        onFocus={(e) => e.currentTarget.select()}
        onKeyDown={(e) => {
          if (e.key === 'Enter') e.currentTarget.blur();
        }}
        onBlur={(e) => {
          const parsed = parseNumber(e.currentTarget.value, '%');
          if (parsed.ok && parsed.value > 0) setScale((parsed.value / 100) * session.state.realSize);
          e.currentTarget.value = `${Math.round((session.state.camera.scale / session.state.realSize) * 100)} %`;
        }}
      />
    </div>
  );
}
