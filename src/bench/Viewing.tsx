'use client';
import { useEffect, useRef } from 'react';
import { VISIONS, type VisionId } from '@/core/colour/vision';
import { parseNumber } from '@/core/units/typed';
import { link } from '@/ui/link';
import { useBench, useSession } from './session/context';
import { BENCH_TOP } from './session/focus';
import { REAL_SIZE as UNMEASURED, fitRect, zoomAt } from './view/camera';
import { fitPage, wholeSpread } from './view/inSight';

/** Through whose eyes the sheet is seen, and from how near. */
export function Viewing() {
  return (
    <>
      <SeenBy />
      <Distance />
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
