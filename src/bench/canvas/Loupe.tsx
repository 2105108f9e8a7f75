'use client';
import { useEffect, useRef, useState } from 'react';
import { usedChannels } from '@/core/scene/used';
import { mm } from '@/core/units/length';
import { NumberField } from '@/ui/NumberField';
import { WordChoice } from '@/ui/Choice';
import { Button } from '@/ui/Button';
import { BENCH_TOP } from '../session/focus';
import { useBench, useSession } from '../session/context';

/** Pixels of the loupe's glass. */
const GLASS = 208;
const SIDES: readonly { readonly value: string; readonly label: string }[] = [
  { value: '2', label: '2 mm' },
  { value: '4', label: '4 mm' },
  { value: '8', label: '8 mm' },
];
/** A plate that lies further aside than this (points) is no plate of the same job. */
const MOST_ASIDE = mm(2);

/** What lies under the pointer as the press lays it: in dots, and each plate as far aside as is typed. */
export function Loupe() {
  const session = useSession();
  const loupe = useBench((s) => s.loupe)!;
  const design = useBench((s) => s.design);
  const { palette } = session;
  const used = usedChannels(session.restingScene(design), palette);
  const glass = useRef<HTMLCanvasElement>(null);
  const [at, setAt] = useState(() => ({ x: session.setup.width / 2, y: session.setup.height / 2 }));

  useEffect(() => {
    const follow = (e: PointerEvent) => {
      const top = document.getElementById(BENCH_TOP);
      if (!top || !(e.target instanceof Node) || !top.contains(e.target)) return;
      if ((e.target as HTMLElement).closest('[data-loupe]')) return;
      const box = top.getBoundingClientRect();
      const { camera } = session.state;
      setAt({
        x: (e.clientX - box.left - camera.x) / camera.scale,
        y: (e.clientY - box.top - camera.y) / camera.scale,
      });
    };
    addEventListener('pointermove', follow, { passive: true });
    return () => removeEventListener('pointermove', follow);
  }, [session]);

  // One is made at a time; what was asked for meanwhile is asked for then.
  const busy = useRef(false);
  const [turn, setTurn] = useState(0);
  useEffect(() => {
    if (busy.current) return;
    busy.current = true;
    const pixels = Math.round(GLASS * Math.min(2, devicePixelRatio || 1));
    const ask = { page: session.page.id, ...at, side: loupe.side, pixels, aside: loupe.aside };
    const asked = JSON.stringify(ask);
    void session.press
      .loupe(ask)
      .then(
        (made) => {
          const canvas = glass.current;
          if (!canvas || !made) return;
          canvas.width = made.width;
          canvas.height = made.height;
          canvas.getContext('2d')!.putImageData(new ImageData(made.pixels, made.width, made.height), 0, 0);
          canvas.dataset.shows = asked;
        },
        () => {},
      )
      .finally(() => {
        busy.current = false;
        setTurn((n) => n + (wanted.current === asked ? 0 : 1));
      });
  }, [session, at, loupe, design, turn]);
  const wanted = useRef('');
  useEffect(() => {
    const pixels = Math.round(GLASS * Math.min(2, devicePixelRatio || 1));
    wanted.current = JSON.stringify({ page: session.page.id, ...at, side: loupe.side, pixels, aside: loupe.aside });
  });

  const shift = (ink: string, which: 0 | 1, by: number) => {
    const now = loupe.aside[ink] ?? [0, 0];
    session.set({
      loupe: { ...loupe, aside: { ...loupe.aside, [ink]: which ? [now[0], by] : [by, now[1]] } },
    });
  };
  return (
    <section
      aria-label="Loupe"
      data-loupe
      style={{ boxShadow: 'var(--shadow)' }}
      className="absolute top-3 left-3 z-10 grid w-[240px] gap-2 rounded-sm border border-line bg-panel p-3"
      onPointerDown={(e) => e.stopPropagation()}
    >
      <canvas
        ref={glass}
        aria-label="What the press lays under the pointer"
        role="img"
        className="mx-auto rounded-full border border-edge"
        style={{ width: GLASS, height: GLASS }}
      />
      <WordChoice
        label="The loupe shows"
        tight
        value={SIDES.find((s) => mm(Number(s.value)) === loupe.side)?.value ?? null}
        options={SIDES}
        onChange={(v) => session.set({ loupe: { ...loupe, side: mm(Number(v)) } })}
      />
      <p className="m-0 text-[12px] text-faint">Plates that lie aside, across and down:</p>
      <div className="grid gap-1">
        {used.map((i) => {
          const ink = palette.channels[i];
          const [x, y] = loupe.aside[ink] ?? [0, 0];
          return (
            <div key={ink} className="grid grid-cols-[1fr_64px_64px] items-center gap-1">
              <span title={ink} className="truncate text-[12px]">
                {ink}
              </span>
              {([x, y] as const).map((v, which) => (
                <NumberField
                  key={which}
                  label={which ? '↓' : '→'}
                  name={`${ink} ${which ? 'down' : 'across'}`}
                  unit="mm"
                  tight
                  decimals={2}
                  min={-MOST_ASIDE}
                  max={MOST_ASIDE}
                  step={mm(0.05)}
                  value={v}
                  onCommit={(to) => shift(ink, which as 0 | 1, to)}
                />
              ))}
            </div>
          );
        })}
      </div>
      <Button onClick={() => session.set({ loupe: null })}>Put the loupe away</Button>
    </section>
  );
}
