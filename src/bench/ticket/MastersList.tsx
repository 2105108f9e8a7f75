'use client';
import { useDraggable } from '@dnd-kit/core';
import type { Page } from '@/core/model/schema';
import { followersOf } from '@/core/model/tree';
import { Button } from '@/ui/Button';
import { COMMAND_TABLE, runCommand } from '../commands/commands';
import { count } from '../session/commandDef';
import { useBench, useSession } from '../session/context';
import { sheetName } from '../session/naming';

/** The masters, each a press away, and how many pages stand on it. */
export function MastersList() {
  const session = useSession();
  const design = useBench((s) => s.design);
  const current = useBench((s) => s.page);
  const { masters } = design;
  return (
    <div className="grid gap-1">
      <h3 className="m-0 text-[12px] font-normal text-faint">Masters: what they have lies on all their pages</h3>
      {masters && (
        <ul className="m-0 max-h-40 list-none overflow-auto p-0">
          {masters.map((m) => (
            <MasterRow key={m.id} master={m} current={m.id === current} />
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

/** A master: gone to by a press, given to a page by dragging it there. */
function MasterRow({ master, current }: { master: Page; current: boolean }) {
  const session = useSession();
  const design = useBench((s) => s.design);
  const drag = useDraggable({ id: master.id });
  const shown = drag.transform
    ? { transform: `translate(${drag.transform.x}px, ${drag.transform.y}px)`, zIndex: 1 }
    : {};
  return (
    <li
      ref={drag.setNodeRef}
      style={shown}
      className={`relative border-b border-l-3 border-b-line ${current ? 'border-l-accent bg-field' : 'border-l-transparent'}`}
    >
      <button
        type="button"
        aria-current={current ? 'page' : undefined}
        title="Press to edit it; drag it onto a page to let that stand on it"
        className="w-full cursor-pointer truncate border-0 bg-transparent px-2 py-1.5 text-left hover:bg-line"
        onClick={() => session.goToPage(master.id)}
        {...drag.listeners}
      >
        {sheetName(design, master)}{' '}
        <span className="text-faint">· on {count(followersOf(design, master.id).length, 'page')}</span>
      </button>
    </li>
  );
}
