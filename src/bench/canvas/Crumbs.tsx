'use client';
import { ancestry } from '@/core/model/tree';
import { useBench, useSession } from '../session/context';
import { runCommand } from '../commands/commands';
import { nameOf } from '../session/nameOf';
import { choose } from '../tools/pick';
import { link } from '@/ui/link';

/** Where one is while working inside a group: every step out is a button. */
export function Crumbs() {
  const session = useSession();
  const entered = useBench((s) => s.entered);
  const isolated = useBench((s) => s.isolated);
  const design = useBench((s) => s.design);
  const view = useBench((s) => s.view);
  if (!entered || !design.nodes[entered] || view !== 'work') return null;
  const line = ancestry(design, session.page, entered);
  const go = (to: string | null) => {
    const child = to === null ? line[0] : line[line.indexOf(to) + 1];
    session.isolate(false);
    session.leave(to);
    if (child) choose(session, [child]);
  };
  return (
    <nav
      aria-label="Inside"
      className={`absolute top-1 left-1 z-10 flex max-w-[calc(100%-8px)] items-center gap-1.5 rounded-sm border bg-panel px-2 py-1 text-[12px] ${isolated ? 'border-accent' : 'border-line'}`}
    >
      <button type="button" className={link} onClick={() => go(null)}>
        Page
      </button>
      {line.map((id, i) => (
        <span key={id} className="flex min-w-0 items-center gap-1.5">
          <span aria-hidden className="text-faint">
            ›
          </span>
          {i === line.length - 1 ? (
            <b className="truncate" aria-current="true">
              {nameOf(design, design.nodes[id])}
            </b>
          ) : (
            <button type="button" className={`${link} truncate`} onClick={() => go(id)}>
              {nameOf(design, design.nodes[id])}
            </button>
          )}
        </span>
      ))}
      <button
        type="button"
        aria-pressed={isolated}
        className={`ml-2 ${link} ${isolated ? 'font-semibold text-accent' : ''}`}
        onClick={() => runCommand(session, 'select.isolate')}
      >
        {isolated ? 'Only this: show all again' : 'Only this'}
      </button>
    </nav>
  );
}
