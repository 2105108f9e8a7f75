'use client';
import { ArrowDown, ArrowUp } from 'lucide-react';
import { followersOf } from '@/core/edit/masters';
import { movePage } from '@/core/edit/pages';
import { Button } from '@/ui/Button';
import { COMMAND_TABLE, runCommand } from '../commands/commands';
import { count } from '../session/commandDef';
import { useBench, useSession } from '../session/context';
import { sheetName } from '../session/naming';

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
      <Masters />
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

/** The masters, each a press away, and how many pages stand on it. */
function Masters() {
  const session = useSession();
  const design = useBench((s) => s.design);
  const current = useBench((s) => s.page);
  const { masters } = design;
  return (
    <div className="grid gap-1">
      <h3 className="m-0 text-[12px] font-normal text-faint">Masters</h3>
      {masters && (
        <ul className="m-0 max-h-40 list-none overflow-auto p-0">
          {masters.map((m) => (
            <li
              key={m.id}
              className={`border-b border-l-3 border-b-line ${m.id === current ? 'border-l-accent bg-field' : 'border-l-transparent'}`}
            >
              <button
                type="button"
                aria-current={m.id === current ? 'page' : undefined}
                className="w-full truncate border-0 bg-transparent px-2 py-1.5 text-left hover:bg-line"
                onClick={() => session.goToPage(m.id)}
              >
                {sheetName(design, m)}{' '}
                <span className="text-faint">· on {count(followersOf(design, m.id).length, 'page')}</span>
              </button>
            </li>
          ))}
        </ul>
      )}
      <div className="flex gap-2">
        <Button
          disabled={!COMMAND_TABLE['master.fromPage'].applies!(session)}
          onClick={() => runCommand(session, 'master.fromPage')}
        >
          Of this page
        </Button>
        <Button onClick={() => runCommand(session, 'master.add')}>Add an empty one</Button>
      </div>
    </div>
  );
}
