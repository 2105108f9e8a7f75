'use client';
import { useEffect, useEffectEvent, useMemo, useRef } from 'react';
import { groundSet, type GroundChoice } from '@/core/edit/groundSet';
import { setGround } from '@/core/edit/masters';
import type { Page } from '@/core/model/schema';
import { groundParts } from '@/core/scene/ground';
import { bleedRect } from '@/core/scene/scene';
import { useBench, useSession } from '../session/context';
import { later } from '../session/later';
import { painterOf } from '../session/painter';

/** Pixels of a sample on the screen. */
const [WIDE, HIGH] = [74, 50];
/** Marks are shown so many times as large as on the page: else a sample would be grey. */
const LARGER = 2.2;
const FAMILIES = ['Flat', 'Gradient', 'Pools', 'Pattern'] as const;

/** The grounds that the design's colours make: pointed at, each shows on the page; pressed, it stays. */
export function GroundSet({ sheet, onDone }: { sheet: string; onDone: () => void }) {
  const session = useSession();
  const design = useBench((s) => s.design);
  const { palette, setup } = session;
  const choices = useMemo(() => groundSet(design, setup, (c) => palette.labOf(c)), [design, setup, palette]);
  const put = (g: GroundChoice) => (d: Parameters<typeof setGround>[0]) => setGround(d, sheet, g.paint, g.pattern);
  return (
    <div className="grid gap-2">
      {FAMILIES.map((family) => (
        <section key={family} aria-label={family}>
          <h3 className="m-0 mb-1 text-[12px] font-normal text-faint">{family}</h3>
          <div className="flex flex-wrap gap-1.5">
            {choices
              .filter((g) => g.family === family)
              .map((g) => (
                <button
                  key={g.id}
                  type="button"
                  title={g.name}
                  aria-label={g.name}
                  className="cursor-pointer rounded-sm border border-edge p-0 hover:border-accent focus-visible:border-accent"
                  onPointerEnter={() => session.preview(put(g))}
                  onPointerLeave={() => session.preview(null)}
                  onFocus={() => session.preview(put(g))}
                  onBlur={() => session.preview(null)}
                  onClick={() => {
                    session.preview(null);
                    session.commit(`Ground: ${g.name}`, put(g));
                    session.aimAt('ground');
                    onDone();
                  }}
                >
                  <Sample choice={g} />
                </button>
              ))}
          </div>
        </section>
      ))}
    </div>
  );
}

function Sample({ choice }: { choice: GroundChoice }) {
  const session = useSession();
  const design = useBench((s) => s.design);
  const canvas = useRef<HTMLCanvasElement>(null);
  const draw = useEffectEvent(() => {
    const ctx = canvas.current?.getContext('2d');
    if (!ctx) return;
    const { paint, pattern } = choice;
    const page: Page = {
      id: 'sample',
      name: '',
      children: [],
      ground: paint,
      ...(pattern && { pattern: { ...pattern, size: pattern.size * LARGER } }),
    };
    const box = bleedRect(session.setup);
    // As much of the page as its width shows.
    const scale = (WIDE * 2) / (box.x1 - box.x0);
    ctx.clearRect(0, 0, WIDE * 2, HIGH * 2);
    const view = { scale, x: -box.x0 * scale, y: -box.y0 * scale };
    painterOf(session).paint(ctx, groundParts({ ...design, setup: session.setup }, page), session.palette, view, box);
  });
  useEffect(() => later(draw), [choice, design]);
  return (
    <canvas
      ref={canvas}
      aria-hidden
      width={WIDE * 2}
      height={HIGH * 2}
      style={{ width: WIDE, height: HIGH }}
      className="block rounded-[3px]"
    />
  );
}
