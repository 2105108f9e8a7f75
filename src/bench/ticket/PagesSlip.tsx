'use client';
import { ArrowDown, ArrowUp } from 'lucide-react';
import { movePage } from '@/core/edit/pages';
import { Button } from '@/ui/Button';
import { COMMAND_TABLE, runCommand } from '../commands/commands';
import { count } from '../session/commandDef';
import { useBench, useSession } from '../session/context';

/** Add, duplicate, delete, reorder, go to. */
export function PagesSlip() {
  const session = useSession();
  const pages = useBench((s) => s.design.pages);
  const current = useBench((s) => s.page);
  const move = (id: string, to: number) => session.commit('Move page', (d) => movePage(d, id, to));
  return (
    <div className="grid gap-3">
      <ol className="m-0 max-h-72 list-none overflow-auto p-0">
        {pages.map((p, i) => (
          <li
            key={p.id}
            className={`flex items-center gap-1 border-b border-l-3 border-b-line ${p.id === current ? 'border-l-accent bg-field' : 'border-l-transparent'}`}
          >
            <button
              type="button"
              aria-current={p.id === current ? 'page' : undefined}
              className="min-w-0 flex-1 truncate border-0 bg-transparent px-2 py-1.5 text-left hover:bg-line"
              onClick={() => session.goToPage(p.id)}
            >
              {p.name || `Page ${i + 1}`} <span className="text-faint">· {count(p.children.length, 'object')}</span>
            </button>
            <Button
              kind="quiet"
              aria-label={`Move page ${i + 1} up`}
              disabled={i === 0}
              onClick={() => move(p.id, i - 1)}
            >
              <ArrowUp size={14} aria-hidden />
            </Button>
            <Button
              kind="quiet"
              aria-label={`Move page ${i + 1} down`}
              disabled={i === pages.length - 1}
              onClick={() => move(p.id, i + 1)}
            >
              <ArrowDown size={14} aria-hidden />
            </Button>
          </li>
        ))}
      </ol>
      <div className="flex gap-2">
        <Button onClick={() => runCommand(session, 'page.add')}>Add</Button>
        <Button onClick={() => runCommand(session, 'page.duplicate')}>Duplicate</Button>
        <Button
          disabled={!COMMAND_TABLE['page.delete'].applies!(session)}
          onClick={() => runCommand(session, 'page.delete')}
        >
          Delete
        </Button>
      </div>
    </div>
  );
}
