'use client';
import { useEffect, useState } from 'react';
import { Button } from '@/ui/Button';
import { useBench, useSession } from './session/context';
import { backToBench, BENCH_TOP } from './session/focus';

/** The places of the bench, each with what it is for. */
const STEPS: readonly { readonly at: string; readonly title: string; readonly says: string }[] = [
  {
    at: `#${BENCH_TOP}`,
    title: 'The sheet',
    says: 'Press a lantern to choose it, drag it to move it. What is shown here is what will be printed.',
  },
  {
    at: 'section[aria-label="Pile"]',
    title: 'The pile',
    says: 'Everything on the page, the topmost first. What is hard to hit on the sheet is chosen here.',
  },
  {
    at: '[data-region="details"]',
    title: 'Details',
    says: 'What is chosen, in a sentence and in numbers: place, size, letters, colours. Everything can be typed.',
  },
  {
    at: '[data-region="tray"]',
    title: 'The ink tray',
    says: 'Press a card, and what is chosen takes its colour. Change a card, and everything of that colour follows.',
  },
  {
    at: '[role="radiogroup"][aria-label="View"]',
    title: 'Plates',
    says: 'Each ink by itself, as the printer will see it. Key 3 goes there, key 1 comes back.',
  },
  {
    at: '[data-hand-over]',
    title: 'Hand over',
    says: 'A PDF for the print shop, or a picture. Checks, beside it, tell beforehand what could go wrong.',
  },
];
/** CSS pixels: of the card, and between it and what it is about. */
const [WIDE, HIGH, GAP] = [300, 150, 12];

interface Spot {
  readonly x: number;
  readonly y: number;
  readonly w: number;
  readonly h: number;
}

/** A walk over the bench in six steps: nothing is barred meanwhile, and it can be left at any step. */
export function Walk() {
  const step = useBench((s) => s.walk);
  return step === null ? null : <Step key={step} step={step} />;
}

function Step({ step }: { step: number }) {
  const session = useSession();
  const { at, title, says } = STEPS[step];
  const [spot, setSpot] = useState<Spot | null>(null);
  useEffect(() => {
    const look = () => {
      const r = document.querySelector(at)?.getBoundingClientRect();
      setSpot(r ? { x: r.x, y: r.y, w: r.width, h: r.height } : null);
    };
    look();
    window.addEventListener('resize', look);
    return () => window.removeEventListener('resize', look);
  }, [at]);
  const go = (to: number | null) => {
    session.set({ walk: to });
    if (to !== null) return;
    backToBench();
    session.say('That was the walk. “Take the walk” in the finder (Ctrl K) shows it again.');
  };
  if (!spot) return null;
  const last = step === STEPS.length - 1;
  return (
    <>
      <div
        aria-hidden
        className="pointer-events-none fixed z-40 rounded-sm outline-3 outline-accent"
        style={{ left: spot.x, top: spot.y, width: spot.w, height: spot.h, outlineOffset: -3 }}
      />
      <section
        role="dialog"
        aria-label={`The walk, step ${step + 1} of ${STEPS.length}: ${title}`}
        onKeyDown={(e) => {
          e.stopPropagation();
          if (e.key === 'Escape') go(null);
        }}
        className="fixed z-50 grid gap-2 rounded-sm border border-line bg-panel p-4"
        style={{ ...placed(spot), width: WIDE, boxShadow: 'var(--shadow)' }}
      >
        <h2 className="m-0 text-[15px] font-semibold">{title}</h2>
        <p className="m-0">{says}</p>
        <div className="flex items-center gap-2">
          <span className="mr-auto text-[12px] text-faint">
            {step + 1} of {STEPS.length}
          </span>
          {!last && <Button onClick={() => go(null)}>Leave</Button>}
          {step > 0 && <Button onClick={() => go(step - 1)}>Back</Button>}
          <Button kind="primary" autoFocus onClick={() => go(last ? null : step + 1)}>
            {last ? 'Done' : 'Next'}
          </Button>
        </div>
      </section>
    </>
  );
}

/** Beside what the card is about where there is room, else over it. */
function placed({ x, y, w, h }: Spot): { left: number; top: number } {
  const { innerWidth, innerHeight } = window;
  const within = (v: number, most: number) => Math.max(GAP, Math.min(v, most - GAP));
  if (h < innerHeight / 3) {
    const below = y + h + GAP + HIGH < innerHeight;
    return {
      left: within(x + w / 2 - WIDE / 2, innerWidth - WIDE),
      top: below ? y + h + GAP : within(y - HIGH - GAP, innerHeight),
    };
  }
  const top = within(y + h * 0.3, innerHeight - HIGH);
  if (x + w + GAP + WIDE < innerWidth && w < innerWidth / 2) return { left: x + w + GAP, top };
  if (x - GAP - WIDE > 0 && w < innerWidth / 2) return { left: x - GAP - WIDE, top };
  return { left: x + w / 2 - WIDE / 2, top: y + h - HIGH - 3 * GAP };
}
