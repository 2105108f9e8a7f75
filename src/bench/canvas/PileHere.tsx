'use client';
import { Popover } from 'radix-ui';
import { useEffect, useState } from 'react';
import { ancestry } from '@/core/model/tree';
import { useBench, useSession } from '../session/context';
import { backToBench } from '../session/focus';
import { nameOf } from '../session/nameOf';
import { PileThumb } from '../pile/PileThumb';
import { choose } from '../tools/pick';

/** What lies under the pointer, front first: point at a row to see which it is, press it to choose it. */
export function PileHere() {
  const session = useSession();
  const here = useBench((s) => s.pileHere);
  const design = useBench((s) => s.design);
  const [at, setAt] = useState(0);
  const [shownFor, setShownFor] = useState(here);
  if (here !== shownFor) {
    setShownFor(here);
    setAt(0);
  }
  const ids = here?.ids.filter((id) => design.nodes[id]) ?? [];
  const close = () => session.set({ pileHere: null, pointedAt: null });
  useEffect(() => {
    session.set({ pointedAt: here ? (here.ids[at] ?? null) : null });
  }, [session, here, at]);
  const take = (id: string) => {
    close();
    const line = ancestry(session.design, session.page, id);
    if (line.length > 1) session.enter(line[line.length - 2]);
    else session.leave();
    choose(session, [id]);
    session.say(`Selected ${nameOf(session.design, session.design.nodes[id])}.`);
  };
  return (
    <Popover.Root open={here !== null} onOpenChange={(open) => !open && close()}>
      <Popover.Anchor asChild>
        <span
          aria-hidden
          className="pointer-events-none absolute size-px"
          style={{ left: here?.x ?? 0, top: here?.y ?? 0 }}
        />
      </Popover.Anchor>
      <Popover.Portal>
        <Popover.Content
          side="right"
          align="start"
          sideOffset={14}
          collisionPadding={8}
          aria-label="Pile here"
          style={{ boxShadow: 'var(--shadow)' }}
          className="z-40 max-h-[60dvh] w-[240px] overflow-auto rounded-sm border border-line bg-panel outline-none"
          onCloseAutoFocus={backToBench}
        >
          <h2 className="m-0 border-b border-line px-3 py-2 text-[13px] font-semibold">Pile here, front first</h2>
          <div
            role="listbox"
            aria-label="Objects under the pointer"
            tabIndex={0}
            ref={(el) => el?.focus()}
            aria-activedescendant={ids[at] ? `here-${ids[at]}` : undefined}
            className="outline-none"
            onKeyDown={(e) => {
              if (e.key === 'Escape') return;
              e.stopPropagation();
              const to =
                e.key === 'ArrowDown'
                  ? at + 1
                  : e.key === 'ArrowUp'
                    ? at - 1
                    : e.key === 'Home'
                      ? 0
                      : e.key === 'End'
                        ? ids.length - 1
                        : null;
              if (to !== null) {
                e.preventDefault();
                setAt(Math.min(ids.length - 1, Math.max(0, to)));
              } else if ((e.key === 'Enter' || e.key === ' ') && ids[at]) {
                e.preventDefault();
                take(ids[at]);
              }
            }}
          >
            {ids.map((id, i) => {
              const line = ancestry(design, session.page, id);
              const group = line.length > 1 ? design.nodes[line[line.length - 2]] : null;
              return (
                <div
                  key={id}
                  id={`here-${id}`}
                  role="option"
                  aria-selected={i === at}
                  onPointerEnter={() => setAt(i)}
                  onClick={() => take(id)}
                  className={`flex h-8 cursor-pointer items-center gap-2 border-b border-l-3 border-b-line px-2 last:border-b-0 ${i === at ? 'border-l-accent bg-field' : 'border-l-transparent'}`}
                >
                  <PileThumb id={id} />
                  <span title={nameOf(design, design.nodes[id])} className="min-w-0 flex-1 truncate">
                    {nameOf(design, design.nodes[id])}
                  </span>
                  {group && (
                    <span title={nameOf(design, group)} className="max-w-20 truncate text-[12px] text-faint">
                      in {nameOf(design, group)}
                    </span>
                  )}
                </div>
              );
            })}
          </div>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
