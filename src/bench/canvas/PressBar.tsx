'use client';
import { useEffect, useRef } from 'react';
import { hexOf } from '@/core/colour/spaces';
import type { PlateLook } from '@/core/render/plateLooks';
import { usedChannels } from '@/core/scene/used';
import { comesLater } from '../session/comesLater';
import { useBench, useSession } from '../session/context';
import { BENCH_TOP } from '../session/focus';
import { inksShown, shownDesign } from '../session/state';
import { wholeSpread } from '../view/inSight';

const PlateTools = comesLater(
  () => import('./PlateTools').then((m) => m.PlateTools),
  () => <span className="h-5" />,
);

const SHORT: Record<string, string> = { Cyan: 'C', Magenta: 'M', Yellow: 'Y', Black: 'K' };

/** Room an upright bar takes, with the name of a spot ink in it. */
const UPRIGHT_WIDTH = 112;
/** What is said of a choice lies at the foot of the bench top, so high. */
const FOOT = 34;

/** Outside the trim, along the page's edge: the inks really used on this page. Press one to see its plate. */
export function PressBar() {
  const session = useSession();
  const design = useBench((s) => s.design);
  useBench((s) => s.page);
  const view = useBench((s) => s.view);
  const shown = useBench(inksShown);
  const look = useBench((s) => s.plateLook);
  const bar = useRef<HTMLDivElement>(null);

  useEffect(() => {
    const el = bar.current;
    const host = document.getElementById(BENCH_TOP);
    if (!el || !host) return;
    // Sizes are told where they change: to ask for them in each frame of a pan would lay everything out each time.
    let room = { w: host.clientWidth, h: host.clientHeight };
    let own = { w: el.offsetWidth, h: el.offsetHeight };
    const place = () => {
      const { camera } = session.state;
      const { height, bleed } = session.setup;
      const right = wholeSpread(session).x1 * camera.scale + camera.x + 10;
      const foot = (height + bleed) * camera.scale + camera.y + 10;
      // Beside the sheet where there is room, else under it, else at the window's edge.
      const beside = right + UPRIGHT_WIDTH <= room.w;
      const under = !beside && foot + 24 <= room.h;
      el.toggleAttribute('data-under', under);
      const x = under ? Math.max(4, Math.min(camera.x, room.w - own.w - 4)) : Math.min(right, room.w - own.w - 4);
      const y = Math.max(4, Math.min(under ? foot : camera.y, room.h - own.h - (under ? FOOT : 4)));
      el.style.transform = `translate(${Math.round(x)}px, ${Math.round(y)}px)`;
    };
    place();
    const sizes = new ResizeObserver(() => {
      room = { w: host.clientWidth, h: host.clientHeight };
      own = { w: el.offsetWidth, h: el.offsetHeight };
      place();
    });
    sizes.observe(el);
    sizes.observe(host);
    const stop = session.store.subscribe((s, before) => {
      const [now, was] = [shownDesign(s), shownDesign(before)];
      const moved = s.camera !== before.camera || s.page !== before.page;
      if (moved || now.setup !== was.setup || now.pages !== was.pages || now.masters !== was.masters) place();
    });
    return () => {
      sizes.disconnect();
      stop();
    };
  });

  const palette = session.palettes.get(design);
  if (palette.screen || view === 'clean') return null;
  const used = usedChannels(session.restingScene(design), palette);
  if (!used.length) return null;
  return (
    <div
      ref={bar}
      role="group"
      aria-label="Inks on this page"
      className="group absolute top-0 left-0 flex max-w-full flex-col gap-px data-under:flex-row data-under:flex-wrap"
    >
      {used.map((i) => {
        const ink = palette.channels[i];
        const only = shown?.size === 1 && shown.has(ink);
        return (
          <button
            key={ink}
            type="button"
            aria-pressed={only}
            title={only ? 'Show all plates' : `Show the plate of ${ink}`}
            onClick={() => session.set(only ? { shownInks: null } : { view: 'plates', shownInks: new Set([ink]) })}
            className={`flex h-5 items-center gap-1.5 rounded-sm pr-1.5 text-[12px] text-text ${only ? 'bg-panel font-semibold outline-2 outline-accent' : 'bg-panel/85 hover:bg-panel'}`}
          >
            <span
              className="size-5 rounded-l-sm border border-edge"
              style={{ background: hexOf(palette.lookOfMix(palette.channels.map((_, j) => (i === j ? 1 : 0)))) }}
            />
            {SHORT[ink] ?? ink}
          </button>
        );
      })}
      {view === 'plates' && (
        <div
          role="radiogroup"
          aria-label="Plates shown"
          className="mt-2 grid gap-px group-data-under:mt-0 group-data-under:ml-2 group-data-under:grid-flow-col"
        >
          {LOOKS.map(({ value, label, hint }) => (
            <button
              key={value}
              type="button"
              role="radio"
              aria-checked={look === value}
              title={hint}
              onClick={() => session.set({ plateLook: value, ...(value === 'total' && { shownInks: null }) })}
              className={`h-5 rounded-sm px-1.5 text-left text-[12px] text-text ${look === value ? 'bg-panel font-semibold outline-2 outline-accent' : 'bg-panel/85 hover:bg-panel'}`}
            >
              {label}
            </button>
          ))}
          <PlateTools />
        </div>
      )}
    </div>
  );
}

const LOOKS: readonly { readonly value: PlateLook; readonly label: string; readonly hint: string }[] = [
  { value: 'ink', label: 'As inks', hint: 'Each plate in the colour of its ink' },
  { value: 'black', label: 'As films', hint: 'Each plate in black: how dark it is' },
  { value: 'total', label: 'Total ink', hint: 'How much ink lies where; red is more than the paper bears' },
];
