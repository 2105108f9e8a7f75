'use client';
import { useEffect, useEffectEvent, useRef } from 'react';
import { aimedNodes, FURTHER_AIMS, type Aim } from '@/core/edit/aims';
import { stopsOf } from '@/core/edit/paint';
import { unionAll } from '@/core/geometry/rect';
import { withDescendants } from '@/core/model/tree';
import { nearEdge, hitAll } from '@/core/scene/hit';
import { partsOf } from '@/core/scene/walk';
import { explained } from '@/ui/terms';
import { AIM_WORDS } from '../session/naming';
import { useBench, useSession } from '../session/context';
import { later } from '../session/later';
import { painterOf } from '../session/painter';
import { openColourHere } from './ColourHere';
import { aimedGradient, aimedPools } from '../tools/gradientTarget';

const SIZE = 52;
/** More objects than this are not told apart in the miniature. */
const MOST_SHOWN = 600;

/** The aims that a selection has; a shape's two when nothing is chosen. */
export function aimsOf(session: ReturnType<typeof useSession>): Aim[] {
  const { design } = session;
  const ids = session.state.selection;
  if (!ids.some((id) => design.nodes[id])) return ['fill', 'outline', 'ground'];
  return ALL_AIMS.filter((aim) => aimedNodes(design, ids, aim).length > 0);
}
const ALL_AIMS: readonly Aim[] = [
  'fill',
  'outline',
  'letters',
  'letterOutline',
  ...FURTHER_AIMS,
  'frame',
  'frameOutline',
  'shadow',
];

/** Where colour goes next: a miniature of the real selection, and the aims as words under it. */
export function AimTile() {
  const session = useSession();
  const design = useBench((s) => s.design);
  const selection = useBench((s) => s.selection);
  const aim = useBench((s) => s.aim);
  const stop = useBench((s) => s.stop);
  const epoch = useBench((s) => s.fontsEpoch + s.picturesEpoch);
  const canvas = useRef<HTMLCanvasElement>(null);
  const view = useRef({ scale: 1, x: 0, y: 0 });
  const aims = aimsOf(session);

  const draw = useEffectEvent(() => {
    const c = canvas.current;
    const ctx = c?.getContext('2d');
    if (!c || !ctx) return;
    ctx.setTransform(1, 0, 0, 1, 0, 0);
    ctx.clearRect(0, 0, c.width, c.height);
    // What a combination hides stands for the combination.
    const ids = new Set(aimedNodes(design, selection, 'fill'));
    for (const id of selection) if (design.nodes[id]) for (const held of withDescendants(design, id)) ids.add(held);
    const parts = partsOf(session.restingScene(design), ids);
    if (!parts.length) return;
    const box = unionAll(parts.map((p) => p.paintBounds));
    const scale = (c.width - 10) / Math.max(box.x1 - box.x0, box.y1 - box.y0, 0.01);
    view.current = {
      scale,
      x: c.width / 2 - ((box.x0 + box.x1) / 2) * scale,
      y: c.height / 2 - ((box.y0 + box.y1) / 2) * scale,
    };
    // So small, some of very many look like all of them.
    const step = Math.ceil(parts.length / MOST_SHOWN);
    painterOf(session).paint(
      ctx,
      step > 1 ? parts.filter((_, i) => i % step === 0) : parts,
      session.palette,
      view.current,
      box,
    );
  });
  useEffect(() => later(draw), [session, design, selection, epoch]);

  const gradient = stop === null ? null : aimedGradient(session);
  const pools = stop === null ? null : aimedPools(session);
  const beads = gradient
    ? { what: 'Stop', count: stopsOf(design, gradient.paint).length }
    : pools
      ? { what: 'Pool', count: pools.paint.pools.length }
      : null;
  return (
    <div className="flex w-[126px] shrink-0 flex-col gap-1 [@media(max-height:719px)]:group-not-hover/tray:group-not-focus-within/tray:flex-row [@media(max-height:719px)]:group-not-hover/tray:group-not-focus-within/tray:items-center">
      <div className="flex min-h-0 items-center gap-2">
        <button
          type="button"
          title="Click a part to aim at it and change its colour"
          aria-label={`Aim: ${AIM_WORDS[aim]}. Press to go to the next aim.`}
          className="rounded-sm border-3 border-accent bg-bench p-0"
          style={{ width: SIZE + 6, height: SIZE + 6, maxHeight: '100%' }}
          onClick={(e) => {
            if (e.detail === 0) {
              session.aimAt(aims[(aims.indexOf(aim) + 1) % aims.length]);
              return;
            }
            // A click into the miniature means the part that lies there.
            const r = e.currentTarget.getBoundingClientRect();
            const k = canvas.current!.width / SIZE;
            const v = view.current;
            const p = {
              x: ((e.clientX - r.left - 3) * k - v.x) / v.scale,
              y: ((e.clientY - r.top - 3) * k - v.y) / v.scale,
            };
            const nodes = new Set(
              aimedNodes(design, selection, 'fill').concat(aimedNodes(design, selection, 'letters')),
            );
            const hit = hitAll(session.scene(), p, 4 / v.scale).find((h) => nodes.has(h.node));
            if (selection.length) openColourHere(session, e);
            if (hit)
              session.set({
                aim:
                  hit.part === 'letters'
                    ? 'letters'
                    : nearEdge(session.scene(), hit.node, p, 8 / v.scale) && aims.includes('outline')
                      ? 'outline'
                      : aims.includes('fill')
                        ? 'fill'
                        : aims[0],
                stop: null,
              });
          }}
        >
          <canvas
            ref={canvas}
            aria-hidden
            width={SIZE * 2}
            height={SIZE * 2}
            style={{ width: SIZE, height: SIZE }}
            className="block max-h-full"
          />
        </button>
        {selection.length === 0 && (
          <span className="text-[12px] leading-4 text-faint [@media(max-height:719px)]:hidden">Nothing chosen</span>
        )}
        {beads && stop !== null && (
          <span className="text-[12px]">
            {beads.what} {stop + 1} of {beads.count}
          </span>
        )}
      </div>
      <div role="radiogroup" aria-label="Aim" className="flex flex-wrap gap-x-1.5 text-[12px] leading-4">
        {aims.map((a) => (
          <button
            key={a}
            type="button"
            role="radio"
            aria-checked={aim === a}
            title={explained(AIM_WORDS[a])}
            onClick={() => session.aimAt(a)}
            className={`cursor-pointer border-0 bg-transparent p-0 ${aim === a ? 'font-semibold key-line' : 'text-faint'}`}
          >
            {AIM_WORDS[a]}
          </button>
        ))}
      </div>
    </div>
  );
}
